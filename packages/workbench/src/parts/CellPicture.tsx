import type { Cell } from 'dot-hop';
import { memo } from 'react';
import { useWorkbench } from '../character/store.js';

/** The size that a cell is shown at so that its frame fits a square. */
export const scaleToFit = ({ frameWidth, frameHeight }: Cell, size: number): number =>
  size / Math.max(frameWidth, frameHeight);

interface CellPictureProps {
  readonly cell: Cell | undefined;
  /** How many pixels of the page a pixel of the drawing is. */
  readonly scale: number;
}

/** What is drawn for a cell: after an edit elsewhere it is another object, and the same drawing. */
const drawing = (cell: Cell | undefined): readonly unknown[] =>
  cell === undefined
    ? []
    : (cell.pieces?.flatMap(({ cell: piece, x, y, flipX, flipY }) => [
        ...drawing(piece),
        x,
        y,
        flipX,
        flipY,
      ]) ?? [
        cell.image,
        cell.x,
        cell.y,
        cell.width,
        cell.height,
        cell.offsetX,
        cell.offsetY,
        cell.frameWidth,
        cell.frameHeight,
      ]);

/** Whether two cells look the same. */
export function looksSame(one: Cell | undefined, other: Cell | undefined): boolean {
  if (one === other) return true;
  const [before, now] = [drawing(one), drawing(other)];
  return before.length === now.length && before.every((part, i) => part === now[i]);
}

const isSame = (before: CellPictureProps, now: CellPictureProps): boolean =>
  before.scale === now.scale && looksSame(before.cell, now.cell);

/**
 * One cell in its frame. It is a part of the page's own drawing and no canvas: a browser keeps each canvas as a layer of its own,
 * and with some hundred of them it takes longer than a picture to put the page together.
 */
export const CellPicture = memo(function CellPicture({ cell, scale }: CellPictureProps) {
  const drawn = useWorkbench((state) => state.drawn);
  if (cell === undefined) return null;
  const { frameWidth, frameHeight, offsetX, offsetY } = cell;
  const pieces = cell.pieces ?? [{ cell, x: offsetX, y: offsetY, flipX: false, flipY: false }];
  const px = (pixels: number): string => `${pixels * scale}px`;
  return (
    <span className="drawing" style={{ width: px(frameWidth), height: px(frameHeight) }} aria-hidden="true">
      {pieces.map(({ cell: part, x, y, flipX, flipY }, i) => {
        const image = drawn.get(part.image);
        if (image === undefined) return null;
        const { width, height } = image.picture;
        return (
          <i
            key={i}
            className="crisp"
            style={{
              left: px(x),
              top: px(y),
              width: px(part.width),
              height: px(part.height),
              backgroundImage: `url("${image.address}")`,
              backgroundPosition: `${px(-part.x)} ${px(-part.y)}`,
              backgroundSize: `${px(width)} ${px(height)}`,
              ...(flipX || flipY ? { transform: `scale(${flipX ? -1 : 1}, ${flipY ? -1 : 1})` } : {}),
            }}
          />
        );
      })}
    </span>
  );
}, isSame);
