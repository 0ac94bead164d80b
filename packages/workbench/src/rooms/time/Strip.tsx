import type { Clip } from 'dot-hop';
import {
  duplicateFrame,
  framesOf,
  insertFrames,
  moveFrame,
  removeFrames,
  sheetOf,
  timeFrames,
} from 'dot-hop/edit';
import type { SheetSize } from 'dot-hop/edit';
import { CopyPlus, Trash2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { ListBox, ListBoxItem, isTextDropItem, useDragAndDrop } from 'react-aria-components';
import { useFound } from '../../character/found.js';
import { useSheet } from '../../character/sheet.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { CellPicture, fitting } from '../../parts/CellPicture.js';
import { IconButton } from '../../parts/ui.js';
import { AddName } from './AddName.js';
import { Bars } from './Bars.js';
import { Pins } from './Pins.js';
import { placesOf } from './places.js';
import { Remedy } from './Remedy.js';
import { cellKind } from './Tray.js';

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
  const cells = frames.map((frame, i) => clip?.frames[i] ?? sheet?.cells[frame.cell]);
  const tallest = window.innerHeight > 950 ? 104 : 64;
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
                    cell={cells[i]}
                    scale={
                      cells[i] === undefined
                        ? 1
                        : fitting(cells[i], Math.min(tallest, Math.max(24, frame.ms * perMs - 8)))
                    }
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
