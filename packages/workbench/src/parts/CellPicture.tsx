import type { Cell } from 'dot-hop';
import { memo } from 'react';
import { useWorkbench } from '../character/store.js';
import { shownFrom } from '../stage/shown-from.js';
import type { Shown } from '../stage/shown-from.js';

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
function looksSame(one: Cell | undefined, other: Cell | undefined): boolean {
  if (one === other) return true;
  const [before, now] = [drawing(one), drawing(other)];
  return before.length === now.length && before.every((part, i) => part === now[i]);
}

/** A rectangle of an image in a picture, in pixels of the drawing from the picture's upper left corner. */
interface Piece {
  readonly cell: Cell;
  readonly x: number;
  readonly y: number;
  readonly flipX: boolean;
  readonly flipY: boolean;
  /** What the page shows it from; `undefined` for an image that is not there. */
  readonly from: Shown | undefined;
}

/**
 * Pieces of images in a frame. They are parts of the page's own drawing and no canvas: a browser keeps each canvas as a layer of its own,
 * and with some hundred of them it takes longer than a picture to put the page together.
 */
export function Pieces({
  width,
  height,
  scale,
  pieces,
}: {
  readonly width: number;
  readonly height: number;
  readonly scale: number;
  readonly pieces: readonly Piece[];
}) {
  const px = (pixels: number): string => `${pixels * scale}px`;
  return (
    <span className="drawing" style={{ width: px(width), height: px(height) }} aria-hidden="true">
      {pieces.map(({ cell, x, y, flipX, flipY, from }, i) =>
        from === undefined ? null : (
          <i
            key={i}
            className="crisp"
            style={{
              left: px(x),
              top: px(y),
              width: px(cell.width),
              height: px(cell.height),
              backgroundImage: `url("${from.address}")`,
              backgroundPosition: `${px(-cell.x)} ${px(-cell.y)}`,
              backgroundSize: `${px(from.width)} ${px(from.height)}`,
              ...(flipX || flipY ? { transform: `scale(${flipX ? -1 : 1}, ${flipY ? -1 : 1})` } : {}),
            }}
          />
        ),
      )}
    </span>
  );
}

const isSame = (before: CellPictureProps, now: CellPictureProps): boolean =>
  before.scale === now.scale && looksSame(before.cell, now.cell);

/** One cell in its frame, as it is on the sheet. */
export const CellPicture = memo(function CellPicture({ cell, scale }: CellPictureProps) {
  const drawn = useWorkbench((state) => state.drawn);
  if (cell === undefined) return null;
  const { frameWidth, frameHeight, offsetX, offsetY } = cell;
  const pieces = cell.pieces ?? [{ cell, x: offsetX, y: offsetY, flipX: false, flipY: false }];
  return (
    <Pieces
      width={frameWidth}
      height={frameHeight}
      scale={scale}
      pieces={pieces.map((piece) => ({ ...piece, from: shownFrom(drawn, piece.cell.image) }))}
    />
  );
}, isSame);
