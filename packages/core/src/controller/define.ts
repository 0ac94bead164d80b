import type { ControllerDefinition } from './definition.js';
import type { Field, GroupedStates, GroupsIn } from './names.js';
import type { EditorHints, StateNames } from './editor-hints.js';

declare const fault: unique symbol;
/** What is wrong with a name, as the compiler tells it. No value is of this type. */
interface Fault<Text extends string> {
  readonly [fault]: Text;
}

/** Nothing to say of a name that is known; else that it is not, with those that are: editors complete from them. */
type Known<Name, All, What extends string> = [Name] extends [All]
  ? unknown
  : Name extends string
    ? Fault<`there is no ${What} "${Name}"`> | All
    : unknown;

type KnownList<List, All, What extends string> = { readonly [I in keyof List]: Known<List[I], All, What> };

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

type Keys<T> = keyof T & string;
type SignalNames<S> = {
  [Name in Keys<S>]: S[Name] extends { vector: unknown } ? Name | `${Name}.x` | `${Name}.y` : Name;
}[Keys<S>];
/** What choices are compared with. */
type OptionsOf<S> = {
  [Name in keyof S]: S[Name] extends { readonly choice: readonly (infer Option)[] } ? Option & string : never;
}[keyof S];
type TagsOf<States> = {
  [S in keyof States]: States[S] extends { readonly tags: readonly (infer Tag)[] } ? Tag : never;
}[keyof States];
type MarksOf<Clips, What extends 'cues' | 'spans'> = {
  [C in keyof Clips]: Clips[C] extends Readonly<Record<What, infer Marks>> ? Keys<Marks> : never;
}[keyof Clips];
/** The clips that `rows` write out have the directions in their names. */
type RowsOf<Clips> = {
  [C in Keys<Clips>]: Clips[C] extends { readonly rows: unknown } ? `${C}-${string}` : never;
}[Keys<Clips>];

type TracksIn<D> = Field<D, 'tracks', object>;
/** The states of the document itself, as those of the track `body`, and those of the others. */
type StatesByTrack<D> = {
  readonly [T in 'body' | Keys<TracksIn<D>>]: T extends keyof TracksIn<D>
    ? StatesOf<TracksIn<D>[T]>
    : StatesOf<D>;
};
/** The states of a definition or of a track with those in its groups; and the groups themselves, which are led into by their names too. */
type StatesOf<D> = Field<D, 'states', object> & GroupedStates<D>;
type Enterable<D> = Keys<StatesOf<D>> | Keys<GroupsIn<D>>;
type GroupsByTrack<D> = {
  readonly [T in 'body' | Keys<TracksIn<D>>]: T extends keyof TracksIn<D>
    ? GroupsIn<TracksIn<D>[T]>
    : GroupsIn<D>;
};
type OfEach<ByTrack, What extends 'states' | 'tags'> = {
  [T in keyof ByTrack]: What extends 'tags' ? TagsOf<ByTrack[T]> : Keys<ByTrack[T]>;
}[keyof ByTrack];
type PartsOf<Sheets> = { [S in keyof Sheets]: Keys<Field<Sheets[S], 'parts', object>> }[keyof Sheets];

/** Every name of a definition by what it names. */
interface All<D> {
  readonly sheets: Keys<Field<D, 'sheets', object>>;
  readonly clips: Keys<Field<D, 'clips', object>> | RowsOf<Field<D, 'clips', object>>;
  readonly shown:
    Keys<Field<D, 'clips', object>> | RowsOf<Field<D, 'clips', object>> | Keys<Field<D, 'flipbooks', object>>;
  readonly states: Enterable<D>;
  readonly read:
    | SignalNames<Field<D, 'signals', object>>
    | OptionsOf<Field<D, 'signals', object>>
    | (Keys<TracksIn<D>> extends never ? never : OfEach<StatesByTrack<D>, 'states'>)
    | Keys<Field<D, 'derived', object>>
    | OfEach<StatesByTrack<D>, 'tags'>
    | OfEach<GroupsByTrack<D>, 'tags'>
    | Keys<StatesByTrack<D>>
    | `${Keys<StatesByTrack<D>>}.${OfEach<StatesByTrack<D>, 'states'> | OfEach<GroupsByTrack<D>, 'states'>}`;
  readonly tracks: Keys<StatesByTrack<D>>;
  readonly parts: PartsOf<Field<D, 'sheets', object>>;
  readonly cues: MarksOf<Field<D, 'clips', object>, 'cues'>;
  readonly spans: MarksOf<Field<D, 'clips', object>, 'spans'>;
}
interface Everything {
  readonly sheets: unknown;
  readonly clips: unknown;
  readonly shown: unknown;
  readonly states: unknown;
  readonly read: unknown;
  readonly tracks: unknown;
  readonly parts: unknown;
  readonly cues: unknown;
  readonly spans: unknown;
}
/** The names that states of a track can name: of states only those of their own. */
type Within<N extends Everything, Track> = {
  readonly [What in keyof N]: What extends 'states' ? Enterable<Track> : N[What];
};

type AtCheck<At, N extends Everything> = At extends string
  ? Known<At, 'now' | 'end' | N['cues'], 'cue or instant'>
  : {
      readonly [F in keyof At]: F extends 'start' | 'end' ? Known<At[F], N['spans'], 'span'> : unknown;
    };

type HopCheck<Hop, N extends Everything> = {
  readonly [F in keyof Hop]: F extends 'to'
    ? Known<Hop[F], N['states'], 'state'>
    : F extends 'if'
      ? Expression<Hop[F], N['read']>
      : F extends 'during'
        ? Known<Hop[F], N['spans'], 'span'>
        : F extends 'at'
          ? AtCheck<Hop[F], N>
          : unknown;
};
type HopsCheck<Hops, N extends Everything> = { readonly [I in keyof Hops]: HopCheck<Hops[I], N> };

type YieldCheck<Yield, N extends Everything> = {
  readonly [F in keyof Yield]: F extends 'to'
    ? KnownList<Yield[F], N['states'], 'state'>
    : F extends 'if'
      ? Expression<Yield[F], N['read']>
      : F extends 'during'
        ? Known<Yield[F], N['spans'], 'span'>
        : unknown;
};
type YieldsCheck<Yields, N extends Everything> = { readonly [I in keyof Yields]: YieldCheck<Yields[I], N> };

type GaitsCheck<Gaits, N extends Everything> = {
  readonly [F in keyof Gaits]: F extends 'by'
    ? Expression<Gaits[F], N['read']>
    : F extends 'shows'
      ? KnownList<Gaits[F], N['shown'], 'clip or flipbook'>
      : unknown;
};

/** Of `{ by }`, `{ travel }` and the like: the expression in it. */
type PartCheck<Part, Name extends string, N extends Everything> = Part extends string
  ? Expression<Part, N['read']>
  : { readonly [F in keyof Part]: F extends Name ? VectorCheck<Part[F], N> : unknown };
type VectorCheck<Vector, N extends Everything> = Vector extends string
  ? Expression<Vector, N['read']>
  : { readonly [I in keyof Vector]: Expression<Vector[I], N['read']> };

type BridgesCheck<Bridges, N extends Everything> = {
  readonly [From in keyof Bridges]: From extends N['states']
    ? Bridges[From] extends string
      ? Known<Bridges[From], N['shown'], 'clip or flipbook'>
      : {
          readonly [G in keyof Bridges[From]]: Known<Bridges[From][G], N['shown'], 'clip or flipbook'>;
        }
    : Fault<`there is no state "${From & string}"`>;
};

type StateCheck<S, N extends Everything> = {
  readonly [F in keyof S]: F extends 'shows'
    ? S[F] extends { readonly any: readonly unknown[] }
      ? { readonly any: KnownList<S[F]['any'], N['shown'], 'clip or flipbook'> }
      : Known<S[F], N['shown'], 'clip or flipbook'>
    : F extends 'while' | 'when'
      ? Expression<S[F], N['read']>
      : F extends 'then'
        ? Known<S[F], N['states'], 'state'>
        : F extends 'hops'
          ? HopsCheck<S[F], N>
          : F extends 'yields'
            ? YieldsCheck<S[F], N>
            : F extends 'gaits'
              ? GaitsCheck<S[F], N>
              : F extends 'lasts' | 'atLeast'
                ? PartCheck<S[F], never, N>
                : F extends 'rate'
                  ? PartCheck<S[F], 'travel', N>
                  : F extends 'scrub'
                    ? PartCheck<S[F], 'by', N>
                    : F extends 'bridges'
                      ? BridgesCheck<S[F], N>
                      : F extends 'leaves'
                        ? AtCheck<S[F], N>
                        : F extends 'turns'
                          ? {
                              readonly [T in keyof S[F]]: T extends 'shows'
                                ? Known<S[F][T], N['shown'], 'clip or flipbook'>
                                : unknown;
                            }
                          : F extends 'inStep'
                            ? Known<S[F], N['tracks'], 'track'>
                            : F extends 'takes'
                              ? TakesCheck<S[F], N>
                              : unknown;
};
type TakesCheck<Takes, N extends Everything> = Takes extends readonly unknown[]
  ? KnownList<Takes, N['tracks'], 'track'>
  : {
      readonly [T in keyof Takes]: T extends N['tracks']
        ? Expression<Takes[T], N['read']>
        : Fault<`there is no track "${T & string}"`>;
    };
type StatesCheck<States, N extends Everything> = { readonly [S in keyof States]: StateCheck<States[S], N> };

type GroupsCheck<Groups, N extends Everything> = {
  readonly [G in keyof Groups]: {
    readonly [F in keyof Groups[G]]: F extends 'states'
      ? StatesCheck<Groups[G][F], N>
      : F extends 'groups'
        ? GroupsCheck<Groups[G][F], N>
        : F extends 'while'
          ? Expression<Groups[G][F], N['read']>
          : F extends 'rest'
            ? Known<Groups[G][F], Keys<Field<Groups[G], 'states', object>>, 'state of this group'>
            : unknown;
  };
};

type TracksCheck<Tracks, N extends Everything> = {
  readonly [T in keyof Tracks]: {
    readonly [F in keyof Tracks[T]]: F extends 'states'
      ? StatesCheck<Tracks[T][F], Within<N, Tracks[T]>>
      : F extends 'groups'
        ? GroupsCheck<Tracks[T][F], Within<N, Tracks[T]>>
        : F extends 'draws'
          ? KnownList<Tracks[T][F], N['parts'], 'part of a sheet'>
          : F extends 'rest'
            ? Known<Tracks[T][F], Keys<Field<Tracks[T], 'states', object>>, 'state of this track'>
            : unknown;
  };
};

type ClipsCheck<Clips, N extends Everything> = {
  readonly [C in keyof Clips]: {
    readonly [F in keyof Clips[C]]: F extends 'sheet' ? Known<Clips[C][F], N['sheets'], 'sheet'> : unknown;
  };
};
type FlipbooksCheck<Flipbooks, N extends Everything> = {
  readonly [B in keyof Flipbooks]: {
    readonly [Direction in keyof Flipbooks[B]]: Known<Flipbooks[B][Direction], N['clips'], 'clip'>;
  };
};
type DerivedCheck<Derived, N extends Everything> = {
  readonly [D in keyof Derived]: PartCheck<Derived[D], 'of' | 'linger' | 'settle', N>;
};

type VariantsCheck<Variants, N extends Everything> = {
  readonly [S in keyof Variants]: S extends N['read']
    ? {
        readonly [K in keyof Variants[S]]: Variants[S][K] extends string
          ? Known<Variants[S][K], N['shown'], 'clip or flipbook'>
          : {
              readonly [F in keyof Variants[S][K]]: Known<Variants[S][K][F], N['shown'], 'clip or flipbook'>;
            };
      }
    : Fault<`there is no signal "${S & string}"`>;
};

type Primitive = string | number | boolean | null | undefined;
type Lists<S> = Extract<S, readonly unknown[]>;
type Maps<S> = Exclude<S, Primitive | readonly unknown[]>;
type KeysIn<S> = S extends unknown ? keyof S : never;
type ValueIn<S, K> = S extends unknown ? (K extends keyof S ? S[K] : never) : never;

/** Nothing to say of fields that the shape has; of any other that it is not known there. */
type Strict<T, S> = T extends Primitive
  ? unknown
  : T extends readonly unknown[]
    ? { readonly [I in keyof T]: Strict<T[I], Lists<S>[number]> }
    : {
        readonly [K in keyof T]: K extends KeysIn<Maps<S>>
          ? Strict<T[K], ValueIn<Maps<S>, K>>
          : Fault<`"${K & string}" is not known here`>;
      };

/** What a definition must be besides of its shape: every name in it is one that it has. */
type Check<D, N extends Everything> = {
  readonly [F in keyof D]: F extends 'states'
    ? StatesCheck<D[F], N>
    : F extends 'clips'
      ? ClipsCheck<D[F], N>
      : F extends 'flipbooks'
        ? FlipbooksCheck<D[F], N>
        : F extends 'derived'
          ? DerivedCheck<D[F], N>
          : F extends 'compass'
            ? PartCheck<D[F], 'by', N>
            : F extends 'rest'
              ? Known<D[F], N['states'], 'state'>
              : F extends 'tracks'
                ? TracksCheck<D[F], N>
                : F extends 'variants'
                  ? VariantsCheck<D[F], N>
                  : F extends 'groups'
                    ? GroupsCheck<D[F], N>
                    : unknown;
};

/**
 * A character written in TypeScript. It is the same plain data as a document, and is given back as it is; the compiler
 * looks its names up: a field, state, clip, cue, span, sheet or signal that is misspelt, also inside a condition, is an error
 * at its place that says so, and editors complete them. What it compiles to knows its names too: `performer.set('vx', 60)`.
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
    Strict<D, ControllerDefinition> &
    Check<D, All<D>> &
    EditorHints<Sheet, Part, Clip, Flipbook, State, Track, TrackState, Cue, Span> &
    StateNames<State, Track, TrackState>,
): D {
  return definition;
}
