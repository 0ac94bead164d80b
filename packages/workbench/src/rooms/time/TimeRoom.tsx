import { feetOf, strideOf } from 'dot-hop/gather';
import type { Clip, ControllerDefinition, LoopDefinition } from 'dot-hop';
import {
  addClip,
  duplicateClip,
  framesOf,
  insertFrames,
  loopClip,
  moveClip,
  rateClip,
  removeClip,
  sheetOf,
  rename,
  strideClip,
  timeFrames,
} from 'dot-hop/edit';
import type { SheetSize } from 'dot-hop/edit';
import { Copy, Plus, Ruler, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import {
  Button,
  GridList,
  GridListItem,
  Input,
  Label,
  TextField,
  useDragAndDrop,
} from 'react-aria-components';
import { clipOf } from '../../character/clip.js';
import { useSheet } from '../../character/sheet.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { clipColour } from '../../parts/colours.js';
import { Choice, IconButton, NumberBox } from '../../parts/ui.js';
import { Looks } from './Looks.js';
import { Strip } from './Strip.js';
import { Thumbnail } from './Thumbnail.js';
import { Tray } from './Tray.js';

/** How the cells of a clip's sheet are numbered. */
function useSizeOf(clip: string | undefined): SheetSize {
  const name = useWorkbench(({ definition: { clips, sheets } }) =>
    sheetOf({ sheets }, clips[clip ?? ''] ?? { cells: 0 }),
  );
  const sheet = useSheet(name);
  return useMemo(() => ({ columns: sheet?.columns ?? 1, count: sheet?.cells.length ?? 1 }), [sheet]);
}

/** Adds cells to the selected clip, behind the selected frame. */
function addCells(cells: readonly number[]): void {
  const { definition, controller, selection } = useWorkbench.getState();
  const name = selection.clip;
  const clip = name === undefined ? undefined : definition.clips[name];
  if (name === undefined || clip === undefined) return;
  const sheet = controller?.sheets.get(sheetOf(definition, clip) ?? '');
  const size = { columns: sheet?.columns ?? 1, count: sheet?.cells.length ?? 1 };
  const last = selection.frames[selection.frames.length - 1];
  const at = last === undefined ? (framesOf(clip, size) ?? []).length : last + 1;
  act(insertFrames(definition, name, size, at, cells));
  select({ frames: cells.map((_, i) => at + i) });
}

/** Clips are made, timed and looked at here. */
export function TimeRoom() {
  const definition = useWorkbench((state) => state.definition);
  const controller = useWorkbench((state) => state.controller);
  const name = useWorkbench((state) => state.selection.clip);
  const size = useSizeOf(name);
  const clip = name === undefined ? undefined : definition.clips[name];
  const compiled = clipOf(controller, name);
  return (
    <div className="time">
      <ClipList definition={definition} selected={name} />
      <div className="middle">
        {clip === undefined || name === undefined ? (
          <p className="hint empty">
            {name === undefined
              ? 'No clip yet. Select cells in the first room and press “make a clip”, or press + beside the list.'
              : `${name} is not in the text just now.`}
          </p>
        ) : (
          <>
            <Looks clip={compiled} />
            <Strip name={name} clip={compiled} size={size} />
            <Timing key={name} name={name} compiled={compiled} size={size} />
            <Tray sheet={sheetOf(definition, clip) ?? ''} onAdd={addCells} />
          </>
        )}
      </div>
    </div>
  );
}

/** A clip in the list; the same object as long as it is the same clip, so that the list draws only what changes. */
interface ClipItem {
  readonly id: string;
  readonly colour: string;
}

const items = new Map<string, ClipItem>();

const itemsOf = (names: readonly string[]): ClipItem[] =>
  names.map((id, i) => {
    const key = `${i} ${id}`;
    let item = items.get(key);
    if (item === undefined) items.set(key, (item = { id, colour: clipColour(i) }));
    return item;
  });

/** How many frames a clip has, and how long one pass takes. */
function Facts({ name }: { readonly name: string }) {
  const facts = useWorkbench(({ controller }) => {
    const clip = clipOf(controller, name);
    return clip === undefined
      ? ''
      : `${clip.frames.length} · ${Math.round(clip.ends[clip.ends.length - 1]! / 1000)} ms`;
  });
  return <small>{facts}</small>;
}

function ClipList({
  definition,
  selected,
}: {
  readonly definition: ControllerDefinition;
  readonly selected: string | undefined;
}) {
  const names = Object.keys(definition.clips);
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const moved = String([...keys][0]);
      const rest = names.filter((one) => one !== moved);
      const at = rest.indexOf(String(target.key)) + (target.dropPosition === 'after' ? 1 : 0);
      act(moveClip(moved, at));
    },
  });
  const add = (): void => {
    const sheet = useWorkbench.getState().selection.sheet ?? Object.keys(definition.sheets)[0];
    if (sheet === undefined) {
      tell('There is no sheet yet. Bring drawings in the first room.', true);
      return;
    }
    const edit = addClip(definition, 'clip', sheet, [0]);
    act(edit);
    select({ clip: String(edit.changes[0]!.path[1]), frames: [] });
  };
  return (
    <div className="panel clips">
      <div className="row spread">
        <h2>clips</h2>
        <div className="row">
          <IconButton label="new clip" onPress={add}>
            <Plus size={15} />
          </IconButton>
          <IconButton
            label="duplicate this clip"
            isDisabled={selected === undefined}
            onPress={() => {
              const edit = duplicateClip(definition, selected!);
              act(edit);
              const [change] = edit.changes;
              if (change?.op === 'insert') select({ clip: change.name, frames: [] });
            }}
          >
            <Copy size={15} />
          </IconButton>
          <IconButton
            label="delete this clip"
            isDisabled={selected === undefined}
            onPress={() => {
              const showing = Object.entries(definition.states ?? {}).flatMap(([state, { shows }]) =>
                shows === selected ? [state] : [],
              );
              act(removeClip(selected!));
              if (showing.length > 0)
                tell(
                  `Deleted. ${showing.join(', ')} showed it and cannot be performed now; undo brings it back.`,
                  true,
                );
            }}
          >
            <Trash2 size={15} />
          </IconButton>
        </div>
      </div>
      <GridList
        aria-label="clips"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={selected === undefined ? [] : [selected]}
        onSelectionChange={(keys) => {
          if (keys === 'all') return;
          for (const key of keys) select({ clip: String(key), frames: [] });
        }}
        dragAndDropHooks={dragAndDropHooks}
        items={itemsOf(names)}
      >
        {(item: ClipItem) => (
          <GridListItem id={item.id} textValue={item.id}>
            <Button slot="drag" className="grip" aria-label={`move ${item.id}`}>
              ⋮
            </Button>
            <Thumbnail name={item.id} size={38} />
            <i style={{ background: item.colour }} />
            <span>{item.id}</span>
            <Facts name={item.id} />
          </GridListItem>
        )}
      </GridList>
    </div>
  );
}

const loops = {
  forever: 'for ever',
  once: 'once',
  'back-and-forth': 'back and forth',
  times: 'some times',
  from: 'on from a frame',
} as const;
type LoopKind = keyof typeof loops;

const loopKind = (loop: LoopDefinition | undefined): LoopKind =>
  loop === undefined
    ? 'forever'
    : typeof loop === 'number'
      ? 'times'
      : typeof loop === 'object'
        ? 'from'
        : loop;

/** Name, rate, loop and stride of a clip, and the time of the selected frames. */
function Timing({
  name,
  compiled,
  size,
}: {
  readonly name: string;
  readonly compiled: Clip | undefined;
  readonly size: SheetSize;
}) {
  const definition = useWorkbench((state) => state.definition);
  const drawn = useWorkbench((state) => state.drawn);
  const selected = useWorkbench((state) => state.selection.frames);
  const [written, setWritten] = useState(name);
  const clip = definition.clips[name]!;
  const frames = framesOf(clip, size) ?? [];
  const kind = loopKind(clip.loop);
  const first = frames[selected[0] ?? 0];
  const commit = (): void => {
    const to = written.trim();
    if (to === name || to === '') setWritten(name);
    else if (to in definition.clips) {
      tell(`There is a clip ${to} already.`, true);
      setWritten(name);
    } else {
      act(rename(definition, { kind: 'clip', from: name, to }));
      select({ clip: to });
    }
  };
  const measure = (): void => {
    const feet = (compiled?.frames ?? []).map((cell) => {
      const picture = drawn.get(cell.image)?.picture;
      const at = picture === undefined ? undefined : feetOf(picture, cell);
      return (at?.[0] ?? 0) + cell.offsetX - cell.pivotX;
    });
    const stride = strideOf(feet);
    if (stride === undefined)
      tell('No foot slides back in these frames, so no stride can be measured.', true);
    else act(strideClip(name, stride));
  };
  return (
    <div className="timing">
      <TextField className="number" value={written} onChange={setWritten} onBlur={commit}>
        <Label>name</Label>
        <Input onKeyDown={(event) => event.key === 'Enter' && commit()} />
      </TextField>
      <NumberBox
        label="frames a second"
        least={0.1}
        most={1000}
        step={0.1}
        value={clip.fps}
        onChange={(fps) => act(rateClip(definition, name, fps))}
      />
      <NumberBox
        label={selected.length > 1 ? `these ${selected.length} frames` : `frame ${(selected[0] ?? 0) + 1}`}
        unit="ms"
        least={1}
        most={3_600_000}
        value={first === undefined ? undefined : Math.round(first.ms * 100) / 100}
        onChange={(ms) =>
          act(
            timeFrames(
              definition,
              name,
              size,
              Object.fromEntries((selected.length > 0 ? selected : [0]).map((one) => [one, ms])),
            ),
          )
        }
      />
      <Choice
        label="at its end"
        value={kind}
        options={loops}
        onChange={(picked) => {
          const loop: LoopDefinition =
            picked === 'times' ? 2 : picked === 'from' ? { from: Math.min(1, frames.length - 1) } : picked;
          act(loopClip(name, loop));
        }}
      />
      {typeof clip.loop === 'number' ? (
        <NumberBox
          label="times"
          least={1}
          value={clip.loop}
          onChange={(times) => act(loopClip(name, times))}
        />
      ) : null}
      {typeof clip.loop === 'object' ? (
        <NumberBox
          label="from frame"
          least={1}
          most={frames.length}
          value={clip.loop.from + 1}
          onChange={(from) => act(loopClip(name, { from: from - 1 }))}
        />
      ) : null}
      <NumberBox
        label="stride"
        unit="px"
        value={clip.stride}
        onChange={(stride) => act(strideClip(name, stride))}
      />
      <IconButton label="measure the stride from the feet" onPress={measure}>
        <Ruler size={15} />
      </IconButton>
    </div>
  );
}
