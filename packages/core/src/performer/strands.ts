import type { State } from '../controller/controller.js';
import { inStepFrame } from '../controller/figure.js';
import type { Names } from '../controller/names.js';
import { Kept, Place } from '../controller/numbers.js';
import { Glide, Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { SignalValue } from '../signal/definition.js';
import { isRouted } from './chooser.js';
import { Decider } from './decider.js';
import { Wait } from './listener.js';
import { Each } from './reader.js';
import { Mark } from './player.js';

/** When the next border is of those that have been passed: a number that is handed on would be put into a box. */
const border = new Float64Array(1);

/**
 * Several tracks in one performer. They share the signals, the situation and the time; what each plays and by which rule it
 * came to it is a *strand*. The first strand is in the performer's own fields. The others wait in its numbers (see
 * {@link Kept}); to play or decide one, it is exchanged with what is in the fields, so that everything in the layers below
 * speaks of one strand and need not know of others. Between two calls the first is always in its place.
 *
 * How they decide together is said where that is done: see `Together`.
 */
export abstract class Strands<N extends Names = Names> extends Decider<N> {
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
      for (let track = 0; track < count; track++) if (!this.canGlide(track)) return false;
      border[0] = timer;
      for (let track = 0; track < count; track++) this.glideOn(track);
      const due = Math.min(border[0], at + Wait.longest);
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

  /** Whether a track has no border at the present instant, or one that is passed without a decision. */
  private canGlide(track: number): boolean {
    if ((this.marksOf(track) & Mark.begun) === 0 || isRouted(this.lastOf(track))) return false;
    if (!this.runs(track)) return true;
    if (this.rateOf(track) !== Units.perMicrosecond) return false;
    const { numbers, base } = this;
    const places = this.placesOf(track);
    const row = this.segmentOf(track) * Glide.size;
    const { glides } = this.timelineOf(track);
    const since = numbers[base + Place.due]! - numbers[places + 1]!;
    const place = numbers[places]! + since * Units.perMicrosecond;
    const end = glides[row + Glide.end]!;
    return place < end || (place === end && glides[row + Glide.next]! >= 0);
  }

  /** Passes the border of a track, if it has one at the present instant, and notes when it has the next. */
  private glideOn(track: number): void {
    if (!this.runs(track)) return;
    const { numbers, base } = this;
    const at = numbers[base + Place.due]!;
    const places = this.placesOf(track);
    const row = this.segmentOf(track) * Glide.size;
    const { glides } = this.timelineOf(track);
    const left = glides[row + Glide.end]! - numbers[places]!;
    const ends = numbers[places + 1]! + Math.ceil(left / Units.perMicrosecond);
    if (ends > at) {
      border[0] = Math.min(border[0]!, ends);
      return;
    }
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
    border[0] = Math.min(border[0]!, at + glides[row + Glide.lasts]!);
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

  protected marksOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.marks : this.numbers[slot + Kept.marks]!;
  }

  private rateOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.rate : this.numbers[slot + Kept.rate]!;
  }

  protected lastOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.last : this.numbers[slot + Kept.last]!;
  }

  /** Where the places of a track are among the numbers: those of the one in the fields are the performer's own. */
  private placesOf(track: number): number {
    const slot = this.slotOf(track);
    return slot < 0 ? this.base + Place.position : slot + Kept.position;
  }

  /** Whether a track runs by itself, so that its clip has borders. */
  protected runs(track: number): boolean {
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

  /** What is true of a name; also what a track shows, and of a state with its track that no condition asks for. */
  override value<S extends N['read']>(name: S): S extends keyof N['values'] ? N['values'][S] : SignalValue;
  override value(name: string): SignalValue {
    const { tracks, tables, states } = this.controller;
    const { signals, derived, tags } = tables;
    if (signals.has(name) || derived.has(name) || tags.has(name)) return super.value(name);
    const [first, ...rest] = name.split('.');
    const track = tracks.find((one) => one.name === first);
    if (track !== undefined && rest.length === 0) return this.stateOn(track.index).name;
    const state = rest.join('.');
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

  protected override bitsOfAll(): number {
    let bits = 0;
    for (let track = 0; track < this.controller.tracks.length; track++) bits |= this.stateOn(track).tagBits;
    return bits;
  }

  /** Whether something is to be done for a track at all: to exchange what is in the fields for nothing would cost. */
  protected concerns(track: number, what: Each): boolean {
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

  /** Brings the place of a track up to the present instant. */
  protected moveOn(track: number): void {
    const { numbers, base } = this;
    const at = numbers[base + Place.due]!;
    const places = this.placesOf(track);
    if (this.runs(track)) numbers[places]! += (at - numbers[places + 1]!) * this.rateOf(track);
    numbers[places + 1] = at;
  }

  /** Whether nothing can happen in a track by itself. */
  protected isIdle(track: number): boolean {
    const { scrub, atLeast } = this.stateOn(track);
    const begun = (this.marksOf(track) & Mark.begun) !== 0;
    return begun && scrub === undefined && atLeast === 0 && !this.runs(track);
  }
}
