import type { ClipDefinition } from '../clip/definition.js';
import type { FlipbookDefinition } from '../clip/rows.js';
import type { CompassDefinition, VectorDefinition } from '../compass/definition.js';
import type { SheetDefinition } from '../sheet/definition.js';
import type { DerivedDefinition, SignalDefinition } from '../signal/definition.js';
import type { PaletteDefinition, WardrobeDefinition } from './wardrobe-definition.js';

/** A named instant of a state's clip. */
export type AtDefinition =
  /** `now`, `end`, or the name of a cue. */
  | string
  /** The instant a span begins. */
  | { start: string }
  /** The instant a span ends, before the next frame begins. */
  | { end: string }
  /** Phases of a pass, each from 0 to under 1. */
  | { phases: readonly number[] };

/** An explicit way from one state to another. */
export interface HopDefinition {
  to: string;
  /** The condition. Default: always. */
  if?: string | undefined;
  /** A span: the condition counts only within it, and is remembered until `at`. Default: the condition counts at `at`. */
  during?: string | undefined;
  /** The instant at which the hop is taken. Default: `now`. */
  at?: AtDefinition | undefined;
}

/** Lets other states follow although this one has not ended. */
export interface YieldDefinition {
  /** The states that may follow. Default: all. */
  to?: readonly string[] | undefined;
  /** The span in which they may. Default: always. */
  during?: string | undefined;
  /** A condition that must be true. Default: none. */
  if?: string | undefined;
}

/** What a switch keeps of the place in the clip: nothing; the phase, from 0 to 1; or the frame, from its beginning. */
export type CarryRule = 'none' | 'phase' | 'frame';

/** What a new press does to an act that is already playing. */
export type AgainRule = 'ignore' | 'restart' | 'queue';

/** How fast a state's time runs: a number or an expression, from -64 to 64 (1 as drawn, below 0 backwards); or `travel`, so that the feet do not slide. */
export type RateDefinition =
  | string
  | number
  | {
      /** An expression for the body's speed in pixels a second. One pass of the clip then covers its `stride`. */
      travel: string;
      /** Bounds of the rate. Default 0 and 64. */
      least?: number | undefined;
      most?: number | undefined;
    };

/** Several flipbooks of one state, picked by a number. */
export interface GaitsDefinition {
  /** The number that picks, such as `speed`. */
  by: string;
  /** The clips or flipbooks, from the slowest to the fastest. */
  shows: readonly string[];
  /** The number above which each of them begins, in rising order. Leave out the first flipbook: it shows below all of them. */
  above: readonly number[];
  /** How far the number must fall below that to pick the one before. Default 0. */
  margin?: number | undefined;
}

/** Several flipbooks: each time its state is entered, one is picked. Or several names: each time a cue is told, one is picked. */
export interface VarietyDefinition {
  /** The clips or flipbooks, or the names. */
  any: readonly string[];
  /** `turn`: one after the other. `chance`: by chance, and the same for the same seed. Default `turn`. */
  pick?: 'turn' | 'chance' | undefined;
  /** With `chance`: how often each is picked, in proportion to the others. Default: all equally often. */
  weights?: readonly number[] | undefined;
  /** Whether chance may pick the same twice in a row. Default false. */
  repeats?: boolean | undefined;
}

/** Lets the frame follow a number instead of time. */
export interface ScrubDefinition {
  /** The number, such as `vy`. */
  by: string;
  /** The value at which the clip is at its beginning; `to` is the one at its end. */
  from: number;
  to: number;
}

/** Lets a state face by a vector of its own. */
export interface FacingDefinition {
  by: VectorDefinition;
  /** Below this length of the vector it keeps its direction. Default: that of the compass. */
  deadZone?: number | undefined;
}

/** A clip that a state shows first when the character turns. */
export interface TurnsDefinition {
  /** The clip or flipbook, in the new direction; played once. */
  shows: string;
  /** The smallest turn that shows it, in degrees. Default 90. */
  least?: number | undefined;
}

/** A state as a document has it. */
export interface StateDefinition {
  /** The clip or flipbook it shows, or several of which one is picked. With `gaits` it is left out, and with `inStep` it may be. */
  shows?: string | VarietyDefinition | undefined;
  gaits?: GaitsDefinition | undefined;
  /** Higher ranks win. Default 0. */
  priority?: number | undefined;
  /** Makes it a posture: it shows as long as this is true. */
  while?: string | undefined;
  /** Makes it an act: it starts when this becomes true and plays to its end. */
  when?: string | undefined;
  /** The state that follows an act's end. */
  then?: string | undefined;
  hops?: readonly HopDefinition[] | undefined;
  yields?: readonly YieldDefinition[] | undefined;
  /** What a switch into this state keeps of the place in the clip: always the same, or by the state that is left. Default `none`. */
  carry?: CarryRule | Readonly<Record<string, CarryRule>> | undefined;
  /** How fast its time runs. Default 1. */
  rate?: RateDefinition | undefined;
  scrub?: ScrubDefinition | undefined;
  /**
   * Clips or flipbooks that show first when this state is entered, by the state that is left. If that one has gaits, also by the gait it
   * showed.
   */
  bridges?: Readonly<Record<string, string | Readonly<Record<string, string>>>> | undefined;
  /** Where this state is left after its `while` has turned false. Default: at once. */
  leaves?: AtDefinition | undefined;
  /** For so many milliseconds only a higher rank or a hop ends it. An expression is read when the state is entered. Default 0. */
  atLeast?: number | string | undefined;
  /**
   * Makes an act or a bare state end after so many milliseconds, whatever its clip. An expression is read when the state is entered. Default:
   * it ends with its clip.
   */
  lasts?: number | string | undefined;
  /** Stretches the clip so that one pass takes as long as the state `lasts`. Default false. */
  fit?: boolean | undefined;
  /** What a new press does while this act plays. Default `ignore`. */
  again?: AgainRule | undefined;
  /** Names that conditions can test: true while a state with this tag shows. */
  tags?: readonly string[] | undefined;
  /** `held` keeps the direction in which the state was entered. `by` names another vector. Default: it turns with the compass. */
  facing?: 'held' | FacingDefinition | undefined;
  /** A clip that shows first when the character turns while this state shows. */
  turns?: TurnsDefinition | undefined;
  /** No rank cuts it off. Default false. */
  final?: boolean | undefined;
  /**
   * For a posture or a bare state: the track that it is in step with. It has no time of its own. It shows the same frame of `shows`, or its
   * part of that track's drawing if there is no `shows`.
   */
  inStep?: string | undefined;
  /** Other tracks that show this state while it shows: always, or while a condition is true. Its rank counts among their states. */
  takes?: readonly string[] | Readonly<Record<string, string>> | undefined;
}

/** States that share a condition and rank together: those in water, on a ladder, in the air. */
export interface GroupDefinition {
  /** Its states show only while this is true. */
  while: string;
  /** The rank of the whole group among the states and groups beside it. The ranks of its states count only within the group. Default 0. */
  priority?: number | undefined;
  /** The state that shows while the group's `while` is true and none of its other states wants in. */
  rest: string;
  states: Readonly<Record<string, StateDefinition>>;
  /** Groups within it. Their states need both conditions. */
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** Tags of all its states, in addition to their own. */
  tags?: readonly string[] | undefined;
  /** The default for its states. */
  carry?: CarryRule | Readonly<Record<string, CarryRule>> | undefined;
  facing?: 'held' | FacingDefinition | undefined;
}

/** A set of states that runs beside those of the document, on the same signals, with ranks of its own. */
export interface TrackDefinition {
  /** The parts of the sheets that this track draws. Default: none; the track is there for its cues and tags. */
  draws?: readonly string[] | undefined;
  states: Readonly<Record<string, StateDefinition>>;
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** The state that shows when no other of this track wants in. Default: the first. */
  rest?: string | undefined;
}

/**
 * Flipbooks or clips that show in place of others. By the options of a choice: `{ weapon: { pole: { walk: walk-pole } } }`. While a flag is on:
 * `{ tired: { walk: plod } }`.
 */
export type VariantsDefinition = Readonly<
  Record<string, Readonly<Record<string, string | Readonly<Record<string, string>>>>>
>;

/** A finding of a check that a document accepts. */
export interface AcceptDefinition {
  /** The code of the finding. */
  finding: string;
  /** The path at which it is accepted, or the beginning of one, such as `states.rise`. Default: everywhere. */
  at?: string | undefined;
  /** The reason. It is for the next reader of the document. */
  because: string;
}

/** One character: what a document says, as plain data. */
export interface ControllerDefinition {
  /** The address of the JSON Schema, for editors; not read. */
  $schema?: string | undefined;
  dotHop: 1;
  name?: string | undefined;
  sheets: Readonly<Record<string, SheetDefinition>>;
  clips: Readonly<Record<string, ClipDefinition>>;
  /** A clip for each direction, by name. */
  flipbooks?: Readonly<Record<string, FlipbookDefinition>> | undefined;
  compass?: CompassDefinition | undefined;
  signals?: Readonly<Record<string, SignalDefinition>> | undefined;
  derived?: Readonly<Record<string, DerivedDefinition>> | undefined;
  /** Default: one for each clip, so that clips can be looked at. The first is the rest. */
  states?: Readonly<Record<string, StateDefinition>> | undefined;
  /** Groups of further states. */
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** The state that shows when no other wants in. Default: the first. */
  rest?: string | undefined;
  /** Cues with several names, by the name on the frame. Each time one of them is told: two footsteps, three cries. */
  cues?: Readonly<Record<string, VarietyDefinition>> | undefined;
  /** Flipbooks that show in place of others, by a choice or a flag. */
  variants?: VariantsDefinition | undefined;
  /** Further sets of states that run beside `states`, which are the track `body`: arms that act while the legs run. */
  tracks?: Readonly<Record<string, TrackDefinition>> | undefined;
  /** Colours that can be replaced, by name. */
  palettes?: Readonly<Record<string, PaletteDefinition>> | undefined;
  /** The clothes that it can wear. */
  wardrobe?: WardrobeDefinition | undefined;
  /** Findings of the check that you accept, each with its reason. */
  accept?: readonly AcceptDefinition[] | undefined;
}
