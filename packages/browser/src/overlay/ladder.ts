import type { Controller, Why, WhyState } from 'dot-hop';
import { keptOutSentence, lastSwitchText, litParts } from 'dot-hop/explain';
import type { LitPart } from 'dot-hop/explain';
import { element, say } from './dom.js';

/** The states by rank with their terms lit; one that is clicked says why it shows or not. */
export class LadderRows {
  readonly part = element('ol', { className: 'ladder' });
  readonly answer = element('div', { className: 'why', role: 'status' });
  private readonly rungs: {
    readonly name: string;
    readonly button: HTMLButtonElement;
    readonly terms: HTMLElement;
  }[] = [];
  private asked: string | undefined;

  constructor({ order, states }: Controller) {
    for (const index of order) {
      const { name, priority } = states[index]!;
      const terms = element('span', { className: 'terms' });
      const button = element(
        'button',
        { type: 'button', title: `why ${name}?`, 'data-state': name },
        element('span', { className: 'rank' }, String(priority)),
        element('span', { className: 'name' }, name),
        terms,
      );
      button.addEventListener('click', () => {
        this.asked = this.asked === name ? undefined : name;
      });
      this.rungs.push({ name, button, terms });
      this.part.append(element('li', {}, button));
    }
  }

  show(why: Why): void {
    for (const { name, button, terms } of this.rungs) {
      const state = why.states.find((one) => one.name === name)!;
      const shows = name === why.state;
      button.classList.toggle('shows', shows);
      button.classList.toggle('wants', state.wantsIn && !shows);
      button.setAttribute('aria-expanded', String(name === this.asked));
      button.setAttribute('aria-current', String(shows));
      showTerms(
        terms,
        [state.while, state.when].flatMap((one) => (one === undefined ? [] : litParts(one))),
      );
    }
    this.answer.hidden = this.asked === undefined;
    if (this.asked !== undefined) say(this.answer, answerFor(this.asked, why));
  }
}

function showTerms(part: HTMLElement, terms: readonly LitPart[]): void {
  while (part.children.length > terms.length) part.lastElementChild!.remove();
  terms.forEach(({ text, on }, i) => {
    let chip = part.children[i] as HTMLElement | undefined;
    if (chip === undefined) part.append((chip = element('code')));
    say(chip, text);
    chip.className = on ? 'on' : '';
  });
}

/** Why a state shows or does not, in a few lines. */
function answerFor(name: string, why: Why): string {
  const state: WhyState = why.states.find((one) => one.name === name)!;
  if (name === why.state) return `${name} shows since ${Math.round(why.since)} ms: ${lastSwitchText(why)}.`;
  const lines = [`${name}: ${keptOutSentence(state, why.state)}.`];
  for (const [word, condition] of [
    ['while', state.while],
    ['when', state.when],
  ] as const)
    if (condition !== undefined)
      lines.push(
        `${word} ${condition.text}`,
        ...condition.terms.map(({ text, on, reads }) => {
          const values = reads
            .filter((one) => one.name !== text)
            .map(
              (one) =>
                `${one.name} ${String(typeof one.value === 'number' ? Number(one.value.toFixed(2)) : one.value)}`,
            );
          return `  ${on ? '+' : '-'} ${text}${values.length > 0 ? `  (${values.join(', ')})` : ''}`;
        }),
      );
  return lines.join('\n');
}
