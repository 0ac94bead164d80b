import { nearestDirection } from '../compass/compass.js';
import type { Controller, State } from '../controller/controller.js';
import { Reports } from '../controller/reports.js';
import { showingAtPosition, unitsPerMicrosecond } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { ComputedTerm } from '../signal/tables.js';
import { holds, pulsesRead } from '../signal/condition.js';
import type { Signal } from '../signal/definition.js';
import { runProgram } from '../signal/program.js';
import { regionOf } from '../signal/regions.js';
import { Rule } from '../controller/rule.js';
import { explain } from './why.js';
import type { Why } from './why.js';

/** A signal's value: a number, or whether a flag is on or a pulse still counts. */
export type SignalValue = number | boolean;

/** The longest time one step may take, in milliseconds: an hour. Its reports must fit into memory. */
export const longestStep = 3_600_000;

/** What a step that reported nothing gives to read; the list that all performers share may be another's by then. */
const noReports = new Reports([], [], []);

/** The longest wait that is kept as a small integer on every engine, in microseconds: nearly 18 minutes. */
const longestWait = 2 ** 30 - 1;

// What of a clip happens at the instant a decision is made.
const nothing = 0;
const frameBegins = 1;
const clipEnds = 2;

// Bits of `marks`.
const ended = 1;
const begun = 2;

// Places behind the signals' numbers and instants.
const due = 0;
const position = 1;
const markedAt = 2;
const enteredAt = 3;
const ownNumbers = 4;

/**
 * Which states' `when` has become true at the instant being decided. An instant is decided within one call, so one
 * scratch serves all performers.
 */
let justTrue = new Uint8Array(64);
let anyJustTrue = false;
let wasTrue = new Uint8Array(64);

/**
 * One running character: a controller plus where it stands now.
 *
 * Time. `step` only counts down to the next instant at which anything can change (a frame's end, a pulse that
 * expires, a lingering flag that falls); `wait` is what is left of it. Setting a signal that changes what was decided
 * last sets `wait` to 0. So a step in which nothing is due costs one comparison. All instants are whole microseconds.
 *
 * Memory. Doubles kept as fields of an object are boxed, so all of them are in one array: the numbers as they were
 * set, the instants of pulses and lasting flags, and four of its own behind them.
 */
export class Performer {
  private readonly numbers: number[];
  /** Where its own numbers begin. */
  private readonly own: number;
  /** Flags and pulses as they were set; {@link flags} and {@link terms} are those of the last decision. */
  private setFlags: number;
  private flags = 0;
  private terms = 0;
  /** Microseconds until the next instant at which anything can change; 0 when something has. */
  private wait = 0;
  private current: number;
  /** Which showing of the clip it is at, from 0. */
  private showing = 0;
  private direction: number;
  /** Where the compass points; {@link direction} follows unless the state holds it. */
  private toward: number;
  private marks = 0;
  /** A bit for each hop whose condition was true within its span. */
  private remembered = 0;
  private happened = 0;
  private lastFrom = -1;
  private lastRule: number = Rule.start;
  private lastUsed = 0;

  /**
   * @param controller what it plays; shared by any number of performers
   * @param first first values of signals that differ from the document's; they decide which state it begins in
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind
   */
  constructor(
    readonly controller: Controller,
    first: Readonly<Record<string, SignalValue>> = {},
  ) {
    const { tables, states, compass } = controller;
    this.own = tables.numbers;
    // Grown from fractions, so that the array is one of doubles without holes from its beginning.
    const numbers: number[] = [];
    for (let i = 0; i < tables.numbers + ownNumbers; i++) numbers.push(0.5);
    numbers.fill(Infinity);
    this.numbers = numbers;
    for (const signal of tables.signals.values()) if (signal.slot >= 0) numbers[signal.slot] = signal.first;
    for (let i = 0; i < ownNumbers; i++) numbers[this.own + i] = 0;
    this.setFlags = tables.firstFlags;
    this.current = controller.rest;
    this.direction = this.toward = compass.start;
    for (const [name, value] of Object.entries(first)) this.set(name, value);
    if (justTrue.length < states.length) {
      justTrue = new Uint8Array(states.length);
      wasTrue = new Uint8Array(states.length);
    }
    // What is true at the very start has not just become true: the first words are taken as seen before.
    this.readSignals(0);
    this.direction = this.toward;
    const best = controller.verdicts.bestOf(controller.verdicts.row(this.flags, this.terms));
    if (best >= 0) this.current = best;
    this.wait = 0;
  }

  /**
   * Sets a number or a flag. It counts from the next `step` on; of several values set before it only the last does.
   *
   * @throws {DotHopError} for an unknown name (with the nearest known one), a wrong kind, or a number that is not
   *   finite; nothing is changed then
   */
  set(name: string, value: SignalValue): void {
    const signal = this.signal(name);
    if (signal.kind === 'number') {
      if (typeof value !== 'number' || !Number.isFinite(value)) throw wrongKind(signal, value);
      this.setNumber(signal.slot, value);
      return;
    }
    if (signal.kind === 'pulse' || typeof value !== 'boolean') throw wrongKind(signal, value);
    this.setFlags = value ? this.setFlags | signal.bit : this.setFlags & ~signal.bit;
    if (this.setFlags !== this.flags) this.wake();
  }

  /**
   * Makes a pulse happen: it counts until a state uses it or its `keep` has passed. A second one while the first
   * still counts only begins `keep` anew.
   *
   * @throws {DotHopError} for an unknown name or a signal of another kind
   */
  pulse(name: string): void {
    const signal = this.signal(name);
    if (signal.kind !== 'pulse') throw wrongKind(signal, 'a pulse');
    this.setFlags |= signal.bit;
    this.numbers[signal.timer] = this.microseconds + signal.keep;
    this.wake();
  }

  /**
   * Lets time pass: as many frames, loops, ends and hops as fit in, each at its own exact instant.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns how many cues, switches and turns it reports; read them from {@link reports} before the next step
   * @throws {DotHopError} for a time out of range, and when states lead to one another without taking time
   */
  step(ms: number): number {
    if (!(ms >= 0 && ms <= longestStep)) throw callError('step-time', { received: ms, most: longestStep });
    const time = Math.round(ms * 1000);
    if (time < this.wait) {
      this.wait -= time;
      this.happened = 0;
      return 0;
    }
    return this.advance(time);
  }

  /** What it shows now. The same object as long as the picture is the same. */
  get pose(): Pose {
    return this.timeline.poses[this.showing]!;
  }

  /** The name of the state that shows. */
  get state(): string {
    return this.controller.states[this.current]!.name;
  }

  /** The name of the direction it faces. */
  get facing(): string {
    return this.controller.compass.names[this.direction]!;
  }

  /** The name of the clip that shows. */
  get clip(): string {
    return this.timeline.clip.name;
  }

  /** The frame of the clip that shows, from 0. */
  get frameIndex(): number {
    return this.timeline.clip.order[this.showing]!;
  }

  /** How far it is through the clip's pass, from 0 to under 1, or 1 at the end of a clip that does not loop. */
  get phase(): number {
    const since = this.microseconds - this.numbers[this.own + markedAt]!;
    const timeline = this.timeline;
    const at = this.numbers[this.own + position]! + since * unitsPerMicrosecond;
    return (this.marks & ended) !== 0 ? 1 : Math.min(at, timeline.length) / timeline.length;
  }

  /** Milliseconds since it began. */
  get time(): number {
    return this.microseconds / 1000;
  }

  /** The reports of its latest step. @throws {DotHopError} when another performer has stepped since */
  get reports(): Reports {
    if (this.happened === 0) return noReports;
    const { reports } = this.controller;
    reports.checkOwner(this);
    return reports;
  }

  /** A signal's value as it was set, or a derived one's as it was decided last. @throws {DotHopError} for an unknown name */
  value(name: string): SignalValue {
    const { signals, derived } = this.controller.tables;
    const signal = signals.get(name);
    if (signal !== undefined)
      return signal.kind === 'number' ? this.numbers[signal.slot]! : (this.setFlags & signal.bit) !== 0;
    const rule = derived.get(name);
    if (rule === undefined)
      throw callError('set-unknown', { name, known: [...signals.keys(), ...derived.keys()] });
    if ('code' in rule) return runProgram(rule, this.numbers, this.flags, this.terms);
    return holds(rule, this.flags, this.terms);
  }

  /** Why it shows what it shows: for every state whether it wants in, its terms, and what keeps it out. */
  why(): Why {
    return explain(this.controller, {
      state: this.current,
      flags: this.flags,
      terms: this.terms,
      ended: (this.marks & ended) !== 0,
      at: this.microseconds,
      enteredAt: this.numbers[this.own + enteredAt]!,
      from: this.lastFrom,
      rule: this.lastRule,
      used: this.lastUsed,
      value: (name) => this.value(name),
    });
  }

  private get microseconds(): number {
    return this.numbers[this.own + due]! - this.wait;
  }

  private get timeline(): Timeline {
    return this.controller.states[this.current]!.timelines[this.direction]!;
  }

  private signal(name: string): Signal {
    const { signals, derived } = this.controller.tables;
    const signal = signals.get(name);
    if (signal !== undefined) return signal;
    if (derived.has(name)) throw callError('set-derived', { name });
    throw callError('set-unknown', { name, known: [...signals.keys()] });
  }

  private setNumber(slot: number, value: number): void {
    const { numbers } = this;
    if (numbers[slot] === value) return;
    numbers[slot] = value;
    const regions = this.controller.tables.regions[slot]!;
    const region = regionOf(regions, value);
    const terms = (this.terms & regions.keep[region]!) | regions.put[region]!;
    const toward = regions.toward[region]!;
    if (terms !== this.terms || regions.joint || (toward >= 0 && toward !== this.toward)) this.wake();
  }

  /** Has the next step decide at the present instant. */
  private wake(): void {
    this.numbers[this.own + due]! -= this.wait;
    this.wait = 0;
  }

  private advance(time: number): number {
    const { numbers, own } = this;
    const { reports } = this.controller;
    const now = this.microseconds;
    const until = now + time;
    reports.begin(this);
    if (this.wait === 0) this.instant(now);
    this.passLoops(until);
    let next = this.nextInstant();
    while (next <= until) {
      if (!this.passFrame(next)) {
        this.instant(next);
        this.passLoops(until);
      }
      next = this.nextInstant();
    }
    const end = Math.min(next, until + longestWait);
    numbers[own + due] = end;
    this.wait = end - until;
    this.happened = reports.count;
    return this.happened;
  }

  /**
   * Goes over one border of frames at which nothing can be decided: no signal has changed, no timer is due, and the
   * state has no rule that speaks of frames. Most borders are such.
   *
   * @returns whether it was one; if not, nothing was done
   */
  private passFrame(at: number): boolean {
    const timeline = this.timeline;
    if (!timeline.plain || (this.marks & (ended | begun)) !== begun || this.nextTimer() <= at) return false;
    const last = this.showing + 1 === timeline.ends.length;
    if (last && !timeline.loops) return false;
    const { numbers, own } = this;
    const place = numbers[own + position]! + (at - numbers[own + markedAt]!) * unitsPerMicrosecond;
    if (place < timeline.ends[this.showing]!) return false;
    numbers[own + markedAt] = at;
    numbers[own + due] = at;
    if (last) {
      numbers[own + position] = place - (timeline.length - timeline.loopStart);
      this.showing = timeline.loopFrom;
    } else {
      numbers[own + position] = place;
      this.showing++;
    }
    this.reportCues(at);
    return true;
  }

  /** The first instant after the present one at which anything can change; `Infinity` for none. */
  private nextInstant(): number {
    const { numbers, own } = this;
    let next = this.nextTimer();
    if ((this.marks & ended) === 0) {
      const left = this.timeline.ends[this.showing]! - numbers[own + position]!;
      next = Math.min(next, numbers[own + markedAt]! + Math.ceil(left / unitsPerMicrosecond));
    }
    return next;
  }

  private nextTimer(): number {
    const { numbers, own } = this;
    let next = Infinity;
    for (let i = this.controller.tables.regions.length; i < own; i++)
      if (numbers[i]! < next) next = numbers[i]!;
    return next;
  }

  /** Passes over whole loops in which nothing can happen, so that a very long step takes no longer than a short one. */
  private passLoops(until: number): void {
    const timeline = this.timeline;
    if (!timeline.loops || !timeline.idle) return;
    const { numbers, own } = this;
    // Before its first pass of the loop an intro has not yet been seen.
    if (numbers[own + position]! < timeline.loopStart) return;
    const length = (timeline.length - timeline.loopStart) / unitsPerMicrosecond;
    const mark = numbers[own + markedAt]!;
    if (until - mark < 2 * length) return;
    const loops = Math.floor((Math.min(until, this.nextTimer()) - mark) / length) - 1;
    if (loops > 0) numbers[own + markedAt] = mark + loops * length;
  }

  /** Everything that happens at one instant: what expires, the frames that begin or end, then the decisions. */
  private instant(at: number): void {
    const { numbers, own } = this;
    // From here on the present is `at`, also for a caller that catches an error thrown below.
    numbers[own + due] = at;
    this.wait = 0;
    if ((this.marks & ended) === 0)
      numbers[own + position]! += (at - numbers[own + markedAt]!) * unitsPerMicrosecond;
    numbers[own + markedAt] = at;
    for (const pulse of this.controller.tables.pulses) {
      if (numbers[pulse.timer]! > at) continue;
      this.setFlags &= ~pulse.bit;
      numbers[pulse.timer] = Infinity;
    }
    if (anyJustTrue) this.forgetChanges();
    const fresh = this.commit(at) || (this.marks & begun) === 0;
    if ((this.marks & begun) === 0) {
      this.marks |= begun;
      this.reportCues(at);
    }
    const moment = this.crossFrames(at);
    // Where neither a bit nor the frame has changed, the last decision still stands.
    if (fresh || moment !== nothing) this.settle(at, moment);
  }

  /** Goes over the frame borders that lie at or before the position. @returns what of the clip happened last */
  private crossFrames(at: number): number {
    const { numbers, own } = this;
    let moment = nothing;
    for (;;) {
      const timeline = this.timeline;
      if ((this.marks & ended) !== 0 || numbers[own + position]! < timeline.ends[this.showing]!)
        return moment;
      if (moment !== nothing) this.settle(at, moment);
      if (this.showing + 1 < timeline.ends.length) this.showing++;
      else if (!timeline.loops) {
        numbers[own + position] = timeline.length;
        this.marks |= ended;
        return clipEnds;
      } else {
        // The end of a pass comes before the first frame of the next: a hop taken there must not let it begin.
        if (this.settle(at, clipEnds)) {
          moment = nothing;
          continue;
        }
        numbers[own + position]! -= timeline.length - timeline.loopStart;
        this.showing = timeline.loopFrom;
      }
      this.reportCues(at);
      moment = frameBegins;
    }
  }

  /** Takes over what was set, and notes which `when` has thereby become true. @returns whether any bit or the direction has changed */
  private commit(at: number): boolean {
    const { watched, verdicts } = this.controller;
    const { flags, terms } = this;
    this.readSignals(at);
    const changed = flags !== this.flags || terms !== this.terms;
    if (changed && watched.length > 0) {
      const before = verdicts.row(flags, terms);
      for (const state of watched) wasTrue[state.index] = verdicts.holds(before, state.when) ? 1 : 0;
      const after = verdicts.row(this.flags, this.terms);
      for (const state of watched) {
        if (wasTrue[state.index] !== 0 || !verdicts.holds(after, state.when)) continue;
        justTrue[state.index] = 1;
        anyJustTrue = true;
      }
    }
    if (this.toward === this.direction || this.controller.states[this.current]!.held) return changed;
    this.turn(at);
    return true;
  }

  private forgetChanges(): void {
    justTrue.fill(0);
    anyJustTrue = false;
  }

  /** Computes the words of bits, and where the compass points, from the signals as they are set. */
  private readSignals(at: number): void {
    const { tables, turning, compass } = this.controller;
    const { numbers } = this;
    let { terms } = this;
    for (let slot = 0; slot < tables.regions.length; slot++) {
      const regions = tables.regions[slot]!;
      const region = regionOf(regions, numbers[slot]!);
      terms = (terms & regions.keep[region]!) | regions.put[region]!;
      if (regions.toward[region]! >= 0) this.toward = regions.toward[region]!;
    }
    for (const term of tables.computed) terms = this.compute(term, terms, at);
    this.flags = this.setFlags;
    this.terms = terms;
    if (turning === undefined) return;
    const x = runProgram(turning.x, numbers, this.flags, terms);
    const y = runProgram(turning.y, numbers, this.flags, terms);
    const direction = nearestDirection(compass, x, y);
    if (direction >= 0) this.toward = direction;
  }

  private compute(term: ComputedTerm, terms: number, at: number): number {
    const { numbers } = this;
    const { bit } = term;
    if (term.kind !== 'lasting') {
      const value = runProgram(term.program, numbers, this.setFlags, terms);
      if (term.kind === 'joint') return value !== 0 ? terms | bit : terms & ~bit;
      return value > term.above ? terms | bit : value < term.below ? terms & ~bit : terms;
    }
    const on = (terms & bit) !== 0;
    const wanted = holds(term.condition, this.setFlags, terms);
    if (wanted === on) {
      numbers[term.timer] = Infinity;
      return terms;
    }
    if (numbers[term.timer] === Infinity) numbers[term.timer] = at + (wanted ? term.settle : term.linger);
    if (numbers[term.timer]! > at) return terms;
    numbers[term.timer] = Infinity;
    return wanted ? terms | bit : terms & ~bit;
  }

  /** Decides until nothing more switches at this instant. @returns whether anything did */
  private settle(at: number, moment: number): boolean {
    const { states } = this.controller;
    let switches = 0;
    for (;;) {
      const to = this.decide(moment);
      if (to < 0) {
        if (!this.remember(at)) return switches > 0;
        continue;
      }
      if (++switches > states.length) throw this.cycleError(to);
      this.enter(to, at);
      moment = frameBegins;
      this.commit(at);
    }
  }

  /** The rule of decision. @returns the state to switch to, or -1 to stay; notes the rule in {@link lastRule} */
  private decide(moment: number): number {
    const { states, verdicts, rest } = this.controller;
    const state = states[this.current]!;
    const row = verdicts.row(this.flags, this.terms);
    const best = this.best(row, undefined);
    if (!state.final && best >= 0 && states[best]!.priority > state.priority) return this.by(Rule.rank, best);

    const hop = this.hopNow(state, row, moment);
    if (hop >= 0) return this.by(Rule.hop, hop);

    const over = state.ends && (this.marks & ended) !== 0;
    const stands = verdicts.holds(row, state.while);
    if (stands && !over) {
      const yielded = this.current === rest ? best : this.yieldNow(state, row);
      return yielded < 0 || yielded === this.current ? -1 : this.by(Rule.way, yielded);
    }
    if (over && state.then >= 0 && verdicts.holds(row, states[state.then]!.while))
      return this.by(Rule.then, state.then);
    if (best >= 0) return this.by(Rule.way, best);
    return this.current === rest ? -1 : this.by(Rule.rest, rest);
  }

  private by(rule: number, to: number): number {
    this.lastRule = rule;
    return to;
  }

  /** The highest-ranked state that wants in, of all or of some; -1 for none. */
  private best(row: number, among: ReadonlySet<number> | undefined): number {
    const { verdicts, order, states } = this.controller;
    if (!anyJustTrue && among === undefined) return verdicts.bestOf(row);
    const over = (this.marks & ended) !== 0;
    for (const index of order) {
      if (among !== undefined && !among.has(index)) continue;
      if (verdicts.wantsIn(row, index)) return index;
      // A state that is playing does not want in anew; what has just become true would hide others for one instant.
      const starts = anyJustTrue && justTrue[index] !== 0 && (index !== this.current || over);
      if (starts && verdicts.holds(row, states[index]!.while)) return index;
    }
    return -1;
  }

  /** The target of the first hop that is taken now; -1 for none. Its pulses become those to be used. */
  private hopNow(state: State, row: number, moment: number): number {
    const { verdicts, states } = this.controller;
    const { hops } = state;
    if (hops.length === 0) return -1;
    const timeline = this.timeline;
    const armed = timeline.armed[this.showing]!;
    const begins = moment === frameBegins ? timeline.hopsAt[this.showing]! : 0;
    for (let i = 0; i < hops.length; i++) {
      const hop = hops[i]!;
      const bit = 1 << i;
      const timely = hop.at === 'now' || (hop.at === 'end' ? moment === clipEnds : (begins & bit) !== 0);
      if (!timely) continue;
      const met = hop.remembers
        ? (this.remembered & bit) !== 0
        : (armed & bit) !== 0 && verdicts.holds(row, hop.if);
      if (met && verdicts.holds(row, states[hop.to]!.while)) {
        this.takenHop = i;
        return hop.to;
      }
    }
    return -1;
  }

  /** Which hop {@link hopNow} found; read by {@link enter} right after. */
  private takenHop = -1;

  private yieldNow(state: State, row: number): number {
    const { yields } = state;
    if (yields.length === 0) return -1;
    const open = this.timeline.yielding[this.showing]!;
    for (let i = 0; i < yields.length; i++) {
      if ((open & (1 << i)) === 0 || !this.controller.verdicts.holds(row, yields[i]!.if)) continue;
      const best = this.best(row, yields[i]!.to);
      if (best >= 0) return best;
    }
    return -1;
  }

  /** Remembers the hops whose condition is true within their span, and uses its pulses. @returns whether a pulse was */
  private remember(at: number): boolean {
    const { states, verdicts, conditions } = this.controller;
    const { hops } = states[this.current]!;
    if (hops.length === 0) return false;
    const row = verdicts.row(this.flags, this.terms);
    const armed = this.timeline.armed[this.showing]! & ~this.remembered;
    let used = 0;
    for (let i = 0; i < hops.length; i++) {
      const hop = hops[i]!;
      if (!hop.remembers || (armed & (1 << i)) === 0 || !verdicts.holds(row, hop.if)) continue;
      this.remembered |= 1 << i;
      if (hop.if >= 0) used |= pulsesRead(conditions[hop.if]!, this.flags, this.terms);
    }
    if (used === 0) return false;
    this.usePulses(used);
    this.commit(at);
    return true;
  }

  private usePulses(used: number): void {
    if (used === 0) return;
    this.setFlags &= ~used;
    for (const pulse of this.controller.tables.pulses)
      if ((pulse.bit & used) !== 0) this.numbers[pulse.timer] = Infinity;
  }

  private enter(to: number, at: number): void {
    const { states, reports } = this.controller;
    const { numbers, own } = this;
    const state = states[to]!;
    const before = this.timeline;
    const { showing } = this;
    // At its end a clip is at no phase, or again at its first: what follows begins at its beginning.
    const over = numbers[own + position]! >= before.length;
    this.lastUsed = this.pulsesOf(state);
    this.usePulses(this.lastUsed);
    if (anyJustTrue) justTrue[to] = 0;
    const again = to === this.current;
    this.lastFrom = this.current;
    reports.add(1, this.current, to, at, this.lastRule);
    this.current = to;
    this.marks &= ~ended;
    this.remembered = 0;
    numbers[own + enteredAt] = at;
    if (!state.held && this.toward !== this.direction) {
      reports.add(2, this.direction, this.toward, at);
      this.direction = this.toward;
    }
    const timeline = this.timeline;
    if (again || over || state.carry === 'none') numbers[own + position] = 0;
    else if (state.carry === 'frame') {
      const kept = Math.min(showing, timeline.ends.length - 1);
      numbers[own + position] = kept === 0 ? 0 : timeline.ends[kept - 1]!;
    } else this.scalePosition(before, timeline);
    this.showing = showingAtPosition(timeline, numbers[own + position]!);
    this.reportCues(at);
  }

  /** The pulses that entering a state uses: those of the hop's own condition, else of the state's. */
  private pulsesOf(state: State): number {
    const { conditions, states } = this.controller;
    if (this.lastRule === Rule.hop) {
      const hop = states[this.current]!.hops[this.takenHop]!;
      if (hop.remembers) return 0;
      if (hop.if >= 0) return pulsesRead(conditions[hop.if]!, this.flags, this.terms);
    }
    const read = (condition: number): number =>
      condition < 0 ? 0 : pulsesRead(conditions[condition]!, this.flags, this.terms);
    return read(state.when) | read(state.while);
  }

  /** Keeps the phase from one timeline to another. */
  private scalePosition(before: Timeline, after: Timeline): void {
    const place = this.own + position;
    const scaled = Math.floor(this.numbers[place]! * (after.length / before.length));
    this.numbers[place] = Math.min(scaled, after.length - 1);
  }

  private turn(at: number): void {
    const before = this.timeline;
    this.controller.reports.add(2, this.direction, this.toward, at);
    this.direction = this.toward;
    const after = this.timeline;
    if (before.clip === after.clip) return;
    this.scalePosition(before, after);
    this.showing = showingAtPosition(after, this.numbers[this.own + position]!);
  }

  /** Reports the cues of the frame, if play enters it at its beginning and not somewhere within. */
  private reportCues(at: number): void {
    const { cues, ends } = this.timeline;
    const names = cues[this.showing]!;
    if (names.length === 0) return;
    const begins = this.showing === 0 ? 0 : ends[this.showing - 1]!;
    if (this.numbers[this.own + position]! - begins >= unitsPerMicrosecond) return;
    for (const cue of names) this.controller.reports.add(0, cue, cue, at);
  }

  private cycleError(to: number): Error {
    const { states, reports } = this.controller;
    const names: string[] = [];
    for (let i = 0; i < reports.count; i++) if (reports.kind(i) === 'switch') names.push(reports.name(i));
    const end = states[to]!.name;
    const begin = names.lastIndexOf(end);
    // What happened until then can still be read.
    this.happened = reports.count;
    return callError('switch-cycle', { states: [...names.slice(Math.max(0, begin)), end] });
  }
}

function wrongKind(signal: Signal, received: unknown): Error {
  const expected = { number: 'a finite number', flag: 'true or false', pulse: 'no value; call pulse()' }[
    signal.kind
  ];
  return callError('set-kind', { name: signal.name, kind: signal.kind, expected, received });
}
