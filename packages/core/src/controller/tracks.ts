import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Askable } from '../signal/compiler.js';
import type { ControllerDefinition, HopDefinition, StateDefinition, TrackDefinition } from './definition.js';
import { bodyTrack, groupsIn, saidOf, statesOfTrack } from './groups.js';
import type { PlacedGroup } from './groups.js';
import { compareRanks } from './rank.js';

/** A state with its place: of the document, or one that shows in a track because a state of another has taken it. */
export interface PlacedState {
  readonly name: string;
  /** The index of its track. */
  readonly track: number;
  readonly path: DocumentPath;
  /** What it says, with what its groups say for it. A hop into a group is one into each of its states that shows while a condition holds. */
  readonly definition: StateDefinition;
  /** For each hop its place in the document: one into a group stands for several. */
  readonly hopPlaces: readonly number[];
  /** The groups that it is in, the outermost first, and whether it is the rest of the last of them. */
  readonly groups: readonly PlacedGroup[];
  readonly isGroupRest: boolean;
  /** The priorities of its groups from the outermost, then its own: what ranks higher is found from the first that differ. */
  readonly ranks: readonly number[];
  /** What stands in `takes` for this track, of a state that takes it; and the name of that state's track. */
  readonly taken: { readonly by: string; readonly if: string | undefined } | undefined;
}

/** A track with its place. */
export interface PlacedTrack {
  readonly name: string;
  readonly path: DocumentPath;
  readonly rest: string | undefined;
  readonly draws: readonly string[];
}

/** All tracks and all states of a document, track by track; in each its own states first, then those that take it. */
export interface PlacedStates {
  readonly tracks: readonly PlacedTrack[];
  readonly states: readonly PlacedState[];
  /** The names of the states in each group, by its own; those in groups in it too. */
  readonly members: ReadonlyMap<string, readonly string[]>;
}

/** What a document without states can show: each clip as a bare state. */
function statesOfClips({ clips }: ControllerDefinition): Record<string, StateDefinition> {
  return Object.fromEntries(Object.keys(clips).map((name) => [name, { shows: name }]));
}

/** The tracks of a document in order, `body` first. */
function tracksOf(definition: ControllerDefinition): [string, TrackDefinition, DocumentPath][] {
  const { groups, rest, tracks = {} } = definition;
  const { states = groups === undefined ? statesOfClips(definition) : {} } = definition;
  return [
    [bodyTrack, { states, groups, rest }, []],
    ...Object.entries(tracks).map(([name, track]): [string, TrackDefinition, DocumentPath] => [
      name,
      track,
      ['tracks', name],
    ]),
  ];
}

/** The names of the tracks that a state takes, each with the condition while which it does. */
function takenBy({ takes = [] }: StateDefinition): [string, string | undefined][] {
  return Array.isArray(takes) ? takes.map((name: string) => [name, undefined]) : Object.entries(takes);
}

/** Finds every state its track. A state that takes another track stands in that one too, as a posture in step with it. */
export function placeStates(definition: ControllerDefinition, problems: ProblemList): PlacedStates {
  const tracks = tracksOf(definition);
  const names = tracks.map(([name]) => name);
  const first = new Map<string, DocumentPath>();
  const claim = (name: string, at: DocumentPath): void => {
    const other = first.get(name);
    if (other !== undefined) problems.add('state-twice', at, { name, other: other.join('.') });
    else first.set(name, at);
  };
  const members = new Map<string, readonly string[]>();
  const placed = tracks.map(([name, holder, path], track) => {
    const stated = statesOfTrack(name, holder, path);
    for (const one of stated) claim(one.name, one.path);
    const placing = groupsIn(holder, path).map((chain) => {
      const group = chain[chain.length - 1]!;
      claim(group.name, group.path);
      const inside = stated.filter(({ groups }) => groups.some((one) => one.name === group.name));
      checkRest(group, problems);
      return [group, inside.map((one) => one.name)] as const;
    });
    for (const [group, inside] of placing) members.set(group.name, inside);
    return stated.map(({ name: state, path: at, definition: said, groups }): PlacedState => {
      const group = groups[groups.length - 1];
      const isGroupRest = group?.definition.rest === state;
      const own = isGroupRest ? -Infinity : (said.priority ?? 0);
      const ranks = [...groups.map(({ definition: { priority = 0 } }) => priority), own];
      return {
        name: state,
        track,
        path: at,
        definition: inheriting(said, groups),
        hopPlaces: [],
        groups,
        isGroupRest,
        ranks,
        taken: undefined,
      };
    });
  });
  const all = placed.map((own) => own.map((one) => withHops(one, own, members)));
  all.forEach((own, track) => {
    for (const state of own.filter(({ taken }) => taken === undefined))
      for (const one of takersOf(state, names, problems)) if (one.track !== track) all[one.track]!.push(one);
  });
  checkNames(definition, names, problems);
  checkParts(definition, problems);
  checkSteps(placed.flat(), names, problems);
  return {
    tracks: tracks.map(([name, { rest, draws = [] }, path]) => ({ name, path, rest, draws })),
    states: all.flat(),
    members,
  };
}

/** What a state says, with what its groups say for it: the nearest counts. */
function inheriting(state: StateDefinition, groups: readonly PlacedGroup[]): StateDefinition {
  const placed = { definition: state, groups };
  return { ...state, carry: saidOf(placed, 'carry'), facing: saidOf(placed, 'facing') };
}

export const isUngrouped = ({ groups, taken }: PlacedState): boolean =>
  groups.length === 0 && taken === undefined;

/** What a state is by its conditions. The rest of a group shows while the group's holds; of other bare states that only says while what they may. */
export function kindOf({ definition, isGroupRest }: PlacedState): 'posture' | 'act' | 'bare' {
  if (definition.when !== undefined) return 'act';
  return isGroupRest || definition.while !== undefined ? 'posture' : 'bare';
}

/** Where the document says what counts for a state: at its own place, or at that of the nearest group that says it. */
export function saidAt({ definition, groups, path }: PlacedState, field: 'carry' | 'facing'): DocumentPath {
  const saying = groups.findLast((group) => group.definition[field] === definition[field]);
  return [...(saying === undefined ? path : saying.path), field];
}

/** The tags of a state and of its groups, each with its place. */
export function tagsOf({ definition, groups, path }: PlacedState): [tag: string, path: DocumentPath][] {
  return [...groups, { definition, path }].flatMap(({ definition: { tags = [] }, path: at }) =>
    tags.map((tag, i): [string, DocumentPath] => [tag, [...at, 'tags', i]]),
  );
}

/** A hop into a group tries its states from the highest rank: those that show while a condition holds, at last its rest. */
function withHops(
  state: PlacedState,
  among: readonly PlacedState[],
  groups: ReadonlyMap<string, unknown>,
): PlacedState {
  const { definition } = state;
  if (definition.hops === undefined) return state;
  const hops = definition.hops.flatMap((hop, place) =>
    (groups.has(hop.to) ? entriesOf(hop.to, among) : [hop.to]).map((to): [HopDefinition, number] => [
      to === hop.to ? hop : { ...hop, to },
      place,
    ]),
  );
  if (hops.length === 0) return state;
  return {
    ...state,
    definition: { ...definition, hops: hops.map(([hop]) => hop) },
    hopPlaces: hops.map(([, place]) => place),
  };
}

/** The states that a name stands for where one is entered: of a group those that want in by what holds, else the state itself. */
function entriesOf(name: string, among: readonly PlacedState[]): string[] {
  const inside = among.filter(({ groups }) => groups.some((group) => group.name === name));
  const entries = inside.filter(
    ({ definition, isGroupRest }) =>
      isGroupRest || (definition.while !== undefined && definition.when === undefined),
  );
  // A group whose rest cannot be found is told of elsewhere.
  const led = entries.length > 0 ? entries : inside;
  if (led.length === 0) return [name];
  return [...led].sort((a, b) => compareRanks(b.ranks, a.ranks)).map((one) => one.name);
}

/** The rest of a group is one of its own states, and shows whenever no other of them does. */
function checkRest({ definition: { rest, states }, path }: PlacedGroup, problems: ProblemList): void {
  const own = Object.hasOwn(states, rest) ? states[rest]! : undefined;
  if (own === undefined)
    problems.add('state-unknown', [...path, 'rest'], { name: rest, known: Object.keys(states) });
  for (const field of ['while', 'when', 'priority'] as const)
    if (own?.[field] !== undefined)
      problems.add('group-rest', [...path, 'states', rest, field], { name: rest, field });
}

/** Where a state stands besides: in the tracks that it takes. */
function takersOf(state: PlacedState, names: readonly string[], problems: ProblemList): PlacedState[] {
  const { definition, path, track, ranks } = state;
  const by = names[track]!;
  if (definition.takes !== undefined && definition.inStep !== undefined)
    problems.add('takes-in-step', [...path, 'takes']);
  return takenBy(definition).flatMap(([taken, condition]) => {
    const at = [...path, 'takes', taken];
    const into = names.indexOf(taken);
    if (into < 0 || into === track) {
      const known = names.filter((one) => one !== by);
      problems.add(into < 0 ? 'track-unknown' : 'takes-itself', at, { name: taken, known });
      return [];
    }
    const { priority, final } = definition;
    return [
      {
        ...{ name: state.name, track: into, path: at, hopPlaces: [], groups: [], isGroupRest: false, ranks },
        definition: { priority, final, inStep: by },
        taken: { by, if: condition },
      },
    ];
  });
}

function checkNames(
  { signals = {}, derived = {}, tracks = {} }: ControllerDefinition,
  names: readonly string[],
  problems: ProblemList,
): void {
  for (const name of Object.keys(tracks)) {
    const at = ['tracks', name];
    if (!/^[A-Za-z_]\w*$/.test(name)) problems.add('track-name', at, { name });
    if (names.indexOf(name) !== names.lastIndexOf(name)) problems.add('track-body', at);
    if (name in signals || name in derived) problems.add('track-signal', at, { name });
    if (Object.keys(tracks[name]!.states).length === 0) problems.add('state-none', [...at, 'states']);
  }
}

/** Each part is drawn by one track. */
function checkParts({ sheets, tracks = {} }: ControllerDefinition, problems: ProblemList): void {
  const known = [...new Set(Object.values(sheets).flatMap(({ parts = {} }) => Object.keys(parts)))];
  const drawnBy = new Map<string, string>();
  for (const [track, { draws = [] }] of Object.entries(tracks))
    draws.forEach((name, i) => {
      const at = ['tracks', track, 'draws', i];
      const other = drawnBy.get(name);
      if (!known.includes(name)) problems.add('part-unknown', at, { name, known });
      else if (other !== undefined) problems.add('part-twice', at, { name, track: other });
      drawnBy.set(name, track);
    });
}

/** What is in step with one another must have somebody who leads. */
function checkSteps(states: readonly PlacedState[], names: readonly string[], problems: ProblemList): void {
  const leads = new Map<string, Set<string>>();
  for (const { track, path, definition } of states) {
    const { inStep } = definition;
    if (inStep === undefined) continue;
    const name = names[track]!;
    const at = [...path, 'inStep'];
    const known = names.filter((one) => one !== name);
    if (!known.includes(inStep)) {
      problems.add(inStep === name ? 'in-step-itself' : 'track-unknown', at, { name: inStep, known });
      continue;
    }
    const reaches = (from: string): boolean =>
      from === name || [...(leads.get(from) ?? [])].some((one) => reaches(one));
    if (reaches(inStep)) problems.add('in-step-circle', at, { track: name, inStep });
    else leads.set(name, (leads.get(name) ?? new Set()).add(inStep));
  }
}

/** What conditions can ask of states: their tags, and `arms.swing` for what a track shows, be it one state or one of a group. */
export function askableOf({ states, tracks }: PlacedStates, problems: ProblemList): Askable {
  const tags = new Map<string, DocumentPath>();
  const trackOf = new Map<string, number>();
  const all = new Map(tracks.map(({ name }) => [name, new Set<string>()]));
  for (const one of states) {
    const { name, track, groups } = one;
    for (const asked of [name, ...groups.map((group) => group.name)])
      all.get(tracks[track]!.name)!.add(asked);
    for (const [tag, path] of tagsOf(one)) {
      if (!tags.has(tag)) tags.set(tag, path);
      const other = trackOf.get(tag) ?? track;
      if (other !== track) problems.add('tag-tracks', path, { tag, track: tracks[other]!.name });
      trackOf.set(tag, track);
    }
  }
  return { tags, tracks: new Map([...all].map(([track, names]) => [track, [...names]])) };
}
