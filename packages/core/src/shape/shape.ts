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

/**
 * What a text of a document is, or the keys of a map: a name of one kind, or an expression. What renames, checks, completes and reads names goes
 * by this, so that a field says it once.
 */
export type TextRole =
  | 'sheet'
  | 'part'
  | 'clip'
  /** A clip or a flipbook. */
  | 'shown'
  | 'cue'
  /** A name by which a cue is told. */
  | 'told'
  | 'span'
  /** `now`, `end`, or a cue. */
  | 'instant'
  | 'box'
  | 'point'
  | 'signal'
  /** A state or a group of the same track. */
  | 'state'
  /** A state that stands in the same map of states. */
  | 'ownState'
  /** A state of any track. */
  | 'stateAnywhere'
  | 'tag'
  | 'track'
  | 'expression'
  /** A signal, or a button of a rehearsal's body. */
  | 'pressed'
  /** The beginning of a path such as `states.rise`. */
  | 'place';

interface Said {
  /** What is expected, as it stands behind "expected" in a message. */
  readonly says: string;
}

export interface NumberShape extends Said, Bounds {
  readonly kind: 'number';
}
export interface TextShape<R extends TextRole | 'none' = TextRole | 'none'> extends Said {
  readonly kind: 'text';
  /** Default: any text. */
  readonly role?: R;
}
export interface FlagShape extends Said {
  readonly kind: 'flag';
}
/** One of some values. */
export interface OneShape<V extends string | number | boolean = string | number | boolean> extends Said {
  readonly kind: 'one';
  readonly values: readonly V[];
}
export interface ListShape<Of = Shape> extends Said {
  readonly kind: 'list';
  readonly of: Of;
}
/** A list of a given length, a shape for each of its places. */
export interface TupleShape<Of = readonly Shape[]> extends Said {
  readonly kind: 'tuple';
  readonly of: Of;
}
/** Names of one's own, each with a value of one shape. */
export interface MapShape<Of = Shape, Keys extends TextRole | 'none' = TextRole | 'none'> extends Said {
  readonly kind: 'map';
  readonly of: Of;
  /** What its keys name. */
  readonly keys?: Keys;
  /** Whether its keys are where the names come from. */
  readonly owns?: true;
}
/** Fields with names that are given. */
export interface FieldsShape<
  Must = Readonly<Record<string, Shape>>,
  May = Readonly<Record<string, Shape>>,
  Name = string,
> extends Said {
  readonly kind: 'fields';
  /** By which descriptions of its fields are found: `clip` of `clip.cells`. */
  readonly name: Name;
  readonly must: Must;
  readonly may: May;
  /** Whether other fields may stand beside these. */
  readonly open: boolean;
}
/** Any of several shapes. */
export interface AnyShape<Of = readonly Shape[]> extends Said {
  readonly kind: 'any';
  readonly of: Of;
}
export type Shape =
  NumberShape | TextShape | FlagShape | OneShape | ListShape | TupleShape | MapShape | FieldsShape | AnyShape;

type Fields = Readonly<Record<string, Shape>>;

export const number = (says = 'a number', bounds: Bounds = {}): NumberShape => ({
  kind: 'number',
  says,
  ...bounds,
});
/** Any text. */
export const text = (says = 'a text'): TextShape<'none'> => ({ kind: 'text', says });
/** A text that names something. */
export const name = <R extends TextRole>(role: R): TextShape<R> => ({ kind: 'text', says: 'a text', role });
export const expression = name('expression');
export const flag: FlagShape = { kind: 'flag', says: 'true or false' };
export const one = <const V extends string | number | boolean>(
  says: string,
  ...values: V[]
): OneShape<V> => ({
  kind: 'one',
  says,
  values,
});
export const list = <Of extends Shape>(of: Of, says: string): ListShape<Of> => ({ kind: 'list', says, of });
export const tuple = <const Of extends readonly Shape[]>(of: Of, says: string): TupleShape<Of> => ({
  kind: 'tuple',
  says,
  of,
});
export const map = <Of extends Shape>(of: Of, says: string): MapShape<Of, 'none'> => ({
  kind: 'map',
  says,
  of,
});
/** A map whose keys refer to something. */
export const mapBy = <Keys extends TextRole, Of extends Shape>(
  keys: Keys,
  of: Of,
  says: string,
): MapShape<Of, Keys> => ({ kind: 'map', says, of, keys });
/** A map whose keys are the names of something that is said here: others refer to them. To the compiler they are any texts. */
export const namesOf = <Of extends Shape>(keys: TextRole, of: Of, says: string): MapShape<Of, 'none'> =>
  ({ ...mapBy(keys, of, says), owns: true }) as unknown as MapShape<Of, 'none'>;
export const any = <const Of extends readonly Shape[]>(says: string, ...of: Of): AnyShape<Of> => ({
  kind: 'any',
  says,
  of,
});
export const fields = <const Name extends string, Must extends Fields, May extends Fields>(
  name: Name,
  says: string,
  must: Must,
  may: May,
  open = false,
): FieldsShape<Must, May, Name> => ({ kind: 'fields', name, says, must, may, open });
/** The same where all of them must be there. */
export const allOf = <const Name extends string, Must extends Fields>(name: Name, says: string, must: Must) =>
  fields(name, says, must, {});

/** Lengths, times and the like, which have no sign. */
export const fromZero = (says = '0 or more'): NumberShape => number(says, { least: 0 });
/** Milliseconds up to an hour: no time in a document is longer. */
export const withinHour = number('milliseconds from 0 to 3600000', { least: 0, most: 3_600_000 });
/** Two numbers, such as a size or a place. */
export const pair = tuple([number(), number()], 'two numbers, such as [48, 48]');
/** A list of texts. */
export const texts = (says: string): ListShape<TextShape<'none'>> => list(text(), says);
/** A list of names. */
export const names = <R extends TextRole>(role: R, says: string): ListShape<TextShape<R>> =>
  list(name(role), says);
