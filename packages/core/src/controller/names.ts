import type { SignalDefinition, SignalValue } from '../signal/definition.js';
import type { DirectionsDefinition } from '../compass/definition.js';

/** What a controller's names are, as far as the compiler knows them. Types only: nothing of it exists at run time. */
export interface Names {
  /** The signals that are set, with what each is set to. */
  readonly values: Readonly<Record<string, SignalValue>>;
  readonly pulses: string;
  readonly states: string;
  readonly tracks: string;
  readonly directions: string;
}

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

type SignalsIn<D> = D extends { readonly signals?: infer S }
  ? NonNullable<S>
  : Record<string, SignalDefinition>;
type TracksIn<D> = Field<D, 'tracks', never>;
type OwnStates<D> = D extends { readonly states?: infer S } ? keyof NonNullable<S> & string : string;
type FurtherStates<D> = TracksIn<D> extends infer T ? { [K in keyof T]: OwnStates<T[K]> }[keyof T] : never;
/** Asked for by a condition, so that the compiler tells the names and not what they are put together from. */
type StatesIn<D> = [FurtherStates<D>] extends [never] ? OwnStates<D> : OwnStates<D> | FurtherStates<D>;
type CompassIn<D> = D extends { readonly compass?: infer C }
  ? DirectionsOf<NonNullable<C>>
  : keyof Extract<DirectionsDefinition, object>;

/** The names that a definition has. Of one that was read from a file, any. */
export interface NamesOf<D> extends Names {
  readonly values: Values<SignalsIn<D>>;
  readonly pulses: PulsesOf<SignalsIn<D>>;
  readonly states: StatesIn<D>;
  readonly tracks: 'body' | (TracksIn<D> extends infer T ? keyof T & string : never);
  readonly directions: CompassIn<D>;
}
