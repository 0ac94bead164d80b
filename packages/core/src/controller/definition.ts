import type { ClipDefinition } from '../clip/definition.js';
import type { CompassDefinition } from '../compass/compass.js';
import type { SheetDefinition } from '../sheet/definition.js';
import type { DerivedDefinition, SignalDefinition } from '../signal/definition.js';

/** A named instant at which a hop may be taken. */
export type AtDefinition =
  /** `now` (the default), `end`, or the name of a cue of the state's clip. */
  | string
  /** The instant a span begins. */
  | { start: string };

/** An explicit way from one state to another. */
export interface HopDefinition {
  to: string;
  /** Default: always. */
  if?: string | undefined;
  /** A span within which the condition counts, remembered until `at`. */
  during?: string | undefined;
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

/** A state as it stands in a document. */
export interface StateDefinition {
  /** The clip or flipbook it shows. */
  shows: string;
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
  /** What is kept of the clip's place when this state is entered. Default `none`. */
  carry?: CarryRule | undefined;
  /** `held`: keeps the direction it was entered with. Default: turns. */
  facing?: 'held' | undefined;
  /** No rank cuts it off. Default false. */
  final?: boolean | undefined;
}

/** One character: what a document says, as plain data. */
export interface ControllerDefinition {
  dotHop: 1;
  name?: string | undefined;
  sheets: Readonly<Record<string, SheetDefinition>>;
  clips: Readonly<Record<string, ClipDefinition>>;
  /** A clip for each direction, by name. */
  flipbooks?: Readonly<Record<string, Readonly<Record<string, string>>>> | undefined;
  compass?: CompassDefinition | undefined;
  signals?: Readonly<Record<string, SignalDefinition>> | undefined;
  derived?: Readonly<Record<string, DerivedDefinition>> | undefined;
  /** Without states a document has one for each clip, to be looked at, and rests in the first. */
  states?: Readonly<Record<string, StateDefinition>> | undefined;
  /** The state that shows when no other wants to. Default: the first. */
  rest?: string | undefined;
}
