import type { Signal, SignalDefinition, SignalValue } from '../signal/definition.js';
import type { DirectionsDefinition } from '../compass/definition.js';

/** What a controller's names are, as far as the compiler knows them. Types only: nothing of it exists at run time. */
export interface Names {
  /** The signals that are set, with what each is set to. */
  readonly values: Readonly<Record<string, SignalValue>>;
  readonly pulses: string;
  readonly states: string;
  readonly tracks: string;
  readonly directions: string;
  /** What reports can name: cues, states, directions, and the flipbooks of gaits. */
  readonly reports: string;
  readonly clips: string;
  /** What `value` can be asked for: signals, parts of vectors, derived signals, tags, tracks and their states. */
  readonly read: string;
}

/** What a signal is set to, by its name or its handle. */
export type Settable<S, V> = S extends keyof V ? V[S] : S extends Signal<infer Value> ? Value : never;

/** The names of vectors among signals. */
export type VectorNames<V> = {
  [S in keyof V & string]: V[S] extends readonly [number, number] ? S : string extends keyof V ? S : never;
}[keyof V & string];

type ValueOf<S> =
  | (S extends { number: unknown } ? number : never)
  | (S extends { flag: unknown } ? boolean : never)
  | (S extends { choice: readonly (infer Option)[] } ? Option & string : never)
  | (S extends { vector: unknown } ? readonly [number, number] : never);

type Values<S> = {
  readonly [Name in keyof S as [ValueOf<S[Name]>] extends [never] ? never : Name]: ValueOf<S[Name]>;
};

type PulsesOf<S> = {
  [Name in keyof S]: [Extract<S[Name], { pulse: unknown }>] extends [never] ? never : Name;
}[keyof S] &
  string;

type DirectionsOf<C> = C extends { directions: infer D }
  ? D extends 'sides'
    ? 'east' | 'west'
    : D extends 'four'
      ? 'east' | 'south' | 'west' | 'north'
      : D extends string
        ? string
        : keyof D & string
  : string;

/** A field of a definition, or what stands for it where it is left out. */
export type Field<D, Name extends string, Otherwise> =
  D extends Readonly<Record<Name, infer Value>> ? NonNullable<Value> : Otherwise;

/** Several types, joined to one that has the fields of all. */
type Joined<U> = (U extends unknown ? (one: U) => void : never) extends (one: infer All) => void
  ? All
  : never;

/** The groups of a definition, of a track or of a group, those in groups too, by name. */
export type GroupsIn<D> = D extends { readonly groups: infer G }
  ? G & Joined<{ [K in keyof G]: GroupsIn<G[K]> }[keyof G]>
  : unknown;

/** The states in groups, by name. */
export type GroupedStates<D> = D extends { readonly groups: infer G }
  ? Joined<{ [K in keyof G]: Field<G[K], 'states', unknown> & GroupedStates<G[K]> }[keyof G]>
  : unknown;

type SignalsIn<D> = D extends { readonly signals?: infer S }
  ? NonNullable<S>
  : Record<string, SignalDefinition>;
type TracksIn<D> = Field<D, 'tracks', never>;
type StatesOutside<D> = D extends { readonly states?: infer S } ? keyof NonNullable<S> & string : string;
type OwnStates<D> = D extends { readonly groups: unknown }
  ? StatesOutside<D> | (keyof GroupedStates<D> & string)
  : StatesOutside<D>;
type FurtherStates<D> = TracksIn<D> extends infer T ? { [K in keyof T]: OwnStates<T[K]> }[keyof T] : never;
/** Asked for by a condition, so that the compiler tells the names and not what they are put together from. */
type StatesIn<D> = [FurtherStates<D>] extends [never] ? OwnStates<D> : OwnStates<D> | FurtherStates<D>;
type CompassIn<D> = D extends { readonly compass?: infer C }
  ? DirectionsOf<NonNullable<C>>
  : keyof Extract<DirectionsDefinition, object>;

type ClipsOf<D> = Field<D, 'clips', Record<string, never>>;
type CuesIn<D> =
  ClipsOf<D> extends infer C
    ? { [K in keyof C]: C[K] extends { readonly cues: infer Cues } ? keyof Cues & string : never }[keyof C]
    : never;
type ToldIn<D> = D extends { readonly cues: infer C }
  ? C[keyof C] extends { readonly any: readonly (infer Told)[] }
    ? Told & string
    : never
  : never;
/** Clips that `rows` write out have the directions in their names. */
type ClipsIn<D> =
  ClipsOf<D> extends infer C
    ? { [K in keyof C & string]: C[K] extends { readonly rows: unknown } ? `${K}-${string}` : K }[keyof C &
        string]
    : never;
type TagsIn<D> = Field<D, 'states', unknown> & GroupedStates<D> & GroupsIn<D> extends infer S
  ? {
      [K in keyof S]: S[K] extends { readonly tags: readonly (infer Tag)[] } ? Tag & string : never;
    }[keyof S]
  : never;
type Parts<S> = {
  [K in keyof S & string]: S[K] extends { vector: unknown } ? K | `${K}.x` | `${K}.y` : K;
}[keyof S & string];
type ReadIn<D> =
  | Parts<SignalsIn<D>>
  | (keyof Field<D, 'derived', object> & string)
  | TagsIn<D>
  | 'body'
  | `${string}.${StatesIn<D> | (keyof GroupsIn<D> & string)}`
  | (TracksIn<D> extends infer T ? (keyof T & string) | { [K in keyof T]: TagsIn<T[K]> }[keyof T] : never);
type ShownIn<D> = (keyof ClipsOf<D> & string) | (keyof Field<D, 'flipbooks', object> & string);

/** The names that a definition has. Of one that was read from a file, any. */
export interface NamesOf<D> extends Names {
  readonly values: Values<SignalsIn<D>>;
  readonly pulses: PulsesOf<SignalsIn<D>>;
  readonly states: StatesIn<D>;
  readonly tracks: 'body' | (TracksIn<D> extends infer T ? keyof T & string : never);
  readonly directions: CompassIn<D>;
  readonly reports: StatesIn<D> | CompassIn<D> | CuesIn<D> | ToldIn<D> | ShownIn<D>;
  readonly clips: ClipsIn<D>;
  readonly read: ReadIn<D>;
}
