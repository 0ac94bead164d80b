import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Askable } from '../signal/compiler.js';
import type { ControllerDefinition, StateDefinition, TrackDefinition } from './definition.js';

/** The track of the states that stand in the document itself. */
export const bodyTrack = 'body';

/** A state with its place: of the document, or one that shows in a track because a state of another has taken it. */
export interface PlacedState {
  readonly name: string;
  /** The index of its track. */
  readonly track: number;
  readonly path: DocumentPath;
  readonly definition: StateDefinition;
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
}

/** What a document without states can show: each clip as a bare state. */
function statesOfClips({ clips }: ControllerDefinition): Record<string, StateDefinition> {
  return Object.fromEntries(Object.keys(clips).map((name) => [name, { shows: name }]));
}

/** The tracks of a document in order, `body` first. */
function tracksOf(definition: ControllerDefinition): [string, TrackDefinition, DocumentPath][] {
  const { states = statesOfClips(definition), rest, tracks = {} } = definition;
  return [
    [bodyTrack, { states, rest }, []],
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
  const placed = tracks.map((): PlacedState[] => []);
  const first = new Map<string, DocumentPath>();
  tracks.forEach(([, { states }, path], track) => {
    for (const [name, state] of Object.entries(states)) {
      const at = [...path, 'states', name];
      const other = first.get(name);
      if (other !== undefined) problems.add('state-twice', at, { name, other: other.join('.') });
      else first.set(name, at);
      placed[track]!.push({ name, track, path: at, definition: state, taken: undefined });
    }
  });
  tracks.forEach(([by], track) => {
    for (const { name, path, definition: state } of [...placed[track]!]) {
      if (state.takes !== undefined && state.inStep !== undefined)
        problems.add('takes-in-step', [...path, 'takes']);
      for (const [taken, condition] of takenBy(state)) {
        const at = [...path, 'takes', taken];
        const into = names.indexOf(taken);
        if (into < 0 || into === track) {
          const known = names.filter((one) => one !== by);
          problems.add(into < 0 ? 'track-unknown' : 'takes-itself', at, { name: taken, known });
          continue;
        }
        const { priority, final } = state;
        placed[into]!.push({
          name,
          track: into,
          path: at,
          definition: { priority, final, inStep: by },
          taken: { by, if: condition },
        });
      }
    }
  });
  checkNames(definition, names, problems);
  checkParts(definition, problems);
  checkSteps(tracks, problems);
  return {
    tracks: tracks.map(([name, { rest, draws = [] }, path]) => ({ name, path, rest, draws })),
    states: placed.flat(),
  };
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
function checkSteps(tracks: readonly [string, TrackDefinition, DocumentPath][], problems: ProblemList): void {
  const leads = new Map<string, Set<string>>();
  for (const [name, { states }, path] of tracks)
    for (const [state, { inStep }] of Object.entries(states)) {
      if (inStep === undefined) continue;
      const at = [...path, 'states', state, 'inStep'];
      const known = tracks.map(([one]) => one).filter((one) => one !== name);
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

/** What conditions can ask of states: their tags, and `arms.swing` for what a track shows. */
export function askableOf({ states, tracks }: PlacedStates, problems: ProblemList): Askable {
  const tags = new Map<string, DocumentPath>();
  const trackOf = new Map<string, number>();
  const all = new Map(tracks.map(({ name }): [string, string[]] => [name, []]));
  for (const { name, track, path, definition: state } of states) {
    all.get(tracks[track]!.name)!.push(name);
    state.tags?.forEach((tag, i) => {
      if (!tags.has(tag)) tags.set(tag, [...path, 'tags', i]);
      const other = trackOf.get(tag) ?? track;
      if (other !== track)
        problems.add('tag-tracks', [...path, 'tags', i], { tag, track: tracks[other]!.name });
      trackOf.set(tag, track);
    });
  }
  return { tags, tracks: all };
}
