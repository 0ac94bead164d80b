import type { State, StateDefinition } from 'dot-hop';
import { ChartInput } from './input.js';
import { assign, both, node } from './nodes.js';
import type { Node } from './nodes.js';
import { idOf, spanId } from './reader.js';

/** The states of a chart with the ways between them, in the order of the rules of decision. */
export class ChartStates extends ChartInput {
  protected state(state: State): Node {
    const definition = this.definitionOf(state);
    const spans = this.spansRead().filter((id) => id.startsWith(`in_${idOf(state)}_`));
    const heard = state.hops.flatMap(({ memory }, i) => (memory >= 0 ? [`heard_${idOf(state)}_${i}`] : []));
    const clocks = this.clocks(state);
    const ending = this.ending(state);
    const reads = [...clocks, ...ending].map(({ attributes }) => attributes.id!);
    const entered = [
      ...[...spans, ...heard].map((id) => assign(id, 'false')),
      ...clocks,
      ...ending,
      ...this.tagUpdate(),
    ];
    const onexit = reads.map((sendid) => node('cancel', { sendid }));
    const loops = state.flipbooks[0]![this.controller.compass.start]!.clip.loopFrom >= 0;
    const spanMarks = spans.flatMap((id) => [
      node('transition', { event: `begins.${id}` }, assign(id, 'true')),
      node('transition', { event: `ends.${id}` }, assign(id, 'false')),
    ]);
    return node(
      'state',
      { id: this.idIn(state) },
      ...(entered.length > 0 ? [node('onentry', {}, ...entered)] : []),
      ...(onexit.length > 0 ? [node('onexit', {}, ...onexit)] : []),
      ...this.byRank(state),
      ...this.byHops(state, definition),
      ...this.givingWay(state, definition),
      ...spanMarks,
      ...(loops ? [node('transition', { event: `pass.${state.name}` }, ...clocks)] : []),
    );
  }

  private into(state: State, cond: string, uses: readonly Node[], event?: string): Node {
    const attributes = {
      ...(event !== undefined && { event }),
      ...(cond !== 'true' && { cond }),
      target: this.idIn(state),
    };
    return node('transition', attributes, ...uses);
  }

  /** Rule 1: a state of higher rank takes over at once. */
  private byRank(state: State): Node[] {
    if (state.final) return [];
    const isRest = state.index === state.rest;
    return this.others(state)
      .filter((one) => isRest || one.rank > state.rank)
      .map((one) => this.into(one, this.wants(one), this.uses(one)));
  }

  /** Rule 2: hops. */
  private byHops(state: State, { hops = [] }: StateDefinition): Node[] {
    return state.hops.flatMap(({ to: index, place }, i) => {
      const to = this.controller.states[index]!;
      const hop = hops[place]!;
      const given = this.expression(hop.if);
      const open = this.during(to);
      const uses = hop.if === undefined ? this.uses(to) : this.uses(to, hop.if);
      const span = hop.during === undefined ? 'true' : spanId(state, hop.during);
      const events = eventsOf(state, hop.at);
      if (events === undefined) return [this.into(to, both(span, given, open), uses)];
      if (hop.during === undefined) return [this.into(to, both(given, open), uses, events)];
      const heard = `heard_${idOf(state)}_${i}`;
      return [
        node('transition', { cond: both(span, given, `!${heard}`) }, assign(heard, 'true'), ...uses),
        this.into(to, both(heard, open), [], events),
      ];
    });
  }

  /** Rule 3: when the state ends, no longer stands, or yields, the highest state that wants in follows, else the rest. */
  private givingWay(state: State, definition: StateDefinition): Node[] {
    const rest = this.controller.states[state.rest]!;
    if (state === rest) return [];
    const others = this.others(state);
    const way = (cond: string, event: string | undefined, among = others): Node[] =>
      among.map((one) => this.into(one, both(cond, this.wants(one)), this.uses(one), event));
    const yields = (definition.yields ?? []).flatMap(({ during, if: given }, i) => {
      const { to } = state.yields[i]!;
      const span = during === undefined ? 'true' : spanId(state, during);
      return way(
        both(span, this.expression(given)),
        undefined,
        others.filter(({ index }) => to?.has(index) ?? true),
      );
    });
    const gone = `!(${this.during(state)})`;
    const leaves = state.while < 0 ? [] : [...way(gone, undefined), this.into(rest, gone, [])];
    const end = `end.${state.name}`;
    const then = definition.then === undefined ? [] : [this.controller.stateNamed.get(definition.then)!];
    const ends = state.ends
      ? [
          ...then.map((one) => this.into(one, this.during(one), [], end)),
          ...way('true', end),
          this.into(rest, 'true', [], end),
        ]
      : [];
    return [...yields, ...leaves, ...ends];
  }

  /** What is sent after a while of showing: cues, borders of spans, the next pass. */
  private clocks(state: State): Node[] {
    // What is in step has no time of its own.
    if (state.inStep >= 0) return [];
    const { clip } = state.flipbooks[0]![this.controller.compass.start]!;
    const starts = [0, ...clip.ends];
    const spans = this.spansRead();
    const told: [string, number][] = clip.cues.flatMap((names, frame) =>
      names.map((name): [string, number] => [`cue.${name}`, starts[frame]!]),
    );
    for (const [name, { first, last }] of clip.spans) {
      const id = spanId(state, name);
      const isAskedFor = this.isSpanAt(state, name);
      if (spans.includes(id) || isAskedFor)
        told.push([`begins.${id}`, starts[first]!], [`ends.${id}`, starts[last + 1]!]);
    }
    const length = starts[clip.ends.length]!;
    if (clip.loopFrom >= 0 && told.length > 0) told.push([`pass.${state.name}`, length]);
    return told
      .sort((a, b) => a[1] - b[1])
      .map(([event, micros], i) =>
        node('send', { id: `${idOf(state)}.${i}`, event, delay: `${micros / 1000}ms` }),
      );
  }

  /** What is sent when a state is over: its clip, or the time that it says it lasts. Further passes do not put it off. */
  private ending(state: State): Node[] {
    if (state.inStep >= 0) return [];
    const { ends, loopFrom } = state.flipbooks[0]![this.controller.compass.start]!.clip;
    const { lasts = loopFrom >= 0 ? undefined : ends[ends.length - 1]! / 1000 } = this.definitionOf(state);
    if (lasts === undefined) return [];
    const delay =
      typeof lasts === 'number'
        ? { delay: `${lasts}ms` }
        : { delayexpr: `Math.max(0, ${this.expression(lasts)}) + 'ms'` };
    return [node('send', { id: `${idOf(state)}.end`, event: `end.${state.name}`, ...delay })];
  }

  private isSpanAt(state: State, name: string): boolean {
    return (this.definitionOf(state).hops ?? []).some(
      ({ at }) =>
        typeof at === 'object' && (('start' in at && at.start === name) || ('end' in at && at.end === name)),
    );
  }
}

/** The event at which a hop is taken; `undefined` for at once. */
function eventsOf(state: State, at: NonNullable<StateDefinition['hops']>[number]['at']): string | undefined {
  if (at === undefined || at === 'now') return undefined;
  if (at === 'end') return `end.${state.name}`;
  if (typeof at === 'string') return `cue.${at}`;
  if ('start' in at) return `begins.${spanId(state, at.start)}`;
  return 'end' in at ? `ends.${spanId(state, at.end)}` : undefined;
}
