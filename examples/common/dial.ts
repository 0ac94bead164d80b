import { drawDial } from '@dot-hop/browser';
import type { Performer } from 'dot-hop';

/** Draws the compass of a performer over a whole canvas. @param longest the length of the vector that reaches its edge */
export function redrawDial(context: CanvasRenderingContext2D, performer: Performer, longest: number): void {
  const { width, height } = context.canvas;
  context.clearRect(0, 0, width, height);
  drawDial(context, performer, width / 2, height / 2, height * 0.45, longest);
}
