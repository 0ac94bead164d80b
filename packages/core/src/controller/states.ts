import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { PoseBook } from '../sheet/pose.js';
import type { BitPlace, Condition } from '../signal/condition.js';
import { slotsOf } from '../signal/program.js';
import type { SignalCompiler } from '../signal/compiler.js';
import type { Books } from './books.js';
import type { Hop, State, Yield } from './controller.js';
import type { CarryRule, ControllerDefinition, HopDefinition, StateDefinition } from './definition.js';
import type { PlacedState, PlacedStates } from './tracks.js';
import { againOf, checkCount, checkEnd, checkInstant, checkSpan, leavesOf } from './state-fields.js';
import { gaitBands, rateOf, scrubOf } from './motion.js';
import { askedAs } from '../signal/scope.js';
import { turningBy } from './turning.js';
import type { Turning } from './turning.js';
import { isNow, remembers } from './timeline.js';
import type { Timeline } from './timeline.js';
import { Timelines } from './timelines.js';
import type { Book } from './timelines.js';

interface StatesInput {
  readonly definition: ControllerDefinition;
  /** `undefined` for a clip that has problems of its own. */
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly books: Books;
  readonly compass: Compass;
  readonly signals: SignalCompiler;
  readonly problems: ProblemList;
  readonly poses: PoseBook;
  readonly placed: PlacedStates;
}

interface StatesOutput {
  readonly list: State[];
  /** Of each track the state that shows when no other wants to. */
  readonly rests: readonly number[];
  readonly timelines: readonly Timeline[];
  readonly conditions: Condition[];
  readonly conditionTexts: string[];
  readonly cueNames: string[];
}

/** Resolves the names of all states. What cannot be resolved is left out after its problem was added. */
export function compileStates(input: StatesInput): StatesOutput {
  const { problems, placed } = input;
  const compiler = new StatesCompiler(input);
  if (placed.states.length === 0) problems.add('state-none', ['states']);
  const list = placed.states.map((one, index) => compiler.state(one, index));
  compiler.checkRests();
  for (const state of list) for (const book of state.books) for (const timeline of book) timeline.of = state;
  const { conditions, conditionTexts, cueNames, rests, timelines } = compiler;
  return { list, rests, timelines: timelines.all, conditions, conditionTexts, cueNames };
}

/** What can be known of states once every condition was read: which of them are asked for, and so which switches are plain. */
export function finishStates(
  list: readonly State[],
  { tracks }: PlacedStates,
  asked: ReadonlyMap<string, BitPlace>,
  words: number,
): void {
  const none = new Int32Array(words);
  for (const state of list) {
    const own = `${tracks[state.track]!.name}.${state.name}`;
    const bits = [...state.tags, own].flatMap((name) => asked.get(name) ?? []);
    state.isAskedFor = bits.length > 0;
    state.tagBits = state.isAskedFor ? new Int32Array(words) : none;
    for (const { word, bit } of bits) state.tagBits[word]! |= bit;
    const { gaits, held, facesBy, rate, scrub, isAskedFor, atLeast, inStep } = state;
    state.leavesPlainly = facesBy === undefined && !isAskedFor && inStep < 0;
    const followed = rate !== undefined || scrub !== undefined || atLeast > 0 || gaits.length > 0;
    state.beginsPlainly = state.leavesPlainly && !followed && !held;
  }
}

/** Until it is known which tags are asked for. */
const noBits = new Int32Array(0);

class StatesCompiler {
  readonly conditions: Condition[] = [];
  readonly conditionTexts: string[] = [];
  readonly cueNames: string[] = [];
  private readonly conditionIndices = new Map<string, number>();
  readonly timelines: Timelines;
  /** Of each track the state in which it rests. */
  readonly rests: readonly number[];
  /** States by track and name: every name is looked up. */
  private readonly named = new Map<string, number>();
  /** The track of the state that is being compiled. */
  private track = 0;

  constructor(private readonly input: StatesInput) {
    const cues = [...input.clips.values()].flatMap((clip) => clip?.cues.flat() ?? []);
    this.cueNames.push(...new Set(cues));
    this.timelines = new Timelines(this.cueNames, input.poses);
    const { tracks, states } = input.placed;
    this.rests = tracks.map(({ rest }, track) =>
      states.findIndex(
        (one) => one.track === track && one.taken === undefined && (rest === undefined || one.name === rest),
      ),
    );
    // A name that is there twice is told elsewhere.
    states.forEach(({ track, name }, i) => this.named.set(`${track} ${name}`, i));
  }

  /**
   * A state of a track by name.
   *
   * @param orTaken whether one of another track is meant, too, that has taken this one
   */
  stateIndex(track: number, name: string, path: DocumentPath, orTaken = false): number {
    const { problems, placed } = this.input;
    const { states, tracks } = placed;
    const index = this.named.get(`${track} ${name}`);
    if (index !== undefined && (orTaken || states[index]!.taken === undefined)) return index;
    if (states.length === 0) return -1;
    const other = states.find((one) => one.name === name && one.taken === undefined);
    const known = states.flatMap((one) => (one.track === track && one.taken === undefined ? [one.name] : []));
    if (other === undefined) problems.add('state-unknown', path, { name, known });
    else problems.add('state-other-track', path, { name, track: tracks[other.track]!.name, known });
    return -1;
  }

  state(placed: PlacedState, index: number): State {
    const { name, track, path, definition, taken } = placed;
    const { problems } = this.input;
    this.track = track;
    const kind = definition.when !== undefined ? 'act' : definition.while !== undefined ? 'posture' : 'bare';
    const gaits = gaitBands(definition, path, this.input);
    const inStep = this.inStep(placed, kind);
    const shown = this.shown(definition, path);
    const bridges = this.bridges(definition, shown.length, path);
    const turns = this.turns(definition, kind, [...path, 'turns']);
    const books = [...shown, ...bridges.books, ...(turns === undefined ? [] : [turns.book])];
    const clips = [...new Set(shown.flatMap(({ pages }) => pages.map(({ clip }) => clip)))];
    checkEnd(definition, kind, clips, path, problems);
    const { hops = [], yields = [] } = definition;
    checkCount(hops.length, 'too-many-hops', [...path, 'hops'], problems);
    checkCount(yields.length, 'too-many-yields', [...path, 'yields'], problems);
    yields.forEach((one, i) => checkSpan(one.during, clips, [...path, 'yields', i, 'during'], problems));
    let memories = 0;
    const resolved = hops.map((hop, i): Hop => {
      const one = this.hop(hop, clips, [...path, 'hops', i]);
      return remembers(hop) ? { ...one, memory: memories++ } : one;
    });
    const again = againOf(definition, kind, [...path, 'again'], problems);
    const leaves = leavesOf(definition, clips, [...path, 'leaves'], problems);
    const { priority = 0 } = definition;
    const atLeast = Math.round((definition.atLeast ?? 0) * 1000);
    const rate = rateOf(definition, clips, [...path, 'rate'], this.input);
    const scrub = scrubOf(definition, kind, [...path, 'scrub'], this.input);
    return {
      index,
      name,
      track,
      rest: this.rests[track]!,
      path,
      inStep,
      drawsOwn: definition.shows !== undefined,
      takenBy: taken === undefined ? -1 : this.taker(placed),
      kind: taken === undefined ? kind : 'posture',
      priority,
      while: taken === undefined ? this.condition(definition.while, [...path, 'while']) : this.taking(placed),
      when: this.condition(definition.when, [...path, 'when']),
      then: definition.then === undefined ? -1 : this.stateIndex(track, definition.then, [...path, 'then']),
      hops: resolved,
      yields: yields.map((one, i): Yield => ({
        to:
          one.to && new Set(one.to.map((to, j) => this.yieldTo(to, index, [...path, 'yields', i, 'to', j]))),
        if: this.condition(one.if, [...path, 'yields', i, 'if']),
      })),
      carry: this.carry(definition, [...path, 'carry']),
      carryElse: typeof definition.carry === 'string' ? definition.carry : 'none',
      held: definition.facing === 'held' || inStep >= 0,
      facesBy: this.facesBy(definition, [...path, 'facing']),
      turns: turns && { book: shown.length + bridges.books.length, least: turns.least },
      final: definition.final ?? false,
      leaves,
      atLeast,
      again,
      isStatic: hops.length === 0 && yields.length === 0 && !leaves && atLeast === 0,
      hears: again !== 'ignore' || memories > 0,
      tags: definition.tags ?? [],
      tagBits: noBits,
      isAskedFor: false,
      // What is in step has no end of its own.
      ends: kind !== 'posture' && inStep < 0,
      books: this.timelines.of(books, index, definition),
      bookNames: books.map((book) => book.name),
      gaits,
      bridges: bridges.from,
      rate,
      scrub,
      leavesPlainly: false,
      beginsPlainly: false,
      reads: [...new Set([rate, scrub].flatMap((one) => (one === undefined ? [] : slotsOf(one.program))))],
    };
  }

  checkRests(): void {
    this.input.placed.tracks.forEach(({ rest, path }, track) => {
      if (rest !== undefined) this.stateIndex(track, rest, [...path, 'rest']);
    });
  }

  /** The track that a state is in step with; -1 for none. */
  private inStep({ definition, path, taken }: PlacedState, kind: State['kind']): number {
    const { problems, placed } = this.input;
    const { inStep } = definition;
    if (inStep === undefined) return -1;
    const timed = (['gaits', 'rate', 'scrub', 'leaves', 'bridges', 'turns', 'facing'] as const).filter(
      (field) => definition[field] !== undefined,
    );
    const at = definition.hops?.some((hop) => hop.during !== undefined || (hop.at ?? 'now') !== 'now');
    const during = definition.yields?.some((one) => one.during !== undefined);
    if (at === true || during === true) problems.add('in-step-time', path, { field: 'at and during' });
    for (const field of timed) problems.add('in-step-time', [...path, field], { field });
    if (kind === 'act' && taken === undefined) problems.add('in-step-act', [...path, 'inStep']);
    return placed.tracks.findIndex(({ name }) => name === inStep);
  }

  /** The state that a track is taken by. */
  private taker({ name, taken }: PlacedState): number {
    const { states, tracks } = this.input.placed;
    return states.findIndex(
      (one) => one.name === name && one.taken === undefined && tracks[one.track]!.name === taken!.by,
    );
  }

  /** A track is taken while the other state shows, and what it says in `takes` holds. */
  private taking({ name, path, taken }: PlacedState): number {
    const { by, if: text } = taken!;
    const shows = this.input.signals.flagNamed(`${by}.${name}`);
    const further = text === undefined ? undefined : this.input.signals.condition(text, path);
    if (text !== undefined && further === undefined) return -1;
    this.conditionTexts.push(`${askedAs(by, name)}${text === undefined ? '' : ` and (${text})`}`);
    return (
      this.conditions.push(further === undefined ? shows : { op: 'and', left: shows, right: further }) - 1
    );
  }

  private yieldTo(name: string, from: number, path: DocumentPath): number {
    const to = this.stateIndex(this.track, name, path);
    if (to === from) this.input.problems.add('yields-itself', path);
    return to;
  }

  private condition(text: string | undefined, path: DocumentPath): number {
    if (text === undefined) return -1;
    const known = this.conditionIndices.get(text);
    if (known !== undefined) return known;
    const condition = this.input.signals.condition(text, path);
    if (condition === undefined) return -1;
    this.conditionIndices.set(text, this.conditions.length);
    this.conditionTexts.push(text);
    return this.conditions.push(condition) - 1;
  }

  private hop(hop: HopDefinition, clips: readonly Clip[], path: DocumentPath): Hop {
    const { problems } = this.input;
    checkSpan(hop.during, clips, [...path, 'during'], problems);
    if (hop.at !== undefined) checkInstant(hop.at, true, clips, [...path, 'at'], problems);
    return {
      to: this.stateIndex(this.track, hop.to, [...path, 'to']),
      if: this.condition(hop.if, [...path, 'if']),
      memory: -1,
      now: isNow(hop),
    };
  }

  /** What is kept from the states that are named. */
  private carry({ carry }: StateDefinition, path: DocumentPath): CarryRule[] {
    const from: CarryRule[] = [];
    if (typeof carry === 'object')
      for (const [name, rule] of Object.entries(carry)) {
        const index = this.stateIndex(this.track, name, [...path, name], true);
        if (index >= 0) from[index] = rule;
      }
    return from;
  }

  /** The flipbooks that show: the gaits from the slowest, or the only one. */
  private shown({ shows, gaits, inStep }: StateDefinition, path: DocumentPath): Book[] {
    if (inStep !== undefined && shows === undefined) return [this.following()];
    if ((shows === undefined) === (gaits === undefined)) this.input.problems.add('shows-one', path);
    if (shows !== undefined)
      return [{ name: shows, pages: this.input.books.pagesOf(shows, [...path, 'shows']), bridge: false }];
    return (gaits?.shows ?? []).map((name, i) => ({
      name,
      pages: this.input.books.pagesOf(name, [...path, 'gaits', 'shows', i]),
      bridge: false,
    }));
  }

  /** What a state has for drawings that shows its part of what another track shows: it is asked for none of them. */
  private following(): Book {
    const { clips, compass } = this.input;
    const some = [...clips.values()].find((clip) => clip !== undefined);
    if (some === undefined) return { name: '', pages: [], bridge: false };
    const [cell] = some.cells;
    const clip = { ...some, name: '', frames: [cell!], order: [0], cells: [cell!], ends: [1e6] };
    const still = { ...clip, cues: [[]], spans: new Map<never, never>(), loopFrom: 0, stride: undefined };
    const page = { clip: still, mirrored: false, standsIn: false };
    return { name: '', pages: compass.names.map((_, i) => ({ ...page, drawnFor: i })), bridge: false };
  }

  /** What is played first, by the state and the gait that are left. @param first the index of the first bridge */
  private bridges(
    { bridges = {} }: StateDefinition,
    first: number,
    path: DocumentPath,
  ): { books: Book[]; from: (number | undefined)[][] } {
    const from: (number | undefined)[][] = [];
    const books: Book[] = [];
    const add = (shows: string, at: DocumentPath): number =>
      first + books.push(this.bridgeBook(shows, at)) - 1;
    for (const [name, bridge] of Object.entries(bridges)) {
      const at = [...path, 'bridges', name];
      const index = this.stateIndex(this.track, name, at, true);
      if (index < 0) continue;
      const left = this.input.placed.states[index]!.definition;
      const gaits = left.gaits?.shows ?? [left.shows ?? ''];
      if (typeof bridge === 'string') from[index] = new Array<number>(gaits.length).fill(add(bridge, at));
      else {
        const known = left.gaits?.shows ?? [];
        from[index] = gaits.map((gait) =>
          Object.hasOwn(bridge, gait) ? add(bridge[gait]!, [...at, gait]) : undefined,
        );
        for (const gait of Object.keys(bridge))
          if (!known.includes(gait))
            this.input.problems.add('gait-unknown', [...at, gait], { name: gait, known });
      }
    }
    return { books, from };
  }

  /** A flipbook that is played in between. */
  private bridgeBook(shows: string, at: DocumentPath): Book {
    const pages = this.input.books.pagesOf(shows, at);
    const endless = pages.find(({ clip }) => clip.loopFrom >= 0);
    if (endless !== undefined) this.input.problems.add('bridge-endless', at, { clip: endless.clip.name });
    return { name: shows, pages, bridge: true };
  }

  /** What shows first after a turn; undefined for nothing. */
  private turns(
    { turns }: StateDefinition,
    kind: State['kind'],
    path: DocumentPath,
  ): { book: Book; least: number } | undefined {
    if (turns === undefined) return undefined;
    const { shows, least = 90 } = turns;
    const { problems, compass } = this.input;
    if (kind === 'act') problems.add('turns-act', path);
    if (compass.names.length < 2) problems.add('facing-none', path);
    if (!(least >= 0 && least <= 180)) problems.add('turns-least', [...path, 'least'], { received: least });
    return { book: this.bridgeBook(shows, [...path, 'shows']), least };
  }

  /** The vector of its own that a state faces by. */
  private facesBy({ facing }: StateDefinition, path: DocumentPath): Turning | undefined {
    if (typeof facing !== 'object') return undefined;
    const { compass, signals, problems } = this.input;
    const { by, deadZone = compass.deadZone } = facing;
    if (compass.names.length < 2) problems.add('facing-none', path);
    return turningBy(by, { ...compass, deadZone }, [...path, 'by'], signals);
  }
}
