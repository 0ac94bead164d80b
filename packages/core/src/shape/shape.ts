/*
 * What data must look like, as data: one description by which files and plain objects are checked, with the same words, and
 * from which the JSON Schemas are made. A schema package would weigh more than the runtime it guards.
 */

/** Bounds of a number; both may stand at once. */
export interface Bounds {
  /** The least, itself allowed. */
  readonly least?: number;
  /** It must be larger than this. */
  readonly over?: number;
  /** The most, itself allowed. */
  readonly most?: number;
  /** Whether it must be whole. */
  readonly whole?: boolean;
}

interface Said {
  /** What is expected, as it stands behind "expected" in a message. */
  readonly says: string;
}

export interface NumberShape extends Said, Bounds {
  readonly kind: 'number';
}
export interface TextShape extends Said {
  readonly kind: 'text' | 'flag';
}
/** One of some values. */
export interface OneShape extends Said {
  readonly kind: 'one';
  readonly values: readonly (string | number | boolean)[];
}
export interface ListShape extends Said {
  readonly kind: 'list';
  readonly of: Shape;
}
/** A list of a given length, a shape for each of its places. */
export interface TupleShape extends Said {
  readonly kind: 'tuple';
  readonly of: readonly Shape[];
}
/** Names of one's own, each with a value of one shape. */
export interface MapShape extends Said {
  readonly kind: 'map';
  readonly of: Shape;
}
/** Fields with names that are given. */
export interface FieldsShape extends Said {
  readonly kind: 'fields';
  /** By which descriptions of its fields are found: `clip` of `clip.cells`. */
  readonly name: string;
  readonly must: Readonly<Record<string, Shape>>;
  readonly may: Readonly<Record<string, Shape>>;
  /** Whether other fields may stand beside these. */
  readonly open: boolean;
}
/** Any of several shapes. */
export interface AnyShape extends Said {
  readonly kind: 'any';
  readonly of: readonly Shape[];
}
export type Shape =
  NumberShape | TextShape | OneShape | ListShape | TupleShape | MapShape | FieldsShape | AnyShape;

export const number = (says = 'a number', bounds: Bounds = {}): Shape => ({
  kind: 'number',
  says,
  ...bounds,
});
export const text = (says = 'a text'): Shape => ({ kind: 'text', says });
export const flag: Shape = { kind: 'flag', says: 'true or false' };
export const one = (says: string, ...values: OneShape['values']): Shape => ({ kind: 'one', says, values });
export const list = (of: Shape, says: string): Shape => ({ kind: 'list', says, of });
export const tuple = (of: readonly Shape[], says: string): Shape => ({ kind: 'tuple', says, of });
export const map = (of: Shape, says: string): Shape => ({ kind: 'map', says, of });
export const any = (says: string, ...of: Shape[]): Shape => ({ kind: 'any', says, of });
export const fields = (
  name: string,
  says: string,
  must: FieldsShape['must'],
  may: FieldsShape['may'] = {},
  open = false,
): FieldsShape => ({ kind: 'fields', name, says, must, may, open });

/** Lengths, times and the like, which have no sign. */
export const fromZero = (says = '0 or more'): Shape => number(says, { least: 0 });
/** Milliseconds up to an hour: no time in a document is longer. */
export const withinHour = number('milliseconds from 0 to 3600000', { least: 0, most: 3_600_000 });
/** Two numbers, such as a size or a place. */
export const pair = tuple([number(), number()], 'two numbers, such as [48, 48]');
/** A text or a list of texts. */
export const texts = (says: string): Shape => list(text(), says);
