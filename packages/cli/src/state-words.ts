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

/** Which tracks a state takes, and while what. */
export function takesText({ states, tracks, conditionTexts }: Controller, state: State): string {
  return states
    .filter(({ takenBy }) => takenBy === state.index)
    .map((taken) => {
      const own = `${tracks[state.track]!.name}.${state.name}`;
      const text = conditionTexts[taken.while]!;
      const condition = text === own ? '' : ` while ${text.slice(own.length + 5, -1)}`;
      return `${tracks[taken.track]!.name}${condition}`;
    })
    .join('; ');
}
