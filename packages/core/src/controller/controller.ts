import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { Sheet } from '../sheet/sheet.js';
import type { Condition } from '../signal/condition.js';
import type { Signal } from '../signal/definition.js';
import type { SignalTables } from '../signal/tables.js';
import type { ControllerDefinition } from './definition.js';
import type { ComposedPoses } from './composed-poses.js';
import type { Names } from './names.js';
import type { Layout } from './layout.js';
import type { ReportNames } from './reports.js';
import type { Routes } from './routes.js';
import type { Situations } from './situations.js';
import type { DirectionDrawing } from './flipbooks.js';
import type { Timeline } from './timeline.js';
import type { Turning } from './turning.js';
import type { CueVariety, State } from './state.js';

/** A state whose `when` is watched for the instant at which it becomes true. */
export interface Watched {
  readonly state: number;
  readonly when: number;
  readonly while: number;
  /** Its place among the states by rank, 0 for the highest. */
  readonly place: number;
}

/** One of several sets of states side by side. Those of the document itself are the first, `body`. */
export interface Track {
  readonly index: number;
  readonly name: string;
  /** Its states from the highest rank to the lowest. Equal ranks keep the order of the document. */
  readonly order: readonly number[];
  readonly rest: number;
  /** Those of its states whose `when` is watched, from the highest rank. @internal */
  readonly watched: readonly Watched[];
  /** The parts of sheets that show what it shows; those of the first are all that no other track draws. */
  readonly draws: readonly string[];
}

/**
 * A compiled character: compass, signals, states and clips. It is immutable, except that it remembers the situations it has met. Any number
 * of performers share it.
 */
export interface Controller<out N extends Names = Names> {
  /** The names that the compiler knows. A type only: the field does not exist at run time. */
  readonly names?: N;
  readonly name: string;
  /**
   * The document it was compiled from.
   *
   * @throws {DotHopError} if it was loaded from a compiled document, which does not contain the original
   */
  readonly definition: ControllerDefinition;
  /** The version of what it decides, where that is known from a compiled document; see `versionOf`. @internal */
  readonly version: string | undefined;
  /** Whether its document has a wardrobe. */
  readonly hasWardrobe: boolean;
  readonly sheets: ReadonlyMap<string, Sheet>;
  readonly clips: ReadonlyMap<string, Clip>;
  /** For each flipbook, and for each clip that a state shows, the drawing in each direction of the compass. */
  readonly flipbooks: ReadonlyMap<string, readonly DirectionDrawing[]>;
  readonly compass: Compass;
  /** @internal */
  readonly tables: SignalTables;
  readonly states: readonly State[];
  /** The track of the document's own states, then the further tracks. */
  readonly tracks: readonly Track[];
  /** @internal */
  readonly composedPoses: ComposedPoses;
  /** Every timeline by its number: what shows is kept by number. @internal */
  readonly timelines: readonly Timeline[];
  /** Indices of states from the highest rank to the lowest, track by track. Equal ranks keep the order of the document. */
  readonly order: readonly number[];
  /** Where each state stands in the order of its track. @internal */
  readonly places: readonly number[];
  readonly stateNamed: ReadonlyMap<string, State>;
  /** The state in which the first track rests. */
  readonly rest: number;
  /** @internal */
  readonly conditions: readonly Condition[];
  /** The conditions as the document writes them. */
  readonly conditionTexts: readonly string[];
  /** The `questions` of {@link CompileOptions}, in their order. They decide nothing. */
  readonly questions: readonly Condition[];
  /** The names of cues on frames, then the further names by which some of them are told. */
  readonly cueNames: readonly string[];
  /** By the place of a cue in {@link cueNames}; empty where each is told by its own name. @internal */
  readonly cueVarieties: readonly (CueVariety | undefined)[];
  /** The signals that a game sets, in the order of the document. */
  readonly signalNames: readonly string[];
  /** Absent when the character never turns. @internal */
  readonly turning: Turning | undefined;
  /** Whether a vector is read to turn it; not where the regions of one number say where it turns. @internal */
  readonly isTurningRead: boolean;
  /** The timer of a compass that takes its time to turn; -1 for none. @internal */
  readonly turnTimer: number;
  /** The states whose `when` is watched for the instant at which it becomes true, from the highest rank. @internal */
  readonly watched: readonly Watched[];
  /** @internal */
  readonly situations: Situations;
  /** @internal */
  readonly routes: Routes;
  /** @internal */
  readonly reportNames: ReportNames;
  /** What the handles of its signals must have; see `observing.ts` for when it is something else. @internal */
  signalOwner: object;
  /** What a row of its characters consists of. @internal */
  readonly layout: Layout;
  /**
   * The handle of a signal. Pass it to `set` instead of the name; that is faster.
   *
   * @throws {DotHopError} for an unknown name, with the nearest known one
   */
  signal<S extends keyof N['values'] & string>(name: S): Signal<N['values'][S]>;
  signal(name: N['pulses']): Signal<never>;
}
