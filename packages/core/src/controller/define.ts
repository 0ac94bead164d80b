import type { ControllerDefinition } from './definition.js';
import type { Enterable, Keys, NamesByRole } from './names-by-role.js';
import type { Field } from './names.js';
import type { AnyShape, FieldsShape, ListShape, MapShape, TextShape, TupleShape } from '../shape/shape.js';
import type { Typed } from '../shape/type-of.js';
import type { EditorHints, StateNames } from './editor-hints.js';
import type { controllerShape } from './shape.js';

declare const fault: unique symbol;
/** What is wrong with a name, as the compiler tells it. No value is of this type. */
interface Fault<Text extends string> {
  readonly [fault]: Text;
}

/** Nothing to say of a name that is known; else that it is not, with those that are: editors complete from them. */
type Name<Text, All, What extends string> = [Text] extends [All]
  ? unknown
  : Text extends string
    ? Fault<`there is no ${What} "${Text}"`> | All
    : unknown;

type Letter =
  | 'a'
  | 'b'
  | 'c'
  | 'd'
  | 'e'
  | 'f'
  | 'g'
  | 'h'
  | 'i'
  | 'j'
  | 'k'
  | 'l'
  | 'm'
  | 'n'
  | 'o'
  | 'p'
  | 'q'
  | 'r'
  | 's'
  | 't'
  | 'u'
  | 'v'
  | 'w'
  | 'x'
  | 'y'
  | 'z';
type Digit = '0' | '1' | '2' | '3' | '4' | '5' | '6' | '7' | '8' | '9';
type InName = Letter | Uppercase<Letter> | Digit | '_' | '.';

/** The words of an expression: names, functions and numbers; texts in quotes are left out. */
type WordsOf<Text, Word extends string = '', Found = never> = Text extends `${infer First}${infer Rest}`
  ? First extends InName
    ? WordsOf<Rest, `${Word}${First}`, Found>
    : First extends "'" | '"'
      ? Rest extends `${string}${First}${infer After}`
        ? WordsOf<After, '', Found | Word>
        : Found | Word
      : WordsOf<Rest, '', Found | Word>
  : Found | Word;

type Functions = 'abs' | 'sign' | 'floor' | 'ceil' | 'round' | 'sqrt' | 'min' | 'max' | 'hypot' | 'clamp';
/** Words that are no names. */
type Words = 'true' | 'false' | 'and' | 'or' | 'not';
type Numeric = '' | `${Digit}${string}` | `.${string}`;

/** Nothing to say of an expression whose names are known. */
type Expression<Text, All> = Text extends string
  ? string extends Text
    ? unknown
    : [Exclude<WordsOf<Text>, All | Numeric | Functions | Words>] extends [never]
      ? unknown
      : Fault<`there is no signal, derived signal or tag "${Exclude<
          WordsOf<Text>,
          All | Numeric | Functions | Words
        > &
          string}"`>
  : unknown;

/** The names that are known at a place, by the role of a text there. What is not among them is not looked up. */
type Known = { readonly [Role in keyof NamesByRole<unknown>]: unknown };
/** What each of them is called. */
interface Called {
  readonly sheet: 'sheet';
  readonly part: 'part of a sheet';
  readonly clip: 'clip';
  readonly shown: 'clip or flipbook';
  readonly cue: 'cue';
  readonly span: 'span';
  readonly instant: 'cue or instant';
  readonly signal: 'signal';
  readonly state: 'state';
  readonly ownState: 'state of this track or group';
  readonly stateAnywhere: 'state';
  readonly track: 'track';
}

/** The names that are known within a track or a group: of states only those of their own. */
type Within<N extends Known, Shape, Value> =
  Shape extends FieldsShape<unknown, unknown, 'track'>
    ? {
        readonly [Role in keyof N]: Role extends 'state'
          ? Enterable<Value>
          : Role extends 'ownState'
            ? Keys<Field<Value, 'states', object>>
            : N[Role];
      }
    : Shape extends FieldsShape<unknown, unknown, 'group'>
      ? {
          readonly [Role in keyof N]: Role extends 'ownState'
            ? Keys<Field<Value, 'states', object>>
            : N[Role];
        }
      : N;

/** The shapes among which there is a choice, in place of that choice. */
type Flat<Shape> = Shape extends AnyShape<readonly (infer Of)[]> ? Flat<Of> : Shape;
type RoleOf<Shape> = Shape extends TextShape<infer Role> ? Role : never;
type ItemOf<Shape> =
  Shape extends ListShape<infer Of>
    ? Of
    : Shape extends TupleShape<infer Of extends readonly unknown[]>
      ? Of[number]
      : never;
type KeyRoleOf<Shape> = Shape extends MapShape<unknown, infer Role> ? Role : never;
type FieldOf<Shape, Name> =
  Shape extends FieldsShape<infer Must, infer May>
    ? Name extends keyof Must
      ? Must[Name]
      : Name extends keyof May
        ? May[Name]
        : never
    : Shape extends MapShape<infer Of>
      ? Of
      : never;

type Primitive = string | number | boolean | null | undefined;

/** What a text with a role must be besides a text. */
type CheckText<Text, Role, N extends Known> = [Role] extends [never]
  ? unknown
  : Role extends 'expression'
    ? Expression<Text, N['expression']>
    : Role extends keyof Called & keyof N
      ? Name<Text, N[Role], Called[Role]>
      : unknown;

/**
 * What a value must be besides of its shape: every name in it is one that is there, and every field is known. It follows the shape, so that a
 * new field is checked by the role of its text.
 *
 * @typeParam Shape one shape, or several between which there is a choice
 */
type Check<Value, Shape, N extends Known> = Value extends string
  ? CheckText<Value, RoleOf<Shape>, N>
  : Value extends Primitive
    ? unknown
    : Value extends readonly unknown[]
      ? { readonly [I in keyof Value]: Check<Value[I], Flat<ItemOf<Shape>>, N> }
      : [Shape] extends [FieldsShape<unknown, unknown, 'worn'> & Typed<infer Worn>]
        ? Strict<Value, Worn>
        : CheckFields<Value, Shape, Within<N, Shape, Value>>;
type CheckFields<Value, Shape, N extends Known> = {
  readonly [F in keyof Value]: [FieldOf<Shape, F>] extends [never]
    ? Fault<`"${F & string}" is not known here`>
    : CheckKey<F, KeyRoleOf<Shape>, N> extends true
      ? Check<Value[F], Flat<FieldOf<Shape, F>>, N>
      : CheckKey<F, KeyRoleOf<Shape>, N>;
};
type CheckKey<Key, Role, N extends Known> = [Role] extends [never]
  ? true
  : Role extends keyof Called & keyof N
    ? Key extends N[Role]
      ? true
      : Fault<`there is no ${Called[Role]} "${Key & string}"`>
    : true;

type Lists<S> = Extract<S, readonly unknown[]>;
type Maps<S> = Exclude<S, Primitive | readonly unknown[]>;
type KeysIn<S> = S extends unknown ? keyof S : never;
type ValueIn<S, K> = S extends unknown ? (K extends keyof S ? S[K] : never) : never;

/** Nothing to say of fields that a type has; of any other that it is not known there. */
type Strict<T, S> = T extends Primitive
  ? unknown
  : T extends readonly unknown[]
    ? { readonly [I in keyof T]: Strict<T[I], Lists<S>[number]> }
    : {
        readonly [K in keyof T]: K extends KeysIn<Maps<S>>
          ? Strict<T[K], ValueIn<Maps<S>, K>>
          : Fault<`"${K & string}" is not known here`>;
      };

/**
 * Defines a character in TypeScript. The argument is the same plain data as a document, and is returned unchanged. The compiler
 * checks its names: a misspelt field, state, clip, cue, span, sheet or signal is an error at its place, also inside a
 * condition. Editors complete names. The compiled controller knows the names too: `performer.set('vx', 60)`.
 *
 * ```ts
 * const gull = defineController({ dotHop: 1, sheets: { ... }, clips: { ... }, states: { ... }, rest: 'sit' });
 * const performer = new Performer(compileController(gull));
 * ```
 */
export function defineController<
  const D extends ControllerDefinition,
  Sheet extends string,
  Part extends string,
  Clip extends string,
  Flipbook extends string,
  State extends string,
  Track extends string,
  TrackState extends string,
  Cue extends string,
  Span extends string,
>(
  definition: D &
    Check<D, typeof controllerShape, NamesByRole<D>> &
    EditorHints<Sheet, Part, Clip, Flipbook, State, Track, TrackState, Cue, Span> &
    StateNames<State, Track, TrackState>,
): D {
  return definition;
}
