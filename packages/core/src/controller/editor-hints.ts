import type { ClipDefinition } from '../clip/definition.js';
import type { SheetDefinition } from '../sheet/definition.js';
import type { AnyShape, FieldsShape, ListShape, MapShape, TextShape } from '../shape/shape.js';
import type { TypeOf } from '../shape/type-of.js';
import type { GroupDefinition } from './definition.js';
import type { stateShape } from './state-shape.js';

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
/** The fields of a shape, of which some are told more exactly. */
type Over<Shape, Told> = Omit<Shape, keyof Told> & Told;

/** What an editor proposes by a shape: for a text with a role the names that are there, and for keys that refer to something. */
type Hint<Shape, Names> =
  Shape extends TextShape<infer Role>
    ? Role extends keyof Names
      ? Proposed<Names[Role] & string>
      : string
    : Shape extends AnyShape<readonly (infer Of)[]>
      ? Hint<Of, Names>
      : Shape extends ListShape<infer Of>
        ? readonly Hint<Of, Names>[]
        : Shape extends MapShape<infer Of, infer Role>
          ? Role extends keyof Names
            ? Keyed<NoInfer<Names[Role] & string>, Hint<Of, Names>>
            : object
          : Shape extends FieldsShape<infer Must, infer May>
            ? { readonly [F in keyof Must]?: Hint<Must[F], Names> } & {
                readonly [F in keyof May]?: Hint<May[F], Names>;
              }
            : TypeOf<Shape>;

/** What an editor proposes within a state. */
type StateHints<
  Shown extends string,
  State extends string,
  Track extends string,
  Cue extends string,
  Span extends string,
> = Hint<
  typeof stateShape,
  {
    readonly shown: Shown;
    readonly state: State;
    readonly stateAnywhere: State;
    readonly track: Track;
    readonly instant: 'now' | 'end' | Cue;
    readonly span: Span;
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
