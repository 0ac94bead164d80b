// The yardstick: the character of bench/character.mjs written by hand, the way a good game programmer does it without a
// library: one class, numbers for states, tables of times, one chain of ifs, one accumulator.
import { times as named } from './character.mjs';

const names = Object.keys(named);
const times = Object.values(named);
const [STAND, WALK, RUN, CROUCH, LAND, FALL, RISE, TAKEOFF, SWING1, SWING2, HURT, SPLASHED] = names.keys();
const isAct = names.map((_, state) => state === LAND || state >= TAKEOFF);

export class HandWritten {
  vx = 0;
  vy = 0;
  grounded = true;
  low = false;
  facing = 1;
  state = STAND;
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

  step(dt) {
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
    while (!this.over && this.elapsed >= table[this.frame]) {
      this.elapsed -= table[this.frame];
      this.frame++;
      if (this.frame === table.length) {
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

  /** What happens on frames: steps are heard, a swing whooshes and hears the next press, a landing can be cut. */
  enterFrame(used) {
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

  hearFollowUp(used) {
    if (this.frame < 2 || this.swingLeft - used <= 0 || this.queued) return;
    this.queued = true;
    this.swingLeft = 0;
  }

  /** @param used how much of the step has passed */
  decide(used) {
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

  show(state) {
    if (this.state !== state) this.enter(state);
  }

  enter(state) {
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
