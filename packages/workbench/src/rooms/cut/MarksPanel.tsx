import type { Sheet } from 'dot-hop';
import { between, copyMarks, removeMark } from 'dot-hop/edit';
import { commonFeet, feetOfCells } from 'dot-hop/gather';
import { Copy, Footprints, Plus, Spline, X } from 'lucide-react';
import { useState } from 'react';
import {
  Button,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  Menu,
  MenuItem,
  MenuTrigger,
  Popover,
  TextField,
} from 'react-aria-components';
import { act, tell, useWorkbench } from '../../character/store.js';
import { IconButton, NumberBox } from '../../parts/ui.js';
import { CloseUp } from './CloseUp.js';
import { markKey, placeOf, putMark } from './mark.js';
import type { Mark, Place } from './mark.js';

/** Where a mark begins that a cell does not have yet. */
const unplaced = ({ kind }: Mark): Place => (kind === 'boxes' ? [0, 0, 8, 8] : [0, 0]);

/** The marks of the selected cells, seen close. */
export function MarksPanel({ sheet }: { readonly sheet: Sheet }) {
  const selected = useWorkbench((state) => state.selection.cells);
  const [mark, setMark] = useState<Mark>({ kind: 'pivot' });
  const index = selected[selected.length - 1] ?? 0;
  const cell = sheet.cells[index];
  if (cell === undefined) return null;
  const cells = selected.length === 0 ? [index] : selected.filter((one) => sheet.cells[one] !== undefined);
  const names = (kind: 'boxes' | 'points'): string[] => [
    ...new Set(sheet.cells.flatMap((one) => Object.keys(one[kind]))),
  ];
  const marks: Mark[] = [
    { kind: 'pivot' },
    ...names('boxes').map((name): Mark => ({ kind: 'boxes', name })),
    ...names('points').map((name): Mark => ({ kind: 'points', name })),
    ...(mark.kind !== 'pivot' && !names(mark.kind).includes(mark.name) ? [mark] : []),
  ];
  const place = placeOf(cell, mark);
  const stand = (how: 'each' | 'one'): void => {
    const { drawn } = useWorkbench.getState();
    const meant = selected.length === 0 ? sheet.cells : cells.map((one) => sheet.cells[one]!);
    const feet = feetOfCells(meant, (image) => drawn.get(image)?.picture);
    const common = how === 'one' ? commonFeet(feet) : undefined;
    const count = Object.keys(feet).length;
    if (count === 0) {
      tell('Nothing is drawn in these cells.', true);
      return;
    }
    putMark(
      sheet,
      { kind: 'pivot' },
      common === undefined ? feet : Object.fromEntries(meant.map((one) => [one.index, common])),
    );
    tell(
      `${count} ${count === 1 ? 'drawing stands' : 'drawings stand'} on ${common === undefined ? 'their own feet' : 'one foot line'}.`,
    );
  };
  const followThrough = (): void => {
    const ordered = [...cells].sort((a, b) => a - b);
    const ends = [ordered[0]!, ordered[ordered.length - 1]!].map((one) => placeOf(sheet.cells[one]!, mark));
    if (ends[0] === undefined || ends[1] === undefined) {
      tell('Place it in the first and in the last of the selected cells; those between follow.', true);
      return;
    }
    putMark(sheet, mark, between<Place>(ordered, ends[0], ends[1]));
  };
  return (
    <section className="marks" aria-label={`marks of cell ${index}`}>
      <div className="row spread">
        <h2>cell {index}</h2>
        <MenuTrigger>
          <Button className="small" data-testid="stand">
            <Footprints size={14} /> stand on the feet
          </Button>
          <Popover className="list">
            <Menu onAction={(key) => stand(key as 'each' | 'one')}>
              <MenuItem id="one">
                {selected.length === 0 ? 'all cells' : `${cells.length} selected`}: one foot line for all
              </MenuItem>
              <MenuItem id="each">
                {selected.length === 0 ? 'all cells' : `${cells.length} selected`}: each on its own feet
              </MenuItem>
            </Menu>
          </Popover>
        </MenuTrigger>
      </div>
      <CloseUp
        sheet={sheet}
        cell={cell}
        mark={mark}
        onPlace={(at, isDrag) =>
          putMark(sheet, mark, { [index]: at }, isDrag ? `place ${markKey(mark)} ${index}` : undefined)
        }
      />
      <ListBox
        className="mark-list"
        aria-label="what is placed"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[markKey(mark)]}
        onSelectionChange={(keys) => {
          const found = marks.find((one) => keys !== 'all' && keys.has(markKey(one)));
          if (found !== undefined) setMark(found);
        }}
      >
        {marks.map((one) => (
          <ListBoxItem key={markKey(one)} id={markKey(one)} textValue={markKey(one)} className={one.kind}>
            {one.kind === 'pivot' ? 'feet (pivot)' : `${one.name} `}
            <small>{one.kind === 'pivot' ? '' : one.kind === 'boxes' ? 'box' : 'point'}</small>
          </ListBoxItem>
        ))}
      </ListBox>
      <div className="fields four">
        {(['x', 'y', 'width', 'height'] as const).map((label, i) =>
          i > 1 && mark.kind !== 'boxes' ? null : (
            <NumberBox
              key={label}
              label={label}
              least={i > 1 ? 1 : -999}
              value={place?.[i]}
              onChange={(value) => {
                // A number counts for all cells that are selected; what else they have they keep.
                const changed = (one: number): Place => {
                  const before = placeOf(sheet.cells[one]!, mark) ?? place ?? unplaced(mark);
                  return before.map((part, n) => (n === i ? value : part)) as unknown as Place;
                };
                putMark(sheet, mark, Object.fromEntries(cells.map((one) => [one, changed(one)])));
              }}
            />
          ),
        )}
      </div>
      <div className="row">
        <AddMark onAdd={setMark} />
        <IconButton
          label="between the first and the last selected, it follows"
          isDisabled={cells.length < 3}
          onPress={followThrough}
        >
          <Spline size={15} />
        </IconButton>
        <IconButton
          label={`copy all marks of cell ${cells[0] ?? index} to the other selected cells`}
          isDisabled={cells.length < 2}
          onPress={() =>
            act(copyMarks(useWorkbench.getState().definition, sheet.name, cells[0]!, cells.slice(1)))
          }
        >
          <Copy size={15} />
        </IconButton>
        <IconButton
          label="delete it from these cells"
          isDisabled={mark.kind === 'pivot'}
          onPress={() => {
            if (mark.kind === 'pivot') return;
            const edit = removeMark(
              useWorkbench.getState().definition,
              sheet.name,
              mark.kind,
              mark.name,
              cells,
            );
            if (edit.changes.length > 0) act(edit);
            else tell('The sheet says it for all of its cells; it is changed in the text.', true);
          }}
        >
          <X size={15} />
        </IconButton>
      </div>
    </section>
  );
}

/** A new box or point, by its name. */
function AddMark({ onAdd }: { readonly onAdd: (mark: Mark) => void }) {
  const [name, setName] = useState('');
  const add = (kind: 'boxes' | 'points'): void => {
    onAdd({ kind, name: name.trim() });
    setName('');
    tell(kind === 'boxes' ? `Drag the box ${name} in the close-up.` : `Click where ${name} is.`);
  };
  const isName = name.trim() !== '';
  return (
    <div className="add">
      <TextField aria-label="name of a new box or point" value={name} onChange={setName}>
        <Label className="hidden">name of a new box or point</Label>
        <Input placeholder="new: strike, hand …" />
      </TextField>
      <IconButton label="new box" isDisabled={!isName} onPress={() => add('boxes')}>
        <Plus size={13} /> box
      </IconButton>
      <IconButton label="new point" isDisabled={!isName} onPress={() => add('points')}>
        <Plus size={13} /> point
      </IconButton>
    </div>
  );
}
