import type { Clip } from 'dot-hop';
import {
  duplicateFrame,
  framesOf,
  insertFrames,
  moveFrame,
  placeCue,
  placePivots,
  placeSpan,
  removeFrames,
  timeFrames,
} from 'dot-hop/edit';
import type { Frame, SheetSize } from 'dot-hop/edit';
import { feetOf } from 'dot-hop/gather';
import { CopyPlus, MapPin, Minus, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import {
  Button,
  Input,
  Label,
  ListBox,
  ListBoxItem,
  TextField,
  isTextDropItem,
  useDragAndDrop,
} from 'react-aria-components';
import { useFound } from '../../character/found.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { CellPicture } from '../../parts/CellPicture.js';
import { IconButton } from '../../parts/ui.js';
import { cellKind } from './Tray.js';

/** The narrowest that a frame is shown, in CSS pixels. */
const narrowest = 30;

/** Where frames lie on the strip: as wide as they last. */
function placesOf(
  frames: readonly Frame[],
  room: number,
): { readonly lefts: readonly number[]; readonly perMs: number } {
  const total = frames.reduce((sum, { ms }) => sum + ms, 0);
  const shortest = Math.min(...frames.map(({ ms }) => ms));
  const perMs = Math.max(room / Math.max(1, total), Math.min(narrowest / Math.max(1, shortest), 3));
  const lefts = [0];
  for (const { ms } of frames) lefts.push(lefts[lefts.length - 1]! + ms * perMs);
  return { lefts, perMs };
}

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
  const seen = useFound((state) => state.seen).filter(
    ({ path, accepted }) => path[0] === 'clips' && path[1] === name && !accepted,
  );
  const now = () => useWorkbench.getState().definition;
  const { dragAndDropHooks } = useDragAndDrop({
    acceptedDragTypes: [cellKind, 'x-dot-hop-frame'],
    getItems: (keys) =>
      [...keys].map((key) => ({ 'x-dot-hop-frame': String(key), 'text/plain': `frame ${Number(key) + 1}` })),
    onReorder: ({ keys, target }) => {
      const from = Number([...keys][0]);
      const to = Number(target.key) + (target.dropPosition === 'after' ? 1 : 0);
      const at = to > from ? to - 1 : to;
      act(moveFrame(now(), name, size, from, at));
      select({ frames: [at] });
    },
    onInsert: ({ items, target }) => {
      const at = Number(target.key) + (target.dropPosition === 'after' ? 1 : 0);
      void Promise.all(
        items.flatMap((item) =>
          isTextDropItem(item) && item.types.has(cellKind) ? [item.getText(cellKind)] : [],
        ),
      ).then((cells) => {
        if (cells.length === 0) return;
        act(insertFrames(now(), name, size, at, cells.map(Number)));
        select({ frames: cells.map((_, i) => at + i) });
      });
    },
  });
  const meant = selected.filter((frame) => frame < frames.length);
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
  const remove = (): void => {
    if (meant.length === 0) return;
    if (meant.length >= frames.length)
      tell('A clip keeps at least one frame. Delete the whole clip in the list.', true);
    act(removeFrames(now(), name, size, meant));
    select({ frames: [Math.max(0, Math.min(...meant) - 1)] });
  };
  const key = (event: React.KeyboardEvent): void => {
    if (event.key === 'Delete' || event.key === 'Backspace') remove();
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
      <div className="row">
        <IconButton
          label="show this frame twice"
          keys="D"
          isDisabled={meant.length !== 1}
          onPress={() => act(duplicateFrame(now(), name, size, meant[0]!))}
        >
          <CopyPlus size={15} />
        </IconButton>
        <IconButton label="delete these frames" keys="Del" isDisabled={meant.length === 0} onPress={remove}>
          <Trash2 size={15} />
        </IconButton>
        <AddName name={name} frames={meant.length === 0 ? [0] : meant} />
        <span className="hint">drag borders · + − by 10 ms · Alt+← → moves</span>
      </div>
      <div className="film" ref={box}>
        <div className="reel" style={{ width }} onKeyDownCapture={key}>
          <div className="playhead" data-playhead aria-hidden="true" />
          <ListBox
            aria-label={`frames of ${name}`}
            orientation="horizontal"
            selectionMode="multiple"
            selectionBehavior="replace"
            selectedKeys={meant.map(String)}
            onSelectionChange={(keys) =>
              select({
                frames:
                  keys === 'all' ? frames.map((_, i) => i) : [...keys].map(Number).sort((a, b) => a - b),
              })
            }
            dragAndDropHooks={dragAndDropHooks}
          >
            {frames.map((frame, i) => {
              const marks = seen.filter((one) => one.frames.includes(i));
              return (
                <ListBoxItem
                  key={i}
                  id={String(i)}
                  textValue={`frame ${i + 1}`}
                  aria-label={`frame ${i + 1}, cell ${frame.cell}, ${Math.round(frame.ms)} ms`}
                  className={`frame${marks.length > 0 ? ' off' : ''}`}
                  style={{ width: frame.ms * perMs }}
                >
                  <CellPicture
                    cell={clip?.frames[i]}
                    size={Math.min(window.innerHeight > 950 ? 104 : 64, Math.max(24, frame.ms * perMs - 8))}
                  />
                  <small>{frame.ms * perMs > 44 ? `${Math.round(frame.ms)} ms` : Math.round(frame.ms)}</small>
                </ListBoxItem>
              );
            })}
          </ListBox>
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

/** The mechanical remedy of what was measured, where there is one. */
function Remedy({
  clip,
  code,
  frames,
}: {
  readonly clip: Clip | undefined;
  readonly code: string;
  readonly frames: readonly number[];
}) {
  if (clip === undefined || !code.includes('foot-line')) return null;
  const mend = (): void => {
    const { definition, drawn, controller } = useWorkbench.getState();
    const cells = [...new Set(frames.map((frame) => clip.frames[frame]!))];
    const pivots: Record<number, [number, number]> = {};
    for (const cell of cells) {
      const picture = drawn.get(cell.image)?.picture;
      const feet = picture && feetOf(picture, cell);
      if (feet !== undefined) pivots[cell.index] = [cell.pivotX, feet[1] + cell.offsetY];
    }
    const sheet = cells[0]!.sheet;
    act(placePivots(definition, sheet, pivots, controller?.sheets.get(sheet)?.cells.length ?? 0));
  };
  return (
    <Button className="small" onPress={mend}>
      Stand {frames.length === 1 ? 'it' : 'them'} on the line
    </Button>
  );
}

/** A new cue on the selected frame, or a span over the selected ones. */
function AddName({ name, frames }: { readonly name: string; readonly frames: readonly number[] }) {
  const [written, setWritten] = useState('');
  const word = written.trim();
  const clip = useWorkbench((state) => state.definition.clips[name]!);
  const pin = (): void => {
    const before = [clip.cues?.[word] ?? []].flat();
    act(placeCue(useWorkbench.getState().definition, name, word, [...before, ...frames]));
    setWritten('');
  };
  const span = (): void => {
    const range = { first: Math.min(...frames), last: Math.max(...frames) };
    act(placeSpan(useWorkbench.getState().definition, name, word, range));
    setWritten('');
  };
  return (
    <div className="add">
      <TextField aria-label="name of a new cue or span" value={written} onChange={setWritten}>
        <Label className="hidden">name of a new cue or span</Label>
        <Input
          placeholder="name a cue or span"
          onKeyDown={(event) => event.key === 'Enter' && word !== '' && pin()}
        />
      </TextField>
      <IconButton label="cue on the selected frame" isDisabled={word === ''} onPress={pin}>
        <MapPin size={14} /> cue
      </IconButton>
      <IconButton label="span over the selected frames" isDisabled={word === ''} onPress={span}>
        <Minus size={14} /> span
      </IconButton>
    </div>
  );
}

const frameAt = (lefts: readonly number[], x: number): number => {
  let at = 0;
  while (at + 1 < lefts.length - 1 && lefts[at + 1]! <= x) at++;
  return at;
};

/** Cues, as pins on their frames: dragged along the strip, moved by arrows. */
function Pins({
  name,
  frames,
  lefts,
}: {
  readonly name: string;
  readonly frames: readonly Frame[];
  readonly lefts: readonly number[];
}) {
  const row = useRef<HTMLDivElement>(null);
  const held = useRef<number | undefined>(undefined);
  const put = (cue: string, from: number, to: number): void => {
    const { definition } = useWorkbench.getState();
    const before = [definition.clips[name]!.cues?.[cue] ?? []].flat();
    if (to === from || to < 0 || to >= frames.length) return;
    act(
      placeCue(
        definition,
        name,
        cue,
        before.map((one) => (one === from ? to : one)),
      ),
      `cue ${cue} of ${name}`,
    );
  };
  const pins = frames.flatMap(({ cues }, frame) => cues.map((cue) => ({ cue, frame })));
  return (
    <div className="pins" ref={row}>
      {pins.map(({ cue, frame }, i) => (
        <button
          key={`${cue} ${i}`}
          type="button"
          className="pin"
          data-testid={`cue-${cue}-${frame}`}
          style={{ left: lefts[frame]! }}
          aria-label={`cue ${cue} on frame ${frame + 1}; arrows move it, Delete takes it away`}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            held.current = frame;
          }}
          onPointerMove={(event) => {
            if (held.current === undefined) return;
            const to = frameAt(lefts, event.clientX - row.current!.getBoundingClientRect().left);
            put(cue, held.current, to);
            held.current = to;
          }}
          onPointerUp={() => (held.current = undefined)}
          onKeyDown={(event) => {
            if (event.key === 'ArrowLeft') put(cue, frame, frame - 1);
            else if (event.key === 'ArrowRight') put(cue, frame, frame + 1);
            else if (event.key === 'Delete' || event.key === 'Backspace') {
              const { definition } = useWorkbench.getState();
              const before = [definition.clips[name]!.cues?.[cue] ?? []].flat();
              act(
                placeCue(
                  definition,
                  name,
                  cue,
                  before.filter((one) => one !== frame),
                ),
              );
            } else return;
            event.preventDefault();
            event.stopPropagation();
          }}
        >
          {cue}
        </button>
      ))}
    </div>
  );
}

/** Spans, as bars over their frames: their ends are dragged, or moved by arrows (with shift the far end). */
function Bars({
  name,
  frames,
  lefts,
}: {
  readonly name: string;
  readonly frames: readonly Frame[];
  readonly lefts: readonly number[];
}) {
  const row = useRef<HTMLDivElement>(null);
  const held = useRef<'first' | 'last' | undefined>(undefined);
  const spans = [...new Set(frames.flatMap((frame) => frame.spans))].map((span) => {
    const own = frames.flatMap((frame, i) => (frame.spans.includes(span) ? [i] : []));
    return { span, first: own[0]!, last: own[own.length - 1]! };
  });
  const put = (span: string, first: number, last: number): void => {
    if (first < 0 || last >= frames.length || first > last) return;
    act(
      placeSpan(useWorkbench.getState().definition, name, span, { first, last }),
      `span ${span} of ${name}`,
    );
  };
  return (
    <div className="bars" ref={row} style={{ height: spans.length * 20 }}>
      {spans.map(({ span, first, last }, i) => (
        <div
          key={span}
          role="slider"
          tabIndex={0}
          className="bar-of"
          data-testid={`span-${span}`}
          aria-label={`span ${span}; arrows move its first frame, shift and arrows its last, Delete takes it away`}
          aria-valuemin={1}
          aria-valuemax={frames.length}
          aria-valuenow={first + 1}
          aria-valuetext={`frames ${first + 1} to ${last + 1}`}
          style={{ left: lefts[first]!, width: lefts[last + 1]! - lefts[first]! - 2, top: i * 20 }}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            const x = event.clientX - row.current!.getBoundingClientRect().left;
            held.current = x < (lefts[first]! + lefts[last + 1]!) / 2 ? 'first' : 'last';
          }}
          onPointerMove={(event) => {
            if (held.current === undefined) return;
            const to = frameAt(lefts, event.clientX - row.current!.getBoundingClientRect().left);
            if (held.current === 'first' && to !== first) put(span, Math.min(to, last), last);
            if (held.current === 'last' && to !== last) put(span, first, Math.max(to, first));
          }}
          onPointerUp={() => (held.current = undefined)}
          onKeyDown={(event) => {
            const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
            if (event.key === 'Delete' || event.key === 'Backspace')
              act(placeSpan(useWorkbench.getState().definition, name, span, undefined));
            else if (by !== 0)
              put(span, event.shiftKey ? first : first + by, event.shiftKey ? last + by : last);
            else return;
            event.preventDefault();
            event.stopPropagation();
          }}
        >
          {span}
        </div>
      ))}
    </div>
  );
}
