import type { Clip } from 'dot-hop';
import { stampsOf } from 'dot-hop';
import { useWorkbench } from '../character/store.js';
import { shownFrom } from '../stage/shown-from.js';
import { dressedFrame, imagesFor, useClothes } from '../stage/worn.js';
import { CellPicture, Pieces } from './CellPicture.js';

/** A frame of a clip as it shows, in clothes if the character wears any. @param direction in which it faces; that for which it is drawn by default */
export function FramePicture({
  clip,
  frame,
  scale,
  direction,
}: {
  readonly clip: Clip;
  readonly frame: number;
  readonly scale: number;
  readonly direction?: string;
}) {
  const controller = useWorkbench((state) => state.controller);
  const drawn = useWorkbench((state) => state.drawn);
  // Other clothes are shown as soon as they are chosen.
  useClothes(({ chosen }) => chosen);
  const cell = clip.frames[frame];
  const pose =
    controller === undefined || cell === undefined
      ? undefined
      : dressedFrame(controller, clip, frame, imagesFor(drawn), direction);
  if (cell === undefined || pose === undefined) return <CellPicture cell={cell} scale={scale} />;
  const { frameWidth, frameHeight, pivotX, pivotY } = cell;
  return (
    <Pieces
      width={frameWidth}
      height={frameHeight}
      scale={scale}
      pieces={stampsOf(pose).map((stamp) => ({
        ...stamp,
        x: stamp.x + pivotX,
        y: stamp.y + pivotY,
        from: shownFrom(drawn, stamp.image),
      }))}
    />
  );
}
