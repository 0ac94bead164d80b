import type { ClipDefinition } from '../clip/definition.js';
import type { SheetDefinition } from '../sheet/definition.js';
import type {
  GaitsDefinition,
  GroupDefinition,
  HopDefinition,
  StateDefinition,
  TurnsDefinition,
  VarietyDefinition,
  YieldDefinition,
} from './definition.js';

/* eslint-disable @typescript-eslint/no-generated-empty-object-type, @typescript-eslint/consistent-indexed-object-style --
   a name is inferred from the keys of a mapped type, which is empty until it is, and not from those of a record */

/** Any text: beside the names that are there, so that what an editor proposes refuses nothing. */
type Other = string & Record<never, never>;
type Proposed<Name extends string> = NoInfer<Name> | Other;
type Keyed<Name extends string, Value> = { readonly [N in Name]?: Value };

interface MarkHints<Cue extends string, Span extends string> {
  readonly cues?: Keyed<Cue, unknown>;
  readonly spans?: Keyed<Span, unknown>;
}
type AtHint<Cue extends string, Span extends string> =
  | Proposed<'now' | 'end' | Cue>
  | { readonly start: Proposed<Span> }
  | { readonly end: Proposed<Span> }
  | object;

/** The fields of a shape, of which some are told more exactly. */
type Over<Shape, Told> = Omit<Shape, keyof Told> & Told;

/** What an editor proposes within a state. */
type StateHints<
  Shown extends string,
  State extends string,
  Track extends string,
  Cue extends string,
  Span extends string,
> = Over<
  StateDefinition,
  {
    readonly shows?: Proposed<Shown> | Over<VarietyDefinition, { readonly any: readonly Proposed<Shown>[] }>;
    readonly then?: Proposed<State>;
    readonly hops?: readonly Over<
      HopDefinition,
      { readonly to?: Proposed<State>; readonly during?: Proposed<Span>; readonly at?: AtHint<Cue, Span> }
    >[];
    readonly yields?: readonly Over<
      YieldDefinition,
      { readonly to?: readonly Proposed<State>[]; readonly during?: Proposed<Span> }
    >[];
    readonly bridges?: Keyed<NoInfer<State>, Proposed<Shown> | object>;
    readonly leaves?: AtHint<Cue, Span>;
    readonly gaits?: Over<GaitsDefinition, { readonly shows?: readonly Proposed<Shown>[] }>;
    readonly turns?: Over<TurnsDefinition, { readonly shows?: Proposed<Shown> }>;
    readonly inStep?: Proposed<Track>;
    readonly takes?: readonly Proposed<Track>[] | Keyed<NoInfer<Track>, string>;
  }
>;

/**
 * What an editor proposes while one writes a definition: of each kind of name those that are there. It refuses nothing. Each kind is
 * a parameter of its own, so that it can be inferred from the fields that are not being written.
 */
export interface EditorHints<
  Sheet extends string,
  Part extends string,
  Clip extends string,
  Flipbook extends string,
  State extends string,
  Track extends string,
  TrackState extends string,
  Cue extends string,
  Span extends string,
> {
  readonly sheets?: Keyed<Sheet, Over<SheetDefinition, { readonly parts?: Keyed<Part, unknown> }>>;
  readonly clips?: Keyed<
    Clip,
    Over<ClipDefinition, MarkHints<Cue, Span> & { readonly sheet?: Proposed<Sheet> }>
  >;
  readonly flipbooks?: Keyed<Flipbook, object>;
  readonly states?: Keyed<State, StateHints<Clip | Flipbook, State, Track | 'body', Cue, Span>>;
  readonly rest?: Proposed<State>;
  readonly groups?: Keyed<
    string,
    Over<
      GroupDefinition,
      { readonly states?: Keyed<string, StateHints<Clip | Flipbook, State, Track | 'body', Cue, Span>> }
    >
  >;
  readonly tracks?: Keyed<
    Track,
    {
      readonly draws?: readonly Proposed<Part>[];
      readonly states?: Keyed<TrackState, StateHints<Clip | Flipbook, TrackState, Track | 'body', Cue, Span>>;
      readonly rest?: Proposed<TrackState>;
    }
  >;
}

/**
 * Where the names of states come from. While an editor looks for proposals, the compiler infers nothing from the fields around the
 * place; for `then` these are the very `states`. From what an index signature holds it infers all the same, and only `states`
 * (or `tracks`) fits this one.
 */
export interface StateNames<State extends string, Track extends string, TrackState extends string> {
  readonly [states: `states${string}`]: Keyed<State, unknown>;
  readonly [tracks: `tracks${string}`]: Keyed<
    Track,
    {
      readonly [states: `states${string}`]: Keyed<TrackState, unknown>;
      readonly draws?: unknown;
      readonly rest?: unknown;
    }
  >;
}
