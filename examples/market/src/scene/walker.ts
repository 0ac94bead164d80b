import type { Performer } from 'dot-hop';
import type { LoadedCharacter } from '@dot-hop/browser';
import { isFree } from './square.js';

/** How much of a way up or down shows, seen from above at an angle. */
const slant = 0.75;

/** Milliseconds in which a walker comes up to the speed it wants. */
const inertia = 90;

/** Somebody on the square: a place and a velocity, and a performer that is told the velocity and nothing else. */
export class Walker {
  vx = 0;
  vy = 0;

  constructor(
    readonly name: string,
    readonly character: LoadedCharacter,
    public performer: Performer,
    public x: number,
    public y: number,
  ) {}

  /**
   * @param wishX pixels a second that it wants to go, over the ground
   * @returns whether nothing stood in the way
   */
  move(ms: number, wishX: number, wishY: number): boolean {
    const part = Math.min(1, ms / inertia);
    this.vx += (wishX - this.vx) * part;
    this.vy += (wishY * slant - this.vy) * part;
    const seconds = ms / 1000;
    const [x, y] = [this.x + this.vx * seconds, this.y + this.vy * seconds];
    // Along what stands in the way, if that is free.
    const acrossFree = isFree(x, this.y);
    const downFree = isFree(acrossFree ? x : this.x, y);
    if (acrossFree) this.x = x;
    else this.vx = 0;
    if (downFree) this.y = y;
    else this.vy = 0;
    return acrossFree && downFree;
  }

  /** Tells the performer how it goes, and lets its time pass. */
  perform(ms: number): void {
    this.performer.set('vx', this.vx);
    this.performer.set('vy', this.vy);
    this.performer.step(ms);
  }
}
