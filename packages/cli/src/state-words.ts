import type { Controller, State, StateDefinition } from 'dot-hop';
import { documentStateOf } from 'dot-hop/explain';
import type { PlacedGroup } from 'dot-hop/explain';

/** What a state is, in a word or two. */
export function kindText(
  { states, tracks }: Controller,
  { index, rest, kind, takenBy, inStep, groups, isGroupRest }: State,
): string {
  if (takenBy >= 0) return `taken by ${tracks[states[takenBy]!.track]!.name}`;
  const group = isGroupRest ? groups[groups.length - 1]!.name : undefined;
  const word = group !== undefined ? `rest of ${group}` : index === rest ? 'rest' : kind;
  return inStep < 0 ? word : `${word}, in step with ${tracks[inStep]!.name}`;
}

/** The names of a state's gaits from the slowest; empty for a state that has none. */
export const gaitsOf = ({ flipbookNames, gaitCount }: State): string[] =>
  gaitCount > 1 ? flipbookNames.slice(0, gaitCount) : [];

/** What the document says of a state; `undefined` for one that another track has taken. */
export const definitionOf = (controller: Controller, state: State): StateDefinition | undefined =>
  documentStateOf(controller, state)?.definition;

/** The groups that a state is in, from the outermost. */
export const groupsOf = (controller: Controller, state: State): readonly PlacedGroup[] =>
  documentStateOf(controller, state)?.groups ?? [];

/** While what a state may show by itself: what its groups say stands at these. */
export function whileText(controller: Controller, state: State): string {
  if (state.groups.length > 0) return definitionOf(controller, state)!.while ?? '';
  return controller.conditionTexts[state.while] ?? '';
}

/** How long a state lasts, if it says so: `800 ms`, or the expression that is read for it. */
export function lengthText(controller: Controller, state: State): string {
  const { lasts, fit = false } = definitionOf(controller, state) ?? {};
  if (lasts === undefined) return '';
  return `${typeof lasts === 'number' ? `${lasts} ms` : lasts}${fit ? ', its clip fitted to it' : ''}`;
}

/** The flipbooks that variants put in place of a state's own. */
export function variantsOf({ flipbookNames, flipbooks, gaitCount }: State): string[] {
  const own = flipbookNames.slice(0, gaitCount);
  return [
    ...new Set(
      flipbookNames.filter((name, flipbook) => !flipbooks[flipbook]![0]!.bridge && !own.includes(name)),
    ),
  ];
}

/** Which tracks a state takes, and while what. */
export function takesText(controller: Controller, state: State): string {
  const takes = definitionOf(controller, state)?.takes ?? [];
  return Array.isArray(takes)
    ? takes.join('; ')
    : Object.entries(takes as Readonly<Record<string, string>>)
        .map(([track, condition]) => `${track} while ${condition}`)
        .join('; ');
}
