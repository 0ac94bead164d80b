import { ground } from './quay';

/** Pixels a second. */
const speeds = { walk: 34, slow: 16 };
/** Milliseconds in which it comes up to the speed that is asked for. */
const inertia = 90;

/** A body on flat ground, seen from above at an angle: it has a place and a velocity, and knows nothing of pictures. */
export class Body {
  vx = 0;
  vy = 0;

  constructor(
    public x: number,
    public y: number,
  ) {}

  /** @param along -1 left to 1 right @param down -1 up to 1 down */
  step(ms: number, along: number, down: number, isSlow: boolean): void {
    const speed = isSlow ? speeds.slow : speeds.walk;
    // Across corners it goes no faster.
    const long = Math.max(1, Math.hypot(along, down));
    const part = Math.min(1, ms / inertia);
    this.vx += ((along / long) * speed - this.vx) * part;
    this.vy += ((down / long) * speed - this.vy) * part;
    const [x, y] = [this.x + (this.vx * ms) / 1000, this.y + (this.vy * ms) / 1000];
    this.x = Math.max(ground.left, Math.min(ground.right, x));
    this.y = Math.max(ground.top, Math.min(ground.bottom, y));
    // Who is stopped by an edge stands: what is told is what really happened.
    if (this.x !== x) this.vx = 0;
    if (this.y !== y) this.vy = 0;
  }
}
