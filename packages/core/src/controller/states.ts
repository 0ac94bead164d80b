import type { Clip } from '../clip/clip.js';
import type { DocumentPath } from '../problem/problem.js';
import type { BitPlace, Condition } from '../signal/condition.js';
import { slotsOf } from '../signal/program.js';
import type { Hop, State, Yield } from './state.js';
import type { CarryRule, HopDefinition, StateDefinition } from './definition.js';
import { StateFlipbooks } from './state-flipbooks.js';
import type { StatesInput } from './state-input.js';
import { StateNames } from './state-names.js';
import { Conditions } from './conditions.js';
import { ranksOf } from './rank.js';
import { isUngrouped, kindOf, saidAt, tagsOf } from './tracks.js';
import type { PlacedState, PlacedStates } from './tracks.js';
import { FlipbookSlots } from './flipbook-slots.js';
import { againOf, checkCount, checkEnd, checkInstant, checkSpan, leavesOf } from './state-fields.js';
import { gaitBands, lastsOf, rateOf, scrubOf } from './motion.js';
import { askedAs } from '../signal/scope.js';
import { turningBy } from './turning.js';
import { compileVariants } from './variants.js';
import { toldCues } from './variety.js';
import type { ToldCues } from './variety.js';
import type { Variants } from './variants.js';
import type { Turning } from './turning.js';
import { isNow, remembers } from './timeline.js';
import type { Timeline } from './timeline.js';
import { Timelines } from './timelines.js';

interface StatesOutput {
  readonly list: State[];
  /** For each track, the state that shows when no other wants to. */
  readonly rests: readonly number[];
  readonly timelines: readonly Timeline[];
  readonly conditions: Condition[];
  readonly conditionTexts: string[];
  readonly cues: ToldCues;
}

/** Resolves the names of all states. What cannot be resolved is left out after its problem was added. */
export function compileStates(input: StatesInput): StatesOutput {
  const { problems, placed } = input;
  const compiler = new StatesCompiler(input);
  if (!placed.states.some((one) => one.track === 0 && isUngrouped(one)))
    problems.add('state-none', ['states']);
  const ranks = ranksOf(placed.states.map((one) => one.ranks));
  const list = placed.states.map((one, index) => compiler.state(one, index, ranks[index]!));
  compiler.checkRests();
  for (const timeline of compiler.timelines.all) timeline.state = list[timeline.stateIndex]!;
  const { conditions, cueNames, rests, timelines } = compiler;
  const varieties = list.filter(({ variety }) => variety !== undefined);
  return {
    ...{ list, rests, timelines: timelines.all },
    cues: toldCues(input.definition, cueNames, varieties.length, problems),
    ...{ conditions: conditions.list, conditionTexts: conditions.texts },
  };
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
    const own = [state, ...state.groups].map(({ name }) => `${tracks[state.track]!.name}.${name}`);
    const bits = [...state.tags, ...own].flatMap((name) => asked.get(name) ?? []);
    state.isAskedFor = bits.length > 0;
    state.tagBits = state.isAskedFor ? new Int32Array(words) : none;
    for (const { word, bit } of bits) state.tagBits[word]! |= bit;
    const { slots, held, facesBy, rate, scrub, isAskedFor, atLeast, lasts, inStep } = state;
    state.leavesPlainly = facesBy === undefined && !isAskedFor && inStep < 0;
    const followed =
      rate !== undefined ||
      scrub !== undefined ||
      lasts !== undefined ||
      atLeast > 0 ||
      slots[0]!.axes.length > 0;
    state.beginsPlainly = state.leavesPlainly && !followed && !held;
  }
}

/** Until it is known which tags are asked for. */
const noBits = new Int32Array(0);

class StatesCompiler {
  readonly conditions: Conditions;
  readonly cueNames: string[] = [];
  readonly timelines: Timelines;
  private readonly variants: readonly Variants[];
  /** For each track, the state in which it rests. */
  readonly rests: readonly number[];
  private readonly names: StateNames;
  private readonly flipbooks: StateFlipbooks;
  /** What was compiled of parts of the document that may count for several states, by their places. */
  private readonly compiled = new Map<string, unknown>();
  /** The track of the state that is being compiled. */
  private track = 0;

  constructor(private readonly input: StatesInput) {
    const cues = [...input.clips.values()].flatMap((clip) => clip?.cues.flat() ?? []);
    this.cueNames.push(...new Set(cues));
    this.timelines = new Timelines(this.cueNames, input.poses);
    this.conditions = new Conditions(input.signals);
    this.variants = compileVariants(input.definition, input.flipbooks, input.signals, input.problems);
    const { tracks, states } = input.placed;
    this.rests = tracks.map(({ rest }, track) =>
      states.findIndex(
        (one) => one.track === track && isUngrouped(one) && (rest === undefined || one.name === rest),
      ),
    );
    this.names = new StateNames(input.placed, input.problems);
    this.flipbooks = new StateFlipbooks(input, this.names);
  }

  state(placed: PlacedState, index: number, rank: number): State {
    const { name, track, path, definition, taken, groups, isGroupRest, hopPlaces } = placed;
    const { problems } = this.input;
    this.track = track;
    const kind = kindOf(placed);
    const gaits = gaitBands(definition, path, this.input);
    const variety = this.flipbooks.variety(definition, path);
    const inStep = this.inStep(placed, kind);
    const flipbookSlots = new FlipbookSlots(this.variants);
    const own = this.flipbooks.shown(definition, path);
    const shown = flipbookSlots.add(
      own,
      (name) => this.flipbooks.variantFlipbook(name, false),
      gaits,
      variety?.index,
    );
    const bridges = this.flipbooks.bridges(track, definition, flipbookSlots, path);
    const turns = this.flipbooks.turns(definition, kind, flipbookSlots, [...path, 'turns']);
    const { flipbooks, slots, slotOf } = flipbookSlots;
    const clips = [...new Set(shown.flatMap(({ drawings }) => drawings.map(({ clip }) => clip)))];
    checkEnd(definition, kind, clips, path, problems);
    const { hops = [], yields = [] } = definition;
    checkCount(hops.length, 'too-many-hops', [...path, 'hops'], problems);
    checkCount(yields.length, 'too-many-yields', [...path, 'yields'], problems);
    yields.forEach((one, i) => checkSpan(one.during, clips, [...path, 'yields', i, 'during'], problems));
    let memories = 0;
    const resolved = hops.map((hop, i): Hop => {
      const one = this.hop(hop, clips, path, hopPlaces[i]!);
      return remembers(hop) ? { ...one, memory: memories++ } : one;
    });
    const again = againOf(definition, kind, [...path, 'again'], problems);
    const isBound = definition.while !== undefined || groups.length > 0;
    const leaves = leavesOf(definition, isBound, clips, [...path, 'leaves'], problems);
    const { priority = 0 } = definition;
    const least = this.input.signals.length(definition.atLeast ?? 0, [...path, 'atLeast']);
    const keeps = least?.constant === undefined ? least?.program : undefined;
    const atLeast = keeps === undefined ? Math.round((least?.constant ?? 0) * 1000) : 1;
    const lasts = inStep >= 0 ? undefined : lastsOf(definition, kind, path, this.input);
    const rate = rateOf(definition, clips, [...path, 'rate'], this.input);
    const isTurned = definition.scrub === undefined && inStep < 0 && rate !== undefined && rate.least < 0;
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
      rank,
      groups: groups.map((group) => ({ name: group.name, priority: group.definition.priority ?? 0 })),
      isGroupRest,
      while: taken === undefined ? this.during(placed) : this.taking(placed),
      when: this.conditions.read(definition.when, [...path, 'when']),
      then: this.then(definition.then, [...path, 'then']),
      hops: resolved,
      yields: yields.map((one, i): Yield => ({
        to:
          one.to &&
          new Set(one.to.flatMap((to, j) => this.yieldTo(to, index, [...path, 'yields', i, 'to', j]))),
        if: this.conditions.read(one.if, [...path, 'yields', i, 'if']),
      })),
      carry: this.carry(definition, saidAt(placed, 'carry')),
      carryElse: typeof definition.carry === 'string' ? definition.carry : 'none',
      held: definition.facing === 'held' || inStep >= 0,
      facesBy: this.facesBy(definition, saidAt(placed, 'facing')),
      turns,
      final: definition.final ?? false,
      leaves,
      atLeast,
      keeps,
      lasts,
      again,
      isStatic: hops.length === 0 && yields.length === 0 && !leaves && atLeast === 0 && lasts === undefined,
      remembersPresses: again !== 'ignore' || memories > 0,
      tags: [...new Set(tagsOf(placed).map(([tag]) => tag))],
      tagBits: noBits,
      isAskedFor: false,
      // What is in step has no end of its own.
      ends: kind !== 'posture' && inStep < 0,
      flipbooks: this.timelines.of(flipbooks, index, definition, isTurned),
      flipbookNames: flipbooks.map((flipbook) => flipbook.name),
      slots,
      slotOf,
      variety,
      gaitCount: variety?.count ?? gaits.length + 1,
      bridges,
      rate,
      scrub,
      leavesPlainly: false,
      beginsPlainly: false,
      reads: [...new Set([rate, scrub].flatMap((one) => (one === undefined ? [] : slotsOf(one.program))))],
    };
  }

  checkRests(): void {
    this.input.placed.tracks.forEach(({ rest, path }, track) => {
      if (rest === undefined || this.rests[track]! >= 0) return;
      const { placed, problems } = this.input;
      if (!placed.members.has(rest) && this.names.one(track, rest, [...path, 'rest']) < 0) return;
      const own = placed.states.filter((one) => one.track === track && isUngrouped(one));
      problems.add('rest-grouped', [...path, 'rest'], {
        name: rest,
        known: own.map(({ name }) => name),
      });
    });
  }

  /** The track that a state is in step with; -1 for none. */
  private inStep({ definition, path, taken }: PlacedState, kind: State['kind']): number {
    const { problems, placed } = this.input;
    const { inStep } = definition;
    if (inStep === undefined) return -1;
    const timed = (
      ['gaits', 'rate', 'scrub', 'leaves', 'bridges', 'turns', 'facing', 'lasts'] as const
    ).filter((field) => definition[field] !== undefined);
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
    return this.conditions.keep(`${askedAs(by, name)}${text === undefined ? '' : ` and (${text})`}`, () =>
      further === undefined ? shows : { op: 'and', left: shows, right: further },
    );
  }

  private yieldTo(name: string, from: number, path: DocumentPath): number[] {
    if (name === this.input.placed.states[from]!.name) this.input.problems.add('yields-itself', path);
    return this.names.all(this.track, name, path).filter((to) => to !== from);
  }

  private then(name: string | undefined, path: DocumentPath): number {
    if (name === undefined) return -1;
    if (!this.input.placed.members.has(name)) return this.names.one(this.track, name, path);
    this.input.problems.add('group-then', path, { name });
    return -1;
  }

  /** While what a state may show: the conditions of its groups and its own. */
  private during({ definition, path, groups }: PlacedState): number {
    const said = [...groups, { definition, path }].flatMap(({ definition: { while: text }, path: at }) =>
      text === undefined ? [] : [{ text, path: [...at, 'while'] }],
    );
    return this.conditions.readAll(said);
  }

  /** @param place which of the state's hops it is in the document */
  private hop(hop: HopDefinition, clips: readonly Clip[], of: DocumentPath, place: number): Hop {
    const { problems } = this.input;
    const path = [...of, 'hops', place];
    checkSpan(hop.during, clips, [...path, 'during'], problems);
    if (hop.at !== undefined) checkInstant(hop.at, true, clips, [...path, 'at'], problems);
    return {
      place,
      to: this.names.one(this.track, hop.to, [...path, 'to'], false, this.names.ledTo),
      if: this.conditions.read(hop.if, [...path, 'if']),
      memory: -1,
      now: isNow(hop),
    };
  }

  /** What is kept from the states that are named. */
  private carry({ carry }: StateDefinition, path: DocumentPath): CarryRule[] {
    if (typeof carry !== 'object') return [];
    return this.once(path, () => {
      const from: CarryRule[] = [];
      for (const [name, rule] of this.names.fromWidest(carry))
        for (const index of this.names.all(this.track, name, [...path, name], true)) from[index] = rule;
      return from;
    });
  }

  /** The vector of its own that a state faces by. */
  private facesBy({ facing }: StateDefinition, path: DocumentPath): Turning | undefined {
    if (typeof facing !== 'object') return undefined;
    return this.once(path, () => {
      const { compass, signals, problems } = this.input;
      const { by, deadZone = compass.deadZone } = facing;
      if (compass.names.length < 2) problems.add('facing-none', path);
      return turningBy(by, { ...compass, deadZone }, [...path, 'by'], signals);
    });
  }

  /** What a group says counts for each of its states: it is compiled once, and what is wrong with it told once. */
  private once<T>(path: DocumentPath, compile: () => T): T {
    const place = path.join('.');
    if (!this.compiled.has(place)) this.compiled.set(place, compile());
    return this.compiled.get(place) as T;
  }
}
