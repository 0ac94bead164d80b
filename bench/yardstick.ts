import type * as ByHand from './by-hand.js';

// The yardstick: the character of bench/character.ts written by hand, the way a good game programmer does it without a
// library: one class, numbers for states, one chain of ifs; playing frames is common to all characters and written once.
//
// Loaded as `yardstick.js?kind=3` it is another class on the same common one, as a game with several characters has them;
// as `?kind=3&own` it has a copy of that for itself, as if every character were written from scratch.
const { search, searchParams } = new URL(import.meta.url);
const { Character, ...states } = (await import(
  searchParams.has('own') ? `./by-hand.js${search}` : './by-hand.js'
)) as typeof ByHand;
const { STAND, WALK, RUN, CROUCH, LAND, FALL, RISE, TAKEOFF, SWING1, SWING2, HURT, SPLASHED, isAct } = states;

export class HandWritten extends Character {
  /** What happens on frames: steps are heard, a swing whooshes and hears the next press, a landing can be cut. */
  enterFrame(used: number): void {
    const { state, frame } = this;
    if (state === WALK || state === RUN) {
      if (frame === 0 || frame === 4) this.cues++;
    } else if (state === SWING1 || state === SWING2) {
      if (frame === 2) this.cues++;
      if (state === SWING1) this.hearFollowUp(used);
    } else if (state === LAND && frame === 1 && this.grounded && this.moving) {
      const left = this.elapsed;
      this.enter(this.fast ? RUN : WALK);
      this.elapsed = left;
    }
  }

  hearFollowUp(used: number): void {
    if (this.frame < 2 || this.swingLeft - used <= 0 || this.queued) return;
    this.queued = true;
    this.swingLeft = 0;
  }

  decide(used: number): void {
    const { state } = this;
    const acting = isAct[state] && !this.over;
    const canSwing = this.grounded && this.swingLeft - used > 0;
    const canJump = this.grounded && this.jumpLeft - used > 0;
    if (this.splash && used === 0 && !(acting && state === SPLASHED)) this.enter(SPLASHED);
    else if (acting && state === SPLASHED) return;
    else if (this.hurt && used === 0 && !(acting && state === HURT)) this.enter(HURT);
    else if (acting && state === HURT) return;
    else if (state === SWING1 && this.over && this.queued) this.enter(SWING2);
    else if (acting && state === SWING1) this.hearFollowUp(used);
    else if (acting && state === SWING2) return;
    else if (canSwing) {
      this.swingLeft = 0;
      this.enter(SWING1);
    } else if (canJump && !(acting && state === TAKEOFF)) {
      this.jumpLeft = 0;
      this.enter(TAKEOFF);
    } else if (acting && state === TAKEOFF) return;
    else if (!this.grounded) {
      // Neither cuts the other off, but each gives way when its own condition is no longer true.
      this.show(this.vy < 0 ? RISE : FALL);
    } else if (used === 0 && !this.wasGrounded) this.enter(LAND);
    else if (acting && state === LAND) {
      if (this.frame > 0 && this.moving) this.enter(this.fast ? RUN : WALK);
    } else if (this.low && !this.moving) this.show(CROUCH);
    else if (this.fast) this.show(RUN);
    else if (this.moving) this.show(WALK);
    else this.show(STAND);
  }
}
