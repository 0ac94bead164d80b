import type { Cell } from 'dot-hop';
import { addClip, clipsUsing, dropCells, joinCells, moveCell, splitCell } from 'dot-hop/edit';
import { quietLine } from 'dot-hop/gather';
import { ArrowLeft, ArrowRight, Combine, Film, Split as SplitIcon, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Button } from 'react-aria-components';
import { beginWithDrawings } from '../../character/place.js';
import { act, select, showText, tell, useWorkbench } from '../../character/store.js';
import { useSheet } from '../../character/sheet.js';
import { Choice } from '../../parts/ui.js';
import { CellTools, runKey } from './CellTools.js';
import type { CellAction } from './CellTools.js';
import { CutPanel } from './CutPanel.js';
import { cutWith } from './cut-with.js';
import type { Proposal } from './CutPanel.js';
import { layoutOf } from './layout.js';
import { MarksPanel } from './MarksPanel.js';
import { PartsPanel } from './PartsPanel.js';
import { SheetView } from './SheetView.js';
import type { Split } from './SplitLine.js';

/** Drawings come in here, and become cells that stand where the character stands. */
export function CutRoom() {
  const definition = useWorkbench((state) => state.definition);
  const selection = useWorkbench((state) => state.selection);
  const sheet = useSheet(selection.sheet);
  const drawn = useWorkbench((state) => state.drawn);
  const image = selection.sheet === undefined ? undefined : definition.sheets[selection.sheet]?.image;
  const layout = useMemo(() => layoutOf(sheet, image, drawn), [sheet, image, drawn]);
  const [proposal, setProposal] = useState<Proposal | undefined>();
  const [split, setSplit] = useState<Split | undefined>();
  const isReadable = useWorkbench((state) => state.isReadable);
  const names = Object.keys(definition.sheets);
  if (names.length === 0 || selection.sheet === undefined) return isReadable ? <Empty /> : <Unreadable />;
  const own = definition.sheets[selection.sheet];
  const { cells } = selection;
  const size = { columns: sheet?.columns ?? 1, count: sheet?.cells.length ?? 0 };
  const isFree = own?.cells !== undefined && own.compose === undefined;
  const remove = (): void => {
    if (cells.length === 0) return;
    if (!isFree) {
      tell(
        'The cells of a grid stay. Take them out of the clips that show them, or cut the sheet by its drawings.',
        true,
      );
      return;
    }
    const using = clipsUsing(definition, selection.sheet!, cells, size);
    act(dropCells(definition, selection.sheet!, cells));
    select({ cells: [] });
    if (using.length > 0)
      tell(
        `Deleted. ${using.join(', ')} showed ${cells.length === 1 ? 'it' : 'them'} and ${using.length === 1 ? 'is' : 'are'} shorter now; undo brings all back.`,
      );
  };
  const grid = own?.grid;
  const name = selection.sheet;
  const single = cells.length === 1 ? sheet?.cells[cells[0]!] : undefined;
  // The line is for the cell that was selected when it was asked for, as it was cut then.
  const meant = split !== undefined && split.cell === single && isFree ? split : undefined;
  const splitOf = (cell: Cell, along: 'x' | 'y'): Split => {
    const picture = drawn.get(cell.image)?.picture;
    const middle = along === 'x' ? cell.x + (cell.width >> 1) : cell.y + (cell.height >> 1);
    return { cell, along, at: picture === undefined ? middle : quietLine(picture, cell, along) };
  };
  const renumber = (by: number): void => {
    act(moveCell(definition, name, cells[0]!, cells[0]! + by));
    select({ cells: [cells[0]! + by] });
  };
  const actions: CellAction[] = [
    {
      label: 'make a clip of these cells',
      key: 'c',
      icon: <Film size={16} />,
      isDisabled: cells.length === 0,
      run: () => makeClip(definition, name, cells),
    },
    {
      label: 'join into one cell',
      key: 'j',
      icon: <Combine size={16} />,
      isDisabled: !isFree || cells.length < 2,
      run: () => {
        act(joinCells(definition, name, cells));
        select({ cells: [Math.min(...cells)] });
      },
    },
    {
      label: 'split in two',
      key: 's',
      icon: <SplitIcon size={16} />,
      isOn: meant !== undefined,
      isDisabled: !isFree || single === undefined || single.width * single.height < 2,
      run: () => setSplit(meant === undefined ? splitOf(single!, single!.width > 1 ? 'x' : 'y') : undefined),
    },
    {
      label: 'one number earlier',
      key: '[',
      icon: <ArrowLeft size={16} />,
      isDisabled: !isFree || cells.length !== 1 || cells[0] === 0,
      run: () => renumber(-1),
    },
    {
      label: 'one number later',
      key: ']',
      icon: <ArrowRight size={16} />,
      isDisabled: !isFree || cells.length !== 1 || cells[0] === size.count - 1,
      run: () => renumber(1),
    },
    {
      label: 'delete these cells',
      key: 'Delete',
      icon: <Trash2 size={16} />,
      isDisabled: cells.length === 0,
      run: remove,
    },
  ];
  return (
    <div className="cut">
      <div className="panel">
        {names.length > 1 ? (
          <Choice
            label="sheet"
            value={selection.sheet}
            options={Object.fromEntries(names.map((name) => [name, name]))}
            onChange={(name) => select({ sheet: name, cells: [] })}
          />
        ) : (
          <h2>{selection.sheet}</h2>
        )}
        <CutPanel sheet={selection.sheet} proposal={proposal} onProposal={setProposal} />
        {sheet === undefined ? null : <MarksPanel sheet={sheet} />}
        {sheet === undefined ? null : <PartsPanel sheet={sheet} />}
      </div>
      <div className="middle">
        <CellTools
          says={
            cells.length === 0
              ? `${size.count} cells`
              : cells.length === 1
                ? `cell ${cells[0]!} of ${size.count}`
                : `${cells.length} cells of ${size.count}`
          }
          hint={
            meant === undefined
              ? 'drag selects · Alt+drag moves · wheel zooms'
              : 'click or Enter splits · T turns the line · Esc leaves it'
          }
          actions={actions}
        />
        <SheetView
          name={selection.sheet}
          layout={layout}
          proposed={proposal?.cells}
          onKey={(event) => runKey(actions, event)}
          split={
            meant === undefined
              ? undefined
              : {
                  ...meant,
                  onMove: (at) => setSplit({ ...meant, at }),
                  onTurn: () => setSplit(splitOf(meant.cell, meant.along === 'x' ? 'y' : 'x')),
                  onLeave: () => setSplit(undefined),
                  onSplit: (at) => {
                    act(splitCell(definition, name, meant.cell.index, meant.along, at));
                    setSplit(undefined);
                    select({ cells: [meant.cell.index, meant.cell.index + 1] });
                  },
                }
          }
          handles={
            grid === undefined || proposal !== undefined || layout.missing.length > 0
              ? undefined
              : {
                  offset: [
                    (grid.margin ?? 0) + (grid.offset?.[0] ?? 0),
                    (grid.margin ?? 0) + (grid.offset?.[1] ?? 0),
                  ],
                  cell: grid.cell,
                  move: (what, to) => {
                    const margin = grid.margin ?? 0;
                    const next =
                      what === 'cell'
                        ? { ...grid, cell: to.map((one) => Math.max(1, one)) as [number, number] }
                        : { ...grid, offset: to.map((one) => Math.max(0, one - margin)) as [number, number] };
                    cutWith(selection.sheet!, next);
                  },
                }
          }
        />
      </div>
    </div>
  );
}

function makeClip(definition: Parameters<typeof addClip>[0], sheet: string, cells: readonly number[]): void {
  const ordered = [...cells].sort((a, b) => a - b);
  const edit = addClip(definition, 'clip', sheet, ordered);
  act(edit);
  const made = edit.changes[0]!.path[1];
  select({ clip: String(made), frames: [] });
  tell(`Clip ${String(made)} is made of ${cells.length} cells. Time it in the next room.`);
}

/** In place of a sheet, while the text of a document that was just opened cannot be read. */
function Unreadable() {
  return (
    <div className="empty">
      <h2>The text of this document cannot be read</h2>
      <p>Where, and what to write instead, stands on the right. Nothing of it is changed.</p>
      <Button onPress={() => showText(true)}>Open the text</Button>
    </div>
  );
}

function Empty() {
  return (
    <div className="empty">
      <h2>Bring the drawings</h2>
      <ol>
        <li>
          <b>Drop</b> a sheet, a folder of images or a GIF anywhere on this page.
        </li>
        <li>
          <b>Look</b> whether the cells fit; drag the two handles of the grid, or find the drawings by their
          gaps.
        </li>
        <li>
          <b>Stand them on their feet</b>: the button is beside the close-up.
        </li>
        <li>
          <b>Time</b> them in the next room: drag the borders of the frames while the clip plays.
        </li>
      </ol>
      <Button className="main" onPress={() => void beginWithDrawings()}>
        Try it with the bare sheet of Wick, the lamplighter
      </Button>
      <p className="hint">A folder inside the folder becomes a clip of its own.</p>
    </div>
  );
}
