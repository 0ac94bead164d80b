import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { Sheet } from '../sheet/sheet.js';
import type { Condition } from '../signal/condition.js';
import type { SignalTables } from '../signal/tables.js';
import type { Program } from '../signal/program.js';
import type { CarryRule } from './definition.js';
import type { Reports } from './reports.js';
import type { Timeline } from './timeline.js';
import type { Verdicts } from './verdicts.js';

/** A hop with its names resolved. */
export interface Hop {
  readonly to: number;
  /** Index of its condition, -1 for always. */
  readonly if: number;
  readonly remembers: boolean;
  /** `marked`: at the frames that the timeline's `hopsAt` says. */
  readonly at: 'now' | 'end' | 'marked';
}

/** A yield with its names resolved. */
export interface Yield {
  /** The states it gives way to, or `undefined` for any. */
  readonly to: ReadonlySet<number> | undefined;
  readonly if: number;
}

/** A state with its names resolved. Conditions are indices into {@link Controller.conditions}, -1 for none. */
export interface State {
  readonly index: number;
  readonly name: string;
  readonly kind: 'posture' | 'act' | 'bare';
  readonly priority: number;
  readonly while: number;
  readonly when: number;
  /** Whether its `when` can hold without a pulse, so that the instant at which it becomes true matters. */
  readonly startsOnChange: boolean;
  readonly then: number;
  readonly hops: readonly Hop[];
  readonly yields: readonly Yield[];
  readonly carry: CarryRule;
  readonly held: boolean;
  readonly final: boolean;
  /** Whether it ends by itself: an act, or a bare state whose clip is played once. */
  readonly ends: boolean;
  /** One for each direction of the compass. */
  readonly timelines: readonly Timeline[];
}

/** What turns the character: two programs. */
export interface Turning {
  readonly x: Program;
  readonly y: Program;
}

/**
 * The compiled whole: compass, signals, states, clips. Immutable but for the table of situations met so far and the
 * reports of the latest step; one serves any number of performers.
 */
export interface Controller {
  readonly name: string;
  readonly sheets: ReadonlyMap<string, Sheet>;
  readonly clips: ReadonlyMap<string, Clip>;
  readonly compass: Compass;
  readonly tables: SignalTables;
  readonly states: readonly State[];
  /** State indices from the highest rank to the lowest; document order among equals. */
  readonly order: readonly number[];
  readonly stateNamed: ReadonlyMap<string, State>;
  readonly rest: number;
  readonly conditions: readonly Condition[];
  /** The conditions as the document writes them. */
  readonly conditionTexts: readonly string[];
  readonly cueNames: readonly string[];
  /** Absent when the character never turns, or when {@link turnsByRegion} says where it turns. */
  readonly turning: Turning | undefined;
  /** Whether one number's regions say where the character turns: a compass of two sides over one signal. */
  readonly turnsByRegion: boolean;
  /** The states whose `when` is watched for the instant at which it becomes true. */
  readonly watched: readonly State[];
  readonly verdicts: Verdicts;
  readonly reports: Reports;
}
