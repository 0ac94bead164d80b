import type { Boats } from './boats.js';
import type { Crowd } from './crowd.js';
import { pavement, quay } from './quay.js';

/** How many pixels of the quay one of the overview is. */
const scale = 12;

/** How often it is drawn, in milliseconds. */
const every = 120;

/** The whole quay, each of the people a point of light. */
export class Overview {
  private readonly context: CanvasRenderingContext2D;
  private readonly picture: ImageData;
  private drawn = -Infinity;

  constructor(canvas: HTMLCanvasElement) {
    canvas.width = quay.width / scale;
    canvas.height = quay.height / scale;
    this.context = canvas.getContext('2d')!;
    this.picture = this.context.createImageData(canvas.width, canvas.height);
  }

  draw(crowd: Crowd, boats: Boats, view: { x: number; y: number; width: number; height: number }): void {
    const now = performance.now();
    if (now - this.drawn < every) return;
    this.drawn = now;
    const { picture, context } = this;
    const { width, height, data } = picture;
    const [top, shore] = [pavement.top / scale, pavement.shore / scale];
    const words = new Uint32Array(data.buffer);
    for (let y = 0; y < height; y++)
      words.fill(y < top ? 0xff2a1a1c : y < shore ? 0xff3a242c : 0xff4a2418, y * width, (y + 1) * width);
    for (let i = 0; i < crowd.count; i++) {
      const at = 4 * (Math.floor(crowd.y[i]! / scale) * width + Math.floor(crowd.x[i]! / scale));
      data[at] = Math.min(255, data[at]! + 66);
      data[at + 1] = Math.min(255, data[at + 1]! + 46);
      data[at + 2] = Math.min(255, data[at + 2]! + 20);
    }
    context.putImageData(picture, 0, 0);
    context.fillStyle = '#ffc95c';
    for (const boat of boats.all)
      context.fillRect(Math.round(boat.x / scale) - 6, Math.round(boat.y / scale) - 2, 12, 3);
    if (crowd.led >= 0) {
      context.fillStyle = '#fff6cf';
      context.fillRect(
        Math.round(crowd.x[crowd.led]! / scale) - 2,
        Math.round(crowd.y[crowd.led]! / scale) - 2,
        4,
        4,
      );
    }
    context.strokeStyle = '#f0e6da';
    context.strokeRect(
      Math.round(view.x / scale) + 0.5,
      Math.round(view.y / scale) + 0.5,
      Math.round(view.width / scale) - 1,
      Math.round(view.height / scale) - 1,
    );
  }
}
