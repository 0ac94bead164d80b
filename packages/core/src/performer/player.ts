import type { Names } from '../controller/names.js';
import { Place, timerOf } from '../controller/numbers.js';
import type { State } from '../controller/controller.js';
import type { CarryRule } from '../controller/definition.js';
import { Glide, segmentAt, Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { isOn } from '../signal/condition.js';
import { programValue, runProgram } from '../signal/program.js';
import { Wait } from './listener.js';
import { Each, Reader } from './reader.js';

/** What of a clip happens at the instant a decision is made. */
export const enum Moment {
  nothing = 0,
  /** A segment begins. */
  begins = 1,
  /** A segment ends, and the next has not yet begun. */
  ends = 2,
}

/** Bits of `marks`. */
export const enum Mark {
  /** The clip has been played to its end and stays there. */
  ended = 1,
  /** The very first instant is over. */
  begun = 2,
  /** A press is queued: the act is to be played again. */
  queued = 4,
  /** The state was reached by a step of a route. */
  underway = 8,
}

/** The whole microseconds in which so many units have passed. A division that is a shift is left to be one. */
const timeFor = (units: number, rate: number): number =>
  Math.ceil(rate === Units.perMicrosecond ? units * (1 / Units.perMicrosecond) : units / rate);

/**
 * Until when time passes in the step that is being made, and what was due before something was set: one scratch for
 * all, so that no double is handed over.
 */
export const passing = new Float64Array(2);

/**
 * What a performer plays: where it is in its clip, and how it gets on.
 *
 * `step` only counts down to the next instant at which anything can change (a segment's end, a pulse that expires, a
 * lingering flag that falls); `wait` is what is left of it. So a step in which nothing is due costs one comparison,
 * and a border of frames at which nothing is to be decided costs a few more. All instants are whole microseconds;
 * places in a clip are whole units, so that they are exact at any rate.
 */
export abstract class Player<N extends Names = Names> extends Reader<N> {
  /** Which segment of the timeline it is at, from 0. */
  protected segment = 0;
  /** Units of the clip that pass in a microsecond; 0 while a number says the frame. */
  protected rate: number = Units.perMicrosecond;

  /** Decides until nothing more switches at this instant. @returns whether anything did */
  protected abstract settle(moment: number): boolean;

  /**
   * Everything that happens at the instant that is due: what expires, the frames that begin or end, then the
   * decisions. It is `numbers[base + Place.due]` all the while: doubles handed from function to function would be boxed.
   */
  protected abstract instant(): void;

  /** Decides upon what was set, at an instant at which nothing else happens. */
  protected abstract listen(): void;

  /** Whether a state was asked for and is on its way: it is decided at every border then. */
  protected abstract get isOnRoute(): boolean;

  /** What `glide` does, where there are several tracks. */
  protected abstract glideTogether(time: number): boolean;

  /** Whether borders at which nothing is to be decided must be looked at all the same. */
  private get isWatchful(): boolean {
    return this.isOnRoute || this.controller.furtherTracks > 0;
  }

  /**
   * Passes borders at which nothing is to be decided, where the clip runs as it is drawn and each border is a whole
   * microsecond: most steps that are more than counting down are this. It does what `pass` does, in small integers.
   *
   * @param time in microseconds, at least `wait`
   * @returns whether the time has passed; if not, all up to an instant that needs more has happened
   */
  private glide(time: number): boolean {
    if (this.controller.furtherTracks > 0) return this.glideTogether(time);
    const asDrawn =
      this.rate === Units.perMicrosecond && (this.marks & (Mark.ended | Mark.begun)) === Mark.begun;
    if (!asDrawn || this.isOnRoute) return false;
    const { numbers, base } = this;
    const { glides } = this.timeline;
    const timer = numbers[base + Place.timer]!;
    let { wait } = this;
    let row = this.segment * Glide.size;
    let at = numbers[base + Place.due]!;
    const place =
      numbers[base + Place.position]! + (at - numbers[base + Place.marked]!) * Units.perMicrosecond;
    if (place !== glides[row + Glide.end]) return false;
    while (at < timer) {
      const next = glides[row + Glide.next]! | 0;
      const lasts = glides[row + Glide.lasts]!;
      if (next < 0 || lasts > Wait.longest) return false;
      numbers[base + Place.position] = glides[row + Glide.begin]!;
      numbers[base + Place.marked] = at;
      this.segment = next >> 1;
      if ((next & 1) !== 0) this.reportCues();
      row = (next >> 1) * Glide.size;
      // What is waited for is counted from the instant before this step, as long as the step is being made.
      const ends = at + lasts;
      const due = ends < timer ? ends : timer;
      wait += (due - at) | 0;
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

  /** Lets time pass, in microseconds. Frames that begin report their cues. */
  protected pass(time: number): void {
    if (this.wait >= 0 && time <= Wait.longest && this.glide(time)) return;
    const { numbers, base } = this;
    const due = numbers[base + Place.due]!;
    const { wait } = this;
    const now = due - this.waiting;
    const until = now + time;
    passing[0] = until;
    if (wait < 0) {
      // What was set counts from now on; what is due may yet be a while ahead.
      numbers[base + Place.due] = now;
      this.wait = wait < -Wait.stirring ? Wait.stirredNow : -1;
      passing[1] = due;
      if (now < due && !this.followsNumber) this.listen();
      else {
        this.instant();
        this.findDue();
      }
    }
    while (numbers[base + Place.due]! <= until) {
      // First the borders of segments at which nothing can be decided: no signal has changed, no timer is due, and no
      // rule of the state speaks of them. Most instants are such. `due` is then the first that may not be.
      const { timeline, rate } = this;
      const { quiet, ends } = timeline;
      const timer = numbers[base + Place.timer]!;
      let at = numbers[base + Place.due]!;
      const passes =
        rate !== 0 && (this.marks & (Mark.ended | Mark.begun)) === Mark.begun && !this.isWatchful;
      while (passes && at <= until && at < timer) {
        const next = quiet[this.segment]!;
        if (next < 0) break;
        let place = numbers[base + Place.position]! + (at - numbers[base + Place.marked]!) * rate;
        if (place < ends[this.segment]!) break;
        if (next <= this.segment) place -= timeline.length - timeline.loopStart;
        numbers[base + Place.position] = place;
        numbers[base + Place.marked] = at;
        this.segment = next;
        if (timeline.cues[next]!.length > 0) this.reportCues();
        at = Math.min(timer, at + timeFor(ends[next]! - place, rate));
        numbers[base + Place.due] = at;
      }
      if (at > until) break;
      this.wait = -1;
      this.instant();
      this.passLoops();
      this.findDue();
    }
    this.waitFrom();
  }

  /** Waits from the instant up to which time has passed for the one that is due. */
  protected waitFrom(): void {
    const { numbers, base } = this;
    const instant = passing[0]!;
    const due = Math.min(numbers[base + Place.due]!, instant + Wait.longest);
    numbers[base + Place.due] = due;
    // A difference of doubles; as a small integer it is kept in the object itself.
    this.wait = (due - instant) | 0;
  }

  /** Passes over whole loops in which nothing can happen, so that a very long step takes no longer than a short one. */
  private passLoops(): void {
    const { timeline, numbers, base } = this;
    if (!timeline.loops || !timeline.idle || this.isWatchful || this.rate !== Units.perMicrosecond) return;
    // Before its first pass of the loop an intro has not yet been seen.
    if (numbers[base + Place.position]! < timeline.loopStart) return;
    const length = (timeline.length - timeline.loopStart) / Units.perMicrosecond;
    const until = passing[0]!;
    const mark = numbers[base + Place.marked]!;
    if (until - mark < 2 * length) return;
    const loops = Math.floor((Math.min(until, numbers[base + Place.timer]!) - mark) / length) - 1;
    if (loops > 0) numbers[base + Place.marked] = mark + loops * length;
  }

  /** Finds the first instant after the present one at which anything can change; `Infinity` for none. */
  protected findDue(): void {
    const { numbers, base } = this;
    // The earliest timer may have been one that no longer counts: then nothing happens at its instant but this.
    if (numbers[base + Place.timer]! <= numbers[base + Place.due]!) this.findTimer();
    numbers[base + Place.due] = numbers[base + Place.timer]!;
    if (this.controller.furtherTracks === 0) this.findBorder();
    else this.inEach(Each.findBorder);
  }

  /** Has the end of the segment that shows noticed, if it is due before what is. */
  protected findBorder(): void {
    const { numbers, base, rate } = this;
    if (rate === 0 || (this.marks & Mark.ended) !== 0) return;
    const left = this.timeline.ends[this.segment]! - numbers[base + Place.position]!;
    const border = numbers[base + Place.marked]! + timeFor(left, rate);
    if (border < numbers[base + Place.due]!) numbers[base + Place.due] = border;
  }

  protected findTimer(): void {
    const { numbers, base } = this;
    const { regions, timers } = this.controller.tables;
    const first = timerOf(regions.length, 0);
    let next = Infinity;
    for (let i = first; i < first + timers; i++) if (numbers[base + i]! < next) next = numbers[base + i]!;
    numbers[base + Place.timer] = next;
    if (this.controller.furtherTracks === 0) this.timeLeast();
    else this.inEach(Each.timeLeast);
  }

  /** Has the end of the state's `atLeast` noticed. */
  protected timeLeast(): void {
    const { atLeast } = this.current;
    if (atLeast === 0) return;
    const { numbers, base } = this;
    const over = numbers[base + Place.entered]! + atLeast;
    if (over > numbers[base + Place.marked]! && over < numbers[base + Place.timer]!)
      numbers[base + Place.timer] = over;
  }

  /** Brings the place in the clip up to the instant that is due. */
  protected move(): void {
    const { numbers, base } = this;
    const at = numbers[base + Place.due]!;
    if ((this.marks & Mark.ended) === 0)
      numbers[base + Place.position]! += (at - numbers[base + Place.marked]!) * this.rate;
    numbers[base + Place.marked] = at;
  }

  /** Goes over the borders that lie at or before the place. @returns what of the clip happened last */
  protected crossBorders(): number {
    const { numbers, base } = this;
    let moment: number = Moment.nothing;
    for (;;) {
      const timeline = this.timeline;
      if (this.followsNumber) return this.scrub() ? Moment.begins : moment;
      if ((this.marks & Mark.ended) !== 0 || numbers[base + Place.position]! < timeline.ends[this.segment]!)
        return moment;
      if (moment !== Moment.nothing && this.settle(moment)) {
        moment = Moment.nothing;
        continue;
      }
      const last = this.segment + 1 === timeline.ends.length;
      if (last && timeline.bridge) this.crossBridge();
      else if (last && !timeline.loops) {
        numbers[base + Place.position] = timeline.length;
        this.marks |= Mark.ended;
        return Moment.ends;
      } else {
        // What is to be decided at an end comes before the next frame: a hop taken there must not let it begin.
        const decides = last || timeline.hopsAfter[this.segment] !== 0 || timeline.leavesAfter[this.segment]!;
        if (decides && this.settle(Moment.ends)) {
          moment = Moment.nothing;
          continue;
        }
        if (last) numbers[base + Place.position]! -= timeline.length - timeline.loopStart;
        this.segment = last ? timeline.loopFrom : this.segment + 1;
      }
      this.reportCues();
      moment = Moment.begins;
    }
  }

  /** The state's own clip begins after its bridge. */
  private crossBridge(): void {
    const { numbers, base, timeline } = this;
    numbers[base + Place.position]! -= timeline.length;
    this.timeline = this.current.books[this.gait(this.current)]![timeline.direction]!;
    this.segment = 0;
    this.readRate();
    if (this.followsNumber) this.placeByNumber();
  }

  /** Whether a number says which frame shows. */
  protected get followsNumber(): boolean {
    return this.current.scrub !== undefined && !this.timeline.bridge;
  }

  /** Shows the frame that the number says. @returns whether it is another than before */
  private scrub(): boolean {
    const before = this.segment;
    this.placeByNumber();
    if (before === this.segment) return false;
    this.reportCues();
    return true;
  }

  protected placeByNumber(): void {
    const { timeline, numbers, base } = this;
    const { program, from, to } = this.current.scrub!;
    runProgram(program, numbers, base, this.situation);
    const part = (programValue[0]! - from) / (to - from);
    const place = Math.floor(Math.max(0, Math.min(1, part)) * timeline.length);
    numbers[base + Place.position] = Math.min(place, timeline.length - 1);
    this.segment = segmentAt(timeline, numbers, base);
  }

  /** The rate of the state that shows, for the signals as they are. The place must be up to date. */
  protected readRate(): void {
    const { rate, inStep } = this.current;
    if (this.followsNumber || inStep >= 0) this.rate = 0;
    else if (rate === undefined) this.rate = Units.perMicrosecond;
    else {
      const { length, clip } = this.timeline;
      runProgram(rate.program, this.numbers, this.base, this.situation);
      let value = programValue[0]!;
      // One pass covers the stride: rate = speed * duration of a pass / stride.
      const seconds = length / Units.perMicrosecond / 1e6;
      if (rate.travels) value = clip.stride === undefined ? 1 : (Math.abs(value) * seconds) / clip.stride;
      this.rate = Math.round(Math.max(rate.least, Math.min(rate.most, value)) * Units.perMicrosecond) | 0;
    }
  }

  /** The book of the gait that shows for the signals as they are. */
  protected gait({ gaits }: State): number {
    let count = 0;
    while (count < gaits.length && isOn(gaits[count]!, this.situation)) count++;
    return count;
  }

  /** Shows the same state in another direction or gait: the phase is kept. */
  protected changeTimeline(after: Timeline): void {
    const before = this.timeline;
    this.timeline = after;
    if (before.clip === after.clip) return;
    this.move();
    this.keepPhase(before, after);
    // What has ended in a clip that is played once goes on in one that loops.
    if (after.loops) this.marks &= ~Mark.ended;
    this.readRate();
  }

  /**
   * Keeps the phase from one timeline to another. A place at a border stays at a border, to the unit: else a cue there
   * would be reported twice or not at all.
   */
  private keepPhase(before: Timeline, after: Timeline): void {
    const { numbers, base } = this;
    const place = numbers[base + Place.position]!;
    if (place >= before.length) {
      numbers[base + Place.position] = after.length;
      this.segment = after.ends.length - 1;
      return;
    }
    const ending = place >= before.ends[this.segment]!;
    const begins = this.segment === 0 ? 0 : before.ends[this.segment - 1]!;
    const scaled = Math.min(Math.floor(place * (after.length / before.length)), after.length - 1);
    if (ending || place - begins < Units.perMicrosecond) {
      numbers[base + Place.position] = Math.min(scaled + Units.perMicrosecond, after.length - 1);
      this.segment = segmentAt(after, numbers, base);
      const border = this.segment === 0 ? 0 : after.ends[this.segment - 1]!;
      if (Math.abs(border - scaled) <= Units.perMicrosecond) {
        numbers[base + Place.position] = border;
        if (ending && this.segment > 0) this.segment--;
        return;
      }
    }
    numbers[base + Place.position] = scaled;
    this.segment = segmentAt(after, numbers, base);
  }

  /**
   * Takes its place in the clip of a state that is entered.
   *
   * @returns whether a segment begins, so that what is bound to its beginning happens
   */
  protected takePlace(before: Timeline, carry: CarryRule): boolean {
    const { numbers, base, timeline } = this;
    if (carry === 'none') {
      this.segment = 0;
      numbers[base + Place.position] = 0;
      this.readRate();
      if (!this.followsNumber) {
        this.reportCues();
        return true;
      }
    }
    // At its end a clip is at no phase, or again at its first: what follows begins at its beginning.
    const over = numbers[base + Place.position]! >= before.length;
    const kept = over || before.bridge || timeline.bridge ? 'none' : carry;
    if (kept === 'phase') this.keepPhase(before, timeline);
    else {
      const frame =
        kept === 'none' ? 0 : Math.min(before.frames[this.segment]!, timeline.clip.frames.length - 1);
      this.segment = kept === 'none' ? 0 : timeline.frames.indexOf(frame);
      numbers[base + Place.position] = this.segment === 0 ? 0 : timeline.ends[this.segment - 1]!;
    }
    // A border that was about to be crossed is crossed by entering.
    if (numbers[base + Place.position]! >= timeline.ends[this.segment]!) this.segment++;
    this.readRate();
    if (this.followsNumber) this.placeByNumber();
    const begins = this.segment === 0 ? 0 : timeline.ends[this.segment - 1]!;
    if (numbers[base + Place.position]! - begins >= Units.perMicrosecond) return false;
    this.reportCues();
    return true;
  }

  /** Writes down what happens at the instant that is due. */
  protected report(kind: 0 | 1 | 2 | 3, from: number, to: number, rule: number): void {
    const track = this.controller.furtherTracks === 0 ? 0 : this.current.track;
    const reports = (this.told ??= this.ownReports);
    reports.add(kind, from, to, rule, track, this.numbers, this.base);
  }

  /** Reports the cues of the segment that begins. */
  protected reportCues(): void {
    const cues = this.timeline.cues[this.segment]!;
    for (const cue of cues) this.report(0, cue, cue, 0);
  }
}
