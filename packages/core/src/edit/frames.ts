import { cellNumbers, readFrameRange, writeCells } from '../clip/cells.js';
import type { ClipDefinition } from '../clip/definition.js';
import type { ControllerDefinition } from '../controller/definition.js';
import type { MarksDefinition } from '../sheet/definition.js';
import type { Change } from './change.js';

/** The number of cells and columns of a sheet. */
export interface SheetSize {
  /** Cells in a row. */
  readonly columns: number;
  readonly count: number;
}

/** One frame of a clip with its cell, time, cues and marks. */
export interface Frame {
  readonly cell: number;
  /** In milliseconds. */
  readonly ms: number;
  readonly cues: readonly string[];
  /** The spans that it is part of. */
  readonly spans: readonly string[];
  readonly marks: MarksDefinition | undefined;
}

/** How long a frame counts where its clip does not say, in milliseconds. */
const usualMs = 100;

/** Lists the frames of a clip of a document; `undefined` if its cells cannot be read. */
export function framesOf(clip: ClipDefinition, { columns, count }: SheetSize): Frame[] | undefined {
  const cells = cellNumbers(clip.cells, columns, count);
  if (cells === undefined) return undefined;
  const shares = cells.map((_, i) => clip.hold?.[i] ?? 1);
  const whole = shares.reduce((sum, share) => sum + share, 0);
  const { fps, ms, lasts, cues = {}, spans = {}, perFrame = {} } = clip;
  const each = (i: number): number => {
    if (fps !== undefined) return (1000 / fps) * shares[i]!;
    if (lasts !== undefined) return (lasts * shares[i]!) / whole;
    return (typeof ms === 'number' ? ms : (ms?.[i] ?? usualMs)) * shares[i]!;
  };
  const ranges = Object.entries(spans).flatMap(([name, range]) => {
    const read = readFrameRange(range);
    return read === undefined ? [] : [{ name, ...read }];
  });
  return cells.map((cell, i) => ({
    cell,
    ms: each(i),
    cues: Object.entries(cues).flatMap(([name, at]) => ([at].flat().includes(i) ? [name] : [])),
    spans: ranges.filter(({ first, last }) => i >= first && i <= last).map(({ name }) => name),
    marks: perFrame[i],
  }));
}

/**
 * What makes a clip of a document show other frames: only the fields that change, each in the shortest form.
 *
 * @param name the clip
 */
export function frameChanges(
  { clips }: ControllerDefinition,
  name: string,
  frames: readonly Frame[],
  size: SheetSize,
): Change[] {
  const clip = clips[name]!;
  const before = framesOf(clip, size) ?? [];
  const changes: Change[] = [];
  const put = (field: keyof ClipDefinition, value: unknown): void => {
    const path = ['clips', name, field];
    if (JSON.stringify(clip[field]) === JSON.stringify(value)) return;
    changes.push(value === undefined ? { op: 'remove', path } : { op: 'set', path, value });
  };
  const cells = frames.map(({ cell }) => cell);
  if (cells.join() !== before.map(({ cell }) => cell).join()) put('cells', writeCells(cells));
  timingChanges(clip, before, frames, put);
  const cues = collected(frames, 'cues', (at) => (at.length === 1 ? at[0]! : at));
  if (
    !isSame(
      cues,
      collected(before, 'cues', (at) => (at.length === 1 ? at[0]! : at)),
    )
  )
    put('cues', cues);
  const spans = collected(frames, 'spans', rangeText);
  if (!isSame(spans, collected(before, 'spans', rangeText))) put('spans', spans);
  const marks = Object.fromEntries(
    frames.flatMap(({ marks: own }, i) => (own === undefined ? [] : [[i, own]])),
  );
  if (!isSame(marks, clip.perFrame ?? {})) put('perFrame', emptyAsNone(marks));
  return changes;
}

const isSame = (one: unknown, other: unknown): boolean => JSON.stringify(one) === JSON.stringify(other);
const emptyAsNone = <T extends object>(value: T): T | undefined =>
  Object.keys(value).length === 0 ? undefined : value;

/** A span as it is written. One whose frames were parted by others reaches from its first to its last. */
const rangeText = (at: readonly number[]): string | number => {
  const [first, last] = [at[0]!, at[at.length - 1]!];
  return first === last ? first : `${first}-${last}`;
};

/** By name the frames that have it, as they are written; `undefined` for none. */
function collected(
  frames: readonly Frame[],
  field: 'cues' | 'spans',
  written: (at: readonly number[]) => unknown,
): Record<string, unknown> | undefined {
  const found = new Map<string, number[]>();
  frames.forEach((frame, i) => {
    for (const name of frame[field]) found.set(name, [...(found.get(name) ?? []), i]);
  });
  return emptyAsNone(Object.fromEntries([...found].map(([name, at]) => [name, written(at)])));
}

/** Times in the way in which the clip has them, as far as they can be said so; else milliseconds of each frame. */
function timingChanges(
  clip: ClipDefinition,
  before: readonly Frame[],
  frames: readonly Frame[],
  put: (field: keyof ClipDefinition, value: unknown) => void,
): void {
  const times = frames.map(({ ms }) => ms);
  const even = times.every((ms) => Math.abs(ms - times[0]!) < 0.001);
  const stays = times.length > 0 && before.length > 0 && even && Math.abs(before[0]!.ms - times[0]!) < 0.001;
  const wasEven = before.every(({ ms }) => Math.abs(ms - (before[0]?.ms ?? 0)) < 0.001);
  if (
    isSame(
      times,
      before.map(({ ms }) => ms),
    )
  )
    return;
  // Frames came or went, and all still last as long as each other.
  if (stays && wasEven && clip.hold === undefined && clip.lasts === undefined && !Array.isArray(clip.ms))
    return;
  if (clip.fps !== undefined) put('fps', undefined);
  if (clip.lasts !== undefined) put('lasts', undefined);
  if (clip.hold !== undefined) put('hold', undefined);
  const whole = times.map((ms) => Math.max(1, Math.round(ms)));
  put('ms', new Set(whole).size === 1 ? whole[0]! : whole);
}
