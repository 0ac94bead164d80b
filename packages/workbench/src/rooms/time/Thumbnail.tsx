import { drawPose } from '@dot-hop/browser';
import { poseOf, showingAt } from 'dot-hop';
import type { Clip } from 'dot-hop';
import { useRef } from 'react';
import { useWorkbench } from '../../character/store.js';
import { useEachPicture, wantsStill } from '../../parts/loop.js';

/** A clip, small and moving. */
export function Thumbnail({ clip, size }: { readonly clip: Clip | undefined; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const time = useRef(0);
  const shown = useRef<unknown>(undefined);
  const first = clip?.frames[0];
  const [width, height] = [first?.frameWidth ?? size, first?.frameHeight ?? size];
  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d');
    if (!context || clip === undefined || first === undefined) return;
    const lasts = clip.ends[clip.ends.length - 1]! / 1000;
    if (!wantsStill()) time.current = (time.current + ms) % (lasts + (clip.loopFrom < 0 ? 600 : 0));
    const cell = clip.cells[showingAt(clip, Math.min(time.current, lasts - 0.001))]!;
    const { drawn } = useWorkbench.getState();
    const image = drawn.get(cell.image);
    // A drawing that stands still is not drawn again.
    if (image === undefined || (shown.current === cell && cell.pieces === undefined)) return;
    shown.current = cell;
    context.clearRect(0, 0, width, height);
    drawPose(context, { [cell.image]: image.bitmap }, poseOf(cell, false), first.pivotX, first.pivotY);
  });
  const scale = size / Math.max(width, height);
  return (
    <canvas
      ref={canvas}
      className="crisp thumb"
      aria-hidden="true"
      width={width}
      height={height}
      style={{ width: width * scale, height: height * scale }}
    />
  );
}
