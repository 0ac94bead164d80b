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
  /** Default: always. */
  if?: string | undefined;
  /** A span within which the condition counts, remembered until `at`. */
  during?: string | undefined;
  /** Default: `now`. */
  at?: AtDefinition | undefined;
}

/** When and to which states a state gives way although it has not ended. */
export interface YieldDefinition {
  /** Default: whichever state wants in. */
  to?: readonly string[] | undefined;
  /** Default: at any time. */
  during?: string | undefined;
  if?: string | undefined;
}

/** What a switch keeps of the clip's place. */
export type CarryRule = 'none' | 'phase' | 'frame';

/** What a new press does to an act that is already playing. */
export type AgainRule = 'ignore' | 'restart' | 'queue';

/** How fast a state's time runs: an expression (1 is as drawn, below 0 backwards), or so that the feet do not slide. */
export type RateDefinition =
  | string
  | number
  | {
      /** Pixels a second that the body travels; the clip's `stride` makes the rate of it. */
      travel: string;
      /** Bounds of the rate. Default 0 and 64. */
      least?: number | undefined;
      most?: number | undefined;
    };

/** Several flipbooks of one state, picked by a number. */
export interface GaitsDefinition {
  /** The number, such as `speed`. */
  by: string;
  /** The clips or flipbooks, from the slowest to the fastest. */
  shows: readonly string[];
  /** Above which number each but the first begins, in rising order. */
  above: readonly number[];
  /** How far below it must fall for the one before. Default 0. */
  margin?: number | undefined;
}

/** Several flipbooks, of which one is picked each time the state is entered; or several names, one of which a cue is told by each time. */
export interface VarietyDefinition {
  /** The clips or flipbooks, or the names. */
  any: readonly string[];
  /** One after the other, or by chance, which is the same for the same seed. Default `turn`. */
  pick?: 'turn' | 'chance' | undefined;
  /** By chance, how often each comes, in proportion. Default: all alike. */
  weights?: readonly number[] | undefined;
  /** Whether chance may pick the same twice in a row. Default false. */
  repeats?: boolean | undefined;
}

/** A frame that follows a number instead of time. */
export interface ScrubDefinition {
  /** The number, such as `vy`. */
  by: string;
  /** The number at which the clip's beginning shows, and the one at which its end does. */
  from: number;
  to: number;
}

/** A vector of its own that a state faces by. */
export interface FacingDefinition {
  by: VectorDefinition;
  /** Default: that of the compass. */
  deadZone?: number | undefined;
}

/** What a state shows first when the character turns in it. */
export interface TurnsDefinition {
  /** The clip or flipbook, in the new direction; played once. */
  shows: string;
  /** From how many degrees on a turn shows it. Default 90. */
  least?: number | undefined;
}

/** A state as it stands in a document. */
export interface StateDefinition {
  /** The clip or flipbook it shows, or several of which one is picked; `gaits` instead gives several by a number, and `inStep` needs none. */
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
  /** What is kept of the clip's place when this state is entered: from whichever state, or by state. Default `none`. */
  carry?: CarryRule | Readonly<Record<string, CarryRule>> | undefined;
  /** Default 1. */
  rate?: RateDefinition | undefined;
  scrub?: ScrubDefinition | undefined;
  /**
   * Clips or flipbooks that show first when this state is entered from others, by state; of a state with gaits also
   * by the gait that is left.
   */
  bridges?: Readonly<Record<string, string | Readonly<Record<string, string>>>> | undefined;
  /** Where a state gives way whose `while` has turned false. Default: at once. */
  leaves?: AtDefinition | undefined;
  /** Milliseconds for which only a higher rank or a hop ends it: a number, or an expression that is read when it is entered. Default 0. */
  atLeast?: number | string | undefined;
  /**
   * Milliseconds after which it is over, whatever its clip: a number, or an expression that is read when it is entered. Of an act or a bare
   * state. Default: as long as its clip.
   */
  lasts?: number | string | undefined;
  /** Stretches its clip so that one pass takes as long as it `lasts`. Default false. */
  fit?: boolean | undefined;
  /** Default `ignore`. */
  again?: AgainRule | undefined;
  /** Names that conditions can test: true while a state with this tag shows. */
  tags?: readonly string[] | undefined;
  /** `held`: keeps the direction it was entered with; or another vector than the compass's. Default: turns with the compass. */
  facing?: 'held' | FacingDefinition | undefined;
  /** A clip shown in between when the character turns while this state shows. */
  turns?: TurnsDefinition | undefined;
  /** No rank cuts it off. Default false. */
  final?: boolean | undefined;
  /**
   * The track that it is in step with: it has no time of its own, and shows the same frame of `shows`, or without `shows`
   * its part of what that track shows. Of a posture or a bare state.
   */
  inStep?: string | undefined;
  /** Tracks that show this state too while it shows, always or while a condition holds, by its rank among their own. */
  takes?: readonly string[] | Readonly<Record<string, string>> | undefined;
}

/** States that share a condition and rank together: those in water, on a ladder, in the air. */
export interface GroupDefinition {
  /** Its states show only while this is true. */
  while: string;
  /** The rank of the whole group among the states and groups beside it. Ranks of its states count among themselves. Default 0. */
  priority?: number | undefined;
  /** Its state that shows while the group's `while` is true and no other of its states wants to. */
  rest: string;
  states: Readonly<Record<string, StateDefinition>>;
  /** Groups in it: their `while` counts besides its own. */
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** Tags that all its states have, besides their own. */
  tags?: readonly string[] | undefined;
  /** What counts for each of its states that does not say otherwise. */
  carry?: CarryRule | Readonly<Record<string, CarryRule>> | undefined;
  facing?: 'held' | FacingDefinition | undefined;
}

/** A set of states that runs beside those of the document, on the same signals, each with a rank order of its own. */
export interface TrackDefinition {
  /** The parts of the sheets that show what this track shows. Default: none, it is for its cues and tags alone. */
  draws?: readonly string[] | undefined;
  states: Readonly<Record<string, StateDefinition>>;
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** The state that shows when no other of this track wants to. Default: the first. */
  rest?: string | undefined;
}

/**
 * Which flipbook or clip shows in place of which: for a choice by its options, `{ weapon: { pole: { walk: walk-pole } } }`; for a flag while
 * it is on, `{ tired: { walk: plod } }`.
 */
export type VariantsDefinition = Readonly<
  Record<string, Readonly<Record<string, string | Readonly<Record<string, string>>>>>
>;

/** A finding of a check that a document accepts. */
export interface AcceptDefinition {
  /** The code of the finding. */
  finding: string;
  /** Where: the path or its beginning, such as `states.rise`. Default: everywhere. */
  at?: string | undefined;
  /** Why you want it so. */
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
  /** Without states a document has one for each clip, to be looked at, and rests in the first. */
  states?: Readonly<Record<string, StateDefinition>> | undefined;
  /** Groups of further states. */
  groups?: Readonly<Record<string, GroupDefinition>> | undefined;
  /** The state that shows when no other wants to. Default: the first. */
  rest?: string | undefined;
  /** Cues that are told by one of several names each time, by the name on the frame: two footsteps, three cries. */
  cues?: Readonly<Record<string, VarietyDefinition>> | undefined;
  /** Other flipbooks for the same states, by a choice or a flag. */
  variants?: VariantsDefinition | undefined;
  /** Further sets of states side by side with `states`, which are the track `body`: arms that act while the legs run. */
  tracks?: Readonly<Record<string, TrackDefinition>> | undefined;
  /** Colours that can be exchanged, by name. */
  palettes?: Readonly<Record<string, PaletteDefinition>> | undefined;
  /** What it can wear. */
  wardrobe?: WardrobeDefinition | undefined;
  /** What a check finds and is meant so, each with its reason. */
  accept?: readonly AcceptDefinition[] | undefined;
}
