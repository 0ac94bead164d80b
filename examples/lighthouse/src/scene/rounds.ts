import type { Figure } from './figure.js';

/** The quay between the tower and the water, in units from the middle. */
const ring = { inner: 3.6, outer: 7.6 };

/** Leads a figure round the tower: to a place on the quay, a rest there, and on to the next. */
export class Rounds {
  private angle: number;
  private far: number;
  private goalAngle: number;
  private goalFar: number;
  /** Milliseconds it still stands. */
  private rest: number;

  constructor(
    readonly figure: Figure,
    private readonly chance: () => number,
    /** Units a second. */
    private readonly speed: number,
  ) {
    this.angle = this.goalAngle = chance() * 2 * Math.PI;
    this.far = this.goalFar = ring.inner + chance() * (ring.outer - ring.inner);
    this.rest = chance() * 2000;
    figure.x = Math.cos(this.angle) * this.far;
    figure.z = Math.sin(this.angle) * this.far;
  }

  /** @param stands whether it is to stand still for the time being */
  step(ms: number, stands: boolean): void {
    const { figure, speed } = this;
    this.angle = Math.atan2(figure.z, figure.x);
    this.far = Math.hypot(figure.x, figure.z);
    const around =
      Math.atan2(Math.sin(this.goalAngle - this.angle), Math.cos(this.goalAngle - this.angle)) * this.far;
    const out = this.goalFar - this.far;
    const left = Math.hypot(around, out);
    if (this.rest > 0 && !stands) this.rest -= ms;
    const isThere = left < 0.2;
    if (isThere && this.rest <= 0) this.choose();
    const goes = !stands && !isThere && this.rest <= 0;
    // Along the circle and outwards, turned into the world's axes.
    const [a, o] = goes ? [(around / left) * speed, (out / left) * speed] : [0, 0];
    const [cos, sin] = [Math.cos(this.angle), Math.sin(this.angle)];
    const part = Math.min(1, ms / 110);
    figure.vx += (cos * o - sin * a - figure.vx) * part;
    figure.vz += (sin * o + cos * a - figure.vz) * part;
    if (!goes && Math.hypot(figure.vx, figure.vz) < 0.04) figure.vx = figure.vz = 0;
  }

  private choose(): void {
    const { chance } = this;
    this.goalAngle = this.angle + (chance() - 0.5) * 3.4;
    this.goalFar = ring.inner + chance() * (ring.outer - ring.inner);
    this.rest = chance() < 0.5 ? 700 + chance() * 3000 : 0;
  }
}
