import type { StateDefinition } from 'dot-hop';
import { assign, both, node, when } from './nodes.js';
import type { Node } from './nodes.js';
import { ChartReader, idOf } from './reader.js';

/** What a chart keeps of signals, and how it hears them. */
export class ChartInput extends ChartReader {
  protected data(): Node[] {
    const { signals = {}, derived = {} } = this.definition;
    const value = (name: string): string => {
      const found = this.first.value(name);
      if (Array.isArray(found)) return `{ x: ${String(found[0])}, y: ${String(found[1])} }`;
      return typeof found === 'string' ? `'${found}'` : String(found);
    };
    const one = (id: string, expr: string): Node => node('data', { id, expr });
    return [
      ...Object.keys(signals).map((name) => one(name, value(name))),
      ...Object.entries(derived).flatMap(([name, rule]) => {
        const lasts = typeof rule === 'object' && ('linger' in rule || 'settle' in rule);
        return [one(name, value(name)), ...(lasts ? [one(`waits_${name}`, 'false')] : [])];
      }),
      ...this.controller.states
        .filter((state) => this.isChange(state))
        .flatMap((state) => [
          one(
            `was_${idOf(state)}`,
            this.written(this.definitionOf(state).when!, (name) => this.nameOf(name, true)),
          ),
          one(`new_${idOf(state)}`, 'false'),
        ]),
      ...this.spansRead().map((id) => one(id, 'false')),
      ...this.controller.states.flatMap((state) =>
        state.hops.flatMap(({ memory }, i) =>
          memory >= 0 ? [one(`heard_${idOf(state)}_${i}`, 'false')] : [],
        ),
      ),
    ];
  }

  /** Everything that follows from signals, computed again in the order in which it depends on itself. */
  protected update(
    isMeant: (derived: string) => boolean = () => true,
    isWatched: (state: StateDefinition) => boolean = () => true,
  ): Node[] {
    const { derived = {} } = this.definition;
    const computed = Object.entries(derived).flatMap(([name, rule]): Node[] => {
      if (!isMeant(name)) return [];
      if (typeof rule === 'string') return [assign(name, this.expression(rule))];
      const of = this.expression(rule.of);
      if ('above' in rule)
        return [
          when(`${of} > ${rule.above}`, assign(name, 'true')),
          when(`${of} < ${rule.below}`, assign(name, 'false')),
        ];
      const [holds, delay] = 'linger' in rule ? [of, rule.linger] : [`!(${of})`, rule.settle];
      const on = String('linger' in rule);
      return [
        when(
          holds,
          assign(name, on),
          assign(`waits_${name}`, 'false'),
          node('cancel', { sendid: `wait.${name}` }),
        ),
        when(
          both(`!(${holds})`, `${name} === ${on}`, `!waits_${name}`),
          assign(`waits_${name}`, 'true'),
          node('send', {
            ...{ id: `wait.${name}`, event: `waited.${name}` },
            ...(typeof delay === 'number'
              ? { delay: `${delay}ms` }
              : { delayexpr: `Math.max(0, ${this.expression(delay)}) + 'ms'` }),
          }),
        ),
      ];
    });
    const changes = this.controller.states
      .filter((state) => this.isChange(state) && isWatched(this.definitionOf(state)))
      .flatMap((state) => {
        const id = idOf(state);
        const holds = this.expression(this.definitionOf(state).when);
        return [
          when(both(holds, `!was_${id}`), assign(`new_${id}`, 'true'), node('raise', { event: `old.${id}` })),
          assign(`was_${id}`, holds),
        ];
      });
    return [...inOrder(computed, derived), ...changes];
  }

  /** What it hears from outside, and from its own clocks. */
  protected hearing(): Node[] {
    const { signals = {}, derived = {} } = this.definition;
    const on = (event: string, ...inside: readonly Node[]): Node => node('transition', { event }, ...inside);
    const pulses = Object.entries(signals).filter(([, rule]) => 'pulse' in rule);
    const given = Object.entries(signals).flatMap(([name, rule]) => {
      const data = `_event.data.${name}`;
      if (!('pulse' in rule)) {
        const expr = 'vector' in rule ? `{ x: ${data}[0], y: ${data}[1] }` : data;
        return [when(`${data} !== undefined`, assign(name, expr))];
      }
      const keep = rule.pulse === true ? 0 : (rule.pulse.keep ?? 0);
      const ends =
        keep > 0
          ? [
              node('cancel', { sendid: `keep.${name}` }),
              node('send', { id: `keep.${name}`, event: `over.${name}`, delay: `${keep}ms` }),
            ]
          : [node('raise', { event: `over.${name}` })];
      return [when(`${data} === true`, assign(name, 'true'), ...ends)];
    });
    const heard = [
      on('signals', ...given, ...this.update()),
      ...pulses.map(([name]) => on(`over.${name}`, assign(name, 'false'))),
    ];
    const lasting = Object.entries(derived).flatMap(([name, rule]) =>
      typeof rule === 'object' && !('above' in rule)
        ? [
            on(
              `waited.${name}`,
              assign(name, String('settle' in rule)),
              assign(`waits_${name}`, 'false'),
              ...this.update(),
            ),
          ]
        : [],
    );
    const changes = this.controller.states
      .filter((state) => this.isChange(state))
      .map((state) => on(`old.${idOf(state)}`, assign(`new_${idOf(state)}`, 'false')));
    // Without a target: nothing is left, so every region stays where it is.
    return [...heard, ...lasting, ...changes];
  }

  /** Derived signals that read tags, and what is watched that does, follow from what shows, too. */
  protected tagUpdate(): Node[] {
    const { tracks } = this.controller;
    const names = [...this.shownNames, ...tracks.map(({ name }) => name).filter(this.isTrack)];
    const { derived = {} } = this.definition;
    const reads = (text: string): boolean => names.some((name) => new RegExp(`\\b${name}\\b`).test(text));
    for (let known = 0; known !== names.length;) {
      known = names.length;
      for (const [name, rule] of Object.entries(derived))
        if (!names.includes(name) && reads(typeof rule === 'string' ? rule : rule.of)) names.push(name);
    }
    return this.update(
      (name) => names.includes(name),
      ({ when: begins }) => reads(begins ?? ''),
    );
  }
}

/** Derived signals after those that they read. */
function inOrder(nodes: readonly Node[], derived: Readonly<Record<string, unknown>>): Node[] {
  const names = Object.keys(derived);
  const about = (one: Node): string => {
    const first = one.tag === 'assign' ? one : one.inside[0]!;
    return first.attributes.location!.replace(/^waits_/, '');
  };
  const text = (name: string): string => JSON.stringify(derived[name]);
  const placed: string[] = [];
  const place = (name: string): void => {
    if (placed.includes(name)) return;
    for (const other of names)
      if (other !== name && new RegExp(`\\b${other}\\b`).test(text(name))) place(other);
    placed.push(name);
  };
  names.forEach(place);
  return placed.flatMap((name) => nodes.filter((one) => about(one) === name));
}
