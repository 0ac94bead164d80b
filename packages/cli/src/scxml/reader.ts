import { Performer } from 'dot-hop';
import type { Controller, ControllerDefinition, State, StateDefinition } from 'dot-hop';
import { ecmascriptOf } from 'dot-hop/document';
import { describeController } from 'dot-hop/explain';
import type { ControllerFacts } from 'dot-hop/explain';
import { definitionOf } from '../state-words.js';
import { assign, both } from './nodes.js';
import type { Node } from './nodes.js';

/** What all parts of a chart read off a controller: names, conditions, spans. */
export class ChartReader {
  protected readonly definition: ControllerDefinition;
  /** A performer as it begins: it has the first values. */
  protected readonly first: Performer;
  /** The states from the highest rank. */
  protected readonly order: readonly State[];
  /** The names in expressions that are true while some state shows: tags, and states with their tracks. */
  protected readonly shownNames: ReadonlySet<string>;
  private readonly facts: ControllerFacts;

  constructor(protected readonly controller: Controller) {
    this.definition = controller.definition;
    this.first = new Performer(controller);
    this.order = controller.order.map((index) => controller.states[index]!);
    this.shownNames = new Set(
      controller.states.flatMap((one) => [
        ...one.tags,
        ...[one, ...one.groups].map(({ name }) => this.inTrack(one, name)),
      ]),
    );
    this.facts = describeController(controller);
  }

  /** What stands for a name in an expression. */
  protected nameOf = (name: string, isFirst = false): string => {
    if (!this.shownNames.has(name)) return name;
    const isOf = (one: State, { name: own }: { readonly name: string }): boolean =>
      this.inTrack(one, own) === name;
    const meant = this.controller.states.filter(
      (one) => one.tags.includes(name) || [one, ...one.groups].some((of) => isOf(one, of)),
    );
    if (isFirst) return String(meant.some((one) => this.isFirst(one)));
    // A group is a state of the chart, with its own in it.
    const ids = meant.map((one) => one.groups.find((group) => isOf(one, group))?.name ?? this.idIn(one));
    return `(${[...new Set(ids)].map((id) => `In('${id}')`).join(' || ')})`;
  };

  private inTrack({ track }: State, name: string): string {
    return `${this.controller.tracks[track]!.name}.${name}`;
  }

  /** Whether a state shows at the very first. */
  private isFirst({ track, name }: State): boolean {
    return this.first.showing(this.controller.tracks[track]!.name).state === name;
  }

  /** The name of a state in the chart; of one that has taken another track, with that. */
  protected idIn({ name, track, takenBy }: State): string {
    return takenBy < 0 ? name : `${this.controller.tracks[track]!.name}.${name}`;
  }

  /** The other states of its track that have a condition, from the highest rank. */
  protected others(state: State): State[] {
    return this.order.filter((one) => one !== state && one.track === state.track && one.kind !== 'bare');
  }

  protected expression(text: string | undefined): string {
    return text === undefined ? 'true' : this.written(text, (name) => this.nameOf(name));
  }

  /** An expression as ECMAScript. @param nameOf what stands for a name */
  protected written(text: string, nameOf: (name: string) => string): string {
    const { signals = {} } = this.definition;
    const isChoice = (name: string): boolean => Object.hasOwn(signals, name) && 'choice' in signals[name]!;
    return ecmascriptOf(text, nameOf, this.isTrack, isChoice);
  }

  /** Whether a name in an expression is that of a track. */
  protected isTrack = (name: string): boolean => {
    const { signals = {}, derived = {} } = this.definition;
    if (Object.hasOwn(signals, name) || Object.hasOwn(derived, name)) return false;
    return this.controller.tracks.some((one) => one.name === name);
  };

  /** A state as it stands in the document; nothing of one that has taken a track. */
  protected definitionOf(state: State): StateDefinition {
    return definitionOf(this.controller, state) ?? {};
  }

  /** While what a state may show: one that has taken a track, while it shows in its own and what `takes` says holds. */
  protected during(state: State): string {
    const taker = this.controller.states[state.takenBy];
    if (taker === undefined) return this.expression(this.controller.conditionTexts[state.while]);
    const { takes } = this.definitionOf(taker);
    const track = this.controller.tracks[state.track]!.name;
    const condition = Array.isArray(takes) ? undefined : (takes as Record<string, string>)[track];
    return both(`In('${this.idIn(taker)}')`, this.expression(condition));
  }

  /** Whether the `when` of a state is a change and not a press. */
  protected isChange(state: State): boolean {
    const track = this.controller.tracks[state.track]!.name;
    return this.facts.states.some(
      (one) => one.name === state.name && one.track === track && one.startsOn === 'change',
    );
  }

  protected wants(state: State): string {
    const { when: begins } = this.definitionOf(state);
    if (state.kind === 'bare') return 'false';
    return both(this.during(state), this.isChange(state) ? `new_${idOf(state)}` : this.expression(begins));
  }

  /** What entering a state uses up. */
  protected uses(state: State, ...texts: readonly (string | undefined)[]): Node[] {
    const own = this.isChange(state) && texts.length === 0 ? [assign(`new_${idOf(state)}`, 'false')] : [];
    const { when: begins } = this.definitionOf(state);
    const during = this.controller.conditionTexts[state.while];
    const read = (texts.length > 0 ? texts : [during, begins]).join(' ');
    const pulses = this.facts.signals.filter(
      ({ name, kind }) => kind === 'pulse' && new RegExp(`\\b${name}\\b`).test(read),
    );
    return [...own, ...pulses.map(({ name }) => assign(name, 'false'))];
  }

  /** The spans that hops and yields ask for. */
  protected spansRead(): string[] {
    const found = this.controller.states.flatMap((state) => {
      const { hops = [], yields = [] } = this.definitionOf(state);
      return [...hops, ...yields].flatMap(({ during }) =>
        during === undefined ? [] : [spanId(state, during)],
      );
    });
    return [...new Set(found)];
  }
}

/** A state's name as part of a variable's. */
export const idOf = ({ name, takenBy, track }: State): string =>
  (takenBy < 0 ? name : `${name}_in_${track}`).replace(/\W/g, '_');
export const spanId = (state: State, span: string): string => `in_${idOf(state)}_${span.replace(/\W/g, '_')}`;
