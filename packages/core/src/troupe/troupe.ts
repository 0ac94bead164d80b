import type { Controller } from '../controller/controller.js';
import { Row, TrackRow } from '../controller/layout.js';
import type { Names, Settable } from '../controller/names.js';
import { Reports } from '../controller/reports.js';
import { findFirstStates } from '../engine/begin.js';
import { writePulse } from '../engine/write-signals.js';
import { poseOf, segmentNow } from '../engine/inspect.js';
import { Attention, Rows, catchUp, timelineOf } from '../engine/rows.js';
import { giveOwnRow } from '../performer/own-row.js';
import { Performer } from '../performer/performer.js';
import { setNumber, setSignal, signalOf, wrongKind } from '../performer/set-signal.js';
import { lengthOfStep } from '../performer/step-length.js';
import { callError } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { TroupeCrowd, blockBits, blockSize } from './crowd.js';
import { Drawings } from './drawings.js';
import type { DrawnMembers } from './drawings.js';
import { copyTroupe, pasteTroupe } from './saved.js';
import type { SavedTroupe } from './saved.js';
import { useTroupeSentences } from './sentences.js';
import { IntList } from './wheel.js';

useTroupeSentences();

/** The most members of a troupe. */
const mostMembers = 1 << 23;

/** Members from the index `from` up to `to`, without `to` itself. */
export interface MemberRange {
  readonly from: number;
  readonly to: number;
}

/**
 * Many characters of one controller that are stepped together. Each behaves exactly like a {@link Performer}. A step visits
 * only members whose signals were set and members for whom something is due. A member for whom nothing happens costs nothing.
 *
 * A member is named by its index, from 0. The index of a removed member is given to the next member that is added.
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
  /** The cues, switches, turns and changes of flipbook of the latest step, of all members. `memberAt(i)` is the index of the member. */
  readonly reports: Reports<N['reports']>;
  private readonly blocks: Rows[] = [];
  private readonly size: number;
  private readonly crowd: TroupeCrowd;
  private readonly free = new IntList();
  private isMember = new Uint8Array(0);
  private count = 0;
  /** One more than the highest index that was ever given. */
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

  /** The number of members. */
  get members(): number {
    return this.count;
  }

  /** One more than the highest index of a present member: the length that your arrays need. */
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
   * @param first first values of signals, if they differ from the document's
   * @returns its index
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind, and when there are too many members; then nobody is added
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
    for (let trackRow = at + Row.trackRows; trackRow < at + rows.trackRowsEnd; trackRow += rows.trackRowSize)
      doubles[trackRow + TrackRow.positionTime] = doubles[trackRow + TrackRow.entered] = now;
    this.isMember[index] = 1;
    this.end = Math.max(this.end, index + 1);
    this.count++;
    try {
      for (const [name, value] of Object.entries(first ?? {}))
        setSignal(rows, at, this.signal(name), value as SignalValue);
    } catch (error) {
      this.remove(index);
      throw error;
    }
    findFirstStates(rows, at);
    this.crowd.tell(index);
    return index;
  }

  /**
   * Removes a member. Its index is free then. If you hold the member's performer, it goes on alone from where it stands, and you step it
   * yourself. Observers of the member are told nothing more.
   *
   * @throws {DotHopError} when there is no member with this index
   */
  remove(index: number): void {
    this.check(index);
    this.isMember[index] = 0;
    this.count--;
    const performer = this.performers.get(index);
    if (performer !== undefined) giveOwnRow(performer);
    this.performers.delete(index);
    this.crowd.remove(index);
    this.free.push(index);
  }

  /**
   * Sets a signal of one member, or the same value for a range of members. It counts from the next step on.
   *
   * @param which an index, or `{ from, to }`; removed members in a range are skipped
   * @param signal its name, or its handle from `controller.signal(name)`, which is faster
   * @throws {DotHopError} as `Performer.set` does, and for an index without a member
   */
  set<S extends (keyof N['values'] & string) | Signal>(
    which: number | MemberRange,
    signal: S,
    value: Settable<S, N['values']>,
  ): void {
    const one = this.signal(signal);
    this.each(which, (rows, at, index) => {
      if (this.isWatched(rows, at)) this.tellWatched(index, one, value as SignalValue);
      else setSignal(rows, at, one, value as SignalValue);
    });
  }

  /**
   * Sets a number for many members at once, each to its own value. This is the fastest way to set signals of a crowd.
   *
   * @param signal a number, by name or handle
   * @param values one value for each member from `from` on; `NaN` to leave a member as it is
   * @throws {DotHopError} for a signal of another kind, for values past the last index, and for a value that is not finite; the values
   *   before it have been set then
   */
  setEach(signal: (keyof N['values'] & string) | Signal<number>, values: ArrayLike<number>, from = 0): void {
    const one = this.signal(signal);
    if (one.kind !== 'number') throw wrongKind(one, values);
    const { length } = values;
    this.checkRange(from, from + length);
    const { isMember, blocks, size } = this;
    const { place } = one;
    const isAnyWatched = this.crowd.watched.size > 0;
    for (let i = 0; i < length; i++) {
      const value = values[i]!;
      // NaN is no value to be set.
      if (value !== value || isMember[from + i] !== 1) continue;
      const rows = blocks[(from + i) >> blockBits]!;
      const { doubles } = rows;
      const at = ((from + i) & (blockSize - 1)) * size;
      const slot = at + place;
      // Most of a crowd go on as they did.
      if (value === doubles[slot]!) continue;
      if (isAnyWatched && this.isWatched(rows, at)) this.tellWatched(from + i, one, value);
      else if (value >= doubles[slot + 1]! && value < doubles[slot + 2]!) doubles[slot] = value;
      else setNumber(rows, at, one, value);
    }
  }

  /**
   * Makes a pulse happen to one member, or to a range of members.
   *
   * @throws {DotHopError} as `Performer.pulse` does, and for an index without a member
   */
  pulse(which: number | MemberRange, signal: N['pulses'] | Signal<never>): void {
    const one = this.signal(signal);
    if (one.kind !== 'pulse') throw wrongKind(one, 'a pulse');
    this.each(which, (rows, at, index) => {
      if (this.isWatched(rows, at)) this.member(index).pulse(one as Signal<never>);
      else writePulse(rows, at, one);
    });
  }

  /**
   * Lets time pass for all members.
   *
   * @param ms milliseconds, from 0 to an hour; rounded to whole microseconds
   * @returns the number of reports
   * @throws {DotHopError} for a time out of range. If a member's states lead to one another without taking time, all other members are
   *   stepped before the error is thrown
   */
  step(ms: number): number {
    const time = lengthOfStep(ms);
    this.reports.clear();
    this.crowd.step(time);
    return this.reports.count;
  }

  /** The files of the images, by the numbers that {@link draw} writes. */
  get images(): readonly string[] {
    return this.drawings.images;
  }

  /**
   * Writes what members show now into arrays, so that you can draw them without an object for each. If the character is drawn in parts or
   * wears clothes, this is the drawing of the body; `pose(index)` has the others.
   *
   * @param out gets the numbers of the member `from + i` at place `i`
   * @returns how many places were written
   * @throws {DotHopError} for a range past the last index
   */
  draw(out: DrawnMembers, from = 0, to = this.end): number {
    this.checkRange(from, to);
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
      const trackRow = at + Row.trackRows;
      const numbers = drawings.of(timelineOf(rows, trackRow));
      const place = 3 * segmentNow(rows, at, trackRow);
      cell[i] = numbers[place]!;
      image[i] = numbers[place + 1]!;
      mirrored[i] = numbers[place + 2]!;
    }
    return to - from;
  }

  /**
   * What a member shows now, without clothes.
   *
   * @throws {DotHopError} when there is no member with this index
   */
  pose(index: number): Pose {
    this.check(index);
    const [rows, at] = [this.rowsOf(index), this.placeOf(index)];
    catchUp(rows, at);
    return poseOf(rows, at);
  }

  /**
   * A member as a performer: read it, set its signals, ask for states, ask why, observe it. The troupe steps it. It is the same object each
   * time.
   *
   * @throws {DotHopError} when there is no member with this index
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
   * Copies the present moment of all members. Pass an old copy that is large enough, and nothing is allocated.
   *
   * @param into an old copy that you no longer need
   */
  save(into?: SavedTroupe): SavedTroupe {
    const { blocks, isMember, end, count, free, crowd, controller } = this;
    const { clock, watched } = crowd;
    const { owner } = controller.tables;
    return copyTroupe({ owner, blocks, isMember, end, count, free, clock, watched }, into);
  }

  /**
   * Goes back to a copy of this troupe, or of another one of the same controller. Members that are not in the copy are removed.
   *
   * @throws {DotHopError} for a copy of another controller; then nothing changes
   */
  load(saved: SavedTroupe): void {
    if (saved.owner !== this.controller.tables.owner) throw callError('saved-other', {});
    while (this.blocks.length < saved.blocks.length || this.isMember.length < saved.isMember.length)
      this.addBlock();
    const { blocks, isMember, free, crowd, performers } = this;
    for (const [index, performer] of performers) {
      if (saved.isMember[index] === 1) continue;
      giveOwnRow(performer);
      performers.delete(index);
    }
    pasteTroupe(saved, { blocks, isMember, free, clock: crowd.clock });
    this.end = saved.end;
    this.count = saved.count;
    this.reports.clear();
    crowd.begin(isMember, this.end, saved.watched);
  }

  private isWatched(rows: Rows, at: number): boolean {
    return (rows.ints[2 * at + Row.attention]! & Attention.watched) !== 0;
  }

  /** Sets a signal of a member that somebody watches, who may keep it from the member. */
  private tellWatched(index: number, signal: Signal, value: SignalValue): void {
    (this.member(index) as Performer).set(signal.name, value);
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

  /** @throws {DotHopError} for an index that is no member's, and for a range past the last one */
  private each(which: number | MemberRange, visit: (rows: Rows, at: number, index: number) => void): void {
    if (typeof which === 'number') {
      this.check(which);
      visit(this.rowsOf(which), this.placeOf(which), which);
      return;
    }
    const { from, to } = which;
    this.checkRange(from, to);
    for (let index = from; index < to; index++)
      if (this.isMember[index] === 1) visit(this.rowsOf(index), this.placeOf(index), index);
  }

  private checkRange(from: number, to: number): void {
    if (!(Number.isInteger(from) && Number.isInteger(to) && from >= 0 && from <= to && to <= this.end))
      throw callError('member-range', { from, to, end: this.end });
  }

  private signal(signal: unknown): Signal {
    return signalOf(this.controller.tables, signal);
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
