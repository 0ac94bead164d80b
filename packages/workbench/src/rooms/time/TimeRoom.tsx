import { feetOf, strideOf } from 'dot-hop/gather';
import type { Clip, ControllerDefinition, LoopDefinition } from 'dot-hop';
import { framesOf, insertFrames, loopClip, rateClip, sheetOf, strideClip, timeFrames } from 'dot-hop/edit';
import type { SheetSize } from 'dot-hop/edit';
import { Ruler } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Input, Label, TextField } from 'react-aria-components';
import { renameEverywhere } from '../../character/rehearsals.js';
import { clipOf } from '../../character/clip.js';
import { useSheet } from '../../character/sheet.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { Choice, IconButton, NumberBox } from '../../parts/ui.js';
import { ClipList } from './ClipList.js';
import { ClipViews } from './ClipViews.js';
import { Strip } from './Strip.js';
import { CueNames } from './CueNames.js';
import { CellTray } from './CellTray.js';

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
      <ClipList />
      <div className="middle">
        {clip === undefined || name === undefined ? (
          <p className="hint empty">
            {name === undefined
              ? 'No clip yet. Select cells in the first room and press “make a clip”, or press + beside the list.'
              : `${name} is not in the text just now.`}
          </p>
        ) : (
          <>
            <ClipViews clip={compiled} />
            <Strip name={name} clip={compiled} size={size} />
            <Timing key={name} name={name} definition={definition} compiled={compiled} size={size} />
            <CellTray sheet={sheetOf(definition, clip) ?? ''} onAdd={addCells} />
          </>
        )}
      </div>
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

interface TimingProps {
  readonly name: string;
  readonly definition: ControllerDefinition;
  readonly compiled: Clip | undefined;
  readonly size: SheetSize;
}

/** Name, rate, loop and stride of a clip, and the time of the selected frames. */
function Timing({ name, definition, compiled, size }: TimingProps) {
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
      void renameEverywhere({ kind: 'clip', from: name, to }).then(() => select({ clip: to }));
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
      {Object.keys(clip.cues ?? {}).map((cue) => (
        <CueNames key={cue} cue={cue} variety={definition.cues?.[cue]} />
      ))}
    </div>
  );
}
