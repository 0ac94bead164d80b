import { create } from 'xmlbuilder2';

/** A node of a parsed chart, as far as it is needed. */
interface Element {
  readonly nodeName: string;
  readonly nodeType: number;
  readonly childNodes: Iterable<Element>;
  readonly parentNode: Element;
  getAttribute(name: string): string | null;
  getElementsByTagName(name: string): Iterable<Element>;
}

const inside = (element: Element, name?: string): Element[] =>
  [...element.childNodes].filter(
    (one) => one.nodeType === 1 && (name === undefined || one.nodeName === name),
  );
/** A state by its name, in another or in those within it. */
function stateIn(within: Element, name: string | null): Element {
  const found = within.getElementsByTagName('state');
  return [...found].find((one) => one.getAttribute('id') === name)!;
}

const milliseconds = (delay: string): number => Number.parseFloat(delay) * (/\d\s*s$/.test(delay) ? 1000 : 1);

/**
 * A small interpreter of state charts by the algorithm of the standard (SCXML 1.0, appendix D), for charts of one parallel
 * state whose regions have plain states, be they in others: eventless transitions first, then what was raised, then what comes from outside.
 */
export class Chart {
  time = 0;
  /** What was entered in each region, and when. */
  private readonly entries: { at: number; region: string; state: string }[] = [];
  /** Events of its own clocks, as they came. */
  readonly sent: [number, string][] = [];
  private readonly data: Record<string, unknown> = {};
  private readonly root: Element;
  private readonly active: Element[] = [];
  private readonly raised: string[] = [];
  private timers: { id: string | null; event: string; at: number; order: number }[] = [];
  private order = 0;

  constructor(text: string) {
    const scxml = create(text).root().node as unknown as Element;
    for (const model of inside(scxml, 'datamodel'))
      for (const one of inside(model, 'data'))
        this.data[one.getAttribute('id')!] = this.value(one.getAttribute('expr')!);
    [this.root] = inside(scxml, 'parallel') as [Element];
    for (const region of inside(this.root, 'state')) {
      this.active.push(stateIn(region, region.getAttribute('initial')));
    }
    for (const one of this.active) this.enter(one);
    this.settle();
  }

  /** What was entered in a region, and when. */
  entered(region = 'shows'): [number, string][] {
    return this.entries
      .filter((one) => one.region === region)
      .map(({ at, state }) => [Number(at.toFixed(3)), state]);
  }

  /** The state of each region. */
  get states(): string[] {
    return this.active.map((one) => one.getAttribute('id')!);
  }

  send(name: string, data?: unknown): void {
    this.take(this.enabled(name, data), data);
    this.settle();
  }

  /** Lets time pass; clocks strike in their order. */
  advance(to: number): void {
    for (;;) {
      const next = this.timers
        .filter(({ at }) => at <= to + 1e-6)
        .sort((a, b) => a.at - b.at || a.order - b.order)[0];
      if (next === undefined) break;
      this.timers = this.timers.filter((one) => one !== next);
      this.time = next.at;
      this.sent.push([next.at, next.event]);
      this.send(next.event);
    }
    this.time = to;
  }

  /** A state and those that it is in, up to its region. */
  private around(state: Element): Element[] {
    return state.parentNode === this.root ? [state] : [state, ...this.around(state.parentNode)];
  }

  private regionOf(state: Element): Element {
    return this.around(state).at(-1)!;
  }

  private value(expression: string, event?: unknown): unknown {
    const names = Object.keys(this.data);
    const In = (id: string): boolean =>
      this.active.flatMap((one) => this.around(one)).some((one) => one.getAttribute('id') === id);
    // eslint-disable-next-line @typescript-eslint/no-implied-eval
    const run = new Function('In', '_event', ...names, `return (${expression});`) as (
      ...given: unknown[]
    ) => unknown;
    return run(In, { data: event }, ...names.map((name) => this.data[name]));
  }

  private settle(): void {
    for (let i = 0; i < 1000; i++) {
      const eventless = this.enabled(undefined);
      if (eventless.length > 0) this.take(eventless);
      else if (this.raised.length > 0) this.take(this.enabled(this.raised.shift()));
      else return;
    }
    throw new Error(`it never settles: ${this.states.join(', ')}`);
  }

  /** The first transition that fits for each region, looked for from the state outwards. */
  private enabled(event: string | undefined, data?: unknown): Element[] {
    const found = this.active.flatMap((state) => {
      for (const from of [...this.around(state), this.root]) {
        const fits = inside(from, 'transition').find((one) => {
          const wanted = one.getAttribute('event');
          if ((wanted ?? undefined) !== event) return false;
          const cond = one.getAttribute('cond');
          return cond === null || this.value(cond, data) === true;
        });
        if (fits !== undefined) return [fits];
      }
      return [];
    });
    return [...new Set(found)];
  }

  private take(transitions: readonly Element[], data?: unknown): void {
    const moves = transitions.map((one) => ({ one, target: one.getAttribute('target') }));
    for (const { one, target } of moves)
      if (target !== null) for (const exit of inside(one.parentNode, 'onexit')) this.run(exit, data);
    for (const { one } of moves) this.run(one, data);
    for (const { one, target } of moves) {
      if (target === null) continue;
      const to = stateIn(this.regionOf(one.parentNode), target);
      this.active[this.active.indexOf(one.parentNode)] = to;
      this.enter(to);
    }
  }

  private enter(state: Element): void {
    const region = this.regionOf(state).getAttribute('id')!;
    this.entries.push({ at: this.time, region, state: state.getAttribute('id')! });
    for (const entry of inside(state, 'onentry')) this.run(entry);
  }

  private run(block: Element, data?: unknown): void {
    for (const one of inside(block)) {
      const given = (name: string): string => one.getAttribute(name)!;
      if (one.nodeName === 'assign') this.data[given('location')] = this.value(given('expr'), data);
      else if (one.nodeName === 'raise') this.raised.push(given('event'));
      else if (one.nodeName === 'cancel')
        this.timers = this.timers.filter(({ id }) => id !== given('sendid'));
      else if (one.nodeName === 'send')
        this.timers.push({
          id: one.getAttribute('id'),
          event: given('event'),
          at: this.time + milliseconds(given('delay') || String(this.value(given('delayexpr')))),
          order: this.order++,
        });
      else if (one.nodeName === 'if' && this.value(given('cond'), data) === true) this.run(one, data);
    }
  }
}
