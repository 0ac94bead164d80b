import type { Controller, State, Why, WhyPart, WhyState } from 'dot-hop';
import { keptOutSentence, lastSwitchText, partText, takerOf } from 'dot-hop/explain';
import { element, say } from './dom.js';

/** The states by rank with their terms lit; one that is clicked says why it shows or not. */
export class LadderRows {
  readonly part = element('div');
  readonly answer = element('div', { className: 'why', role: 'status' });
  private readonly rungs: {
    readonly track: number;
    readonly name: string;
    readonly button: HTMLButtonElement;
    readonly terms: HTMLElement;
  }[] = [];
  /** One for each track, where another can have taken it. */
  private readonly taken: HTMLElement[] = [];
  /** The state that is asked about. */
  asked: string | undefined;

  constructor({ tracks, states }: Controller) {
    for (const { index: track, name: trackName, order } of tracks) {
      const list = element('ol', { className: 'ladder' });
      if (tracks.length > 1) this.part.append(element('h2', {}, `${trackName}, by rank`));
      const own = order.map((index) => states[index]!).filter(({ takenBy }) => takenBy < 0);
      this.addRungs(track, own, list);
      this.part.append(list);
      this.taken[track] = element('p', { className: 'taken', 'data-taken': trackName });
      if (own.length < order.length) this.part.append(this.taken[track]);
    }
  }

  private addRungs(track: number, states: readonly State[], list: HTMLElement): void {
    let open: State['groups'] = [];
    for (const state of states) {
      const { name, groups, priority, isGroupRest } = state;
      const kept = groups.findIndex((group, depth) => open[depth]?.name !== group.name);
      groups.forEach((group, depth) => {
        if (kept >= 0 && depth >= kept) list.append(groupRow(group, depth));
      });
      open = groups;
      const terms = element('span', { className: 'terms' });
      const button = element(
        'button',
        { type: 'button', title: `why ${name}?`, 'data-state': name },
        element('span', { className: 'rank' }, isGroupRest ? 'rest' : String(priority)),
        element('span', { className: 'name' }, name),
        terms,
      );
      button.addEventListener('click', () => {
        this.asked = this.asked === name ? undefined : name;
      });
      this.rungs.push({ track, name, button, terms });
      list.append(element('li', { style: indented(groups.length) }, button));
    }
  }

  /** Asks about a state, where there is one of that name. */
  ask(name: string | undefined): void {
    if (this.rungs.some((rung) => rung.name === name)) this.asked = name;
  }

  /** Asks for no state any more. */
  close(): void {
    this.asked = undefined;
  }

  /** @param whys the answer of each track */
  show(whys: readonly Why[]): void {
    whys.forEach((why, track) => {
      const taker = takerOf(why);
      this.taken[track]!.hidden = taker === undefined;
      say(this.taken[track]!, `taken by ${taker ?? ''}: ${why.state}`);
    });
    for (const { track, name, button, terms } of this.rungs) {
      const why = whys[track]!;
      const state = why.states.find((one) => one.name === name)!;
      const shows = state.keptOut === 'shows';
      button.classList.toggle('shows', shows);
      button.classList.toggle('wants', state.wantsIn && !shows);
      button.setAttribute('aria-expanded', String(name === this.asked));
      button.setAttribute('aria-current', String(shows));
      showTerms(
        terms,
        [state.while, state.when].flatMap((one) => one?.parts ?? []),
      );
    }
    this.answer.hidden = this.asked === undefined;
    const track = this.rungs.find(({ name }) => name === this.asked)?.track;
    if (this.asked !== undefined) say(this.answer, answerFor(this.asked, whys[track!]!));
  }
}

const indented = (depth: number): string => `padding-left: ${depth * 10}px`;

/** The line that begins a group. */
const groupRow = ({ name, priority }: State['groups'][number], depth: number): HTMLElement =>
  element(
    'li',
    { className: 'group', style: indented(depth) },
    element('span', { className: 'rank' }, String(priority)),
    element('span', { className: 'name' }, name),
  );

function showTerms(part: HTMLElement, terms: readonly WhyPart[]): void {
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
      lines.push(`${word} ${condition.text}`, ...condition.parts.map((part) => `  ${partText(part)}`));
  return lines.join('\n');
}
