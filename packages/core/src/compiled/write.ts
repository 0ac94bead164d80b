import type { Clip } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { hashOf } from '../controller/hash.js';
import type { Names } from '../controller/names.js';
import type { Timeline } from '../controller/timeline.js';
import type { Turning } from '../controller/turning.js';
import { versionOf } from '../controller/version.js';
import type { Box, Cell, Point, Sheet } from '../sheet/sheet.js';
import type { Condition } from '../signal/condition.js';
import type { SignalTables } from '../signal/tables.js';
import { formatVersion, segmentLists } from './format.js';
import { useCompiledSentences } from './sentences.js';
import type {
  CompiledCell,
  CompiledClip,
  CompiledCondition,
  CompiledDocument,
  CompiledSegments,
  CompiledSheet,
  CompiledSignals,
  CompiledState,
  CompiledTables,
  CompiledTurning,
} from './format.js';

/**
 * Writes a controller as plain data, which a game loads without the compiler: see `loadCompiled` of `dot-hop/play`. It leaves out
 * everything that is not played: the wardrobe, comments, accepted findings, and cells that no clip shows.
 *
 * @returns plain data that JSON can hold; the same data for the same document
 */
export function compiledOf<N extends Names>(controller: Controller<N>): CompiledDocument<N> {
  useCompiledSentences();
  const tables = tablesOf(controller);
  return { dotHopCompiled: formatVersion, sum: hashOf(JSON.stringify(tables)), tables };
}

/** Numbers what is met, in the order in which it is. */
class Numbered<T> {
  readonly list: T[] = [];
  private readonly numbers = new Map<unknown, number>();

  /** @param key what tells it from others, by default itself */
  of(one: T, key: unknown = one): number {
    let number = this.numbers.get(key);
    if (number === undefined) this.numbers.set(key, (number = this.list.push(one) - 1));
    return number;
  }
}

function tablesOf(controller: Controller): CompiledTables {
  const {
    name,
    compass,
    tables,
    conditions,
    conditionTexts,
    tracks,
    cueNames,
    cueVarieties,
    turning,
    turnTimer,
  } = controller;
  const drawings = new Drawings([...controller.sheets.values()]);
  const clips = new Numbered<Clip>();
  for (const clip of controller.clips.values()) clips.of(clip);
  const named = clips.list.length;
  const segments = new Numbered<Timeline>();
  const timelines = controller.timelines.map((timeline) => {
    // Timelines of the same segments share their arrays.
    const number = segments.of(timeline, timeline.ends);
    clips.of(timeline.clip);
    const { stateIndex, direction, flipbook, bridge, poses, isBackwards, reverse } = timeline;
    const marks = (bridge ? 1 : 0) + (poses[0]!.mirrored ? 2 : 0) + (isBackwards ? 4 : 0);
    const row = [stateIndex, direction, flipbook, number, marks] as const;
    return reverse === undefined ? row : ([...row, reverse.number] as const);
  });
  const clipsWritten = clips.list.map((clip) => writeClip(clip, drawings));
  return {
    name,
    version: versionOf(controller),
    compass,
    signals: writeSignals(tables),
    conditions: conditions.map(writeCondition),
    conditionTexts,
    ...drawings.written(),
    clips: clipsWritten,
    named,
    flipbooks: [...controller.flipbooks].map(([name, drawings]) => [
      name,
      drawings.map((drawing) => ({ ...drawing, clip: clips.of(drawing.clip) })),
    ]),
    segments: segments.list.map((one) => writeSegments(one, clips.of(one.clip))),
    timelines,
    states: controller.states.map(writeState),
    tracks,
    cueNames,
    cueVarieties: cueVarieties.map((one) => one ?? null),
    turning: writeTurning(turning),
    turnTimer,
  };
}

/** Sheets, images, cells and their marks. */
class Drawings {
  private readonly images = new Numbered<string>();
  private readonly marks = new Numbered<Record<string, number[]>>();
  private readonly cells: CompiledCell[] = [];
  private readonly numbers = new Map<Cell, number>();
  private readonly used: Set<number>[];

  constructor(private readonly sheets: readonly Sheet[]) {
    this.used = sheets.map(() => new Set<number>());
  }

  /** The number of a cell. Those of its pieces come before it. */
  cell(cell: Cell): number {
    const known = this.numbers.get(cell);
    if (known !== undefined) return known;
    const pieces = cell.pieces?.map(
      (piece) =>
        [this.cell(piece.cell), piece.x, piece.y, (piece.flipX ? 1 : 0) + (piece.flipY ? 2 : 0)] as const,
    );
    const sheet = this.sheets.findIndex(({ name }) => name === cell.sheet);
    const { x, y, width, height, offsetX, offsetY, frameWidth, frameHeight, pivotX, pivotY } = cell;
    const number = this.cells.push({
      of: [sheet, this.images.of(cell.image), cell.index],
      at: [x, y, width, height, offsetX, offsetY, frameWidth, frameHeight, pivotX, pivotY],
      hasOwnPivot: cell.hasOwnPivot,
      marks: [
        this.marksOf(cell.boxes, (box) => [box.x, box.y, box.width, box.height]),
        this.marksOf(cell.points, (point) => [point.x, point.y]),
      ],
      ...(pieces && { pieces }),
    });
    this.numbers.set(cell, number - 1);
    this.used[sheet]!.add(number - 1);
    return number - 1;
  }

  written(): Pick<CompiledTables, 'images' | 'marks' | 'cells' | 'sheets'> {
    const sheets = this.sheets.map(({ parts, ...sheet }, i): CompiledSheet => ({
      ...sheet,
      cells: [...this.used[i]!],
      parts: [...parts.values()],
    }));
    return { images: this.images.list, marks: this.marks.list, cells: this.cells, sheets };
  }

  private marksOf<T extends Box | Point>(
    marks: Readonly<Record<string, T>>,
    numbers: (one: T) => number[],
  ): number {
    const written = Object.fromEntries(Object.entries(marks).map(([name, one]) => [name, numbers(one)]));
    return this.marks.of(written, JSON.stringify(written));
  }
}

function writeClip(clip: Clip, drawings: Drawings): CompiledClip {
  const { frames, spans } = clip;
  return {
    ...without(clip, 'cells'),
    frames: frames.map((cell) => drawings.cell(cell)),
    spans: [...spans].map(([name, { first, last }]) => [name, first, last]),
  };
}

function writeSegments(timeline: Timeline, clip: number): CompiledSegments {
  const { frames, ends, loops, loopFrom, quiet, ahead, leavesAt, leavesAfter } = timeline;
  const lists = segmentLists.flatMap((field) => {
    const list = timeline[field];
    return list.some((one) => one.length > 0) ? [[field, list] as const] : [];
  });
  const where = (list: readonly boolean[]): number[] => list.flatMap((one, i) => (one ? [i] : []));
  return {
    clip,
    frames,
    ends,
    loopFrom: loops ? loopFrom : -1,
    quiet,
    ahead: ahead.map((one) => (one === Infinity ? -1 : one)),
    lists: Object.fromEntries(lists),
    leavesAt: where(leavesAt),
    leavesAfter: where(leavesAfter),
  };
}

function writeState(state: State): CompiledState {
  return {
    ...without(state, 'path', 'rank', 'groups', 'isGroupRest'),
    ...(state.rank !== state.priority && { rank: state.rank }),
    ...(state.groups.length > 0 && { groups: state.groups }),
    ...(state.isGroupRest && { isGroupRest: true }),
    flipbooks: state.flipbooks.map((flipbook) => flipbook.map(({ number }) => number)),
    bridges: state.bridges.flatMap((slots, from) =>
      slots === undefined ? [] : [[from, slots.map((slot) => slot ?? -1)] as const],
    ),
    carry: state.carry.flatMap((rule, from) => (rule === undefined ? [] : [[from, rule] as const])),
    facesBy: writeTurning(state.facesBy),
    slots: state.slots.map(
      ({ first, axes }) =>
        [
          first,
          ...axes.map(
            ({ step, isRising, conditions, pick }) =>
              [step, pick >= 0 ? 2 : isRising ? 1 : 0, ...conditions.map(writeCondition)] as const,
          ),
        ] as const,
    ),
    tagBits: [...state.tagBits],
    yields: state.yields.map(({ to, if: test }) => ({ to: to === undefined ? null : [...to], if: test })),
    turns: state.turns ?? null,
    rate: state.rate ?? null,
    scrub: state.scrub ?? null,
    lasts: state.lasts ?? null,
    keeps: state.keeps ?? null,
  };
}

function writeTurning(turning: Turning | undefined): CompiledTurning | null {
  if (turning === undefined) return null;
  const { compass, ...own } = turning;
  return { ...own, deadZone: compass.deadZone };
}

function writeCondition(condition: Condition): CompiledCondition {
  switch (condition.op) {
    case 'constant':
      return condition.value;
    case 'term':
      return condition.term.index;
    case 'not':
      return [writeCondition(condition.part)];
    default:
      return [
        condition.op === 'and' ? 0 : 1,
        writeCondition(condition.left),
        writeCondition(condition.right),
      ];
  }
}

function writeSignals(tables: SignalTables): CompiledSignals {
  const { signals, derived, bands, tags, words, terms, regions, computed, timers } = tables;
  return {
    words,
    timers,
    signals: [...signals.values()].map((signal) => without(signal, 'owner', 'place')),
    derived: [...derived].map(([name, one]) => [name, 'code' in one ? one : { holds: writeCondition(one) }]),
    bands: [...bands].map(([name, { above, below }]) => [name, above, below]),
    tags: [...tags].map(([name, { word, bit }]) => [name, word, bit]),
    terms: terms.map((term) => without(term, 'index')),
    regions: regions.map((one) => ({ ...one, bounds: one.bounds.slice(1, -1) })),
    computed: computed.map((term) =>
      term.kind === 'lasting' ? { ...term, condition: writeCondition(term.condition) } : term,
    ),
    computedBits: [...tables.computedBits],
    firstBits: [...tables.firstBits],
  };
}

/** An object without some of its fields. */
function without<T extends object, K extends keyof T>(object: T, ...fields: readonly K[]): Omit<T, K> {
  const kept = Object.entries(object).filter(([name]) => !(fields as readonly string[]).includes(name));
  return Object.fromEntries(kept) as Omit<T, K>;
}
