import { drawPose } from '@dot-hop/browser';
import { poseOf, showingAt } from 'dot-hop';
import { inPlainMemory } from '../../parts/canvas.js';
import { useRef } from 'react';
import { clipOf } from '../../character/clip.js';
import { useWorkbench } from '../../character/store.js';
import { useEachPicture, wantsStill } from '../../parts/loop.js';

/** A clip, small and moving. */
export function Thumbnail({ name, size }: { readonly name: string; readonly size: number }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const time = useRef(0);
  const shown = useRef<unknown>(undefined);
  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    const { controller, drawn } = useWorkbench.getState();
    const clip = clipOf(controller, name);
    if (!context || clip === undefined) return;
    const lasts = clip.ends[clip.ends.length - 1]! / 1000;
    if (!wantsStill()) time.current = (time.current + ms) % (lasts + (clip.loopFrom < 0 ? 600 : 0));
    const cell = clip.cells[showingAt(clip, Math.min(time.current, lasts - 0.001))]!;
    const image = drawn.get(cell.image);
    // A drawing that stands still is not drawn again.
    if (image === undefined || (shown.current === cell && cell.pieces === undefined)) return;
    shown.current = cell;
    const { frameWidth, frameHeight, pivotX, pivotY } = clip.frames[0]!;
    const scale = Math.min(1, size / Math.max(frameWidth, frameHeight));
    context.setTransform(1, 0, 0, 1, 0, 0);
    context.clearRect(0, 0, size * 2, size * 2);
    context.imageSmoothingEnabled = false;
    context.setTransform(scale * 2, 0, 0, scale * 2, size - frameWidth * scale, size - frameHeight * scale);
    drawPose(context, { [cell.image]: image.bitmap }, poseOf(cell, false), pivotX, pivotY);
  });
  return (
    <canvas
      ref={canvas}
      className="crisp thumb"
      aria-hidden="true"
      width={size * 2}
      height={size * 2}
      style={{ width: size, height: size }}
    />
  );
}
