import { Performer } from 'dot-hop';
import type { Controller, ControllerDefinition, State, StateDefinition } from 'dot-hop';
import { ecmascriptOf } from 'dot-hop/document';
import { assign, both } from './nodes.js';
import type { Node } from './nodes.js';

/** What all parts of a chart read off a controller: names, conditions, spans. */
export class ChartReader {
  protected readonly definition: ControllerDefinition;
  /** A performer as it begins: it has the first values. */
  protected readonly first: Performer;
  /** The states from the highest rank. */
  protected readonly order: readonly State[];

  constructor(protected readonly controller: Controller) {
    this.definition = controller.definition;
    this.first = new Performer(controller);
    this.order = controller.order.map((index) => controller.states[index]!);
  }

  /** What stands for a name in an expression. */
  protected nameOf = (name: string, isFirst = false): string => {
    const { tags } = this.controller.tables;
    if (!tags.has(name)) return name;
    const states = this.controller.states.filter((one) => one.tags.includes(name));
    if (isFirst) return String(states.some((one) => one.name === this.first.state));
    return `(${states.map((one) => `In('${one.name}')`).join(' || ')})`;
  };

  protected expression(text: string | undefined): string {
    return text === undefined ? 'true' : ecmascriptOf(text, (name) => this.nameOf(name));
  }

  protected definitionOf({ name }: State): StateDefinition {
    return this.definition.states?.[name] ?? {};
  }

  /** Whether the `when` of a state is a change and not a press. */
  protected isChange({ index, when: condition }: State): boolean {
    return condition >= 0 && this.controller.watched.some(({ state }) => state === index);
  }

  protected wants(state: State): string {
    const { while: during, when: begins } = this.definitionOf(state);
    if (state.kind === 'bare') return 'false';
    return both(
      this.expression(during),
      this.isChange(state) ? `new_${idOf(state)}` : this.expression(begins),
    );
  }

  /** What entering a state uses up. */
  protected uses(state: State, ...texts: readonly (string | undefined)[]): Node[] {
    const own = this.isChange(state) && texts.length === 0 ? [assign(`new_${idOf(state)}`, 'false')] : [];
    const { while: during, when: begins } = this.definitionOf(state);
    const read = (texts.length > 0 ? texts : [during, begins]).join(' ');
    const pulses = this.controller.tables.pulses.filter(({ name }) => new RegExp(`\\b${name}\\b`).test(read));
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
export const idOf = ({ name }: State): string => name.replace(/\W/g, '_');
export const spanId = (state: State, span: string): string => `in_${idOf(state)}_${span.replace(/\W/g, '_')}`;
