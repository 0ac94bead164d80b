// What characters written by hand have in common, whatever each of them decides: numbers for states, tables of times, one
// accumulator. See yardstick.ts.
import { times as named } from './character.js';

const names = Object.keys(named);
const times = Object.values(named);
// The states by number, in the order of `times`.
export const STAND = 0;
export const WALK = 1;
export const RUN = 2;
export const CROUCH = 3;
export const LAND = 4;
export const FALL = 5;
export const RISE = 6;
export const TAKEOFF = 7;
export const SWING1 = 8;
export const SWING2 = 9;
export const HURT = 10;
export const SPLASHED = 11;
/** Whether a state plays to its end. */
export const isAct = names.map((_, state) => state === LAND || state >= TAKEOFF);

/** Plays frames; what happens on them and what is decided is each character's own: `enterFrame`, `decide`. */
export abstract class Character {
  vx = 0;
  vy = 0;
  grounded = true;
  low = false;
  facing = 1;
  state: number = STAND;
  frame = 0;
  elapsed = 0;
  over = false;
  moving = false;
  fast = false;
  wasGrounded = true;
  jumpLeft = 0;
  swingLeft = 0;
  hurt = false;
  splash = false;
  queued = false;
  cues = 0;

  /** What happens on the frame that begins. @param used how much of the step has passed */
  abstract enterFrame(used: number): void;

  /** @param used how much of the step has passed */
  abstract decide(used: number): void;

  step(dt: number): void {
    const speed = Math.abs(this.vx);
    this.moving = this.moving ? speed >= 8 : speed > 12;
    this.fast = this.fast ? speed >= 80 : speed > 95;
    if (this.vx >= 6) this.facing = 1;
    else if (this.vx <= -6) this.facing = -1;
    this.decide(0);
    this.hurt = this.splash = false;
    this.wasGrounded = this.grounded;

    this.elapsed += dt;
    let table = times[this.state];
    while (!this.over && this.elapsed >= table![this.frame]!) {
      this.elapsed -= table![this.frame]!;
      this.frame++;
      if (this.frame === table!.length) {
        if (isAct[this.state]) {
          this.over = true;
          this.frame--;
          const left = this.elapsed;
          this.decide(dt - left);
          this.elapsed = left;
          table = times[this.state];
          continue;
        }
        this.frame = 0;
      }
      this.enterFrame(dt - this.elapsed);
      table = times[this.state];
    }
    if (this.jumpLeft > 0) this.jumpLeft -= dt;
    if (this.swingLeft > 0) this.swingLeft -= dt;
  }

  show(state: number): void {
    if (this.state !== state) this.enter(state);
  }

  enter(state: number): void {
    const { state: before } = this;
    this.state = state;
    this.over = this.queued = false;
    // Walking and running keep the foot that is in front.
    if (state === RUN && before === WALK) this.elapsed *= 0.75;
    else if (state === WALK && before === RUN) this.elapsed /= 0.75;
    else {
      this.frame = 0;
      this.elapsed = 0;
      if (state === WALK || state === RUN) this.cues++;
    }
  }
}
