import type { Cell } from 'dot-hop';
import { inPlainMemory } from './canvas.js';
import { useLayoutEffect, useRef } from 'react';
import { useWorkbench } from '../character/store.js';

/** One cell, as large as fits, crisp. */
export function CellPicture({ cell, size }: { readonly cell: Cell | undefined; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const drawn = useWorkbench((state) => (cell === undefined ? undefined : state.drawn.get(cell.image)));
  useLayoutEffect(() => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context) return;
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    if (cell === undefined || drawn === undefined) return;
    context.imageSmoothingEnabled = false;
    context.drawImage(
      drawn.bitmap,
      cell.x,
      cell.y,
      cell.width,
      cell.height,
      cell.offsetX,
      cell.offsetY,
      cell.width,
      cell.height,
    );
  }, [cell, drawn]);
  const scale = cell === undefined ? 1 : size / Math.max(cell.frameWidth, cell.frameHeight);
  return (
    <canvas
      ref={canvas}
      className="crisp"
      aria-hidden="true"
      width={cell?.frameWidth ?? 1}
      height={cell?.frameHeight ?? 1}
      style={{ width: (cell?.frameWidth ?? 1) * scale, height: (cell?.frameHeight ?? 1) * scale }}
    />
  );
}
