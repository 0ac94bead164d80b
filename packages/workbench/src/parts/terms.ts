import type { ControllerDefinition } from 'dot-hop';
import { statesIn } from 'dot-hop/explain';

/** Terms that a condition can be put together from, under a heading. */
export interface TermGroup {
  readonly title: string;
  readonly terms: readonly string[];
}

/** Everything that conditions of a document can ask for, as it would be written. */
export function termsFor(definition: ControllerDefinition): TermGroup[] {
  const { signals = {}, derived = {}, tracks = {} } = definition;
  const named = Object.entries(signals);
  const ofKind = (kind: string): string[] => named.flatMap(([name, one]) => (kind in one ? [name] : []));
  const numbers = [...ofKind('number'), ...ofKind('vector').flatMap((name) => [`${name}.x`, `${name}.y`])];
  const choices = named.flatMap(([name, one]) =>
    'choice' in one ? one.choice.map((option) => `${name} == ${option}`) : [],
  );
  const all = statesIn(definition);
  const tags = all.flatMap((state) => [
    ...(state.definition.tags ?? []),
    ...state.groups.flatMap((group) => group.definition.tags ?? []),
  ]);
  const further = Object.keys(tracks).flatMap((track) =>
    all.filter((state) => state.track === track).map(({ name }) => `${track}.${name}`),
  );
  return [
    { title: 'flags', terms: ofKind('flag') },
    { title: 'pulses', terms: ofKind('pulse') },
    { title: 'derived', terms: Object.keys(derived) },
    { title: 'choices', terms: choices },
    { title: 'numbers', terms: numbers.flatMap((name) => [`${name} > 0`, `${name} < 0`]) },
    { title: 'tags of states', terms: [...new Set(tags)] },
    { title: 'states of tracks', terms: further },
  ].filter(({ terms }) => terms.length > 0);
}
