import { durationsOf } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { rankText } from '../controller/rank.js';
import type { NumberBounds, SignalValue } from '../signal/definition.js';
import type { Regions } from '../signal/regions.js';

/** Facts about a signal, for building controls. */
export interface SignalFacts {
  readonly name: string;
  readonly kind: 'number' | 'flag' | 'choice' | 'vector' | 'pulse';
  /** Its first value. A pulse begins with `false`. */
  readonly first: SignalValue;
  /** The options of a choice; empty for other kinds. */
  readonly options: readonly string[];
  /** The milliseconds for which a pulse is remembered; 0 for other kinds. */
  readonly keep: number;
  /**
   * The lowest and the highest number that any condition compares it with, so that a slider can reach past both. `undefined` if it is not a
   * number or no condition compares it.
   */
  readonly range: readonly [least: number, most: number] | undefined;
  /** The bounds and the unit of a number, if the document states them. */
  readonly bounds: NumberBounds | undefined;
}

/** A state, with its rank. */
export interface StateFacts {
  readonly name: string;
  readonly track: string;
  readonly priority: number;
  /** Its rank in words: the priority, after those of its groups; `50 / rest` for the rest of a group. */
  readonly rank: string;
  /** Its groups, the outermost first. */
  readonly groups: readonly string[];
  readonly kind: State['kind'];
  readonly isRest: boolean;
  readonly tags: readonly string[];
  /** The clips or flipbooks that it shows. */
  readonly shows: readonly string[];
  readonly while: string | undefined;
  readonly when: string | undefined;
  /** What starts it: a pulse, or its `when` becoming true. `undefined` without `when`. */
  readonly startsOn: 'press' | 'change' | undefined;
}

/** Facts about a clip. Times are milliseconds. */
export interface ClipFacts {
  readonly name: string;
  /** The duration of one pass. */
  readonly lasts: number;
  /** Whether it plays for ever. */
  readonly loops: boolean;
  /** The showings in order. A frame shows more than once if the clip goes back and forth or repeats. */
  readonly showings: readonly {
    readonly frame: number;
    readonly cell: number;
    readonly ms: number;
    readonly cues: readonly string[];
  }[];
  /** The frames of each span, first and last included. */
  readonly spans: Readonly<Record<string, { readonly first: number; readonly last: number }>>;
  readonly stride: number | undefined;
}

/** Facts about a controller as plain data, for inspectors, editors and tests. */
export interface ControllerFacts {
  readonly name: string;
  readonly signals: readonly SignalFacts[];
  /** Derived signals by name, and whether each is a number or a flag. */
  readonly derived: readonly { readonly name: string; readonly kind: 'number' | 'flag' }[];
  readonly tracks: readonly string[];
  /** Track by track, from the highest rank to the lowest. */
  readonly states: readonly StateFacts[];
  readonly clips: readonly ClipFacts[];
  readonly directions: readonly { readonly name: string; readonly degrees: number }[];
}

/** The bounds of regions; the next double after a threshold is taken for the threshold. */
const thresholdsOf = ({ bounds }: Regions): number[] =>
  bounds.filter(Number.isFinite).map((bound) => Number(bound.toPrecision(12)) + 0);

/** Describes a controller as its document says it, without the internal tables. */
export function describeController(controller: Controller): ControllerFacts {
  const { name, tables, tracks, states, order, clips, compass, conditionTexts } = controller;
  const changes = new Set(controller.watched.map(({ state }) => state));
  return {
    name,
    signals: [...tables.signals.values()].map(
      ({ name: signal, kind, first, options, keep, slot, bounds: own }) => {
        const bounds = kind === 'number' ? thresholdsOf(tables.regions[slot]!) : [];
        const value: SignalValue = {
          number: first[0]!,
          flag: first[0] === 1,
          pulse: false,
          choice: options[first[0]!] ?? '',
          vector: [first[0]!, first[1] ?? 0] as const,
        }[kind];
        return {
          name: signal,
          kind,
          first: value,
          options,
          keep: kind === 'pulse' && keep > 1 ? keep / 1000 : 0,
          bounds: own,
          range: bounds.length === 0 ? undefined : ([Math.min(...bounds), Math.max(...bounds)] as const),
        };
      },
    ),
    derived: [...tables.derived].map(([derived, one]) => ({
      name: derived,
      kind: 'code' in one ? 'number' : 'flag',
    })),
    tracks: tracks.map((track) => track.name),
    states: order
      .map((index) => states[index]!)
      .filter(({ takenBy }) => takenBy < 0)
      .map((state) => ({
        name: state.name,
        track: tracks[state.track]!.name,
        priority: state.priority,
        rank: rankText(state),
        groups: state.groups.map((group) => group.name),
        kind: state.kind,
        isRest: tracks[state.track]!.rest === state.index,
        tags: state.tags,
        shows: state.flipbookNames.slice(0, state.gaitCount),
        while: conditionTexts[state.while],
        when: conditionTexts[state.when],
        startsOn: state.when < 0 ? undefined : changes.has(state.index) ? 'change' : 'press',
      })),
    clips: [...clips.values()].map((clip) => {
      const durations = durationsOf(clip);
      return {
        name: clip.name,
        lasts: durations.reduce((sum, ms) => sum + ms, 0),
        loops: clip.loopFrom >= 0,
        showings: clip.order.map((frame, i) => ({
          frame,
          cell: clip.cells[i]!.index,
          ms: durations[i]!,
          cues: clip.cues[i]!,
        })),
        spans: Object.fromEntries(clip.spans),
        stride: clip.stride,
      };
    }),
    directions: compass.names.map((direction, i) => ({ name: direction, degrees: compass.degrees[i]! })),
  };
}
