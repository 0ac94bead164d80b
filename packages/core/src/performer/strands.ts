import type { Controller, State } from '../controller/controller.js';
import { inStepFrame } from '../controller/figure.js';
import type { Names } from '../controller/names.js';
import { Kept, Place } from '../controller/numbers.js';
import type { Situation } from '../controller/situations.js';
import { Glide, Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { SignalValue } from '../signal/definition.js';
import { Decider, forgetChanges } from './decider.js';
import { fresh, isRouted } from './chooser.js';
import { Each, Wait } from './listener.js';
import { Mark, Moment } from './player.js';

/**
 * What happens in each track at the instant being decided, and the pulses that each sees although another one has just used
 * them. An instant is decided within one call, so one scratch serves all performers.
 */
const scratch = { moments: new Uint8Array(8), seen: new Int32Array(8) };

/**
 * Several tracks in one performer. They share the signals, the situation and the time; what each plays and by which rule it
 * came to it is a *strand*. The first strand is in the performer's own fields. The others wait in its numbers (see
 * {@link Kept}); to play or decide one, it is exchanged with what is in the fields, so that everything in the layers below
 * speaks of one strand and need not know of others. Between two calls the first is always in its place.
 *
 * At an instant each track crosses its borders by itself, in the order of the document. Then all decide on the same
 * signals: of what they would switch to the highest rank is entered first, and all decide anew, until none switches. A
 * pulse that one of them uses is still seen by the others until then.
 */
export abstract class Strands<N extends Names = Names> extends Decider<N> {
  protected constructor(controller: Controller<N>) {
    super(controller);
    const count = controller.tracks.length;
    if (scratch.moments.length >= count) return;
    scratch.moments = new Uint8Array(count);
    scratch.seen = new Int32Array(count);
  }

  /** Where a track but the first keeps what it plays. */
  private keptAt(track: number): number {
    return this.base + this.controller.numbers.kept + (track - 1) * Kept.size;
  }

  /** Puts a track's strand into the fields. */
  protected select(track: number): void {
    const active = this.current.track;
    if (active === track) return;
    if (active !== 0) this.exchange(active);
    if (track !== 0) this.exchange(track);
  }

  private exchange(track: number): void {
    const { numbers, base, timeline, segment, marks, rate, remembered, last, lastUsed } = this;
    const kept = this.keptAt(track);
    this.timeline = this.controller.timelines[numbers[kept + Kept.timeline]!]!;
    this.segment = numbers[kept + Kept.segment]! | 0;
    this.marks = numbers[kept + Kept.marks]! | 0;
    this.rate = numbers[kept + Kept.rate]! | 0;
    this.remembered = numbers[kept + Kept.remembered]! | 0;
    this.last = numbers[kept + Kept.last]! | 0;
    this.lastUsed = numbers[kept + Kept.lastUsed]! | 0;
    numbers[kept + Kept.timeline] = timeline.number;
    numbers[kept + Kept.segment] = segment;
    numbers[kept + Kept.marks] = marks;
    numbers[kept + Kept.rate] = rate;
    numbers[kept + Kept.remembered] = remembered;
    numbers[kept + Kept.last] = last;
    numbers[kept + Kept.lastUsed] = lastUsed;
    // The three places are in the same order in both.
    for (let i = 0; i < 3; i++) {
      const mine = numbers[base + Place.position + i]!;
      numbers[base + Place.position + i] = numbers[kept + Kept.position + i]!;
      numbers[kept + Kept.position + i] = mine;
    }
  }

  /**
   * Passes borders of all tracks at which nothing is to be decided; the first is in the fields. Two ways at each instant: first it
   * is seen whether every track can, then they do.
   */
  protected override glideTogether(time: number): boolean {
    const { numbers, base, controller } = this;
    const count = controller.tracks.length;
    const timer = numbers[base + Place.timer]!;
    let { wait } = this;
    let at = numbers[base + Place.due]!;
    while (at < timer) {
      for (let track = 0; track < count; track++) if (!this.canGlide(track, at)) return false;
      let due = timer;
      for (let track = 0; track < count; track++) due = Math.min(due, this.glideOn(track, at));
      due = Math.min(due, at + Wait.longest);
      wait = (wait + due - at) | 0;
      at = due;
      numbers[base + Place.due] = at;
      if (wait > time) {
        this.wait = wait - time;
        return true;
      }
      this.wait = wait;
    }
    return false;
  }

  /** Whether a track has no border at an instant, or one that is passed without a decision. */
  private canGlide(track: number, at: number): boolean {
    if ((this.marksOf(track) & Mark.begun) === 0 || isRouted(this.lastOf(track))) return false;
    if (!this.runs(track)) return true;
    if (this.rateOf(track) !== Units.perMicrosecond) return false;
    const { numbers } = this;
    const places = this.placesOf(track);
    const row = this.segmentOf(track) * Glide.size;
    const { glides } = this.timelineOf(track);
    const place = numbers[places]! + (at - numbers[places + 1]!) * Units.perMicrosecond;
    const end = glides[row + Glide.end]!;
    return place < end || (place === end && glides[row + Glide.next]! >= 0);
  }

  /** Passes the border of a track, if it has one at an instant. @returns when it has the next */
  private glideOn(track: number, at: number): number {
    if (!this.runs(track)) return Infinity;
    const { numbers } = this;
    const places = this.placesOf(track);
    const row = this.segmentOf(track) * Glide.size;
    const { glides } = this.timelineOf(track);
    const left = glides[row + Glide.end]! - numbers[places]!;
    const border = numbers[places + 1]! + Math.ceil(left / Units.perMicrosecond);
    if (border > at) return border;
    const next = glides[row + Glide.next]!;
    numbers[places] = glides[row + Glide.begin]!;
    numbers[places + 1] = at;
    if (track === 0) this.segment = next >> 1;
    else numbers[this.keptAt(track) + Kept.segment] = next >> 1;
    if ((next & 1) !== 0) {
      this.select(track);
      this.reportCues();
      this.select(0);
    }
    return at + glides[row + Glide.lasts]!;
  }

  /** Where what a track plays is kept while another is in the fields; -1 for the one that is. */
  private slotOf(track: number): number {
    const active = this.current.track;
    return track === active ? -1 : this.keptAt(track === 0 ? active : track);
  }

  /** The timeline that a track shows, whichever strand is in the fields. */
  protected timelineOf(track: number): Timeline {
    const slot = this.slotOf(track);
    return slot < 0 ? this.timeline : this.controller.timelines[this.numbers[slot + Kept.timeline]!]!;
  }

  /** The segment of it. */
  protected segmentOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.segment : this.numbers[slot + Kept.segment]!;
  }

  private marksOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.marks : this.numbers[slot + Kept.marks]!;
  }

  private rateOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.rate : this.numbers[slot + Kept.rate]!;
  }

  private lastOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.last : this.numbers[slot + Kept.last]!;
  }

  /** Where the places of a track are among the numbers: those of the one in the fields are the performer's own. */
  private placesOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.base + Place.position : slot + Kept.position;
  }

  /** Whether a track runs by itself, so that its clip has borders. */
  private runs(track: number): boolean {
    return this.rateOf(track) !== 0 && (this.marksOf(track) & Mark.ended) === 0;
  }

  /** What a track shows by itself: its own frame, or that of the track it is in step with. */
  protected drawingOf(track: number): Pose {
    const { inStep, drawsOwn, books } = this.stateOn(track);
    const lead = inStep < 0 ? track : Math.max(0, this.leadOf(track));
    const leading = this.timelineOf(lead);
    const segment = this.segmentOf(lead);
    if (lead === track || !drawsOwn) return leading.poses[segment]!;
    const own = books[0]![leading.direction]!;
    const frame = inStepFrame(leading.frames[segment]!, leading.clip, own.clip);
    return own.poses[own.frames.indexOf(frame)]!;
  }

  protected override pointAll(): void {
    const { numbers, toward } = this;
    for (let track = 1; track < this.controller.tracks.length; track++) {
      const marks = this.keptAt(track) + Kept.marks;
      numbers[marks] = (numbers[marks]! & 15) | (toward << 4);
    }
  }

  protected stateOn(track: number): State {
    return this.controller.states[this.timelineOf(track).state]!;
  }

  /** The track whose frames a track shows: itself, or the one that it is in step with; -1 where nobody leads any more. */
  protected leadOf(track: number): number {
    const { tracks } = this.controller;
    let lead = track;
    for (let steps = tracks.length; steps > 0; steps--) {
      const { inStep } = this.stateOn(lead);
      if (inStep < 0) return lead;
      lead = inStep;
    }
    return -1;
  }

  /** What is in step with another track leaves that one's place. */
  protected override leave(): Timeline {
    const { timeline, numbers, base } = this;
    const state = this.current;
    if (state.inStep < 0) return timeline;
    const lead = this.leadOf(state.track);
    if (lead < 0) return timeline;
    this.select(lead);
    this.move();
    const { timeline: left, segment } = this;
    const ended = this.marks & Mark.ended;
    const place = numbers[base + Place.position]!;
    this.select(state.track);
    this.timeline = state.books[0]![left.direction]!;
    this.segment = segment;
    this.marks |= ended;
    numbers[base + Place.position] = place;
    return left;
  }

  /** What is true of a name; also of a state with its track that no condition asks for. */
  override value(name: string): SignalValue {
    const { tracks, tables } = this.controller;
    const dot = name.indexOf('.');
    if (dot < 0 || tables.tags.has(name)) return super.value(name);
    const track = tracks.find((one) => one.name === name.slice(0, dot));
    const state = name.slice(dot + 1);
    const { states } = this.controller;
    if (track?.order.some((index) => states[index]!.name === state) !== true) return super.value(name);
    return this.stateOn(track.index).name === state;
  }

  /** The index of a track by name. */
  protected trackNamed(name: string): number {
    const { tracks } = this.controller;
    const track = tracks.find((one) => one.name === name);
    if (track === undefined) throw callError('track-unknown', { name, known: tracks.map((one) => one.name) });
    return track.index;
  }

  protected override seen(): Situation {
    const { situation } = this;
    const pulses = scratch.seen[this.current.track]!;
    const { flags, terms, more } = situation;
    return pulses === 0 ? situation : this.controller.situations.find(flags | pulses, terms, more);
  }

  protected override bitsOfAll(): number {
    let bits = 0;
    for (let track = 0; track < this.controller.tracks.length; track++) bits |= this.stateOn(track).tagBits;
    return bits;
  }

  /** Whether something is to be done for a track at all: to exchange what is in the fields for nothing would cost. */
  private concerns(track: number, what: Each): boolean {
    const timeline = this.timelineOf(track);
    const { reads, atLeast, hears, gaits, rate, held } = timeline.of;
    if (what === Each.openReads) return reads.length > 0;
    if (what === Each.timeLeast) return atLeast > 0;
    if (what === Each.findBorder) return this.runs(track);
    if (what === Each.hear) return hears;
    if (what === Each.gear) return gaits.length > 0;
    if (what !== Each.heed) return true;
    const turns = !held && this.marksOf(track) >> 4 !== timeline.direction;
    return turns || rate !== undefined || this.controller.turnTimer >= 0;
  }

  protected override inEach(what: Each): boolean {
    const active = this.current.track;
    let any = false;
    for (let track = 0; track < this.controller.tracks.length; track++) {
      if (!this.concerns(track, what)) continue;
      this.select(track);
      if (what === Each.openReads) this.openReads();
      else if (what === Each.openCompass) this.openCompass();
      else if (what === Each.followCompass) this.followCompass();
      else if (what === Each.timeLeast) this.timeLeast();
      else if (what === Each.findBorder) this.findBorder();
      else if (this.heed()) any = true;
    }
    this.select(active);
    return any;
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
    for (let track = 0; track < count; track++) this.moveOn(track, at);
    if (numbers[base + Place.timer]! <= at) this.expirePulses();
    if (fresh.any) forgetChanges();
    forgetSeen();
    let changed = this.commit();
    const told = this.happened;
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
    if (changed || this.happened !== told || fresh.sees) this.settleAll();
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

  /** Brings the place of a track up to an instant. */
  private moveOn(track: number, at: number): void {
    const { numbers } = this;
    const places = this.placesOf(track);
    if (this.runs(track)) numbers[places]! += (at - numbers[places + 1]!) * this.rateOf(track);
    numbers[places + 1] = at;
  }

  /** Whether nothing can happen in a track by itself. */
  private isIdle(track: number): boolean {
    const { scrub, atLeast } = this.stateOn(track);
    const begun = (this.marksOf(track) & Mark.begun) !== 0;
    return begun && scrub === undefined && atLeast === 0 && !this.runs(track);
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
