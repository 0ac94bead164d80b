import type { BoxDefinition, Cell, Sheet } from 'dot-hop';
import { inPlainMemory } from '../../parts/canvas.js';
import { useEffect, useRef, useState } from 'react';
import { useWorkbench } from '../../character/store.js';
import { box as boxColour, foot, lamp } from '../../parts/colours.js';
import { boxAfter, cursorOf, dragAt } from './box-drag.js';
import type { BoxDrag, Spot } from './box-drag.js';
import { placeOf } from './mark.js';
import type { Mark, Place } from './mark.js';

/** How large the close-up is, in CSS pixels: as wide as the panel beside the sheet. */
const side = Math.round(Math.min(312, Math.max(236, window.innerWidth * 0.16)));

/** One cell close up, over a ghost of the one before it: marks are placed here by pointer and nudged by arrows. */
export function CloseUp({
  sheet,
  cell,
  mark,
  onPlace,
}: {
  readonly sheet: Sheet;
  readonly cell: Cell;
  readonly mark: Mark;
  readonly onPlace: (at: Place, isDrag: boolean) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useWorkbench((state) => state.drawn);
  const [ghost, setGhost] = useState(true);
  const drag = useRef<BoxDrag | undefined>(undefined);
  const { frameWidth, frameHeight } = cell;
  // Room around the frame, so that what stands at its edge can be reached.
  const around = 4;
  const scale = Math.max(1, Math.floor(side / (Math.max(frameWidth, frameHeight) + around * 2)));
  const [wide, high] = [(frameWidth + around * 2) * scale, (frameHeight + around * 2) * scale];
  useEffect(() => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context) return;
    const ratio = window.devicePixelRatio;
    canvas.current!.width = Math.round(wide * ratio);
    canvas.current!.height = Math.round(high * ratio);
    context.scale(ratio, ratio);
    context.imageSmoothingEnabled = false;
    const at = (x: number): number => (x + around) * scale;
    context.fillStyle = '#221d38';
    context.fillRect(0, 0, wide, high);
    const show = (one: Cell, alpha: number, dx: number, dy: number): void => {
      const image = drawn.get(one.image);
      if (image === undefined) return;
      context.globalAlpha = alpha;
      context.drawImage(
        image.bitmap,
        one.x,
        one.y,
        one.width,
        one.height,
        at(one.offsetX + dx),
        at(one.offsetY + dy),
        one.width * scale,
        one.height * scale,
      );
      context.globalAlpha = 1;
    };
    const before = sheet.cells[cell.index - 1];
    // Pivot on pivot, as they follow each other in a game.
    if (ghost && before !== undefined)
      show(before, 0.28, cell.pivotX - before.pivotX, cell.pivotY - before.pivotY);
    show(cell, 1, 0, 0);
    context.strokeStyle = 'rgba(240, 230, 218, 0.25)';
    context.strokeRect(at(0) - 0.5, at(0) - 0.5, frameWidth * scale + 1, frameHeight * scale + 1);
    for (const [name, { x, y, width, height }] of Object.entries(cell.boxes)) {
      const isMeant = mark.kind === 'boxes' && mark.name === name;
      context.strokeStyle = isMeant ? lamp : boxColour;
      context.lineWidth = isMeant ? 2 : 1;
      context.strokeRect(at(x) + 0.5, at(y) + 0.5, width * scale - 1, height * scale - 1);
      if (!isMeant) continue;
      // Corners to take hold of.
      context.fillStyle = lamp;
      for (const left of [at(x), at(x + width)])
        for (const top of [at(y), at(y + height)]) context.fillRect(left - 3, top - 3, 6, 6);
    }
    context.lineWidth = 1;
    const cross = (x: number, y: number, colour: string, size: number): void => {
      context.fillStyle = colour;
      context.fillRect(at(x) - size, at(y) - 1, size * 2 + 1, 2);
      context.fillRect(at(x) - 1, at(y) - size, 2, size * 2 + 1);
    };
    for (const [name, { x, y }] of Object.entries(cell.points))
      cross(x, y, mark.kind === 'points' && mark.name === name ? lamp : '#6fb7d6', 6);
    // The foot line: where the ground is.
    context.fillStyle = 'rgba(255, 127, 138, 0.4)';
    context.fillRect(0, at(cell.pivotY), wide, 1);
    cross(cell.pivotX, cell.pivotY, mark.kind === 'pivot' ? foot : '#c96a76', 8);
  }, [cell, drawn, ghost, mark, scale, sheet, wide, high, frameWidth, frameHeight]);

  const spot = (event: React.PointerEvent): Spot => {
    const { left, top } = canvas.current!.getBoundingClientRect();
    return [(event.clientX - left) / scale - around, (event.clientY - top) / scale - around];
  };
  const box = mark.kind === 'boxes' ? (placeOf(cell, mark) as BoxDefinition | undefined) : undefined;
  const reach = Math.max(5, Math.min(8, scale)) / scale;
  const begin = (event: React.PointerEvent): void => {
    event.currentTarget.setPointerCapture(event.pointerId);
    canvas.current!.focus();
    drag.current = dragAt(box, spot(event), reach);
    // Where a box begins shows at once; to take hold of one changes nothing yet.
    if (mark.kind !== 'boxes' || drag.current.kind === 'draw') move(event);
  };
  const move = (event: React.PointerEvent): void => {
    const to = spot(event);
    if (mark.kind === 'boxes')
      canvas.current!.style.cursor = cursorOf(drag.current ?? dragAt(box, to, reach));
    if (drag.current === undefined) return;
    onPlace(
      mark.kind === 'boxes' ? boxAfter(drag.current, to) : [Math.round(to[0]), Math.round(to[1])],
      true,
    );
  };
  return (
    <div className="close-up">
      <canvas
        ref={canvas}
        tabIndex={0}
        role="application"
        data-testid="close-up"
        aria-label={`cell ${cell.index}; click places ${mark.kind === 'pivot' ? 'the feet' : mark.name}, arrows nudge it${mark.kind === 'boxes' ? ', with shift they size it; edges are dragged' : ''}`}
        style={{ width: wide, height: high }}
        onPointerDown={begin}
        onPointerMove={move}
        onPointerUp={() => (drag.current = undefined)}
        onKeyDown={(event) => {
          const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
            event.key
          ];
          const now = placeOf(cell, mark);
          if (by === undefined || now === undefined) return;
          event.preventDefault();
          // With shift a box is made larger or smaller instead of moved.
          const first = event.shiftKey && mark.kind === 'boxes' ? 2 : 0;
          onPlace(
            now.map((one, i) =>
              i === first ? one + by[0]! : i === first + 1 ? one + by[1]! : one,
            ) as unknown as Place,
            true,
          );
        }}
      />
      <label className="ghost">
        <input type="checkbox" checked={ghost} onChange={(event) => setGhost(event.target.checked)} /> ghost
        of the cell before
      </label>
    </div>
  );
}
