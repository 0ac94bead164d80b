import type { Completion, CompletionContext, CompletionResult } from '@codemirror/autocomplete';
import { documentJsonSchema } from 'dot-hop/document';
import { proposedNames } from 'dot-hop/edit';
import { useWorkbench } from '../character/store.js';
import { pathAt } from './places.js';

interface Schema {
  readonly description?: string;
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly additionalProperties?: Schema | false;
  readonly items?: Schema | false;
  readonly anyOf?: readonly Schema[];
  /** What holds where a document builds on no other. */
  readonly else?: Schema;
  readonly enum?: readonly unknown[];
  readonly const?: unknown;
  /** A JSON pointer to where it is written. */
  readonly $ref?: string;
}

let read: Schema | undefined;
const whole = (): Schema => (read ??= documentJsonSchema() as Schema);

/** The schemas that may hold at a path. */
function schemasAt(path: readonly string[]): Schema[] {
  let found: Schema[] = flat(whole());
  for (const step of path)
    found = found.flatMap((schema) => {
      const inner =
        schema.properties?.[step] ??
        (schema.additionalProperties === false ? undefined : schema.additionalProperties);
      return inner === undefined ? [] : flat(inner);
    });
  return found;
}

/** A schema and all that it may be instead, with what its lists are made of. */
function flat(schema: Schema): Schema[] {
  const items = schema.items === undefined || schema.items === false ? [] : flat(schema.items);
  const otherwise = schema.else === undefined ? [] : flat(schema.else);
  const elsewhere = schema.$ref === undefined ? [] : flat(pointedTo(schema.$ref));
  return [schema, ...(schema.anyOf ?? []).flatMap(flat), ...otherwise, ...elsewhere, ...items];
}

/** What stands at a JSON pointer. (RFC 6901; no name of a schema has a `/`) */
function pointedTo(pointer: string): Schema {
  const keys = pointer.split('/').slice(1);
  return keys.reduce<unknown>((inner, key) => (inner as Record<string, unknown>)[key], whole()) as Schema;
}

/** Completes fields by what a document may say, and names by what this one has. */
export function completeAt(context: CompletionContext): CompletionResult | null {
  const word = context.matchBefore(/[\w-]*/)!;
  if (word.from === word.to && !context.explicit) return null;
  const text = context.state.doc.toString();
  const line = context.state.doc.lineAt(context.pos);
  const before = text.slice(line.from, word.from);
  const isValue = /:\s+(?:\[[^\]]*)?['"!(&|\s\w.<>=-]*$/.test(before) && !/[{,]\s*$/.test(before);
  const path = pathAt(text, word.from);
  const options: Completion[] = [];
  const proposed = proposedNames(useWorkbench.getState().definition, path);
  // An item of a list is a value, or begins with a field.
  const isItem = /^\s*- +$/.test(before);
  if (isValue || isItem) {
    options.push(...proposed.values.map((label) => ({ label, type: 'variable' })));
    for (const { enum: values = [], const: one } of schemasAt(path))
      for (const value of [...values, ...(one === undefined ? [] : [one])])
        options.push({ label: String(value), type: 'keyword' });
  }
  if (!isValue) {
    options.push(...proposed.keys.map((label) => ({ label, type: 'variable', apply: `${label}: ` })));
    for (const schema of schemasAt(path))
      for (const [label, { description }] of Object.entries(schema.properties ?? {}))
        options.push({
          label,
          type: 'property',
          apply: `${label}: `,
          ...(description === undefined ? {} : { info: description }),
        });
  }
  const seen = new Set<string>();
  const unique = options.filter(({ label }) => !seen.has(label) && seen.add(label));
  return unique.length === 0 ? null : { from: word.from, options: unique };
}
