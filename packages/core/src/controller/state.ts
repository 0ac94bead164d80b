import type { DocumentPath } from '../problem/problem.js';
import type { Condition, BitWords } from '../signal/condition.js';
import type { Program } from '../signal/program.js';
import type { AgainRule, CarryRule } from './definition.js';
import type { Timeline } from './timeline.js';
import type { Turning } from './turning.js';

/** A hop with its names resolved. */
export interface Hop {
  /** Its index among the hops in the document. A hop into a group becomes several hops with the same index. */
  readonly place: number;
  readonly to: number;
  /** Index of its condition, -1 for always. */
  readonly if: number;
  /**
   * For a hop that remembers its condition until its instant, its number among those of the state, from 0. -1 for other hops.
   */
  readonly memory: number;
  /** Whether it can be taken at any time. Else the timeline's `hopsAt` and `hopsAfter` name its segments. */
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
  /** Whether the number is a speed in pixels a second, which the clip's stride turns into a rate. */
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

/** What picks one of the flipbooks that share a slot: a number picks a gait, a choice or a flag picks a variant. */
export interface Axis {
  /** For gaits, the number of leading conditions that are true picks one. For variants, the condition that is true does. */
  readonly conditions: readonly Condition[];
  readonly isRising: boolean;
  /** The distance between two neighbours of this axis in the list of flipbooks. */
  readonly step: number;
  /** The number of its variety, if a variety picks one of several flipbooks. -1 for gaits and variants. */
  readonly pick: number;
}

/** How one of several is picked: flipbooks when a state is entered, names when a cue is told. */
export interface Variety {
  /** Its number among the varieties of the controller. */
  readonly index: number;
  readonly count: number;
  /** How often chance picks each; `undefined` if they take turns. */
  readonly weights: readonly number[] | undefined;
  readonly repeats: boolean;
}

/** How the name by which a cue is told is picked from several. */
export interface CueVariety extends Variety {
  /** The indices of the names in {@link Controller.cueNames}. */
  readonly names: readonly number[];
}

/** The flipbooks of which one shows: a state's own gaits and variants, or those of a bridge or turn. */
export interface Slot {
  readonly first: number;
  readonly axes: readonly Axis[];
}

/** A state with its names resolved. Conditions are indices into {@link Controller.conditions}, -1 for none. */
export interface State {
  readonly index: number;
  /** The name of the other state, if a track shows this one because that state has taken it. */
  readonly name: string;
  /** The index of its track, and the state in which that track rests. */
  readonly track: number;
  readonly rest: number;
  /** Its path in the document. */
  readonly path: DocumentPath;
  /** The track that it is in step with; -1 for none. */
  readonly inStep: number;
  /** Whether a state in step has drawings of its own. Otherwise it shows its part of the other track's drawing. */
  readonly drawsOwn: boolean;
  /** The state of another track that has taken this one's track; -1 for a state of the document. */
  readonly takenBy: number;
  readonly kind: 'posture' | 'act' | 'bare';
  /** The `priority` that the state itself states. */
  readonly priority: number;
  /** A number that compares states of one track: the larger one ranks higher. */
  readonly rank: number;
  /** The groups around it, from the outermost, and their priorities. */
  readonly groups: readonly { readonly name: string; readonly priority: number }[];
  /** Whether it is the rest of its group, and so ranks below all other states of the group. */
  readonly isGroupRest: boolean;
  readonly while: number;
  readonly when: number;
  readonly then: number;
  readonly hops: readonly Hop[];
  readonly yields: readonly Yield[];
  /** What is kept when this state is entered, by the state that is left; and for states that are not named. */
  readonly carry: readonly (CarryRule | undefined)[];
  readonly carryElse: CarryRule;
  readonly held: boolean;
  /** The vector that turns it, if it is not the controller's own. @internal */
  readonly facesBy: Turning | undefined;
  /** The slot that shows first after a turn, and from how many degrees on. */
  readonly turns: { readonly slot: number; readonly least: number } | undefined;
  readonly final: boolean;
  /** Whether `leaves` says where it may be left once its `while` is false. */
  readonly leaves: boolean;
  /** In microseconds. 1 if it is an expression; see {@link keeps}. */
  readonly atLeast: number;
  /** The expression of `atLeast`, in milliseconds, which is read when the state is entered. @internal */
  readonly keeps: Program | undefined;
  /**
   * The expression of `lasts` in milliseconds, and whether the clip is stretched to it. `undefined` if the state lasts as long as its clip.
   */
  readonly lasts: { readonly program: Program; readonly fits: boolean } | undefined;
  readonly again: AgainRule;
  /** Whether a press can be queued while it shows, or begin it again. @internal */
  readonly remembersPresses: boolean;
  /**
   * Whether the decision while it plays follows from the situation alone: no hop, yield or time has a say.
   *
   * @internal
   */
  readonly isStatic: boolean;
  /** The bits of its tags, and of its own name with its track, if a condition asks for them. @internal */
  tagBits: BitWords;
  readonly tags: readonly string[];
  /** Whether it is over when its clip or its `lasts` has ended. A posture is not; it stays on the last frame. */
  readonly ends: boolean;
  /** Whether any of these bits is on. @internal */
  isAskedFor: boolean;
  /**
   * Everything that it can show: its gaits from the slowest, or its one flipbook, with their variants, then its bridges. Each has one
   * timeline for each direction.
   */
  readonly flipbooks: readonly (readonly Timeline[])[];
  readonly flipbookNames: readonly string[];
  /** Its slots: its own first, then those of its bridges and of its turn. @internal */
  readonly slots: readonly Slot[];
  /** For each flipbook the slot to which it belongs. @internal */
  readonly slotOf: readonly number[];
  /** How one of its flipbooks is picked each time it is entered; `undefined` if it has only one. */
  readonly variety: Variety | undefined;
  /** The number of its gaits, or of its flipbooks to pick from. The remainder of a flipbook's index divided by it is the gait. */
  readonly gaitCount: number;
  /** The slot of the bridge that is played first, by the state and the gait that are left. @internal */
  readonly bridges: readonly (readonly (number | undefined)[] | undefined)[];
  /** @internal */
  readonly rate: Rate | undefined;
  /** @internal */
  readonly scrub: Scrub | undefined;
  /** The number slots that its rate and scrub read. While it shows, every change of these counts. @internal */
  readonly reads: readonly number[];
  /** Whether leaving it needs nothing but a new clip: it has no tag and no vector of its own. @internal */
  leavesPlainly: boolean;
  /** Whether entering it only begins its clip, if nothing is carried or bridged. @internal */
  beginsPlainly: boolean;
}
