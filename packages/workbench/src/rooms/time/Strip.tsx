import type { Clip } from 'dot-hop';
import { duplicateFrame, framesOf, moveFrame, removeFrames, sheetOf, timeFrames } from 'dot-hop/edit';
import type { SheetSize } from 'dot-hop/edit';
import { CopyPlus, Trash2 } from 'lucide-react';
import { memo, useEffect, useMemo, useRef, useState } from 'react';
import { useFindings } from '../../character/findings.js';
import { useSheet } from '../../character/sheet.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { IconButton } from '../../parts/ui.js';
import { AddName } from './AddName.js';
import { Bars } from './Bars.js';
import { FrameList, FrameLooks } from './FrameList.js';
import type { FrameLook } from './FrameList.js';
import { Pins } from './Pins.js';
import { placesOf } from './places.js';
import { Remedy } from '../../parts/Remedy.js';

/** Takes frames out of a clip, which keeps at least one. */
function remove(name: string, size: SheetSize, frames: readonly number[]): void {
  if (frames.length === 0) return;
  const { definition } = useWorkbench.getState();
  const isAll = frames.length >= (framesOf(definition.clips[name]!, size) ?? []).length;
  act(removeFrames(definition, name, size, frames));
  if (isAll) tell('A clip keeps at least one frame. Delete the whole clip in the list.', true);
  select({ frames: [Math.max(0, Math.min(...frames) - 1)] });
}

/** What is done to the selected frames by buttons. */
const StripTools = memo(function StripTools({
  name,
  size,
  frames,
}: {
  readonly name: string;
  readonly size: SheetSize;
  readonly frames: readonly number[];
}) {
  return (
    <div className="row">
      <IconButton
        label="show this frame twice"
        keys="D"
        isDisabled={frames.length !== 1}
        onPress={() => act(duplicateFrame(useWorkbench.getState().definition, name, size, frames[0]!))}
      >
        <CopyPlus size={15} />
      </IconButton>
      <IconButton
        label="delete these frames"
        keys="Del"
        isDisabled={frames.length === 0}
        onPress={() => remove(name, size, frames)}
      >
        <Trash2 size={15} />
      </IconButton>
      <AddName name={name} frames={frames.length === 0 ? [0] : frames} />
      <span className="hint">drag borders · + − by 10 ms · Alt+← → moves</span>
    </div>
  );
});

/** The frames of a clip in a row, as wide as they last, with cues as pins and spans as bars. */
export function Strip({
  name,
  clip,
  size,
}: {
  readonly name: string;
  readonly clip: Clip | undefined;
  readonly size: SheetSize;
}) {
  const definition = useWorkbench((state) => state.definition);
  const selected = useWorkbench((state) => state.selection.frames);
  // Of a clip that cannot be played as it is, its drawings are seen all the same.
  const sheet = useSheet(sheetOf(definition, definition.clips[name]!));
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(600);
  const drag = useRef<{ x: number; frame: number; ms: number } | undefined>(undefined);
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setRoom(Math.floor(entry!.contentRect.width) - 8));
    watch.observe(box.current!);
    return () => watch.disconnect();
  }, []);
  const own = definition.clips[name]!;
  const frames = framesOf(own, size) ?? [];
  const { lefts, perMs } = placesOf(frames, room);
  const width = lefts[lefts.length - 1]!;
  const seen = useFindings((state) => state.seen).filter(
    ({ path, accepted }) => path[0] === 'clips' && path[1] === name && accepted === undefined,
  );
  const tallest = window.innerHeight > 950 ? 104 : 64;
  const faces = frames.map(({ cell, ms }, i): FrameLook => ({
    number: cell,
    clip,
    cell: clip?.frames[i] ?? sheet?.cells[cell],
    ms,
    isOff: seen.some((one) => one.frames.includes(i)),
    isWide: ms * perMs > 44,
    size: Math.min(tallest, Math.max(24, ms * perMs - 8)),
  }));
  const now = () => useWorkbench.getState().definition;
  const count = frames.length;
  const meant = useMemo(() => selected.filter((frame) => frame < count), [selected, count]);
  const stretch = (by: number): void => {
    if (meant.length > 0)
      act(
        timeFrames(
          now(),
          name,
          size,
          Object.fromEntries(meant.map((i) => [i, Math.max(1, frames[i]!.ms + by)])),
        ),
        `stretch ${name}`,
      );
  };
  const key = (event: React.KeyboardEvent): void => {
    if (event.key === 'Delete' || event.key === 'Backspace') remove(name, size, meant);
    else if (event.key === '+' || event.key === '=') stretch(10);
    else if (event.key === '-') stretch(-10);
    else if (event.key === 'd' && meant.length > 0) act(duplicateFrame(now(), name, size, meant[0]!));
    else if (
      event.altKey &&
      (event.key === 'ArrowLeft' || event.key === 'ArrowRight') &&
      meant.length === 1
    ) {
      const to = meant[0]! + (event.key === 'ArrowLeft' ? -1 : 1);
      if (to < 0 || to >= frames.length) return;
      act(moveFrame(now(), name, size, meant[0]!, to));
      select({ frames: [to] });
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <section className="strip" aria-label={`frames of ${name}`}>
      <StripTools name={name} size={size} frames={meant} />
      <div className="film" ref={box}>
        <div
          className="reel"
          style={
            {
              width,
              '--per-ms': perMs,
              ...Object.fromEntries(frames.map(({ ms }, i) => [`--ms-${i}`, ms])),
            } as React.CSSProperties
          }
          onKeyDownCapture={key}
        >
          <div className="playhead" data-playhead aria-hidden="true" />
          <FrameLooks.Provider value={faces}>
            <FrameList name={name} size={size} count={count} selected={meant} />
          </FrameLooks.Provider>
          {frames.map((frame, i) => (
            <div
              key={i}
              className="border"
              data-testid={`border-${i}`}
              aria-hidden="true"
              style={{ left: lefts[i + 1]! - 4 }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                drag.current = { x: event.clientX, frame: i, ms: frame.ms };
                event.stopPropagation();
                event.preventDefault();
              }}
              onPointerMove={(event) => {
                if (drag.current === undefined) return;
                const ms = Math.max(
                  1,
                  Math.round(drag.current.ms + (event.clientX - drag.current.x) / perMs),
                );
                act(
                  timeFrames(now(), name, size, { [drag.current.frame]: ms }),
                  `stretch frame ${i + 1} of ${name}`,
                );
              }}
              onPointerUp={() => (drag.current = undefined)}
            />
          ))}
          <Pins name={name} frames={frames} lefts={lefts} />
          <Bars name={name} frames={frames} lefts={lefts} />
        </div>
      </div>
      {seen
        .filter((one) => one.frames.length > 0)
        .slice(0, 3)
        .map((one, i) => (
          <p key={i} className="told bad">
            {one.text} <Remedy clip={clip} code={one.code} frames={one.frames} />
          </p>
        ))}
    </section>
  );
}
