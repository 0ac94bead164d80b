import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { Condition } from '../signal/condition.js';
import type { SignalCompiler } from '../signal/compiler.js';
import { choiceOf } from '../signal/signals.js';
import type { Flipbooks } from './flipbooks.js';
import type { Controller } from './controller.js';
import type { ControllerDefinition, VariantsDefinition } from './definition.js';

/** The variants that one signal picks: which flipbook shows in place of which, while what holds. */
export interface Variants {
  readonly options: readonly {
    /** The flipbook that shows instead, by the name of the one that states name. */
    readonly instead: Instead;
    readonly path: DocumentPath;
    readonly condition: Condition;
  }[];
}

/** Which flipbook shows in place of which. */
type Instead = Readonly<Record<string, string>>;

/** Resolves the names of `variants`. */
export function compileVariants(
  { signals: given = {}, derived = {}, variants = {} }: ControllerDefinition,
  flipbooks: Flipbooks,
  signals: SignalCompiler,
  problems: ProblemList,
): Variants[] {
  const compiled = Object.entries(variants).map(([signal, maps]): Variants => {
    const path = ['variants', signal];
    const choice = choiceOf(given, signal);
    const isNested = Object.values(maps).some((one) => typeof one !== 'string');
    if (choice === undefined && !isNested) {
      const condition = signals.condition(signal, path);
      return { options: condition === undefined ? [] : [{ instead: maps as Instead, path, condition }] };
    }
    const known = [...Object.keys(given), ...Object.keys(derived)];
    if (choice === undefined && !known.includes(signal))
      problems.add('signal-unknown', path, { name: signal, known });
    else if (choice === undefined || (!isNested && Object.keys(maps).length > 0))
      problems.add('variants-kind', path, { name: signal, choice });
    else
      return {
        options: Object.entries(maps as Readonly<Record<string, Instead>>).flatMap(([option, instead]) => {
          const at = [...path, option];
          if (choice.includes(option))
            return [{ instead, path: at, condition: signals.optionTest(signal, option) }];
          problems.add('variant-option', at, { name: option, known: choice });
          return [];
        }),
      };
    return { options: [] };
  });
  for (const { instead, path } of compiled.flatMap(({ options }) => options))
    for (const [from, to] of Object.entries(instead))
      for (const name of [from, to])
        if (!flipbooks.has(name))
          problems.add('clip-unknown', [...path, from], { name, known: flipbooks.names });
  return compiled;
}

/**
 * Finds all flipbooks that may show in place of some, including those. What the first signal picks is looked up in the variants of the
 * next.
 *
 * @returns the names: those given first, then the same as the first signal's first option replaces them, and so on; and the variants that
 *   have a say
 */
export function inPlaceOf(
  own: readonly string[],
  variants: readonly Variants[],
): { readonly names: readonly string[]; readonly by: readonly Variants[] } {
  let names = own;
  const by: Variants[] = [];
  for (const one of variants) {
    if (!one.options.some(({ instead }) => names.some((flipbook) => Object.hasOwn(instead, flipbook))))
      continue;
    by.push(one);
    names = [undefined, ...one.options].flatMap((option) =>
      names.map((flipbook) =>
        option !== undefined && Object.hasOwn(option.instead, flipbook)
          ? option.instead[flipbook]!
          : flipbook,
      ),
    );
  }
  return { names, by };
}

/** The variants of a document, without those that can never show: a replacement for a flipbook that no state shows. */
export function variantsShown({ definition, states }: Controller): VariantsDefinition | undefined {
  const { variants } = definition;
  if (variants === undefined) return undefined;
  const shown = new Set(states.flatMap(({ flipbookNames }) => flipbookNames));
  const shownIn = (map: object): [string, unknown][] =>
    Object.entries(map).flatMap(([from, to]: [string, unknown]): [string, unknown][] => {
      if (typeof to === 'string') return shown.has(from) && shown.has(to) ? [[from, to]] : [];
      const inner = shownIn(to as object);
      return inner.length === 0 ? [] : [[from, Object.fromEntries(inner)]];
    });
  return Object.fromEntries(shownIn(variants)) as unknown as VariantsDefinition;
}

/**
 * The flipbook that shows in place of another, for some values of signals.
 *
 * @param values the options of choices, true or false for flags. A signal that is not named has its first value
 */
export function variantNamed(
  { variants = {}, signals = {} }: ControllerDefinition,
  name: string,
  values: Readonly<Record<string, string | boolean>>,
): string {
  let shown = name;
  for (const [signal, maps] of Object.entries(variants)) {
    const choice = choiceOf(signals, signal);
    const value = values[signal] ?? choice?.[0];
    const instead = choice !== undefined ? maps[String(value)] : value === true ? maps : undefined;
    if (typeof instead === 'object' && Object.hasOwn(instead, shown)) shown = (instead as Instead)[shown]!;
  }
  return shown;
}
