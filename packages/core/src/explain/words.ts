import type { SignalValue } from '../signal/definition.js';
import type { HopKept, KeptOut, Why, WhyCondition, WhyPart, WhyState } from '../performer/why.js';
import { bodyTrack } from '../controller/groups.js';
import type { RuleName } from '../controller/rule.js';

const ruleText: Record<RuleName, (from: string) => string> = {
  start: () => 'it was the first to show',
  rank: (from) => `it ranks above ${from} and took over`,
  hop: (from) => `a hop of ${from} leads here`,
  then: (from) => `${from} ended, and this follows it`,
  way: (from) => `${from} gave way, and this ranked highest of those that wanted in`,
  rest: (from) => `${from} gave way and no other state wanted in`,
  again: () => 'a new press restarted it',
  ask: (from) => `it was asked for, and ${from} let it in`,
  cut: (from) => `it was put in the place of ${from} without asking`,
  route: (from) => `it is on the route that was asked for, after ${from}`,
};

const keptOutText: Record<KeptOut, (state: WhyState, shows: string) => string> = {
  shows: () => 'shows',
  condition: () => 'its condition is not true',
  'not-new': () => 'its condition has been true for a while; it starts only when that becomes true',
  rank: (_, shows) => `wants in, but does not rank above ${shows}`,
  final: (_, shows) => `wants in, but ${shows} is final`,
  'no-condition': () => 'is reached by hops, "then" or as the rest',
};

const hopKeptText: Record<HopKept, string> = {
  open: 'open',
  condition: 'its condition is not true',
  span: 'its span is not now',
  instant: 'waits for its instant',
  while: 'the "while" of that state is not true',
};

/** The track that has taken this one; `undefined` for none. */
export function takerOf({ states }: Why): string | undefined {
  return states.find(({ keptOut }) => keptOut === 'shows')?.takenBy;
}

/** Says why a state began to show, as a sentence without its subject: `it ranks above run and took over, using swing`. */
export function lastSwitchText(why: Why): string {
  const { last } = why;
  const taker = takerOf(why);
  if (taker !== undefined) return `${taker} shows it and has taken this track too`;
  const used = last.used.length > 0 ? `, using ${last.used.join(' and ')}` : '';
  return ruleText[last.rule](last.from ?? '') + used;
}

/** The reason why a state does not show, in a few words. */
export function keptOutSentence(state: WhyState, shows: string): string {
  return keptOutText[state.keptOut](state, shows);
}

function valueText(value: SignalValue): string {
  if (typeof value === 'number') return String(Number(value.toFixed(3)));
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return typeof value === 'string' ? value : value.map(valueText).join(', ');
}

function conditionText(word: string, condition: WhyCondition | undefined): string {
  if (condition === undefined) return '';
  return `\n        ${word} ${condition.text}   ${condition.parts.map(partText).join('   ')}`;
}

/** A part of a condition, with `+` if it is true as it is written, and the numbers behind it: `+ moving (vx 60, on above 12)`. */
export function partText({ text, on, terms }: WhyPart): string {
  const values = terms.flatMap((term) => {
    const read = term.reads
      .filter(({ name, value }) => name !== text && !(typeof value === 'boolean' && terms.length === 1))
      .map(({ name, value }) => `${name} ${valueText(value)}`);
    // What a band does next depends on what it is now.
    const { band } = term;
    const border = band && (term.on ? `off below ${band.below}` : `on above ${band.above}`);
    return border === undefined ? read : [...read, border];
  });
  return `${on ? '+' : '-'} ${text}${values.length > 0 ? ` (${[...new Set(values)].join(', ')})` : ''}`;
}

/**
 * The answer of `performer.why()` in words. First what shows, and the rule that led there. Then every state by rank with its terms: `+` if
 * a term is as the condition needs it, `-` if it is not.
 *
 * @param placeOf gives the place of a state, such as `wick.dothop.yaml:30`; default: no places
 */
export function whyText(why: Why, placeOf?: (state: string, track: string) => string): string {
  const wide = Math.max(4, ...why.states.map(({ rank }) => rank.length));
  const lines = why.states.map((state) => {
    const mark = state.keptOut === 'shows' ? '>' : ' ';
    const name = state.takenBy === undefined ? state.name : `${state.name} of ${state.takenBy}`;
    const head = `${mark} ${state.rank.padStart(wide)}  ${name}: ${keptOutSentence(state, why.state)}`;
    const place = placeOf === undefined ? '' : ` (${placeOf(state.name, state.takenBy ?? why.track)})`;
    return head + place + conditionText('while', state.while) + conditionText('when', state.when);
  });
  const notes = [
    why.pace === 1
      ? ''
      : why.pace === 0
        ? 'Its time stands still (pace 0).'
        : `Its time runs at ${why.pace} of the game's.`,
    why.holding === 'atLeast' ? 'It would give way, but its "atLeast" is not over.' : '',
    why.holding === 'leaves' ? 'Its condition is no longer true; it is left where its "leaves" says.' : '',
    why.queued ? 'A press is queued: it plays again at its end.' : '',
    why.routeTo === undefined ? '' : `It is on its way to ${why.routeTo}.`,
  ].filter((note) => note !== '');
  const hops = why.hops.map(({ to, kept, remembered, if: test }) => {
    const state = remembered && kept === 'instant' ? 'remembered, waits for its instant' : hopKeptText[kept];
    return `        hop to ${to}: ${state}${conditionText('  if', test)}`;
  });
  const at = why.states.findIndex(({ keptOut }) => keptOut === 'shows');
  lines.splice(at + 1, 0, ...hops);
  const track = why.track === bodyTrack ? '' : `${why.track}: `;
  return [
    `${track}${why.state} shows since ${why.since} ms: ${lastSwitchText(why)}.`,
    ...notes,
    ...lines,
  ].join('\n');
}
