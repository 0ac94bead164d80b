import type { DocumentPath } from '../problem/problem.js';
import type { Condition, BitWords } from '../signal/condition.js';
import type { Program } from '../signal/program.js';
import type { AgainRule, CarryRule } from './definition.js';
import type { Timeline } from './timeline.js';
import type { Turning } from './turning.js';

/** A hop with its names resolved. */
export interface Hop {
  /** Its place among the hops in the document: one into a group stands for several. */
  readonly place: number;
  readonly to: number;
  /** Index of its condition, -1 for always. */
  readonly if: number;
  /**
   * For a hop that remembers its condition until its instant, its number among those of the state, from 0. -1 for other hops.
   */
  readonly memory: number;
  /** Whether it is taken at any time; else at the segments that the timeline's `hopsAt` and `hopsAfter` say. */
  readonly now: boolean;
}

/** A yield with its names resolved. */
export interface Yield {
  /** The states it gives way to, or `undefined` for any. */
  readonly to: ReadonlySet<number> | undefined;
  readonly if: number;
}

/** How fast a state's time runs. */
export interface Rate {
  readonly program: Program;
  /** Whether the number is pixels a second, and the clip's stride makes the rate of it. */
  readonly travels: boolean;
  readonly least: number;
  readonly most: number;
}

/** A frame that follows a number. */
export interface Scrub {
  readonly program: Program;
  readonly from: number;
  readonly to: number;
}

/** What picks one of the flipbooks that may show in one place: gaits by a number, variants by a choice or a flag. */
export interface Axis {
  /** For gaits, the number of leading conditions that are true picks one. For variants, the condition that is true does. */
  readonly conditions: readonly Condition[];
  readonly isRising: boolean;
  /** How far it is among the flipbooks from one to the next. */
  readonly step: number;
  /** The number of its variety, if it picks one of several flipbooks. -1 for gaits and variants. */
  readonly pick: number;
}

/** How one of several is picked: flipbooks when a state is entered, names when a cue is told. */
export interface Variety {
  /** Its number among those of the controller. */
  readonly index: number;
  readonly count: number;
  /** How often chance picks each; `undefined` where they take turns. */
  readonly weights: readonly number[] | undefined;
  readonly repeats: boolean;
}

/** How one of several names is picked by which a cue is told. */
export interface CueVariety extends Variety {
  /** Their places in {@link Controller.cueNames}. */
  readonly names: readonly number[];
}

/** The flipbooks that may show in one place. */
export interface Slot {
  readonly first: number;
  readonly axes: readonly Axis[];
}

/** A state with its names resolved. Conditions are indices into {@link Controller.conditions}, -1 for none. */
export interface State {
  readonly index: number;
  /** The name of the other state, if a track shows this one because that state has taken it. */
  readonly name: string;
  /** The index of its track, and of the state in which that one rests. */
  readonly track: number;
  readonly rest: number;
  /** Where it stands in the document. */
  readonly path: DocumentPath;
  /** The track that it is in step with; -1 for none. */
  readonly inStep: number;
  /** Whether a state in step has drawings of its own. Otherwise it shows its part of what the other track shows. */
  readonly drawsOwn: boolean;
  /** The state of another track that has taken this one's track; -1 for a state of the document. */
  readonly takenBy: number;
  readonly kind: 'posture' | 'act' | 'bare';
  /** As it stands at the state. */
  readonly priority: number;
  /** The state with the larger number ranks higher. */
  readonly rank: number;
  /** The groups that it is in, from the outermost, and their priorities. */
  readonly groups: readonly { readonly name: string; readonly priority: number }[];
  /** Whether it shows whenever no other state of its group does, and so ranks below all of them. */
  readonly isGroupRest: boolean;
  readonly while: number;
  readonly when: number;
  readonly then: number;
  readonly hops: readonly Hop[];
  readonly yields: readonly Yield[];
  /** What is kept when it is entered, by the state that is left; and from those that are not named. */
  readonly carry: readonly (CarryRule | undefined)[];
  readonly carryElse: CarryRule;
  readonly held: boolean;
  /** The vector it faces by, if it is not the controller's. @internal */
  readonly facesBy: Turning | undefined;
  /** The slot that shows first after a turn of so many degrees. */
  readonly turns: { readonly slot: number; readonly least: number } | undefined;
  readonly final: boolean;
  /** Whether `leaves` says where it is left when it no longer stands. */
  readonly leaves: boolean;
  /** In microseconds; 1 where it follows from {@link keeps}. */
  readonly atLeast: number;
  /** What says how many milliseconds it is kept at least, read when it is entered. @internal */
  readonly keeps: Program | undefined;
  /** What says how many milliseconds it lasts, and whether its clip is stretched over them; `undefined` for as long as its clip. */
  readonly lasts: { readonly program: Program; readonly fits: boolean } | undefined;
  readonly again: AgainRule;
  /** Whether what is pressed while it shows may be remembered or begin it again. @internal */
  readonly remembersPresses: boolean;
  /** Whether what is decided while it plays follows from the situation alone: no hop, yield or time has a say. @internal */
  readonly isStatic: boolean;
  /** The bits of its tags, and of itself with its track, where a condition asks for these; known last of all. @internal */
  tagBits: BitWords;
  readonly tags: readonly string[];
  /** Whether it is over when its clip has ended, or its `lasts`; a posture stays on the last frame. */
  readonly ends: boolean;
  /** Whether any of these bits is on. @internal */
  isAskedFor: boolean;
  /** What it can show: its gaits from the slowest, or its one flipbook, with their variants, then its bridges; one for each direction. */
  readonly flipbooks: readonly (readonly Timeline[])[];
  readonly flipbookNames: readonly string[];
  /** What its flipbooks are in place of one another for: its own first, then those of its bridges and of its turn. @internal */
  readonly slots: readonly Slot[];
  /** For each flipbook the slot that it is one of. @internal */
  readonly slotOf: readonly number[];
  /** How one of its own flipbooks is picked each time it is entered; `undefined` for a state that shows the same each time. */
  readonly variety: Variety | undefined;
  /** How many gaits it has, or flipbooks to pick from: a flipbook of its own is one of them by what is left over from a division by this. */
  readonly gaitCount: number;
  /** The slot of the bridge that is played first, by the state and the gait that are left. @internal */
  readonly bridges: readonly (readonly (number | undefined)[] | undefined)[];
  /** @internal */
  readonly rate: Rate | undefined;
  /** @internal */
  readonly scrub: Scrub | undefined;
  /** The number slots that its rate and scrub read: any change of these counts while it shows. @internal */
  readonly reads: readonly number[];
  /** Whether nothing but its clip is to be looked after when it is left: no tag, no vector of its own. @internal */
  leavesPlainly: boolean;
  /** Whether to enter it, where nothing is carried or bridged, is no more than to begin its clip. @internal */
  beginsPlainly: boolean;
}
