import type { Controller } from '../controller/controller.js';
import type { Names } from '../controller/names.js';
import { Place } from '../controller/numbers.js';
import type { Situation } from '../controller/situations.js';
import { fresh, isRouted } from './chooser.js';
import { forgetChanges } from './decider.js';
import { Each } from './reader.js';
import { Mark, Moment } from './player.js';
import { Strands } from './strands.js';

/**
 * What happens in each track at the instant being decided, and the pulses that each sees although another one has just used
 * them. An instant is decided within one call, so one scratch serves all performers.
 */
const scratch = { moments: new Uint8Array(8), seen: new Int32Array(8) };

/**
 * How several tracks decide. At an instant each track crosses its borders by itself, in the order of the document. Then all
 * decide on the same signals: of what they would switch to the highest rank is entered first, and all decide anew, until
 * none switches. A pulse that one of them uses is still seen by the others until then.
 */
export abstract class Together<N extends Names = Names> extends Strands<N> {
  protected constructor(controller: Controller<N>) {
    super(controller);
    const count = controller.tracks.length;
    if (scratch.moments.length >= count) return;
    scratch.moments = new Uint8Array(count);
    scratch.seen = new Int32Array(count);
  }

  protected override seen(): Situation {
    const { situation } = this;
    const pulses = scratch.seen[this.current.track]!;
    const { flags, terms, more } = situation;
    return pulses === 0 ? situation : this.controller.situations.find(flags | pulses, terms, more);
  }

  protected override sharePulses(used: number): void {
    if (used === 0) return;
    const active = this.current.track;
    // One that another track has used already is none to be shared any more.
    const shared = used & this.setFlags;
    for (let track = 0; track < this.controller.tracks.length; track++)
      if (track !== active) scratch.seen[track]! |= shared;
    scratch.seen[active]! &= ~used;
    fresh.sees = true;
  }

  protected override instantOfAll(): void {
    try {
      this.decideInstant();
    } finally {
      this.select(0);
      forgetSeen();
    }
  }

  private decideInstant(): void {
    const { numbers, base } = this;
    const count = this.controller.tracks.length;
    const at = numbers[base + Place.due]!;
    for (let track = 0; track < count; track++) this.moveOn(track);
    if (numbers[base + Place.timer]! <= at) this.expirePulses();
    if (fresh.any) forgetChanges();
    forgetSeen();
    let changed = this.commit();
    const told = this.told?.count ?? 0;
    for (let track = 0; track < count; track++) {
      scratch.moments[track] = Moment.nothing;
      if (this.isIdle(track)) continue;
      this.select(track);
      if ((this.marks & Mark.begun) === 0) {
        this.marks |= Mark.begun;
        this.reportCues();
        changed = true;
      }
      const { atLeast } = this.current;
      if (atLeast > 0 && numbers[base + Place.entered]! + atLeast === at) changed = true;
      scratch.moments[track] = this.crossBorders();
      if (scratch.moments[track] !== Moment.nothing) changed = true;
    }
    if (changed || (this.told?.count ?? 0) !== told || fresh.sees) this.settleAll();
    scratch.moments.fill(Moment.nothing);
    let geared = false;
    for (let track = 0; track < count; track++) {
      if (!this.concerns(track, Each.gear)) continue;
      this.select(track);
      if (!this.changeGait()) continue;
      scratch.moments[track] = this.crossBorders();
      geared = true;
    }
    if (geared) this.settleAll();
  }

  /** Whether it is known of a track that it stays: see `choose`. */
  private stays(track: number): boolean {
    if (fresh.any || fresh.sees || isRouted(this.lastOf(track))) return false;
    const { isStatic, index } = this.stateOn(track);
    return isStatic && (this.marksOf(track) & Mark.ended) === 0 && this.situation.decided?.[index] === -1;
  }

  /** Decides in all tracks until none switches any more. */
  private settleAll(): void {
    const { states, tracks } = this.controller;
    const { moments } = scratch;
    for (let switches = 0; ;) {
      let to = -1;
      for (let track = 0; track < tracks.length; track++) {
        if (this.stays(track)) continue;
        this.select(track);
        const { last } = this;
        const one = this.choose(moments[track]!);
        this.last = last;
        if (one >= 0 && (to < 0 || states[one]!.priority > states[to]!.priority)) to = one;
      }
      if (to >= 0) {
        // Chosen again, so that what is noted of a choice is of this one.
        this.select(states[to]!.track);
        this.choose(moments[this.current.track]!);
      } else {
        if (this.hear()) continue;
        to = this.pressed();
        if (to < 0 && !forgetSeen()) return;
        if (to < 0) continue;
      }
      if (++switches > states.length) throw this.cycleError(to);
      const { track } = states[to]!;
      moments[track] = this.enter(to) ? Moment.begins : Moment.nothing;
    }
  }

  /** Has the tracks in which nothing switches remember hops and queue presses. @returns whether a pulse was used */
  private hear(): boolean {
    let heard = false;
    for (let track = 0; track < this.controller.tracks.length; track++) {
      if (!this.concerns(track, Each.hear)) continue;
      this.select(track);
      if (this.remember() || this.queuePress()) heard = true;
    }
    return heard;
  }

  /** The first act that is to begin anew by a press, its track selected; -1 for none. */
  private pressed(): number {
    for (let track = 0; track < this.controller.tracks.length; track++) {
      if (!this.concerns(track, Each.hear)) continue;
      this.select(track);
      const to = this.restart();
      if (to >= 0) return to;
    }
    return -1;
  }

  protected override settleTogether(moment: number): void {
    scratch.moments.fill(Moment.nothing);
    scratch.moments[this.current.track] = moment;
    try {
      this.settleAll();
    } finally {
      forgetSeen();
    }
  }
}

/** Has pulses that were used count as used for everybody. @returns whether any was seen yet */
function forgetSeen(): boolean {
  if (!fresh.sees) return false;
  let any = 0;
  for (const pulses of scratch.seen) any |= pulses;
  scratch.seen.fill(0);
  fresh.sees = false;
  return any !== 0;
}
