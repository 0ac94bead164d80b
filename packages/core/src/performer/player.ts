import type { Controller } from '../controller/controller.js';
import { Row, TrackRow } from '../controller/layout.js';
import type { Names } from '../controller/names.js';
import type { Reports } from '../controller/reports.js';
import { Rule } from '../controller/rule.js';
import { Units } from '../controller/timeline.js';
import { bodyTrack } from '../controller/groups.js';
import { ask, decideNow, findFirstStates, request, route } from '../engine/begin.js';
import { fastestPace, ownTime, paceOf, setPace, gamePace } from '../engine/pace.js';
import { leadingTrackRow, phaseOf, poseOf, segmentNow, shownBy } from '../engine/inspect.js';
import { findDue, pass, passUntil } from '../engine/pass.js';
import { vectorOf } from '../engine/read.js';
import { Attention, catchUp, stopWaiting, timelineOf, targetDirectionOf } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { callError } from '../problem/error.js';
import type { Pose } from '../sheet/pose.js';
import type { SignalValue } from '../signal/definition.js';
import { Listener } from './listener.js';
import { stateNamed, trackNamed } from './named.js';
import type { Outfit } from './outfit.js';
import { loadRow, saveRow } from './saved.js';
import type { SavedPerformer } from './saved.js';
import { showingOf } from './showing.js';
import type { Showing } from './showing.js';
import { lengthOfStep } from './step-length.js';
import { unobserved, watch } from './watch.js';

/**
 * The length of the latest step, in milliseconds as it was given and in whole microseconds. A game usually steps many
 * performers by the same time, and a comparison is faster than a conversion. (A double in a field would be boxed.)
 */
const latest = { time: 0 };
const latestMs = new Float64Array(1);

/** What performers wear, kept beside them: most wear nothing, and a field would be paid for by every one. */
const worn = new WeakMap<object, Outfit>();

/**
 * One running character. It does everything that a game needs while it plays. A `Performer` can also say why, be observed, and be written
 * to a file.
 *
 * @typeParam N the names of its controller, for the compiler only
 */
export class Player<N extends Names = Names> extends Listener<N> {
  /**
   * @param controller what it plays; shared by any number of performers
   * @param first first values of signals that differ from the document's; they decide which state it begins in
   * @param member for troupes: the row of a member, which goes on as it stands
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind
   */
  constructor(
    controller: Controller<N>,
    first: Partial<N['values']> = {},
    member?: { readonly rows: Rows; readonly at: number },
  ) {
    super(controller, member);
    if (member === undefined) this.begin(first);
  }

  /**
   * Begins again. Signals, state and time are as in a new performer.
   *
   * @param first first values of signals, as for a new performer
   * @throws {DotHopError} for a member of a troupe: remove it and add another
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind; then it has begun with the document's first values
   */
  reset(first: Partial<N['values']> = {}): void {
    this.checkAlone();
    this.clearReports();
    this.rows.clear(this.at);
    try {
      unobserved(this.controller, () => this.begin(first));
    } finally {
      if (this.isWatched) watch.moved(this.rows, this.at);
    }
  }

  /**
   * Copies the present moment, so that the game can go back to it soon. A game with rollback does so many times a second: pass an old copy,
   * and nothing is allocated. For files, and for other versions of the document, use {@link snapshot}.
   *
   * @param into an old copy that you no longer need
   * @throws {DotHopError} for a member of a troupe; save the whole troupe instead
   */
  save(into?: SavedPerformer): SavedPerformer {
    this.checkAlone();
    return saveRow(this.rows, this.at, into);
  }

  /**
   * Goes back to a copy of this performer, or of another one of the same controller.
   *
   * @throws {DotHopError} for a copy of another controller and for a member of a troupe; then nothing changes
   */
  load(saved: SavedPerformer): void {
    this.checkAlone();
    this.clearReports();
    loadRow(this.rows, this.at, saved);
    if (this.isWatched) watch.moved(this.rows, this.at);
  }

  /**
   * Lets time pass. It crosses as many frames, loops, ends and hops as fit into the time, each at its own exact instant.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns the number of reports: cues, switches, turns and changes of flipbook (gait or variant). Read them from {@link reports} before
   *   the next step
   * @throws {DotHopError} for a time out of range, and when states lead to one another without taking time
   */
  step(ms: number): number {
    const { waits, index } = this;
    const left = waits[index]! - latest.time;
    if (left <= 0 || ms !== latestMs[0]) return this.stepOn(ms);
    waits[index] = left;
    return 0;
  }

  /**
   * Asks for a state. It is entered if it ranks above the state that shows, unless that one is `final`. It is also entered if the state
   * that shows would give way to it now. A state whose `while` is false is never entered. Signals that you set before count first. Read
   * what happened from {@link reports}.
   *
   * @returns whether the state was let in, or shows already
   * @throws {DotHopError} for an unknown state
   */
  ask(state: N['states']): boolean {
    const to = stateNamed(this.controller, state);
    return this.now('ask', to, () => ask(this.rows, this.at, to));
  }

  /**
   * Shows a state at once, whatever the ranks, even from a `final` state. If it shows already, it begins again. A posture whose `while` is
   * false gives way again at once.
   *
   * @throws {DotHopError} for an unknown state
   */
  cut(state: N['states']): void {
    const to = stateNamed(this.controller, state);
    this.now('cut', to, () => {
      request(this.rows, this.at, to, Rule.cut);
      return true;
    });
  }

  /**
   * Goes to a state by the shortest way along hops and `then`, and plays each state on the way. The `if` of these hops is ignored. A hop
   * with `at` is taken at its instant. A hop without one is taken at once from the state that shows now, and at the end of the pass from a
   * state on the way. Any other switch ends the route, such as one to a higher rank.
   *
   * @returns whether there is a way
   * @throws {DotHopError} for an unknown state
   */
  route(state: N['states']): boolean {
    const to = stateNamed(this.controller, state);
    return this.now('route', to, () => route(this.rows, this.at, to));
  }

  /** What to draw now, clothes included. It is the same object as long as the picture is the same. */
  get pose(): Pose {
    const { rows, at, controller, outfit } = this;
    catchUp(rows, at);
    if (outfit === undefined) return poseOf(rows, at);
    const trackRow = at + Row.trackRows;
    if (this.isAlone)
      return outfit.poseAt(controller, timelineOf(rows, trackRow), segmentNow(rows, at, trackRow));
    return outfit.composedAt(controller, poseOf(rows, at), shownBy(rows, at));
  }

  /**
   * Puts an outfit on, or takes it off. It counts at once and changes only what is drawn.
   *
   * @param outfit of this controller's wardrobe (`wardrobeOf(controller).outfit({ ... })`, see `dot-hop/wardrobe`), or `undefined` for the bare body
   */
  wear(outfit: Outfit | undefined): void {
    if (outfit === undefined) worn.delete(this);
    else worn.set(this, outfit);
  }

  /** The outfit that it wears. It has no influence on what the character does. */
  get outfit(): Outfit | undefined {
    return this.controller.hasWardrobe ? worn.get(this) : undefined;
  }

  /**
   * What a track shows. A track that is in step with another one, or taken by it, has the clip, frame and phase of that one.
   *
   * @param track its name; by default that of the document's own states
   * @throws {DotHopError} for an unknown track, with the nearest known one
   */
  showing(track: N['tracks'] = bodyTrack): Showing<N> {
    return showingOf(this.rows, this.at, trackNamed(this.controller, track));
  }

  /** The name of the state that shows. */
  get state(): N['states'] {
    return this.shown.state.name;
  }

  /** The name of the direction it faces. */
  get facing(): N['directions'] {
    return this.controller.compass.names[this.leading.direction]!;
  }

  /** The direction in which the compass points: the one it faces, or is turning to. A state with `facing: held` may face elsewhere. */
  get pointsTo(): N['directions'] {
    return this.controller.compass.names[targetDirectionOf(this.rows, this.at + Row.trackRows)]!;
  }

  /**
   * The vector that turns it now, right and down positive: the compass's own, or that of the state that shows. `[0, 0]` if the character
   * never turns.
   */
  get vector(): readonly [number, number] {
    return vectorOf(this.rows, this.at, 0);
  }

  /** The name of the clip that shows. */
  get clip(): N['clips'] {
    return this.isAlone ? this.shown.clip.name : this.showing().clip;
  }

  /** The frame of the clip that shows, from 0. */
  get frameIndex(): number {
    if (!this.isAlone) return this.showing().frameIndex;
    const { rows, at } = this;
    catchUp(rows, at);
    return this.shown.frames[segmentNow(rows, at, at + Row.trackRows)]!;
  }

  /** Whether the clip that shows is a bridge, played before the state's own. */
  get isBridging(): boolean {
    return this.leading.bridge;
  }

  /** The state to which a route leads; `undefined` if there is no route. */
  get routeTo(): N['states'] | undefined {
    const goal = this.rows.ints[2 * (this.at + Row.trackRows) + TrackRow.goal]!;
    return this.controller.states[goal]?.name;
  }

  /**
   * How far the clip's pass has come, from 0 to under 1; 1 at the end of a clip that does not loop. If the clip plays backwards, it falls
   * from 1 to 0.
   */
  get phase(): number {
    const { rows, at } = this;
    catchUp(rows, at);
    return phaseOf(rows, at, leadingTrackRow(rows, at, 0));
  }

  /**
   * The state of the random generator that picks flipbooks and names of cues by chance. The same seed gives the same picks. Every performer
   * begins with 1, so give performers different seeds if they must not all do the same. The seed changes with each pick. For a character
   * without chance it is always 1.
   *
   * @throws {DotHopError} when you set it to anything but a whole number from 0 to 4294967295
   */
  get seed(): number {
    const { ints, picks } = this.rows;
    return picks < 0 ? 1 : ints[2 * this.at + picks]! >>> 0;
  }

  set seed(seed: number) {
    if (seed >>> 0 !== seed) throw callError('seed-kind', { received: seed });
    const { ints, picks } = this.rows;
    if (picks < 0) return;
    ints[2 * this.at + picks] = seed;
    if (this.isWatched) watch.moved(this.rows, this.at);
  }

  /** The rate of the state that shows: 1 is as drawn, below 0 is backwards. 0 while a scrub sets the frame. */
  get speed(): number {
    const rate = this.rows.ints[2 * (this.at + Row.trackRows) + TrackRow.rate]! / Units.perMicrosecond;
    return this.shown.isBackwards && rate > 0 ? -rate : rate;
  }

  /**
   * How fast its own time runs: 1 (the default) is as fast as the game's, 0.25 is slow motion, and at 0 it stands still. Clips, lengths,
   * `keep` and `linger` follow it, and so do {@link time} and the instants of reports. At 0 a step still decides about new values. The
   * value is rounded to thousandths. Snapshots and copies contain it; `reset` sets it to 1.
   *
   * @throws {DotHopError} when you set it to anything but a number from 0 to 64, and for a member of a troupe, which has the troupe's time
   */
  get pace(): number {
    return paceOf(this.rows, this.at) / gamePace;
  }

  set pace(pace: number) {
    this.checkAlone();
    if (!(typeof pace === 'number' && pace >= 0 && pace <= fastestPace))
      throw callError('pace-range', { received: pace, most: fastestPace });
    const thousandths = Math.round(pace * gamePace);
    if (thousandths === paceOf(this.rows, this.at)) return;
    stopWaiting(this.rows, this.at);
    setPace(this.rows, this.at, thousandths);
  }

  /** Milliseconds of its own time since it began (see {@link pace}). For a member of a troupe: since the troupe began. */
  get time(): number {
    catchUp(this.rows, this.at);
    return this.rows.doubles[this.at + Row.now]! / 1000;
  }

  /**
   * The reports of its latest step or request; see {@link Reports}. It is always the same object. The members of a troupe share the
   * troupe's reports.
   */
  get reports(): Reports<N['reports']> {
    return this.rows.reportsOf(this.at);
  }

  private begin(first: Partial<N['values']>): void {
    try {
      for (const [name, value] of Object.entries(first as Record<string, SignalValue>))
        (this as Listener).set(name, value);
    } finally {
      findFirstStates(this.rows, this.at);
    }
  }

  /** Whether it has one track only. */
  private get isAlone(): boolean {
    return this.controller.tracks.length === 1;
  }

  /** What its first track shows, or the one that it is in step with. */
  private get leading(): ReturnType<typeof timelineOf> {
    return timelineOf(this.rows, leadingTrackRow(this.rows, this.at, 0));
  }

  /** What its first track shows by itself. */
  private get shown(): ReturnType<typeof timelineOf> {
    return timelineOf(this.rows, this.at + Row.trackRows);
  }

  /** Forgets what the latest step told, if anything. */
  protected clearReports(): void {
    const { rows, at } = this;
    const attention = 2 * at + Row.attention;
    if ((rows.ints[attention]! & Attention.told) === 0 || rows.crowd !== null) return;
    rows.ints[attention]! &= ~Attention.told;
    rows.reportsOf(at).clear();
  }

  /** A step in which something is due, or that has to look first: at its length, at what was set, told or is watched. */
  private stepOn(ms: number): number {
    const { rows, at, index, waits } = this;
    const { ints, doubles } = rows;
    const place = 2 * at + Row.attention;
    const attention = ints[place]!;
    if (ms !== latestMs[0]) {
      latest.time = lengthOfStep(ms);
      latestMs[0] = ms;
    }
    if ((attention & Attention.told) !== 0) {
      ints[place] = attention & ~Attention.told;
      rows.reports[index]!.clear();
    }
    if ((attention & Attention.member) !== 0) throw callError('step-member', {});
    const wait = waits[index]!;
    const time = ownTime(rows, at, latest.time);
    // What has been waited for counts from where the row was left alone.
    passUntil[0] = wait > 0 ? doubles[at + Row.due]! - wait + time : doubles[at + Row.now]! + time;
    pass(rows, at);
    const count = (ints[place]! & Attention.told) === 0 ? 0 : rows.reports[index]!.count;
    if ((attention & Attention.watched) !== 0) watch.step(rows, at, count);
    return count;
  }

  /** Decides upon what was set, then does something in a state's track at the present instant. */
  private now(kind: 'ask' | 'cut' | 'route', state: number, asked: () => boolean): boolean {
    const { rows, at, controller } = this;
    stopWaiting(rows, at);
    if (this.isWatched) watch.input(rows, at, { kind, name: controller.states[state]!.name });
    this.clearReports();
    // Those of all members of a troupe stand together.
    const before = rows.crowd ? rows.reportsOf(at).count : 0;
    try {
      decideNow(rows, at);
      return asked();
    } finally {
      findDue(rows, at);
      rows.crowd?.file(rows.firstIndex + this.index);
      if (this.isWatched) watch.step(rows, at, rows.reportsOf(at).count - before, before);
    }
  }
}
