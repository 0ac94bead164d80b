import type { ButtonName, QuantityName } from './buttons.js';
import type { GroundDefinition } from './ground.js';

/** What shows. A field that is left out is not looked at. */
interface ShownThen {
  /** The state: at an instant; or with `from` and `to` all the time. */
  readonly state?: string | undefined;
  /** The direction that the character faces. */
  readonly direction?: string | undefined;
  /** The clip that the first track shows. For a clip in rows give its name, whatever the direction. */
  readonly clip?: string | undefined;
  /** The number of the cell. */
  readonly cell?: number | undefined;
}

type OneOrMore = string | readonly string[];

/**
 * A line of the script: when something happens, and what. All times are milliseconds, from 0 on. A line begins `at` an instant, or counts from
 * the line above it with `after` or `until`.
 */
export interface ScriptLine {
  /** The instant, from the beginning of the rehearsal. */
  readonly at?: number | undefined;
  /** How long after the line above. */
  readonly after?: number | undefined;
  /** Waits, from the line above on, until a condition is true, a state shows or a cue is reported. */
  readonly until?: string | { readonly state: string } | { readonly cue: string } | undefined;
  /** With `until`: how long to wait at most. If nothing has happened by then, the rehearsal fails. Default: until the rehearsal ends. */
  readonly within?: number | undefined;
  /** Signals and the values that they are set to. */
  readonly set?: Readonly<Record<string, number | boolean | string | readonly [number, number]>> | undefined;
  /** Pulses that happen. */
  readonly pulse?: OneOrMore | undefined;
  /** Numbers that change evenly during `over`: to a value, or from one to another. */
  readonly ramp?: Readonly<Record<string, number | readonly [number, number]>> | undefined;
  /** How long the ramp takes. */
  readonly over?: number | undefined;
  /** Buttons of the body, flags or pulses that are pressed. */
  readonly press?: OneOrMore | undefined;
  /** How long they are held. Default: until a `release`. */
  readonly for?: number | undefined;
  /** Buttons and flags that are let go. */
  readonly release?: OneOrMore | undefined;
  /** A state that the game asks for; the performer may refuse it. */
  readonly ask?: string | undefined;
  /** A state that is entered whatever the rules say. */
  readonly cut?: string | undefined;
  /** A state that is reached along hops. */
  readonly route?: string | undefined;
  /** Begins again, with the values in `set` as first values. */
  readonly reset?: true | undefined;
  /** How fast the character's own time runs from here on: 0 to 64, default 1. */
  readonly pace?: number | undefined;
  /** With `times`: how much time lies between one time and the next. */
  readonly every?: number | undefined;
  /** How often the line happens in all. Default 1. */
  readonly times?: number | undefined;
  /** What must show at that instant, once the line has been decided. */
  readonly expect?: ShownThen | undefined;
}

/** What must be true `at` an instant, or in the time `from` one `to` another, both included. Milliseconds from the beginning. */
export interface Expectation extends ShownThen {
  readonly at?: number | undefined;
  /** Default: the beginning. */
  readonly from?: number | undefined;
  /** Default: the end. */
  readonly to?: number | undefined;
  /** States that show in this order. Others may show in between. */
  readonly passes?: readonly string[] | undefined;
  /** States that must not show. */
  readonly never?: OneOrMore | undefined;
  /** How often each cue must be reported. */
  readonly cues?: Readonly<Record<string, number>> | undefined;
}

/** How a body moves. */
interface Moving {
  /** Its highest speed, in pixels a second. Default 90. */
  readonly speed?: number | undefined;
  /** How fast it gains speed, in pixels a second every second. Default 600. */
  readonly gain?: number | undefined;
  /** How fast it loses speed, in pixels a second every second. Default 900. */
  readonly brake?: number | undefined;
  /** Where it begins, in pixels. Default `[0, 0]`. */
  readonly start?: readonly [number, number] | undefined;
  /** Which quantity or button feeds which signal. A signal that has the name of a quantity needs no entry. */
  readonly feeds?: Readonly<Record<string, QuantityName | ButtonName>> | undefined;
}

interface Falling extends Moving, GroundDefinition {
  /** How fast it leaps up, in pixels a second. Default 260. */
  readonly jump?: number | undefined;
  /** The cue at which it leaps. Default: as soon as `jump` is pressed. */
  readonly leapAt?: string | undefined;
  /** In pixels a second every second. Default 800. */
  readonly gravity?: number | undefined;
}

/** A small body that buttons move: a `platformer` runs, leaps and falls; a `walker` goes in all directions. */
export type BodyDefinition = { readonly platformer: Falling } | { readonly walker: Moving };

/** The steps of a game: so many a second; or steps of uneven lengths in milliseconds, picked by a seed so that they can be repeated. */
export type StepsDefinition =
  { readonly perSecond: number } | { readonly from: number; readonly to: number; readonly seed: number };

/** A rehearsal as its file has it. */
export interface RehearsalDefinition {
  readonly $schema?: string | undefined;
  readonly dotHopRehearsal: 1;
  /** The file of the character, relative to this one. */
  readonly document: string;
  /** How long it runs, in milliseconds. */
  readonly lasts: number;
  /** A snapshot to begin from. Default: a new performer. */
  readonly begins?: { readonly dotHopSnapshot: 1 | 2; readonly [field: string]: unknown } | undefined;
  readonly body?: BodyDefinition | undefined;
  readonly steps?: StepsDefinition | undefined;
  readonly script: readonly ScriptLine[];
  readonly expect?: readonly Expectation[] | undefined;
}

/** One thing or several, as a list. */
export const listOf = (value: OneOrMore | undefined): readonly string[] =>
  value === undefined ? [] : typeof value === 'string' ? [value] : value;

/** A rehearsal without its file: the script and the expectations. */
export type RehearsalScript = Omit<RehearsalDefinition, 'dotHopRehearsal' | 'document'>;
