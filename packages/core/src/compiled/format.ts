import type { Compass } from '../compass/compass.js';
import type { DirectionDrawing } from '../controller/flipbooks.js';
import type { Controller, Track } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import type { CarryRule } from '../controller/definition.js';
import type { Names } from '../controller/names.js';
import type { Turning } from '../controller/turning.js';
import type { Part, Sheet } from '../sheet/sheet.js';
import type { Signal } from '../signal/definition.js';
import type { Program } from '../signal/program.js';
import type { Regions } from '../signal/regions.js';
import type { ComputedTerm, SignalTables } from '../signal/tables.js';
import type { Term } from '../signal/condition.js';

// A compiled document: a controller as plain data, with numbers where objects name one another. `docs/compiled.md` describes it.

/** The version of this format. Files of another one are refused: they are written again from their documents. */
export const formatVersion = 4;

/** A condition: a term's number, true or false, one that is turned about, or two of which both (0) or either (1) must hold. */
export type CompiledCondition =
  number | boolean | readonly [CompiledCondition] | readonly [0 | 1, CompiledCondition, CompiledCondition];

/** A rectangle, or a point, by name: `[x, y, width, height]`, `[x, y]`. */
export type CompiledMarks = Readonly<Record<string, readonly number[]>>;

/** What a drawing is: whole numbers but for the pivot. */
export interface CompiledCell {
  /** The numbers of its sheet and of its image, and its own number on the sheet. */
  readonly of: readonly [sheet: number, image: number, index: number];
  /** x, y, width, height; offsetX, offsetY, frameWidth, frameHeight; pivotX, pivotY. */
  readonly at: readonly number[];
  readonly hasOwnPivot: boolean;
  /** The numbers of its boxes and points among {@link CompiledDocument.marks}. */
  readonly marks: readonly [boxes: number, points: number];
  /** Of a composed cell: the number of each piece's cell, x, y, and whether it is flipped: 1 across, 2 upright, 3 both. */
  readonly pieces?: readonly (readonly [cell: number, x: number, y: number, flip: number])[];
}

/** A clip: frames are numbers of cells. */
export interface CompiledClip {
  readonly name: string;
  readonly of: string;
  readonly direction?: string | undefined;
  readonly frames: readonly number[];
  readonly order: readonly number[];
  /** In whole microseconds. */
  readonly ends: readonly number[];
  readonly loopFrom: number;
  readonly cues: readonly (readonly string[])[];
  /** Name, first and last frame. */
  readonly spans: readonly (readonly [string, number, number])[];
  readonly stride?: number | undefined;
}

/** A clip cut into segments for the rules of a state. What is left out is empty, or false, for every segment. */
export interface CompiledSegments {
  readonly clip: number;
  readonly frames: readonly number[];
  /** In 4096ths of a microsecond. */
  readonly ends: readonly number[];
  /** The segment at which it goes on after its last; -1 for one that does not loop. */
  readonly loopFrom: number;
  /** For each segment the next where nothing is decided at the border, else -1. */
  readonly quiet: readonly number[];
  /** From each segment's end how far it is to the next border that somebody notices; -1 for none. */
  readonly ahead: readonly number[];
  /** Lists of numbers for each segment: of cues, of hops, of yields. */
  readonly lists: Readonly<Partial<Record<SegmentList, readonly (readonly number[])[]>>>;
  /** The segments at whose beginning, and at whose end, the state may be left. */
  readonly leavesAt: readonly number[];
  readonly leavesAfter: readonly number[];
}

/** What is listed for each segment. */
export const segmentLists = [
  'cues',
  'armed',
  'ways',
  'waysAt',
  'waysAfter',
  'hearing',
  'hopsAt',
  'hopsAfter',
  'yielding',
] as const;
export type SegmentList = (typeof segmentLists)[number];

/**
 * Where segments show: state, direction, flipbook and segments. Then a sum of 1 for a bridge, 2 for mirrored and 4 for
 * backwards. Last, if there is one, the timeline of the same in the other direction of time.
 */
export type CompiledTimeline = readonly [
  state: number,
  direction: number,
  flipbook: number,
  segments: number,
  marks: number,
  reverse?: number,
];

/** A vector that turns, with the dead zone that counts for it. */
export type CompiledTurning = Omit<Turning, 'compass'> & { readonly deadZone: number };

/** A state: as the engine has it, with numbers for what it names. */
export interface CompiledState extends Omit<
  State,
  | 'path'
  | 'rank'
  | 'groups'
  | 'isGroupRest'
  | 'flipbooks'
  | 'bridges'
  | 'carry'
  | 'facesBy'
  | 'slots'
  | 'tagBits'
  | 'yields'
  | 'turns'
  | 'rate'
  | 'scrub'
  | 'lasts'
  | 'keeps'
> {
  /** Of states in groups, and where there are groups. */
  readonly rank?: number;
  readonly groups?: State['groups'];
  readonly isGroupRest?: boolean;
  readonly flipbooks: readonly (readonly number[])[];
  /** The state that is left, and by its gait the slot of the bridge, -1 for none. */
  readonly bridges: readonly (readonly [state: number, slots: readonly number[]])[];
  readonly carry: readonly (readonly [state: number, rule: CarryRule])[];
  readonly facesBy: CompiledTurning | null;
  /**
   * For each slot its first flipbook, then what picks one: the step from one to the next, how (1 for conditions that rise, 0
   * for the first that holds, 2 for the variety of the state), and the conditions.
   */
  readonly slots: readonly (readonly [
    first: number,
    ...axes: (readonly [step: number, how: 0 | 1 | 2, ...conditions: CompiledCondition[]])[],
  ])[];
  readonly tagBits: readonly number[];
  readonly yields: readonly { readonly to: readonly number[] | null; readonly if: number }[];
  readonly turns: State['turns'] | null;
  readonly rate: State['rate'] | null;
  readonly scrub: State['scrub'] | null;
  readonly lasts: State['lasts'] | null;
  readonly keeps: State['keeps'] | null;
}

type CompiledComputed =
  | Exclude<ComputedTerm, { kind: 'lasting' }>
  | (Omit<Extract<ComputedTerm, { kind: 'lasting' }>, 'condition'> & {
      readonly condition: CompiledCondition;
    });

/** Everything about signals. */
export interface CompiledSignals extends Pick<SignalTables, 'words' | 'timers'> {
  readonly signals: readonly Omit<Signal, 'owner' | 'place'>[];
  readonly derived: readonly (readonly [string, Program | { readonly holds: CompiledCondition }])[];
  readonly bands: readonly (readonly [string, number, number])[];
  /** Name, word, bit. */
  readonly tags: readonly (readonly [string, number, number])[];
  readonly terms: readonly Omit<Term, 'index'>[];
  /** The bounds without the infinite ones at both ends. */
  readonly regions: readonly Regions[];
  readonly computed: readonly CompiledComputed[];
  readonly computedBits: readonly number[];
  readonly firstBits: readonly number[];
}

/** A sheet: its cells are the numbers of those that are shown. */
export interface CompiledSheet extends Omit<Sheet, 'cells' | 'parts'> {
  readonly cells: readonly number[];
  readonly parts: readonly Part[];
}

/** A compiled document as plain data, for `loadCompiled` of `dot-hop/play`. */
export interface CompiledDocument<out N extends Names = Names> {
  /** The names that the compiler knows. A type only: the field does not exist at run time. */
  readonly names?: N;
  readonly dotHopCompiled: number;
  /** A hash of `tables`. If the file was cut off or changed on the way, loading refuses it. */
  readonly sum: string;
  readonly tables: CompiledTables;
}

/** See {@link CompiledDocument}. */
export interface CompiledTables {
  readonly name: string;
  /** The version of what it decides, as snapshots have it. */
  readonly version: string;
  readonly compass: Compass;
  readonly signals: CompiledSignals;
  readonly conditions: readonly CompiledCondition[];
  readonly conditionTexts: readonly string[];
  readonly images: readonly string[];
  readonly marks: readonly CompiledMarks[];
  readonly cells: readonly CompiledCell[];
  readonly sheets: readonly CompiledSheet[];
  readonly clips: readonly CompiledClip[];
  /** How many of the clips have a name of their own: the first so many. */
  readonly named: number;
  /** What each flipbook shows in each direction: clip, mirrored, drawn for, stands in. */
  readonly flipbooks: readonly (readonly [
    string,
    readonly (Omit<DirectionDrawing, 'clip'> & { readonly clip: number })[],
  ])[];
  readonly segments: readonly CompiledSegments[];
  readonly timelines: readonly CompiledTimeline[];
  readonly states: readonly CompiledState[];
  readonly tracks: readonly Track[];
  readonly cueNames: readonly string[];
  /** By the number of the cue, `null` for one that is told by its own name: how one of several is picked. */
  readonly cueVarieties: readonly (Controller['cueVarieties'][number] | null)[];
  readonly turning: CompiledTurning | null;
  readonly turnTimer: number;
}
