import type { Shape } from './shape.js';

/** What the fields of shapes are for, by `shape.field`, and examples of shapes by their names. */
export interface ShapeWords {
  readonly fields: Readonly<Record<string, string>>;
  readonly examples?: Readonly<Record<string, readonly unknown[]>>;
}

type Schema = Record<string, unknown>;

/** A shape as JSON Schema (2020-12). */
export function jsonSchemaOf(shape: Shape, words: ShapeWords): Schema {
  const inner = (one: Shape): Schema => jsonSchemaOf(one, words);
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
      return { type: 'array', items: inner(shape.of) };
    case 'tuple': {
      const { length } = shape.of;
      return {
        type: 'array',
        prefixItems: shape.of.map(inner),
        items: false,
        minItems: length,
        maxItems: length,
      };
    }
    case 'map':
      return {
        type: 'object',
        propertyNames: { not: { const: '__proto__' } },
        additionalProperties: inner(shape.of),
      };
    case 'any':
      return { anyOf: shape.of.map(inner) };
    case 'fields': {
      const { name, must, may, open } = shape;
      const properties = Object.entries({ ...must, ...may }).map(([field, one]) => [
        field,
        { description: words.fields[`${name}.${field}`], ...inner(one) },
      ]);
      return {
        type: 'object',
        properties: Object.fromEntries(properties) as Schema,
        ...(Object.keys(must).length > 0 && { required: Object.keys(must) }),
        ...(!open && { additionalProperties: false }),
        ...(words.examples?.[name] && { examples: words.examples[name] }),
      };
    }
  }
}

/** The same with what a published schema begins with. */
export const publishedSchema = (
  shape: Shape,
  words: ShapeWords,
  title: string,
  description: string,
): Schema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title,
  description,
  ...jsonSchemaOf(shape, words),
});
