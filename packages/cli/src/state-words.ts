import type { Controller, State } from 'dot-hop';

/** What a state is, in a word or two. */
export function kindText(
  { states, tracks }: Controller,
  { index, rest, kind, takenBy, inStep }: State,
): string {
  if (takenBy >= 0) return `taken by ${tracks[states[takenBy]!.track]!.name}`;
  const word = index === rest ? 'rest' : kind;
  return inStep < 0 ? word : `${word}, in step with ${tracks[inStep]!.name}`;
}

/** The names of a state's gaits from the slowest; empty for a state that has none. */
export function gaitsOf({ books, bookNames }: State): string[] {
  const own = bookNames.filter((_, book) => !books[book]![0]!.bridge);
  return own.length > 1 ? own : [];
}

/** Which tracks a state takes, and while what. */
export function takesText({ definition, tracks }: Controller, state: State): string {
  const own = state.track === 0 ? definition.states : definition.tracks?.[tracks[state.track]!.name]?.states;
  const takes = own?.[state.name]?.takes ?? [];
  return Array.isArray(takes)
    ? takes.join('; ')
    : Object.entries(takes as Readonly<Record<string, string>>)
        .map(([track, condition]) => `${track} while ${condition}`)
        .join('; ');
}
