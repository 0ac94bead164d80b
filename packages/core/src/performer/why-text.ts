import type { KeptOut, Why, WhyCondition, WhyState } from './why.js';
import type { RuleName } from '../controller/rule.js';

const ruleText: Record<RuleName, (from: string) => string> = {
  start: () => 'it was the first to show',
  rank: (from) => `it ranks above ${from} and took over`,
  hop: (from) => `a hop of ${from} leads here`,
  then: (from) => `${from} ended, and this follows it`,
  way: (from) => `${from} gave way, and this ranked highest of those that wanted in`,
  rest: (from) => `${from} gave way and no other state wanted in`,
};

const keptOutText: Record<KeptOut, (state: WhyState, shows: string) => string> = {
  shows: () => 'shows',
  condition: () => 'its condition is not true',
  'not-new': () => 'its condition has been true for a while; it starts only when that becomes true',
  rank: (_, shows) => `wants in, but does not rank above ${shows}`,
  final: (_, shows) => `wants in, but ${shows} is final`,
  'no-condition': () => 'is reached by hops, "then" or as the rest',
};

/** How a state came to show, as a sentence without its end: `it ranks above run and took over, using swing`. */
export function lastSwitchText({ last }: Why): string {
  const used = last.used.length > 0 ? `, using ${last.used.join(' and ')}` : '';
  return ruleText[last.rule](last.from ?? '') + used;
}

/** What keeps a state out, in a few words. */
export function keptOutSentence(state: WhyState, shows: string): string {
  return keptOutText[state.keptOut](state, shows);
}

function conditionText(word: string, condition: WhyCondition | undefined): string {
  if (condition === undefined) return '';
  const terms = condition.terms.map(({ text, on, reads }) => {
    const values = reads
      .filter(({ name }) => name !== text)
      .map(
        ({ name, value }) =>
          `${name} ${typeof value === 'number' ? Number(value.toFixed(3)) : value ? 'on' : 'off'}`,
      );
    return `${on ? '+' : '-'} ${text}${values.length > 0 ? ` (${values.join(', ')})` : ''}`;
  });
  return `\n        ${word} ${condition.text}   ${terms.join('   ')}`;
}

/**
 * The answer of `performer.why()` in words: what shows and how it came to, then every state by rank with its terms,
 * `+` for true and `-` for false.
 */
export function whyText(why: Why): string {
  const lines = why.states.map((state) => {
    const mark = state.keptOut === 'shows' ? '>' : ' ';
    const head = `${mark} ${String(state.priority).padStart(4)}  ${state.name}: ${keptOutSentence(state, why.state)}`;
    return head + conditionText('while', state.while) + conditionText('when', state.when);
  });
  return [`${why.state} shows since ${why.since} ms: ${lastSwitchText(why)}.`, ...lines].join('\n');
}
