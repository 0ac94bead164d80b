import type { AtDefinition, ControllerDefinition, StateDefinition } from 'dot-hop';
import { showsOf } from 'dot-hop/explain';

/** The clips that a state can show, as they stand in the document. */
function clipsOf(
  definition: ControllerDefinition,
  state: StateDefinition,
): ControllerDefinition['clips'][string][] {
  return showsOf(state).flatMap((shown) => {
    const book = definition.flipbooks?.[shown];
    const names = book === undefined ? [shown] : Object.values(book);
    return names.flatMap((name) => definition.clips[name] ?? []);
  });
}

const unique = (names: readonly string[]): string[] => [...new Set(names)];

/** The spans of what a state shows. */
export const spansOf = (definition: ControllerDefinition, state: StateDefinition): string[] =>
  unique(clipsOf(definition, state).flatMap(({ spans = {} }) => Object.keys(spans)));

/** An instant as a key of a choice, and back. */
export const atKey = (at: AtDefinition | undefined): string =>
  at === undefined ? 'now' : typeof at === 'string' ? at : JSON.stringify(at);
export const atOf = (key: string): AtDefinition | undefined =>
  key === 'now' ? undefined : key.startsWith('{') ? (JSON.parse(key) as AtDefinition) : key;

/** The instants of what a state shows at which one can go on, by their keys: its end, its cues, where its spans begin and end. */
export function instantsOf(definition: ControllerDefinition, state: StateDefinition): Record<string, string> {
  const cues = unique(clipsOf(definition, state).flatMap(({ cues: own = {} }) => Object.keys(own)));
  const spans = spansOf(definition, state);
  return Object.fromEntries([
    ['end', 'at its end'],
    ...cues.map((cue) => [cue, `at its cue ${cue}`]),
    ...spans.map((start) => [atKey({ start }), `where ${start} begins`]),
    ...spans.map((end) => [atKey({ end }), `where ${end} ends`]),
  ]) as Record<string, string>;
}
