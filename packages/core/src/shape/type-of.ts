import type { AnyShape, FieldsShape, ListShape, MapShape, OneShape, Shape, TupleShape } from './shape.js';

declare const type: unique symbol;
/** A shape with the type of its data. For the compiler alone: nothing of it exists at run time. */
export interface Typed<T> {
  readonly [type]: T;
}

/** The data that fits a shape. Of any shape whatever, which has shapes without end in it, any. */
export type TypeOf<S> = Shape extends S
  ? unknown
  : S extends Typed<infer T>
    ? T
    : S extends { readonly kind: infer Kind extends keyof DataOf<unknown> }
      ? DataOf<S>[Kind]
      : never;

/** The data of a shape by its kind. */
interface DataOf<S> {
  readonly number: number;
  readonly text: string;
  readonly flag: boolean;
  readonly one: S extends OneShape<infer V> ? V : never;
  readonly list: S extends ListShape<infer Of> ? readonly TypeOf<Of>[] : never;
  readonly tuple: S extends TupleShape<infer Of> ? { readonly [I in keyof Of]: TypeOf<Of[I]> } : never;
  readonly map: S extends MapShape<infer Of> ? Readonly<Record<string, TypeOf<Of>>> : never;
  readonly any: S extends AnyShape<readonly (infer Of)[]> ? TypeOf<Of> : never;
  readonly fields: S extends FieldsShape<infer Must, infer May>
    ? { [F in keyof Must]: TypeOf<Must[F]> } & { [F in keyof May]?: TypeOf<May[F]> | undefined }
    : never;
}

type KeysIn<T> = T extends unknown ? keyof T : never;

/** What keeps two types from being the same: fields that only one has, or else what one of them is. */
type Difference<A, B> = [KeysIn<A>] extends [KeysIn<B>]
  ? [KeysIn<B>] extends [KeysIn<A>]
    ? [A] extends [B]
      ? [B] extends [A]
        ? never
        : { readonly differs: A }
      : { readonly differs: A }
    : { readonly lacks: Exclude<KeysIn<B>, KeysIn<A>> }
  : { readonly adds: Exclude<KeysIn<A>, KeysIn<B>> };

/** A shape that is tied to the type of its data, or what keeps it from being so, which is no shape. */
type Tied<S, T> = [Difference<TypeOf<S>, T>] extends [never] ? S & Typed<T> : Difference<TypeOf<S>, T>;

/**
 * Ties a shape to the type of its data. If one has a field that the other has not, or another type for it, the compiler refuses it. So the
 * type can stand where it is read, with its comments, and still says the same as the shape.
 */
export const typed =
  <T>() =>
  <S extends Shape>(shape: S): Tied<S, T> =>
    shape as unknown as Tied<S, T>;

/** The same of a shape whose data is looked at elsewhere: nothing ties it to the type. */
export const untied =
  <T>() =>
  <S extends Shape>(shape: S): S & Typed<T> =>
    shape as S & Typed<T>;
