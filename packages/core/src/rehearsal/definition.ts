import type { ButtonName, QuantityName } from './buttons.js';
import type { GroundDefinition } from './ground.js';

/** What shows at an instant. */
interface ShownThen {
  /** At an instant: the state that shows. With `from` and `to`: it shows all the time. */
  readonly state?: string | undefined;
  readonly direction?: string | undefined;
  /** The clip that the first track shows; of a clip in rows its name is enough, whatever the direction. */
  readonly clip?: string | undefined;
  /** The number of the cell that shows. */
  readonly cell?: number | undefined;
}

type OneOrMore = string | readonly string[];

/** A line of the script: when, and what. Times are milliseconds; see the guide of rehearsals for each field. */
export interface ScriptLine {
  readonly at?: number | undefined;
  readonly after?: number | undefined;
  readonly until?: string | { readonly state: string } | { readonly cue: string } | undefined;
  readonly within?: number | undefined;
  readonly set?: Readonly<Record<string, number | boolean | string | readonly [number, number]>> | undefined;
  readonly pulse?: OneOrMore | undefined;
  readonly ramp?: Readonly<Record<string, number | readonly [number, number]>> | undefined;
  readonly over?: number | undefined;
  readonly press?: OneOrMore | undefined;
  readonly for?: number | undefined;
  readonly release?: OneOrMore | undefined;
  readonly ask?: string | undefined;
  readonly cut?: string | undefined;
  readonly route?: string | undefined;
  readonly reset?: true | undefined;
  readonly pace?: number | undefined;
  readonly every?: number | undefined;
  readonly times?: number | undefined;
  readonly expect?: ShownThen | undefined;
}

/** What is expected, at an instant or within a time. */
export interface Expectation extends ShownThen {
  readonly at?: number | undefined;
  readonly from?: number | undefined;
  readonly to?: number | undefined;
  /** These states show in this order; others may come between. */
  readonly passes?: readonly string[] | undefined;
  readonly never?: OneOrMore | undefined;
  /** How often each cue is reported. */
  readonly cues?: Readonly<Record<string, number>> | undefined;
}

/** How a body moves: pixels a second, and pixels a second every second. */
interface Moving {
  readonly speed?: number | undefined;
  readonly gain?: number | undefined;
  readonly brake?: number | undefined;
  /** Where it stands at first, in pixels. */
  readonly start?: readonly [number, number] | undefined;
  /** What feeds which signal. */
  readonly feeds?: Readonly<Record<string, QuantityName | ButtonName>> | undefined;
}

interface Falling extends Moving, GroundDefinition {
  readonly jump?: number | undefined;
  /** The cue at which it leaps; by default it leaps when `jump` is pressed. */
  readonly leapAt?: string | undefined;
  readonly gravity?: number | undefined;
}

/** A small body that moves as buttons say. */
export type BodyDefinition = { readonly platformer: Falling } | { readonly walker: Moving };

/** The steps of a game: even ones, or uneven ones by chance. */
export type StepsDefinition =
  { readonly perSecond: number } | { readonly from: number; readonly to: number; readonly seed: number };

/** A rehearsal as it stands in its file. */
export interface RehearsalDefinition {
  readonly $schema?: string | undefined;
  readonly dotHopRehearsal: 1;
  /** The file of the character, relative to this one. */
  readonly document: string;
  /** How long it runs, in milliseconds. */
  readonly lasts: number;
  /** Where it stands at the beginning: a snapshot. */
  readonly begins?: { readonly dotHopSnapshot: 1; readonly [field: string]: unknown } | undefined;
  readonly body?: BodyDefinition | undefined;
  readonly steps?: StepsDefinition | undefined;
  readonly script: readonly ScriptLine[];
  readonly expect?: readonly Expectation[] | undefined;
}

/** One thing or several, as a list. */
export const listOf = (value: OneOrMore | undefined): readonly string[] =>
  value === undefined ? [] : typeof value === 'string' ? [value] : value;

/** A rehearsal without its file: what is done, and what is expected of it. */
export type RehearsalScript = Omit<RehearsalDefinition, 'dotHopRehearsal' | 'document'>;
