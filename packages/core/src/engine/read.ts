import { pickDirection, safeRadius } from '../compass/circle.js';
import type { State } from '../controller/state.js';
import { Row } from '../controller/layout.js';
import type { Turning } from '../controller/turning.js';
import { holds } from '../signal/condition.js';
import { placeOf, programValue, runProgram } from '../signal/program.js';
import type { Program } from '../signal/program.js';
import { applyRegion, isSame, regionOf } from '../signal/regions.js';
import type { ComputedTerm } from '../signal/tables.js';
import { setTimer } from './write-signals.js';
import type { Situation } from '../controller/situations.js';
import {
  Attention,
  findSituation,
  setTargetDirection,
  stateOf,
  trackRowAt,
  targetDirectionOf,
} from './rows.js';
import type { Rows } from './rows.js';

// Reads the signals of a row: they become words of bits, and the compass points somewhere. For each number the interval is found in
// which nothing would change.

/** The vector that is read: V8 would box doubles that are handed from function to function. */
const vector = new Float64Array(2);

/** Half the side of the square around it in which the compass stays. */
const still = new Float64Array(1);

/** Runs a program over the signals and the words of a row. */
export function evaluate({ doubles, ints, values, words }: Rows, at: number, program: Program): void {
  runProgram(program, doubles, at + values, ints, 2 * at + words);
}

/** The longest length, in milliseconds: an hour. */
const longest = 3_600_000;

/** Reads a length, in whole microseconds. */
export function lengthOf(rows: Rows, at: number, program: Program): number {
  evaluate(rows, at, program);
  return Math.round(Math.max(0, Math.min(longest, programValue[0]!)) * 1000);
}

/**
 * Finds the situation, and where the compass points, from the present signals and the states that show.
 *
 * @param before the situation that was read last
 * @returns the present situation
 */
export function readSignals(rows: Rows, at: number, before: Situation): Situation {
  const { ints, wordCount, trackRowSize, isTurningRead, computedBits, computed } = rows;
  const row = 2 * at;
  const words = row + rows.words;
  const set = row + rows.set;
  const first = at + Row.trackRows;
  const end = at + rows.trackRowsEnd;
  for (let i = 0; i < wordCount; i++)
    ints[words + i] = (ints[words + i]! & computedBits[i]!) | ints[set + i]!;
  let isReading = false;
  for (let trackRow = first; trackRow < end; trackRow += trackRowSize) {
    const state = stateOf(rows, trackRow);
    if (state.isAskedFor) for (let i = 0; i < wordCount; i++) ints[words + i]! |= state.tagBits[i]!;
    if (state.reads.length > 0) isReading = true;
    if (isTurningRead) openCompass(rows, at, state);
  }
  const attention = ints[row + Row.attention]!;
  ints[row + Row.attention] = attention & ~(Attention.decide | Attention.read);
  if ((attention & Attention.read) !== 0 || isTurningRead) readNumbers(rows, at);
  if (isReading)
    for (let trackRow = first; trackRow < end; trackRow += trackRowSize)
      openReads(rows, at, stateOf(rows, trackRow));
  for (const term of computed) compute(rows, at, term);
  const isSame = before.first === ints[words] && (wordCount === 1 || before.isOf(ints, words));
  const after = isSame ? before : findSituation(rows, at, before);
  if (isTurningRead)
    for (let trackRow = first; trackRow < end; trackRow += trackRowSize)
      readCompass(rows, at, trackRow, stateOf(rows, trackRow));
  return after;
}

/**
 * Whether the signals or the states that show differ from what was decided last: tags of a state that was entered, or pulses that were
 * used.
 */
export function differs(rows: Rows, at: number): boolean {
  const { ints, set, words, wordCount, trackRowSize, computedBits } = rows;
  const row = 2 * at;
  const end = at + rows.trackRowsEnd;
  for (let i = 0; i < wordCount; i++) {
    let bits = ints[row + set + i]!;
    for (let trackRow = at + Row.trackRows; trackRow < end; trackRow += trackRowSize)
      bits |= stateOf(rows, trackRow).tagBits[i]!;
    if (((bits ^ ints[row + words + i]!) & ~computedBits[i]!) !== 0) return true;
  }
  return false;
}

/** Reads the numbers that have left their intervals, and finds the intervals in which they are. */
function readNumbers(rows: Rows, at: number): void {
  const { doubles, ints, values, trackRowsEnd, trackRowSize, regions } = rows;
  const first = at + Row.trackRows;
  const words = 2 * at + rows.words;
  for (let slot = 0; slot < regions.length; slot++) {
    const place = at + values + placeOf(slot);
    const value = doubles[place]!;
    if (value >= doubles[place + 1]! && value < doubles[place + 2]!) continue;
    const of = regions[slot]!;
    const region = regionOf(of, value);
    applyRegion(of, region, ints, words);
    const target = of.targetDirections[region]!;
    if (target >= 0)
      for (let trackRow = first; trackRow < at + trackRowsEnd; trackRow += trackRowSize)
        setTargetDirection(rows, trackRow, target);
    // Of a number that is read otherwise than by thresholds every change counts: its interval is empty.
    if (of.joint) {
      doubles[place + 1] = Infinity;
      continue;
    }
    // Else it reaches as far as nothing would change.
    const now = targetDirectionOf(rows, first);
    let from = region;
    let to = region;
    while (from > 0 && isSame(of, from - 1, ints, words, now)) from--;
    while (to + 2 < of.bounds.length && isSame(of, to + 1, ints, words, now)) to++;
    doubles[place + 1] = Math.max(of.bounds[from]!, -Number.MAX_VALUE);
    doubles[place + 2] = of.bounds[to + 1]!;
  }
}

/** Makes every change count of the numbers that the state which shows reads itself. */
function openReads({ doubles, values }: Rows, at: number, { reads }: State): void {
  for (const slot of reads) doubles[at + values + placeOf(slot) + 1] = Infinity;
}

/**
 * Makes the intervals of the vector be found again. What the compass left of them belongs to the place where it was read last.
 */
function openCompass({ doubles, values, turning: own }: Rows, at: number, { facesBy }: State): void {
  const turning = facesBy ?? own;
  if (turning === undefined) return;
  if (turning.xPlace >= 0) doubles[at + values + turning.xPlace + 1] = Infinity;
  if (turning.yPlace >= 0) doubles[at + values + turning.yPlace + 1] = Infinity;
}

/** Finds the direction to which the vector of a state points, for a track row. */
export function readCompass(rows: Rows, at: number, trackRow: number, { facesBy }: State): void {
  const turning = facesBy ?? rows.turning;
  if (turning === undefined) return;
  readVector(rows, at, turning);
  const target = targetDirectionOf(rows, trackRow);
  const { compass, xPlace, yPlace } = turning;
  const direction = pickDirection(compass, vector, target);
  if (direction !== target) setTargetDirection(rows, trackRow, direction);
  // Within a square around the vector the compass stays as it is, and its parts need not be read.
  safeRadius(compass, vector, direction, still);
  const values = at + rows.values;
  if (xPlace >= 0) narrow(rows, values + xPlace);
  if (yPlace >= 0) narrow(rows, values + yPlace);
}

/** Narrows the interval of a number to the square in which the compass stays. */
function narrow({ doubles }: Rows, place: number): void {
  const value = doubles[place]!;
  doubles[place + 1] = Math.max(doubles[place + 1]!, value - still[0]!);
  doubles[place + 2] = Math.min(doubles[place + 2]!, value + still[0]!);
}

/** Puts the vector of a compass, right and down positive, where it is read. */
function readVector(rows: Rows, at: number, { x, y, xPlace, yPlace, compass }: Turning): void {
  const { doubles } = rows;
  const values = at + rows.values;
  // Each is put there by itself: of two kinds of source one would be boxed.
  if (xPlace >= 0) vector[0] = doubles[values + xPlace]!;
  else {
    evaluate(rows, at, x);
    vector[0] = programValue[0]!;
  }
  if (yPlace >= 0) vector[1] = doubles[values + yPlace]!;
  else {
    evaluate(rows, at, y);
    vector[1] = programValue[0]!;
  }
  if (compass.isUpward) vector[1] = -vector[1];
}

/** The vector that turns a track row now, right and down positive. `[0, 0]` if the character never turns. */
export function vectorOf(rows: Rows, at: number, track: number): [number, number] {
  const turning = stateOf(rows, trackRowAt(rows, at, track)).facesBy ?? rows.controller.turning;
  if (turning === undefined) return [0, 0];
  readVector(rows, at, turning);
  return [vector[0]!, vector[1]!];
}

function compute(rows: Rows, at: number, term: ComputedTerm): void {
  const { doubles, ints, timers } = rows;
  const { word, bit } = term;
  const words = 2 * at + rows.words;
  const place = words + word;
  if (term.kind !== 'lasting') {
    evaluate(rows, at, term.program);
    const value = programValue[0]!;
    if (term.kind === 'joint' ? value !== 0 : value > term.above) ints[place]! |= bit;
    else if (term.kind === 'joint' || value < term.below) ints[place]! &= ~bit;
    return;
  }
  const on = (ints[place]! & bit) !== 0;
  const wanted = holds(term.condition, ints, words);
  const timer = at + timers + term.timer;
  if (wanted === on) {
    doubles[timer] = Infinity;
    return;
  }
  if (doubles[timer] === Infinity) {
    const { length, settle, linger } = term;
    const ahead = wanted ? settle : linger;
    setTimer(rows, at, term.timer, length === undefined || ahead === 0 ? ahead : lengthOf(rows, at, length));
  }
  if (doubles[timer]! > doubles[at + Row.now]!) return;
  doubles[timer] = Infinity;
  if (wanted) ints[place]! |= bit;
  else ints[place]! &= ~bit;
}
