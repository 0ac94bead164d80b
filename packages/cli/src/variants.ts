import type { Controller, ControllerDefinition } from 'dot-hop';
import { choiceOf, variantNamed } from 'dot-hop/explain';
import { InvalidArgumentError } from 'commander';
import { Misuse } from './misuse.js';
import { nearestOf } from './nearest.js';

/** Values of the signals that pick variants: of a choice its option, of a flag whether it is on. */
export type VariantValues = Readonly<Record<string, string | boolean>>;

/** Reads `weapon=pole,tired`. @throws {InvalidArgumentError} for what names no signal */
export function readVariants(text: string): VariantValues {
  return Object.fromEntries(
    text.split(',').map((one) => {
      const found = /^\s*([^=\s]+)\s*(?:=\s*(.*?)\s*)?$/.exec(one);
      if (found === null)
        throw new InvalidArgumentError(
          'It must be written as weapon=pole, or weapon=pole,tired for several.',
        );
      return [found[1]!, found[2] ?? true];
    }),
  );
}

/**
 * What shows in place of a flipbook.
 *
 * @throws {Misuse} for a signal without variants, and for an option that it does not have
 */
export function variantShown({ definition }: Controller, name: string, values: VariantValues = {}): string {
  for (const [signal, value] of Object.entries(values)) checkValue(definition, signal, value);
  return variantNamed(definition, name, values);
}

function checkValue(
  { variants = {}, signals = {} }: ControllerDefinition,
  signal: string,
  value: string | boolean,
): void {
  if (!Object.hasOwn(variants, signal))
    throw new Misuse(`--with ${signal}: it has no variants${nearestOf(signal, Object.keys(variants))}`);
  const options = choiceOf(signals, signal);
  if (options === undefined) {
    if (value !== true) throw new Misuse(`--with ${signal}=${value}: it is a flag; write --with ${signal}`);
  } else if (value === true || !options.includes(String(value)))
    throw new Misuse(
      `--with ${signal}${value === true ? '' : `=${value}`}: say which of its options${nearestOf(String(value), options)}`,
    );
}
