import type { z } from 'zod';
import type { Problem } from '../problem/problem.js';

/** The parts of a schema's inside that the search for known field names follows. */
interface SchemaInside {
  readonly shape?: Readonly<Record<string, z.core.$ZodType>>;
  readonly innerType?: z.core.$ZodType;
  readonly valueType?: z.core.$ZodType;
  readonly element?: z.core.$ZodType;
  /** Of a union, what may stand there. */
  readonly options?: readonly z.core.$ZodType[];
}

const inside = (schema: z.core.$ZodType): SchemaInside => schema._zod.def as SchemaInside;

/** The fields that an object may have at a path of the schema. */
function fieldsAt(schema: z.core.$ZodType, path: readonly PropertyKey[]): string[] {
  let at: z.core.$ZodType | undefined = schema;
  for (const part of [...path, undefined]) {
    while (at !== undefined && inside(at).innerType !== undefined) at = inside(at).innerType;
    if (at === undefined || part === undefined) break;
    const { shape, valueType, element, options }: SchemaInside = inside(at);
    // Of a union the first form that has such a field.
    const form = options?.find((option) => inside(option).shape?.[String(part)] !== undefined);
    at = shape?.[String(part)] ?? valueType ?? element ?? (form && inside(form).shape![String(part)]);
  }
  if (at === undefined) return [];
  const { shape, options = [] } = inside(at);
  return Object.keys(Object.assign({}, shape, ...options.map((option) => inside(option).shape)) as object);
}

/** What stands at a path of plain data. */
function valueAt(data: unknown, path: readonly PropertyKey[]): unknown {
  return path.reduce<unknown>(
    (value, part) => (value as Record<PropertyKey, unknown> | undefined)?.[part],
    data,
  );
}

/** The kinds of file there are, by the field that each begins with. */
const kinds: Readonly<Record<string, string>> = {
  dotHop: "character's document",
  dotHopRehearsal: 'rehearsal',
};

/** One problem in place of many where a file is of another kind than the one wanted. */
function otherKind(data: unknown, field: string): Problem | undefined {
  if (typeof data !== 'object' || data === null || field in data) return undefined;
  const found = Object.keys(kinds).find((kind) => kind in data);
  if (found === undefined) return undefined;
  return { code: 'other-kind', path: [], values: { received: kinds[found], expected: kinds[field], field } };
}

/**
 * Checks data against a schema whose error texts say what is expected.
 *
 * @param field the field that a file of this kind begins with
 * @returns the data, or the problems in it
 */
export function validate<T>(
  schema: z.ZodType<T>,
  data: unknown,
  field: string,
): { value: T } | { problems: Problem[] } {
  const other = otherKind(data, field);
  if (other !== undefined) return { problems: [other] };
  const result = schema.safeParse(data);
  if (result.success) return { value: result.data };
  const problems = result.error.issues.flatMap((issue): Problem[] => {
    const path = issue.path as (string | number)[];
    if (issue.code === 'unrecognized_keys') {
      const known = fieldsAt(schema, path);
      return issue.keys.map((field) => ({
        code: 'field-unknown',
        path: [...path, field],
        values: { field, known },
      }));
    }
    const received = valueAt(data, path);
    if (received === undefined && path.length > 0) {
      const values = { field: path[path.length - 1], expected: issue.message };
      return [{ code: 'field-missing', path, values }];
    }
    return [{ code: 'field-kind', path, values: { expected: issue.message, received } }];
  });
  return { problems };
}
