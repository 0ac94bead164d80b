import type { AtDefinition, Clip, Controller, ControllerDefinition, StateDefinition } from 'dot-hop';
import { showsOf } from 'dot-hop/explain';
import { clipOf } from '../../character/clip.js';

/** The names of the clips that something shows: its own, or those of a flipbook. */
function clipNames(definition: ControllerDefinition, shown: string): string[] {
  const book = definition.flipbooks?.[shown];
  return book === undefined ? [shown] : Object.values(book);
}

/** The clips that a state can show, as they stand in the document. */
const clipsOf = (
  definition: ControllerDefinition,
  state: StateDefinition,
): ControllerDefinition['clips'][string][] =>
  showsOf(state)
    .flatMap((shown) => clipNames(definition, shown))
    .flatMap((name) => definition.clips[name] ?? []);

/** The first clip of what a state shows, ready to play. */
export const firstClip = (controller: Controller | undefined, state: StateDefinition): Clip | undefined => {
  const [shown] = showsOf(state);
  if (controller === undefined || shown === undefined) return undefined;
  return clipOf(controller, clipNames(controller.definition, shown)[0]);
};

const unique = (names: readonly string[]): string[] => [...new Set(names)];

/** The spans of what a state shows. */
export const spansOf = (definition: ControllerDefinition, state: StateDefinition): string[] =>
  unique(clipsOf(definition, state).flatMap(({ spans = {} }) => Object.keys(spans)));

/** What an instant of phases is called in a choice. */
export const phased = 'phases';

/** An instant as a key of a choice. */
export function atKey(at: AtDefinition | undefined): string {
  if (at === undefined) return 'now';
  if (typeof at === 'string') return at;
  return 'phases' in at ? phased : JSON.stringify(at);
}

/** An instant by its key. Phases begin in the middle of a pass, to be moved. */
export function atOf(key: string): AtDefinition | undefined {
  if (key === 'now') return undefined;
  if (key === phased) return { phases: [0.5] };
  return key.startsWith('{') ? (JSON.parse(key) as AtDefinition) : key;
}

export const phasesOf = (at: AtDefinition | undefined): readonly number[] =>
  typeof at === 'object' && 'phases' in at ? at.phases : [];

/** The instants of what a state shows at which one can go on, by their keys: its end, its cues, where its spans begin and end, phases. */
export function instantsOf(definition: ControllerDefinition, state: StateDefinition): Record<string, string> {
  const cues = unique(clipsOf(definition, state).flatMap(({ cues: own = {} }) => Object.keys(own)));
  const spans = spansOf(definition, state);
  return Object.fromEntries([
    ['end', 'at its end'],
    ...cues.map((cue) => [cue, `at its cue ${cue}`]),
    ...spans.map((start) => [atKey({ start }), `where ${start} begins`]),
    ...spans.map((end) => [atKey({ end }), `where ${end} ends`]),
    [phased, 'at parts of a pass'],
  ]) as Record<string, string>;
}

/** The part of a pass at which each showing of a clip begins, to a thousandth. */
export function beginsOf({ ends }: Clip): number[] {
  const whole = ends.at(-1)!;
  return ends.map((_, i) => Math.round(((i === 0 ? 0 : ends[i - 1]!) / whole) * 1000) / 1000);
}
