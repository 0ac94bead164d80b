import { Painter } from '@dot-hop/browser';
import type { PaintedView } from '@dot-hop/browser';
import { boatLanterns, paintGlow } from './scenery.js';

const lantern = [255, 214, 150] as const;

/** The lights, on a canvas of their own that darkens the picture below it wherever no light falls. */
export class Lights {
  private readonly glows = [
    // Three that differ a little, so that flames flicker.
    ...[30, 32, 34].map((radius) => paintGlow(radius, lantern, 0.62)),
    paintGlow(96, [255, 196, 120], 1),
    paintGlow(34, [255, 182, 100], 0.85),
    paintGlow(60, [255, 184, 104], 0.8),
    paintGlow(9, [255, 214, 150], 0.72),
  ];
  private readonly painter: Painter;
  private time = 0;

  constructor(readonly canvas: HTMLCanvasElement) {
    this.painter = new Painter(canvas, {});
  }

  begin(view: PaintedView, time: number): void {
    this.painter.begin(view);
    this.time = time;
  }

  /** A lantern in somebody's hand. @param who flickers in a way of its own */
  lantern(x: number, y: number, who: number): void {
    const beat = Math.floor(this.time / 110 + who * 2.7);
    this.glow((((beat * 7919) % 11) + who) % 3, x, y);
  }

  /** What the water mirrors of a lantern, or what is to be seen wherever it is: a narrow light. */
  mirrored(x: number, y: number): void {
    for (const down of [0, 9, 18]) this.glow(6, x, y + down);
  }

  lamp(x: number, y: number): void {
    this.glow(3, x, y);
  }

  window(x: number, y: number): void {
    this.glow(4, x, y);
  }

  stall(x: number, y: number): void {
    this.glow(5, x, y);
  }

  boat(x: number, y: number): void {
    for (const one of boatLanterns) {
      this.glow(4, x + one.x, y + one.y + 6);
      this.mirrored(x + one.x, y + 10);
    }
    this.glow(5, x - 20, y - 14);
    this.glow(5, x + 26, y - 14);
  }

  end(): void {
    this.painter.end();
  }

  destroy(): void {
    this.painter.destroy();
  }

  private glow(which: number, x: number, y: number): void {
    const glow = this.glows[which]!;
    const { width } = glow;
    this.painter.stamp(glow, 0, 0, width, width, x - width / 2, y - width / 2);
  }
}
