import { signalNamed } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import { Row, Strand } from '../controller/layout.js';
import type { Names, Settable } from '../controller/names.js';
import { Reports } from '../controller/reports.js';
import { findFirstStates } from '../engine/begin.js';
import { hearFlag, hearPulse, leaveInterval } from '../engine/hear.js';
import { catchUp, poseOf, segmentNow } from '../engine/inspect.js';
import { pass, until } from '../engine/pass.js';
import { Attention, Rows, timelineOf } from '../engine/rows.js';
import type { Crowd } from '../engine/rows.js';
import { Performer } from '../performer/performer.js';
import { lengthOfStep } from '../performer/steps.js';
import { wrongKind } from '../performer/wrong-kind.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { Drawings } from './drawings.js';
import type { DrawnMembers } from './drawings.js';
import { copyTroupe, pasteTroupe } from './saved.js';
import type { SavedTroupe } from './saved.js';
import { IntList, Wheel } from './wheel.js';

/** How many members share a block of rows, as a power of two. A block is never moved. */
const blockBits = 10;
const blockSize = 1 << blockBits;

/** The most members of a troupe. */
const mostMembers = 1 << 23;

/** Members from one index up to, but without, another. */
export interface MemberRange {
  readonly from: number;
  readonly to: number;
}

/**
 * Many characters of one controller that pass their time together. Each does exactly what a {@link Performer} would, but a step looks
 * only at those who were told something and those for whom something is due: whoever sleeps costs nothing.
 *
 * Members are named by their index, from 0. The index of one that was removed is given to the next that is added.
 *
 * ```ts
 * const troupe = new Troupe(controller, 20_000);
 * troupe.set(7, 'speed', 60);
 * troupe.step(1000 / 60);
 * for (let i = 0; i < troupe.reports.count; i++) console.log(troupe.reports.memberAt(i), troupe.reports.name(i));
 * ```
 */
export class Troupe<N extends Names = Names> {
  readonly controller: Controller<N>;
  /** The cues, switches, turns and changes of gait of the latest step, of all members; `memberAt(i)` says whose each is. */
  readonly reports: Reports<N['reports']>;
  private readonly blocks: Rows[] = [];
  private readonly size: number;
  private readonly crowd: TroupeCrowd;
  private readonly free = new IntList();
  private isMember = new Uint8Array(0);
  private count = 0;
  /** One past the highest index that was ever given. */
  private end = 0;
  private drawn: Drawings | undefined;
  private readonly performers = new Map<number, Performer<N>>();

  /**
   * @param controller what all members play
   * @param count how many members it begins with, 0 to 8,388,608
   * @throws {DotHopError} for a count that is none
   */
  constructor(controller: Controller<N>, count = 0) {
    this.controller = controller;
    this.size = controller.layout.size;
    this.reports = new Reports(controller.reportNames);
    this.crowd = new TroupeCrowd(this.blocks, this.size);
    if (!(Number.isInteger(count) && count >= 0 && count <= mostMembers))
      throw callError('troupe-count', { received: count, most: mostMembers });
    for (let i = 0; i < count; i++) this.add();
  }

  /** How many members there are. */
  get members(): number {
    return this.count;
  }

  /** One past the highest index of a member: how long the caller's arrays have to be. */
  get length(): number {
    return this.end;
  }

  /** Milliseconds since the troupe began. */
  get time(): number {
    return this.crowd.clock[0]! / 1000;
  }

  /** Whether there is a member with this index. */
  has(index: number): boolean {
    return this.isMember[index] === 1;
  }

  /**
   * Adds a member, which begins at the present instant.
   *
   * @param first first values of signals that differ from the document's
   * @returns its index
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind, and when there are too many
   */
  add(first?: Partial<N['values']>): number {
    const index = this.free.length > 0 ? this.free.items[--this.free.length]! : this.end;
    if (index >= mostMembers) throw callError('troupe-count', { received: index + 1, most: mostMembers });
    if (index >> blockBits === this.blocks.length) this.addBlock();
    const rows = this.blocks[index >> blockBits]!;
    const at = (index & (blockSize - 1)) * this.size;
    rows.clear(at);
    const { doubles, ints } = rows;
    const now = this.crowd.clock[0]!;
    ints[2 * at + Row.attention]! |= Attention.member;
    doubles[at + Row.now] = doubles[at + Row.due] = now;
    for (let strand = at + Row.strands; strand < at + rows.strandsEnd; strand += rows.strandSize)
      doubles[strand + Strand.marked] = doubles[strand + Strand.entered] = now;
    this.isMember[index] = 1;
    this.end = Math.max(this.end, index + 1);
    this.count++;
    try {
      for (const [name, value] of Object.entries(first ?? {})) this.set(index, name, value as never);
    } finally {
      findFirstStates(rows, at);
      this.crowd.told.push(index);
    }
    return index;
  }

  /**
   * Takes a member out. Its index is free then, and any performer of it must not be used any more.
   *
   * @throws {DotHopError} when there is none with this index
   */
  remove(index: number): void {
    this.check(index);
    this.isMember[index] = 0;
    this.count--;
    this.crowd.wheel.remove(index);
    this.performers.delete(index);
    this.free.push(index);
  }

  /**
   * Sets a signal of one member, or the same value for a range of members. It counts from the next step on.
   *
   * @param which an index, or `{ from, to }`; of a range those that were removed are passed over
   * @param signal its name, or its handle from `controller.signal(name)`, which is faster
   * @throws {DotHopError} as `Performer.set` does, and for an index that is no member's
   */
  set<S extends (keyof N['values'] & string) | Signal>(
    which: number | MemberRange,
    signal: S,
    value: Settable<S, N['values']>,
  ): void {
    const one = this.signal(signal);
    if (typeof which === 'number') {
      this.check(which);
      this.setOne(which, one, value as SignalValue);
    } else this.each(which, (index) => this.setOne(index, one, value as SignalValue));
  }

  /**
   * Sets a number of many members at once, each to its own value: the fastest way to tell a crowd something.
   *
   * @param signal a number, by name or handle
   * @param values a value for each member from `from` on; `NaN` where nothing is to be set
   * @throws {DotHopError} for a signal of another kind, and for values that reach past the last index or are not finite
   */
  setEach(signal: (keyof N['values'] & string) | Signal<number>, values: ArrayLike<number>, from = 0): void {
    const one = this.signal(signal);
    if (one.kind !== 'number') throw wrongKind(one, values);
    const { length } = values;
    if (!(Number.isInteger(from) && from >= 0 && from + length <= this.end))
      throw callError('member-range', { from, to: from + length, end: this.end });
    const { isMember, blocks, size } = this;
    const { place } = one;
    for (let i = 0; i < length; i++) {
      const value = values[i]!;
      // NaN is no value to be set.
      if (value !== value || isMember[from + i] !== 1) continue;
      const { doubles } = blocks[(from + i) >> blockBits]!;
      const at = ((from + i) & (blockSize - 1)) * size + place;
      if (value >= doubles[at + 1]! && value < doubles[at + 2]!) doubles[at] = value;
      else this.setNumber(from + i, one, place, value);
    }
  }

  /**
   * Makes a pulse happen to one member, or to a range of them.
   *
   * @throws {DotHopError} as `Performer.pulse` does, and for an index that is no member's
   */
  pulse(which: number | MemberRange, signal: N['pulses'] | Signal<never>): void {
    const one = this.signal(signal);
    if (one.kind !== 'pulse') throw wrongKind(one, 'a pulse');
    if (typeof which === 'number') {
      this.check(which);
      hearPulse(this.rowsOf(which), this.placeOf(which), one);
    } else this.each(which, (index) => hearPulse(this.rowsOf(index), this.placeOf(index), one));
  }

  /**
   * Lets time pass for all members.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns how many reports there are
   * @throws {DotHopError} for a time out of range. When a member's states lead to one another without taking time, all others are
   *   stepped before that is told
   */
  step(ms: number): number {
    const time = lengthOfStep(ms);
    const { crowd } = this;
    this.reports.clear();
    until[0] = crowd.clock[0]! + time;
    crowd.until[0] = until[0];
    crowd.passTold();
    crowd.wheel.pass(crowd.until, crowd);
    crowd.clock[0] = crowd.until[0];
    const { failed } = crowd;
    crowd.failed = undefined;
    if (failed !== undefined) throw failed;
    return this.reports.count;
  }

  /** The images that {@link draw} names by number. */
  get images(): readonly string[] {
    return this.drawings.images;
  }

  /**
   * Writes what members show now into arrays, for drawing without an object for each. Of a character in several parts or clothes it is the
   * drawing of the body; `pose(index)` has the others.
   *
   * @param out is given the numbers of the member `from + i` at place `i`
   * @returns how many places were written
   * @throws {DotHopError} for a range past the last index
   */
  draw(out: DrawnMembers, from = 0, to = this.end): number {
    if (!(from >= 0 && from <= to && to <= this.end))
      throw callError('member-range', { from, to, end: this.end });
    const { drawings, isMember, blocks, size } = this;
    const { cell, image, mirrored } = out;
    for (let index = from; index < to; index++) {
      const i = index - from;
      if (isMember[index] !== 1) {
        cell[i] = -1;
        continue;
      }
      const rows = blocks[index >> blockBits]!;
      const at = (index & (blockSize - 1)) * size;
      catchUp(rows, at);
      const strand = at + Row.strands;
      const numbers = drawings.of(timelineOf(rows, strand));
      const place = 3 * segmentNow(rows, at, strand);
      cell[i] = numbers[place]!;
      image[i] = numbers[place + 1]!;
      mirrored[i] = numbers[place + 2]!;
    }
    return to - from;
  }

  /** What a member shows now, bare. @throws {DotHopError} when there is none with this index */
  pose(index: number): Pose {
    this.check(index);
    const [rows, at] = [this.rowsOf(index), this.placeOf(index)];
    catchUp(rows, at);
    return poseOf(rows, at);
  }

  /**
   * A member as a performer: to be read, told, asked for states and asked why. It is stepped with all others; the same object each time.
   *
   * @throws {DotHopError} when there is none with this index
   */
  member(index: number): Performer<N> {
    this.check(index);
    let performer = this.performers.get(index);
    if (performer === undefined) {
      performer = new Performer(this.controller, {}, { rows: this.rowsOf(index), at: this.placeOf(index) });
      this.performers.set(index, performer);
    }
    return performer;
  }

  /**
   * Copies where all members stand. Nothing is allocated where a copy of this troupe is handed over that has room for it.
   *
   * @param into a copy that is not needed any more
   */
  save(into?: SavedTroupe): SavedTroupe {
    const { blocks, isMember, end, count, free, crowd, controller } = this;
    return copyTroupe(
      { owner: controller.tables.owner, blocks, isMember, end, count, free, clock: crowd.clock },
      into,
    );
  }

  /**
   * Goes back to where a copy was made, of this troupe or of another one of the same controller.
   *
   * @throws {DotHopError} for a copy of another controller; nothing is changed then
   */
  load(saved: SavedTroupe): void {
    if (saved.owner !== this.controller.tables.owner) throw callError('saved-other', {});
    while (this.blocks.length < saved.blocks.length || this.isMember.length < saved.isMember.length)
      this.addBlock();
    const { blocks, isMember, free, crowd } = this;
    pasteTroupe(saved, { blocks, isMember, free, clock: crowd.clock });
    this.end = saved.end;
    this.count = saved.count;
    this.performers.clear();
    this.reports.clear();
    crowd.begin(isMember, this.end);
  }

  private get drawings(): Drawings {
    return (this.drawn ??= new Drawings(this.controller));
  }

  private addBlock(): void {
    const { blocks, controller, crowd, reports } = this;
    const rows = blockOf(controller, blocks.length * blockSize);
    rows.crowd = crowd;
    rows.reports[0] = reports;
    blocks.push(rows);
    if (this.isMember.length >= blocks.length * blockSize) return;
    const isMember = new Uint8Array(Math.max(blockSize, 2 * this.isMember.length));
    isMember.set(this.isMember);
    this.isMember = isMember;
    crowd.wheel.grow(isMember.length);
  }

  private rowsOf(index: number): Rows {
    return this.blocks[index >> blockBits]!;
  }

  private placeOf(index: number): number {
    return (index & (blockSize - 1)) * this.size;
  }

  private check(index: number): void {
    if (this.isMember[index] !== 1) throw callError('member-unknown', { index, end: this.end });
  }

  private each({ from, to }: MemberRange, visit: (index: number) => void): void {
    if (!(Number.isInteger(from) && Number.isInteger(to) && from >= 0 && from <= to && to <= this.end))
      throw callError('member-range', { from, to, end: this.end });
    for (let index = from; index < to; index++) if (this.isMember[index] === 1) visit(index);
  }

  private signal(signal: string | Signal): Signal {
    const { tables } = this.controller;
    if (typeof signal === 'string') return tables.signals.get(signal) ?? signalNamed(tables, signal);
    const one = signal as Signal | undefined | null;
    if (one?.owner !== tables.owner) throw callError('signal-handle', { received: one?.name ?? signal });
    return one;
  }

  private setOne(index: number, signal: Signal, value: SignalValue): void {
    const { kind, place, options } = signal;
    if (kind === 'number' && typeof value === 'number') this.setNumber(index, signal, place, value);
    else if (kind === 'flag' && typeof value === 'boolean')
      hearFlag(this.rowsOf(index), this.placeOf(index), signal, value);
    else if (kind === 'vector' && Array.isArray(value) && value.length === 2) {
      const [x, y] = value as [number, number];
      if (!Number.isFinite(x) || !Number.isFinite(y)) throw wrongKind(signal, value);
      this.setNumber(index, signal, place, x);
      this.setNumber(index, signal, place + placeOf(1), y);
    } else if (kind === 'choice' && typeof value === 'string') {
      const option = options.indexOf(value);
      if (option < 0) throw callError('choice-unknown', { choice: signal.name, name: value, known: options });
      this.setNumber(index, signal, place, option);
    } else throw wrongKind(signal, value);
  }

  private setNumber(index: number, signal: Signal, place: number, value: number): void {
    const rows = this.rowsOf(index);
    const at = this.placeOf(index);
    const { doubles } = rows;
    const slot = at + place;
    if (value >= doubles[slot + 1]! && value < doubles[slot + 2]!) {
      doubles[slot] = value;
      return;
    }
    if (!Number.isFinite(value)) throw wrongKind(signal, value);
    if (doubles[slot] === value) return;
    doubles[slot] = value;
    leaveInterval(rows, at);
  }
}

/** @throws {DotHopError} when there is no more memory; nothing is changed then */
function blockOf(controller: Controller, firstIndex: number): Rows {
  try {
    return new Rows(controller, blockSize, firstIndex);
  } catch (error) {
    if (error instanceof RangeError) throw callError('troupe-memory', { members: firstIndex });
    throw error;
  }
}

/** What the rows of a troupe have in common: the time, who was told something, and who is due when. */
class TroupeCrowd implements Crowd {
  readonly clock = new Float64Array(1);
  /** Up to when the present step goes. */
  readonly until = new Float64Array(1);
  readonly wheel = new Wheel();
  /** The members that were told something since the last step. */
  readonly told = new IntList();
  /** What went wrong first in the present step. */
  failed: Error | undefined = undefined;

  constructor(
    private readonly blocks: readonly Rows[],
    private readonly size: number,
  ) {}

  tell(index: number): void {
    this.told.push(index);
  }

  file(index: number): void {
    const { doubles } = this.blocks[index >> blockBits]!;
    this.wheel.file(index, doubles, (index & (blockSize - 1)) * this.size + Row.due);
  }

  /** Has those pass the step first that were told something. */
  passTold(): void {
    const { told } = this;
    for (let i = 0; i < told.length; i++) this.visit(told.items[i]!);
    told.length = 0;
  }

  isDue(index: number): boolean {
    const { doubles } = this.blocks[index >> blockBits]!;
    return doubles[(index & (blockSize - 1)) * this.size + Row.due]! <= this.until[0]!;
  }

  visit(index: number): void {
    const rows = this.blocks[index >> blockBits]!;
    const at = (index & (blockSize - 1)) * this.size;
    until[0] = this.until[0]!;
    try {
      pass(rows, at);
    } catch (error) {
      // It goes on from here, once its signals break the circle.
      this.failed ??= error as Error;
      rows.doubles[at + Row.now] = this.until[0]!;
      rows.doubles[at + Row.due] = this.until[0]! + 1;
    }
    this.wheel.file(index, rows.doubles, at + Row.due);
  }

  /** Files everybody anew. */
  begin(isMember: Uint8Array, end: number): void {
    this.wheel.clear(this.clock[0]!);
    this.told.length = 0;
    for (let index = 0; index < end; index++) {
      if (isMember[index] !== 1) continue;
      const { ints } = this.blocks[index >> blockBits]!;
      const attention = ints[2 * (index & (blockSize - 1)) * this.size + Row.attention]!;
      if ((attention & Attention.decide) !== 0) this.told.push(index);
      else this.file(index);
    }
  }
}
