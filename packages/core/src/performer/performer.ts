import type { Controller } from '../controller/controller.js';
import { dressedAt } from '../controller/dressed.js';
import type { Names } from '../controller/names.js';
import { Place } from '../controller/numbers.js';
import { Reports } from '../controller/reports.js';
import { Rule } from '../controller/rule.js';
import { unitsPerMicrosecond } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import { placeOf } from '../signal/program.js';
import type { Pose } from '../sheet/pose.js';
import type { Outfit } from '../wardrobe/outfit.js';
import { Decider } from './decider.js';
import { Mark, Moment, passing } from './player.js';
import { readSnapshot, writeSnapshot } from './snapshot.js';
import type { PerformerSnapshot, Standstill } from './snapshot.js';
import { explain } from './why.js';
import type { Why } from './why.js';

/** The longest time one step may take, in milliseconds: an hour. Its reports must fit into memory. */
export const longestStep = 3_600_000;

/** Steps up to this many milliseconds are counted in small integers. */
const shortStep = 1_000_000;

/** What a step that reported nothing gives to read; the list that all performers share may be another's by then. */
const noReports = new Reports([], [], [], []);

/** What performers wear, kept beside them: most wear nothing, and a field would be paid for by every one. */
const worn = new WeakMap<object, Outfit>();

/**
 * One running character: a controller plus where it stands now. What it hears, plays, chooses and does is in four layers
 * below this one; here is what a game calls.
 */
export class Performer<N extends Names = Names> extends Decider<N> {
  /**
   * @param controller what it plays; shared by any number of performers
   * @param first first values of signals that differ from the document's; they decide which state it begins in
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind
   */
  constructor(controller: Controller<N>, first: Partial<N['values']> = {}) {
    super(controller);
    this.begin(first);
  }

  /**
   * Puts everything back to where it began: signals, state, time.
   *
   * @param first as for a new performer
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind; it has then begun with the document's
   *   first values
   */
  reset(first: Partial<N['values']> = {}): void {
    const { controller, numbers, base } = this;
    const { tables, states, rest, compass, situations } = controller;
    numbers.set(controller.numbers.first, base);
    this.timeline = states[rest]!.books[0]![compass.start]!;
    this.situation = situations.find(tables.firstFlags, 0, 0);
    this.setFlags = tables.firstFlags;
    this.wait = -1;
    this.showing = this.marks = this.remembered = this.lastUsed = this.happened = 0;
    this.toward = compass.start;
    this.rate = unitsPerMicrosecond;
    this.last = Rule.start;
    this.begin(first);
  }

  /** Finds the state it begins in. What is true at the very start has not just become true. */
  private begin(first: Partial<N['values']>): void {
    try {
      for (const [name, value] of Object.entries(first as Record<string, N['values'][string]>))
        this.set(name, value);
    } finally {
      this.findFirstState();
    }
  }

  private findFirstState(): void {
    const { states, rest } = this.controller;
    this.readSignals();
    const { best } = this.situation;
    const state = states[best < 0 ? rest : best]!;
    this.timeline = state.books[this.gait(state)]![this.toward]!;
    // Its tags and the numbers it reads count from the beginning too.
    this.readSignals();
    this.timeline = state.books[this.gait(state)]![this.toward]!;
    this.readRate();
    if (this.followsNumber) this.placeByNumber();
    this.findTimer();
    this.wait = -1;
  }

  /**
   * Lets time pass: as many frames, loops, ends and hops as fit in, each at its own exact instant.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns how many cues, switches, turns and changes of gait it reports; read them from {@link reports} before the
   *   next step
   * @throws {DotHopError} for a time out of range, and when states lead to one another without taking time
   */
  step(ms: number): number {
    if (!(ms >= 0 && ms <= shortStep)) return this.longStep(ms);
    const time = (ms * 1000 + 0.5) | 0;
    if (time >= this.wait) return this.advance(time);
    this.wait -= time;
    this.happened = 0;
    return 0;
  }

  /**
   * Asks for a state, as the rules allow it: it is granted where the state ranks above the one that shows (unless that
   * is final), or where that one would give way to it now; never into a state whose `while` is false. What was set is
   * decided upon first; {@link reports} then tells what happened.
   *
   * @returns whether the state was let in, or shows already
   * @throws {DotHopError} for an unknown state
   */
  ask(state: N['states']): boolean {
    const to = this.stateNamed(state);
    return this.now(() => {
      const granted = to === this.timeline.state || this.grants(to);
      if (granted && to !== this.timeline.state) this.request(to, Rule.ask);
      return granted;
    });
  }

  /**
   * Shows a state whatever the ranks, also from a final one and anew if it shows already. A posture whose `while` is
   * false gives way again at once.
   *
   * @throws {DotHopError} for an unknown state
   */
  cut(state: N['states']): void {
    const to = this.stateNamed(state);
    this.now(() => {
      this.request(to, Rule.cut);
      return true;
    });
  }

  /**
   * Goes to a state the shortest way along hops and `then`, playing each state on it: each hop is taken at the instant
   * its `at` names, whatever its `if`; one without, at once from the state that shows and at the end of the pass from
   * one on the way. Any other switch (a higher rank, an end without a way on) ends the route.
   *
   * @returns whether there is a way
   * @throws {DotHopError} for an unknown state
   */
  route(state: N['states']): boolean {
    const to = this.stateNamed(state);
    return this.now(() => {
      if (to === this.timeline.state) return true;
      if (this.controller.routes.leg(this.timeline.state, to) === undefined) return false;
      this.goal = to;
      this.settle(Moment.nothing);
      return true;
    });
  }

  /** What it shows now, with what it wears. The same object as long as the picture is the same. */
  get pose(): Pose {
    const { timeline, showing, outfit, controller } = this;
    return outfit === undefined ? timeline.poses[showing]! : dressedAt(controller, outfit, timeline, showing);
  }

  /**
   * Puts an outfit on, or takes it off. It counts at once and changes nothing but what is drawn: the performer goes on as it
   * was.
   *
   * @param outfit of this controller's wardrobe (`wardrobeOf(controller).outfit({ ... })`, see `dot-hop/wardrobe`), or `undefined` for the bare body
   */
  wear(outfit: Outfit | undefined): void {
    if (outfit === undefined) worn.delete(this);
    else worn.set(this, outfit);
  }

  /** What it wears; nothing of what it does depends on it. */
  get outfit(): Outfit | undefined {
    return this.controller.definition.wardrobe === undefined ? undefined : worn.get(this);
  }

  /** The name of the state that shows. */
  get state(): N['states'] {
    return this.current.name;
  }

  /** The name of the direction it faces. */
  get facing(): N['directions'] {
    return this.controller.compass.names[this.timeline.direction]!;
  }

  /** Where the compass points: what it faces, or is turning to; a state that holds its direction may face elsewhere. */
  get pointsTo(): N['directions'] {
    return this.controller.compass.names[this.toward]!;
  }

  /** The name of the clip that shows. */
  get clip(): string {
    return this.timeline.clip.name;
  }

  /** The frame of the clip that shows, from 0. */
  get frameIndex(): number {
    return this.timeline.frames[this.showing]!;
  }

  /** Whether the clip that shows is a bridge, played before the state's own. */
  get isBridging(): boolean {
    return this.timeline.bridge;
  }

  /** The state that a route is on its way to; `undefined` for none. */
  get heading(): N['states'] | undefined {
    return this.controller.states[this.goal]?.name;
  }

  /** How far it is through the clip's pass, from 0 to under 1, or 1 at the end of a clip that does not loop. */
  get phase(): number {
    if ((this.marks & Mark.ended) !== 0) return 1;
    const { numbers, base, timeline } = this;
    const since = this.microseconds - numbers[base + Place.marked]!;
    return Math.min(numbers[base + Place.position]! + since * this.rate, timeline.length) / timeline.length;
  }

  /** How fast the state's time runs; 1 is as drawn, 0 while a number says the frame. */
  get speed(): number {
    return this.rate / unitsPerMicrosecond;
  }

  /** Milliseconds since it began. */
  get time(): number {
    return this.microseconds / 1000;
  }

  /**
   * The reports of its latest step or request.
   *
   * @throws {DotHopError} when another performer has stepped since
   */
  get reports(): Reports {
    if (this.happened === 0) return noReports;
    const { reports } = this.controller;
    reports.checkOwner(this);
    return reports;
  }

  /** Why it shows what it shows: for every state whether it wants in, its terms, and what keeps it out. */
  why(): Why {
    return explain(this.controller, {
      situation: this.situation,
      timeline: this.timeline,
      showing: this.showing,
      ended: (this.marks & Mark.ended) !== 0,
      queued: (this.marks & Mark.queued) !== 0,
      remembered: this.remembered,
      at: this.microseconds,
      entered: this.numbers[this.base + Place.entered]!,
      from: ((this.last >> 4) & 0x1fff) - 1,
      rule: this.last & 15,
      used: this.lastUsed,
      goal: this.goal,
      value: (name) => this.value(name),
    });
  }

  /** Where it stands, as plain data. Restoring it and going on equals never having stopped. */
  snapshot(): PerformerSnapshot {
    const { controller, numbers, base, timeline, situation, wait } = this;
    const time = this.microseconds;
    const { regions, timers } = controller.tables;
    const since = (this.marks & Mark.ended) === 0 ? time - numbers[base + Place.marked]! : 0;
    const still: Standstill = {
      time,
      setFlags: this.setFlags,
      words: situation,
      values: regions.map((_, slot) => numbers[base + placeOf(slot)]!),
      timers: [...numbers.subarray(base + this.timerAt(0), base + this.timerAt(timers))],
      state: timeline.state,
      entered: numbers[base + Place.entered]!,
      book: timeline.book,
      direction: timeline.direction,
      toward: this.toward,
      place: numbers[base + Place.position]! + since * this.rate,
      segment: this.showing,
      marks: this.marks & 15,
      remembered: this.remembered,
      goal: this.goal,
      last: this.last & 0x1ffff,
      lastUsed: this.lastUsed,
      changed: wait < 0,
    };
    return writeSnapshot(controller, still, (signal) => this.valueOf(signal));
  }

  /**
   * Goes back to where a snapshot was taken, of this performer or of another one of the same document.
   *
   * @throws {DotHopError} when it is no snapshot, or of another version of the document; nothing is changed then
   */
  restore(snapshot: PerformerSnapshot): void {
    this.stand(readSnapshot(this.controller, snapshot, false));
  }

  /**
   * Takes over a snapshot of another version of the document by names: the same state at the same phase, the same
   * signals, pulses and bands, as far as they are there. Where the state is not, it begins as a new performer would.
   *
   * @throws {DotHopError} when it is no snapshot; nothing is changed then
   */
  adopt(snapshot: PerformerSnapshot): void {
    const still = readSnapshot(this.controller, snapshot, true);
    this.stand(still);
    this.readSignals();
    if (still.stateIsKnown) return;
    this.showing = 0;
    this.marks &= ~15;
    this.numbers[this.base + Place.position] = 0;
    this.findFirstState();
  }

  private stand(still: Standstill): void {
    const { controller, numbers, base } = this;
    numbers.set(controller.numbers.first, base);
    still.values.forEach((value, slot) => (numbers[base + placeOf(slot)] = value));
    still.timers.forEach((instant, timer) => (numbers[base + this.timerAt(timer)] = instant));
    numbers[base + Place.due] = numbers[base + Place.marked] = still.time;
    numbers[base + Place.entered] = still.entered;
    numbers[base + Place.position] = still.place;
    this.timeline = controller.states[still.state]!.books[still.book]![still.direction]!;
    const { flags, terms, more } = still.words;
    this.situation = controller.situations.find(flags, terms, more);
    this.setFlags = still.setFlags;
    this.showing = still.segment;
    this.marks = still.marks;
    this.toward = still.toward;
    this.remembered = still.remembered;
    this.last = still.last;
    this.goal = still.goal;
    this.lastUsed = still.lastUsed;
    this.wait = -1;
    this.happened = 0;
    this.findTimer();
    this.readRate();
    if (still.changed) return;
    // Nothing is waiting to be decided: reading finds the intervals and changes no bit.
    this.readSignals();
    this.findDue();
    passing[0] = still.time;
    this.waitFrom();
  }

  private longStep(ms: number): number {
    if (!(ms >= 0 && ms <= longestStep)) throw callError('step-time', { received: ms, most: longestStep });
    return this.advance(Math.round(ms * 1000));
  }

  private advance(time: number): number {
    this.happened = 0;
    this.pass(time);
    return this.happened;
  }

  /** Decides upon what was set, then does something at the present instant. */
  private now(request: () => boolean): boolean {
    this.happened = 0;
    this.numbers[this.base + Place.due] = this.microseconds;
    this.wait = -1;
    try {
      this.instant();
      return request();
    } finally {
      passing[0] = this.numbers[this.base + Place.due]!;
      this.findDue();
      this.waitFrom();
    }
  }

  private stateNamed(name: string): number {
    const { stateNamed } = this.controller;
    const state = stateNamed.get(name);
    if (state === undefined) throw callError('state-unknown', { name, known: [...stateNamed.keys()] });
    return state.index;
  }
}
