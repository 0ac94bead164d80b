import type { FieldsShape, Shape } from './shape.js';

/** What the fields of shapes are for and how they are written, by `shape.field`; and examples of shapes by their names. */
export interface ShapeWords {
  readonly fields: Readonly<Record<string, string>>;
  readonly fieldExamples?: Readonly<Record<string, unknown>>;
  readonly examples?: Readonly<Record<string, readonly unknown[]>>;
}

type Schema = Record<string, unknown>;

/** How a schema is written. */
interface Writing {
  readonly words: ShapeWords;
  /** Whether the data is laid over other data: what is required may be there already, and null takes away. */
  readonly isPart: boolean;
  /** Where shapes with names stand already, as JSON pointers: they are written once, and what is in itself could not be otherwise. */
  readonly written: Map<FieldsShape, string>;
}

/** @param at the JSON pointer of what is written */
function schemaOf(shape: Shape, at: string, writing: Writing): Schema {
  const { words, isPart, written } = writing;
  const inner = (one: Shape, ...keys: (string | number)[]): Schema =>
    schemaOf(one, [at, ...keys].join('/'), writing);
  const named = (one: Shape, ...keys: string[]): Schema =>
    isPart ? orNull(inner(one, ...keys)) : inner(one, ...keys);
  switch (shape.kind) {
    case 'number':
      return {
        type: shape.whole === true ? 'integer' : 'number',
        ...(shape.least !== undefined && { minimum: shape.least }),
        ...(shape.over !== undefined && { exclusiveMinimum: shape.over }),
        ...(shape.most !== undefined && { maximum: shape.most }),
      };
    case 'text':
      return { type: 'string' };
    case 'flag':
      return { type: 'boolean' };
    case 'one':
      return shape.values.length === 1 ? { const: shape.values[0] } : { enum: shape.values };
    case 'list':
      return { type: 'array', items: inner(shape.of, 'items') };
    case 'tuple': {
      const { length } = shape.of;
      return {
        type: 'array',
        prefixItems: shape.of.map((one, i) => inner(one, 'prefixItems', i)),
        items: false,
        minItems: length,
        maxItems: length,
      };
    }
    case 'map': {
      const { of } = shape;
      const place = of.kind === 'fields' ? written.get(of) : undefined;
      if (of.kind === 'fields' && place === undefined) written.set(of, `${at}/additionalProperties`);
      return {
        type: 'object',
        propertyNames: { not: { const: '__proto__' } },
        additionalProperties: place === undefined ? named(of, 'additionalProperties') : { $ref: place },
      };
    }
    case 'any':
      return { anyOf: shape.of.map((one, i) => inner(one, 'anyOf', i)) };
    case 'fields': {
      const { name, must, may, open } = shape;
      const properties = Object.entries({ ...must, ...may }).map(([field, one]) => {
        const place = `${name}.${field}`;
        const example = isPart ? undefined : words.fieldExamples?.[place];
        const schema = { description: words.fields[place], ...named(one, 'properties', field) };
        // The examples of a shape of its own say more than that of the field.
        return [field, example === undefined ? schema : { examples: [example], ...schema }];
      });
      return {
        type: 'object',
        properties: Object.fromEntries(properties) as Schema,
        ...(!isPart && Object.keys(must).length > 0 && { required: Object.keys(must) }),
        ...(!open && { additionalProperties: false }),
        ...(!isPart && words.examples?.[name] && { examples: words.examples[name] }),
      };
    }
  }
}

/** A shape as JSON Schema (2020-12), to stand at a JSON pointer of its own. */
const jsonSchemaOf = (shape: Shape, words: ShapeWords, isPart = false, at = '#'): Schema =>
  schemaOf(shape, at, { words, isPart, written: new Map() });

const orNull = (schema: Schema): Schema =>
  typeof schema.type === 'string'
    ? { ...schema, type: [schema.type, 'null'] }
    : { anyOf: [...((schema.anyOf as Schema[] | undefined) ?? [schema]), { type: 'null' }] };

/** The same with what a published schema begins with. */
export const publishedSchema = (
  shape: Shape,
  words: ShapeWords,
  title: string,
  description: string,
): Schema => published(title, description, jsonSchemaOf(shape, words));

/** The same of data that says it is laid over other data where it has a certain field. */
export const publishedSchemaOver = (
  field: string,
  shape: Shape,
  words: ShapeWords,
  title: string,
  description: string,
): Schema =>
  published(title, description, {
    if: { required: [field] },
    then: jsonSchemaOf(shape, words, true, '#/then'),
    else: jsonSchemaOf(shape, words, false, '#/else'),
  });

const published = (title: string, description: string, schema: Schema): Schema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title,
  description,
  ...schema,
});
