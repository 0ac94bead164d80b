import type { Controller } from '../controller/controller.js';
import type { Names } from '../controller/names.js';
import { Place } from '../controller/numbers.js';
import type { Reports } from '../controller/reports.js';
import { Rule } from '../controller/rule.js';
import { bodyTrack } from '../controller/tracks.js';
import { inStepFrame } from '../controller/figure.js';
import { Units } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { Timeline } from '../controller/timeline.js';
import type { Outfit } from '../wardrobe/outfit.js';
import { Wait } from './listener.js';
import { Mark, Moment, passing } from './player.js';
import { tellInput, tellStep } from './observing.js';
import { Standing } from './standing.js';
import { explain } from './why.js';
import type { Why } from './why.js';

/** The longest time one step may take, in milliseconds: an hour. Its reports must fit into memory. */
export const longestStep = 3_600_000;

/** Steps up to this many milliseconds are counted in small integers. */
const shortStep = 1_000_000;

/**
 * The length of the latest step, in milliseconds as it was said and in whole microseconds: whoever steps many performers
 * steps them alike, and a comparison takes less than a conversion. (A double in a field would be looked up.)
 */
const latest = { time: 0 };
const latestMs = new Float64Array(1);

const isStep = (ms: unknown): ms is number => typeof ms === 'number' && ms >= 0 && ms <= longestStep;

/** What a track shows. */
export interface Showing<N extends Names = Names> {
  /** Where another track has taken this one, the state by which it has. */
  readonly state: N['states'];
  /** The track that it is in step with; `undefined` for none. */
  readonly inStep: N['tracks'] | undefined;
  /** Whether a state of another track has taken this one. */
  readonly isTaken: boolean;
  readonly facing: N['directions'];
  readonly clip: N['clips'];
  /** From 0. */
  readonly frameIndex: number;
  /** From 0 to 1, as that of the performer. */
  readonly phase: number;
  readonly isBridging: boolean;
}

/** What each track shows of a performer whose picture is being put together. */
const drawings: Pose[] = [];

/** What they show, for what they wear. */
const shownNow = { timelines: [] as Timeline[], segments: [] as number[], lead: 0 };

/** What performers wear, kept beside them: most wear nothing, and a field would be paid for by every one. */
const worn = new WeakMap<object, Outfit>();

/**
 * One running character: a controller plus where it stands now. What it hears, plays, chooses and does is in the layers
 * below this one; here is what a game calls.
 */
export class Performer<N extends Names = Names> extends Standing<N> {
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
   * Lets time pass: as many frames, loops, ends and hops as fit in, each at its own exact instant.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns how many cues, switches, turns and changes of gait it reports; {@link reports} tells them until the next step
   * @throws {DotHopError} for a time out of range, and when states lead to one another without taking time
   */
  step(ms: number): number {
    const { told } = this;
    if (told !== null) {
      told.clear();
      if (told.isWatched) return this.stepWatched(ms);
      this.told = null;
    }
    let { time } = latest;
    if (ms !== latestMs[0]) {
      if (typeof ms !== 'number' || !(ms >= 0 && ms <= shortStep)) return this.longStep(ms);
      latestMs[0] = ms;
      latest.time = time = (ms * 1000 + 0.5) | 0;
    }
    if (time >= this.wait) return this.advance(time);
    this.wait -= time;
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
    return this.now('ask', to, () => {
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
    this.now('cut', to, () => {
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
    return this.now('route', to, () => {
      if (to === this.timeline.state) return true;
      if (this.controller.routes.leg(this.timeline.state, to) === undefined) return false;
      this.goal = to;
      this.settleNow(Moment.nothing);
      return true;
    });
  }

  /** What its tracks show together, with what it wears. */
  private get figure(): Pose {
    const { controller, outfit } = this;
    const count = controller.tracks.length;
    drawings.length = count;
    for (let track = 0; track < count; track++) drawings[track] = this.drawingOf(track);
    const figure = controller.figures.pose(drawings);
    if (outfit === undefined) return figure;
    const { timelines, segments } = shownNow;
    timelines.length = segments.length = count;
    for (let track = 0; track < count; track++) {
      timelines[track] = this.timelineOf(track);
      segments[track] = this.segmentOf(Math.max(0, this.leadOf(track)));
    }
    shownNow.lead = Math.max(0, this.leadOf(0));
    return outfit.figureAt(controller, figure, shownNow);
  }

  /** What it shows now, with what it wears. The same object as long as the picture is the same. */
  get pose(): Pose {
    const { timeline, segment, outfit, controller } = this;
    if (controller.furtherTracks > 0) return this.figure;
    return outfit === undefined ? timeline.poses[segment]! : outfit.poseAt(controller, timeline, segment);
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

  /**
   * What a track shows. What is in step with another track, or taken by a state of it, has that one's clip, frame and phase.
   *
   * @param track its name; by default that of the document's own states
   * @throws {DotHopError} for an unknown track, with the nearest known one
   */
  showing(track: N['tracks'] = bodyTrack): Showing<N> {
    const { controller } = this;
    const own = this.trackNamed(track);
    const { name, inStep, takenBy, drawsOwn } = this.stateOn(own);
    const lead = this.leadOf(own);
    this.select(lead < 0 ? own : lead);
    const { timeline } = this;
    const shown = drawsOwn ? this.timelineOf(own).clip : timeline.clip;
    const frame = timeline.frames[this.segment]!;
    const now: Showing<N> = {
      state: name,
      inStep: controller.tracks[inStep]?.name,
      isTaken: takenBy >= 0,
      facing: controller.compass.names[timeline.direction]!,
      clip: shown.name,
      frameIndex: shown === timeline.clip ? frame : inStepFrame(frame, timeline.clip, shown),
      phase: this.ownPhase,
      isBridging: timeline.bridge,
    };
    this.select(0);
    return now;
  }

  /** The name of the state that shows. */
  get state(): N['states'] {
    return this.current.name;
  }

  /** The name of the direction it faces. */
  get facing(): N['directions'] {
    if (this.controller.furtherTracks > 0) return this.showing().facing;
    return this.controller.compass.names[this.timeline.direction]!;
  }

  /** Where the compass points: what it faces, or is turning to; a state that holds its direction may face elsewhere. */
  get pointsTo(): N['directions'] {
    return this.controller.compass.names[this.toward]!;
  }

  /** The name of the clip that shows. */
  get clip(): N['clips'] {
    return this.controller.furtherTracks === 0 ? this.timeline.clip.name : this.showing().clip;
  }

  /** The frame of the clip that shows, from 0. */
  get frameIndex(): number {
    return this.controller.furtherTracks === 0
      ? this.timeline.frames[this.segment]!
      : this.showing().frameIndex;
  }

  /** Whether the clip that shows is a bridge, played before the state's own. */
  get isBridging(): boolean {
    return this.controller.furtherTracks === 0 ? this.timeline.bridge : this.showing().isBridging;
  }

  /** The state that a route is on its way to; `undefined` for none. */
  get routeTo(): N['states'] | undefined {
    return this.controller.states[this.goal]?.name;
  }

  /** How far it is through the clip's pass, from 0 to under 1, or 1 at the end of a clip that does not loop. */
  get phase(): number {
    return this.controller.furtherTracks === 0 ? this.ownPhase : this.showing().phase;
  }

  private get ownPhase(): number {
    if ((this.marks & Mark.ended) !== 0) return 1;
    const { numbers, base, timeline } = this;
    const since = this.microseconds - numbers[base + Place.marked]!;
    return Math.min(numbers[base + Place.position]! + since * this.rate, timeline.length) / timeline.length;
  }

  /** How fast the state's time runs; 1 is as drawn, 0 while a number says the frame. */
  get speed(): number {
    return this.rate / Units.perMicrosecond;
  }

  /** Milliseconds since it began. */
  get time(): number {
    return this.microseconds / 1000;
  }

  /**
   * The reports of its latest step or request; see {@link Reports}. It is the same object at all times.
   */
  get reports(): Reports<N['reports']> {
    return this.ownReports;
  }

  /**
   * Why it shows what it shows: for every state of a track whether it wants in, its terms, and what keeps it out.
   *
   * @param track by default that of the document's own states
   * @throws {DotHopError} for an unknown track
   */
  why(track: N['tracks'] = bodyTrack): Why {
    this.select(this.trackNamed(track));
    const why = explain(this.controller, {
      situation: this.situation,
      timeline: this.timeline,
      segment: this.segment,
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
    this.select(0);
    return why;
  }

  private longStep(ms: number): number {
    if (!isStep(ms)) throw callError('step-time', { received: ms, most: longestStep });
    return this.advance(Math.round(ms * 1000));
  }

  private advance(time: number): number {
    this.pass(time);
    return this.told?.count ?? 0;
  }

  private stepWatched(ms: number): number {
    const told = this.told!;
    if (!isStep(ms)) return this.longStep(ms);
    // Its time is counted as in any step, but for the list that it keeps.
    const time = Math.round(ms * 1000);
    if (time >= this.wait) this.advance(time);
    else this.wait -= time;
    tellStep(this, told.count);
    return told.count;
  }

  /** Decides upon what was set, then does something in a state's track at the present instant. */
  private now(kind: 'ask' | 'cut' | 'route', state: number, request: () => boolean): boolean {
    const { name, track } = this.controller.states[state]!;
    if (this.told?.isWatched === true) tellInput(this, { kind, name });
    this.letGo();
    this.numbers[this.base + Place.due] = this.microseconds;
    this.wait = Wait.stirredNow;
    try {
      this.instant();
      this.select(track);
      return request();
    } finally {
      this.select(0);
      passing[0] = this.numbers[this.base + Place.due]!;
      this.findDue();
      this.waitFrom();
      const { told } = this;
      if (told?.isWatched === true) tellStep(this, told.count);
    }
  }

  private stateNamed(name: string): number {
    const { stateNamed } = this.controller;
    const state = stateNamed.get(name);
    if (state === undefined) throw callError('state-unknown', { name, known: [...stateNamed.keys()] });
    return state.index;
  }
}
