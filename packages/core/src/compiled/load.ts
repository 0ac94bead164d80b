import type { Clip } from '../clip/clip.js';
import { assemble } from '../controller/assemble.js';
import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { hashOf } from '../controller/hash.js';
import type { Names } from '../controller/names.js';
import { Timeline, asDoubles, posesOf } from '../controller/timeline.js';
import type { Segments } from '../controller/timeline.js';
import type { Turning } from '../controller/turning.js';
import { callError } from '../problem/error.js';
import { PoseCache } from '../sheet/pose.js';
import type { Cell, Sheet } from '../sheet/sheet.js';
import { bitsOf } from '../signal/bits.js';
import type { Condition } from '../signal/condition.js';
import type { SignalTables } from '../signal/tables.js';
import { formatVersion, segmentLists } from './format.js';
// Their codes only: a game that plays carries no sentences.
import type {} from './sentences.js';
import type {
  CompiledCondition,
  CompiledDocument,
  CompiledSegments,
  CompiledSignals,
  CompiledState,
  CompiledTables,
  CompiledTurning,
} from './format.js';

/**
 * Loads the controller of a compiled document. It plays, decides and reports exactly what the controller of the document does.
 *
 * @param compiled what `compiledOf`, `dot-hop pack --compiled` or the Vite plugin made. The controller keeps this data, so do not change it
 *   afterwards
 * @throws {DotHopError} for anything that is not a compiled document, for one of another version of Dot Hop, and for one that was cut off
 *   or changed on the way
 */
export function loadCompiled<N extends Names>(compiled: CompiledDocument<N>): Controller<N> {
  // Whatever a file held comes here.
  const { dotHopCompiled: version, sum, tables } = Object(compiled) as Partial<CompiledDocument>;
  if (version === undefined) throw callError('compiled-none', { received: compiled });
  if (version !== formatVersion)
    throw callError('compiled-version', { received: version, expected: formatVersion });
  if (tables === undefined || sum !== hashOf(JSON.stringify(tables))) throw callError('compiled-changed', {});
  return controllerOf(tables) as Controller<N>;
}

function controllerOf(given: CompiledTables): Controller {
  const { name, version, compass, conditionTexts, tracks, cueNames, turnTimer } = given;
  const tables = readSignals(given.signals);
  const condition = conditionReader(tables);
  const cells = readCells(given);
  const clips = given.clips.map(({ frames, spans, ...clip }): Clip => ({
    direction: undefined,
    stride: undefined,
    ...clip,
    frames: frames.map((cell) => cells[cell]!),
    cells: clip.order.map((frame) => cells[frames[frame]!]!),
    spans: new Map(spans.map(([span, first, last]) => [span, { first, last }])),
  }));
  const cache = new PoseCache();
  const segments = given.segments.map((one) => readSegments(one, clips[one.clip]!));
  const timelines = given.timelines.map(([state, direction, of, number, marks], i) => {
    const own = segments[number]!;
    return new Timeline(
      i,
      state,
      direction,
      of,
      (marks & 1) !== 0,
      (marks & 4) !== 0,
      posesOf(own, (marks & 2) !== 0, cache),
      own,
    );
  });
  given.timelines.forEach(([, , , , , reverse], i) => {
    if (reverse !== undefined) timelines[i]!.reverse = timelines[reverse];
  });
  const turning = (one: CompiledTurning | null): Turning | undefined =>
    one === null ? undefined : { ...one, compass: { ...compass, deadZone: one.deadZone } };
  const states = given.states.map((one) => readState(one, condition, timelines, turning));
  for (const timeline of timelines) timeline.state = states[timeline.stateIndex]!;
  const controller = assemble({
    name,
    get definition(): never {
      throw callError('compiled-source', { name });
    },
    version,
    hasWardrobe: false,
    sheets: new Map(
      given.sheets.map((sheet): [string, Sheet] => [
        sheet.name,
        {
          ...sheet,
          cells: sheet.cells.map((cell) => cells[cell]!),
          parts: new Map(sheet.parts.map((part) => [part.name, part])),
        },
      ]),
    ),
    clips: new Map(clips.slice(0, given.named).map((clip) => [clip.name, clip])),
    flipbooks: new Map(
      given.flipbooks.map(([name, drawings]) => [
        name,
        drawings.map((drawing) => ({ ...drawing, clip: clips[drawing.clip]! })),
      ]),
    ),
    compass,
    tables,
    states,
    tracks,
    timelines,
    conditions: given.conditions.map(condition),
    conditionTexts,
    questions: [],
    cueNames,
    cueVarieties: given.cueVarieties.map((one) => one ?? undefined),
    turning: turning(given.turning),
    turnTimer,
  });
  return controller;
}

function conditionReader({ terms }: Pick<SignalTables, 'terms'>): (given: CompiledCondition) => Condition {
  const read = (given: CompiledCondition): Condition => {
    if (typeof given === 'boolean') return { op: 'constant', value: given };
    if (typeof given === 'number') return { op: 'term', term: terms[given]! };
    if (given.length === 1) return { op: 'not', part: read(given[0]) };
    return { op: given[0] === 0 ? 'and' : 'or', left: read(given[1]), right: read(given[2]) };
  };
  return read;
}

function readSignals(given: CompiledSignals): SignalTables {
  const owner = Object.freeze({});
  const { words } = given;
  const signals = given.signals.map((signal) => ({ owner, place: 0, ...signal }));
  const terms = given.terms.map((term, index) => ({ index, ...term }));
  const pulses = signals.filter(({ kind }) => kind === 'pulse');
  const condition = conditionReader({ terms });
  return {
    ...given,
    owner,
    signals: new Map(signals.map((signal) => [signal.name, signal])),
    derived: new Map(given.derived.map(([name, one]) => [name, 'code' in one ? one : condition(one.holds)])),
    bands: new Map(given.bands.map(([name, above, below]) => [name, { above, below }])),
    tags: new Map(given.tags.map(([name, word, bit]) => [name, { word, bit }])),
    terms,
    regions: given.regions.map((one) => ({
      ...one,
      bounds: asDoubles([-Infinity, ...one.bounds, Infinity]),
    })),
    computed: given.computed.map((term) =>
      term.kind === 'lasting' ? { ...term, condition: condition(term.condition) } : term,
    ),
    computedBits: Int32Array.from(given.computedBits),
    pulses,
    pulseBits: bitsOf(words, pulses),
    firstBits: Int32Array.from(given.firstBits),
  };
}

function readCells({ sheets, images, marks, cells: given }: CompiledTables): Cell[] {
  const boxes = marks.map((some) =>
    named(some, ([x, y, width, height]) => Object.freeze({ x: x!, y: y!, width: width!, height: height! })),
  );
  const points = marks.map((some) => named(some, ([x, y]) => Object.freeze({ x: x!, y: y! })));
  const cells: Cell[] = [];
  for (const { of, at, hasOwnPivot, marks: own, pieces } of given) {
    const [x, y, width, height, offsetX, offsetY, frameWidth, frameHeight, pivotX, pivotY] = at as number[];
    const sheet = sheets[of[0]]!.name;
    cells.push(
      Object.freeze({
        x: x!,
        y: y!,
        width: width!,
        height: height!,
        sheet,
        image: images[of[1]]!,
        index: of[2],
        name: `${sheet}-${of[2]}`,
        offsetX: offsetX!,
        offsetY: offsetY!,
        frameWidth: frameWidth!,
        frameHeight: frameHeight!,
        pivotX: pivotX!,
        pivotY: pivotY!,
        hasOwnPivot,
        boxes: boxes[own[0]]!,
        points: points[own[1]]!,
        pieces:
          pieces &&
          Object.freeze(
            pieces.map(([cell, left, top, flip]) => ({
              cell: cells[cell]!,
              x: left,
              y: top,
              flipX: (flip & 1) !== 0,
              flipY: (flip & 2) !== 0,
            })),
          ),
      }),
    );
  }
  return cells;
}

const named = <T>(
  marks: Readonly<Record<string, readonly number[]>>,
  of: (numbers: readonly number[]) => T,
): Readonly<Record<string, T>> =>
  Object.freeze(Object.fromEntries(Object.entries(marks).map(([name, one]) => [name, of(one)])));

function readSegments(given: CompiledSegments, clip: Clip): Segments {
  const { frames, loopFrom, quiet, lists } = given;
  const ends = asDoubles(given.ends);
  const nothing = frames.map((): readonly number[] => []);
  const flags = (on: readonly number[]): boolean[] => frames.map((_, i) => on.includes(i));
  const listed = Object.fromEntries(segmentLists.map((field) => [field, lists[field] ?? nothing]));
  const { cues } = listed as unknown as Segments;
  const silent = quiet.map((next) => (next >= 0 && cues[next]!.length === 0 ? next : -1));
  return {
    clip,
    poses: {},
    frames,
    ends,
    length: ends[ends.length - 1]!,
    loops: loopFrom >= 0,
    loopFrom: Math.max(0, loopFrom),
    loopStart: loopFrom > 0 ? ends[loopFrom - 1]! : 0,
    ...(listed as unknown as Pick<Segments, (typeof segmentLists)[number]>),
    leavesAt: flags(given.leavesAt),
    leavesAfter: flags(given.leavesAfter),
    quiet,
    silent,
    ahead: asDoubles(given.ahead.map((one) => (one < 0 ? Infinity : one))),
    isSilent: silent.every((next) => next >= 0),
  };
}

/** Fields that are not there are made, so that all states have the same in the same order. */
function readState(
  given: CompiledState,
  condition: (given: CompiledCondition) => Condition,
  timelines: readonly Timeline[],
  turning: (one: CompiledTurning | null) => Turning | undefined,
): State {
  const carry: State['carry'][number][] = [];
  for (const [from, rule] of given.carry) carry[from] = rule;
  const bridges: State['bridges'][number][] = [];
  for (const [from, slots] of given.bridges) bridges[from] = slots.map((one) => (one < 0 ? undefined : one));
  return {
    ...{ rank: given.priority, groups: [], isGroupRest: false },
    ...given,
    path: [],
    flipbooks: given.flipbooks.map((flipbook) => flipbook.map((number) => timelines[number]!)),
    bridges,
    carry,
    facesBy: turning(given.facesBy),
    slots: given.slots.map(([first, ...axes]) => ({
      first,
      axes: axes.map(([step, how, ...conditions]) => ({
        step,
        isRising: how === 1,
        pick: how === 2 ? given.variety!.index : -1,
        conditions: conditions.map(condition),
      })),
    })),
    tagBits: Int32Array.from(given.tagBits),
    yields: given.yields.map(({ to, if: test }) => ({ to: to === null ? undefined : new Set(to), if: test })),
    turns: given.turns ?? undefined,
    rate: given.rate ?? undefined,
    scrub: given.scrub ?? undefined,
    lasts: given.lasts ?? undefined,
    keeps: given.keeps ?? undefined,
  };
}
