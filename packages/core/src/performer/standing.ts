import type { State } from '../controller/controller.js';
import type { Names } from '../controller/names.js';
import { Place } from '../controller/numbers.js';
import { Rule } from '../controller/rule.js';
import { Units } from '../controller/timeline.js';
import type { Words } from '../signal/condition.js';
import { placeOf } from '../signal/program.js';
import { Wait } from './listener.js';
import { tellMoved, unobserved } from './observing.js';
import { Mark, Moment, passing } from './player.js';
import { readSnapshot, writeSnapshot } from './snapshot.js';
import type { PerformerSnapshot, Standstill, Strand } from './snapshot.js';
import { Together } from './together.js';

/** Where a performer begins, and where it stands as data: taken as a snapshot, and put back. */
export abstract class Standing<N extends Names = Names> extends Together<N> {
  /**
   * Puts everything back to where it began: signals, state, time.
   *
   * @param first as for a new performer
   * @throws {DotHopError} for an unknown signal or a value of the wrong kind; it has then begun with the document's
   *   first values
   */
  reset(first: Partial<N['values']> = {}): void {
    const { controller, numbers, base } = this;
    const { tables, states, rest, compass, situations } = controller;
    numbers.set(controller.numbers.first, base);
    this.timeline = states[rest]!.books[0]![compass.start]!;
    this.situation = situations.find(tables.firstFlags, 0, 0);
    this.setFlags = tables.firstFlags;
    this.wait = Wait.stirredNow;
    this.letGo();
    this.segment = this.marks = this.remembered = this.lastUsed = 0;
    this.toward = compass.start;
    this.rate = Units.perMicrosecond;
    this.last = Rule.start;
    try {
      unobserved(this.controller, () => this.begin(first));
    } finally {
      if (this.told?.isWatched === true) tellMoved(this);
    }
  }

  /** Finds the state it begins in. What is true at the very start has not just become true. */
  protected begin(first: Partial<N['values']>): void {
    try {
      for (const [name, value] of Object.entries(first as Record<string, N['values'][string]>))
        (this as Standing).set(name, value);
    } finally {
      this.findFirstState();
    }
  }

  private findFirstState(among?: readonly number[]): void {
    const { states, tracks } = this.controller;
    const isMeant = (track: number): boolean => among?.includes(track) ?? true;
    this.readSignals();
    const { situation } = this;
    for (const { index, rest } of tracks) {
      if (!isMeant(index)) continue;
      this.select(index);
      const best = situation.bestOf(index);
      this.showNow(states[best < 0 ? rest : best]!);
    }
    // Their tags and the numbers they read count from the beginning too.
    this.readSignals();
    for (const { index } of tracks) {
      if (!isMeant(index)) continue;
      this.select(index);
      this.showNow(this.current);
      this.readRate();
      if (this.followsNumber) this.placeByNumber();
    }
    this.select(0);
    this.findTimer();
    this.wait = -1;
  }

  private showNow(state: State): void {
    this.timeline = state.books[this.gait(state)]![this.toward]!;
  }

  /** Where it stands, as plain data. Restoring it and going on equals never having stopped. */
  snapshot(): PerformerSnapshot {
    const { controller, numbers, base } = this;
    const { regions, timers } = controller.tables;
    const still: Standstill = {
      time: this.microseconds,
      setFlags: this.setFlags,
      words: this.situation,
      values: regions.map((_, slot) => numbers[base + placeOf(slot)]!),
      timers: [...numbers.subarray(base + this.timerAt(0), base + this.timerAt(timers))],
      strands: controller.tracks.map(({ index }) => this.strandOf(index)),
      changed: this.wait < 0,
    };
    return writeSnapshot(controller, still, (signal) => this.valueOf(signal));
  }

  private strandOf(track: number): Strand {
    this.select(track);
    const { numbers, base, timeline } = this;
    const since = (this.marks & Mark.ended) === 0 ? this.microseconds - numbers[base + Place.marked]! : 0;
    const strand = {
      state: timeline.state,
      entered: numbers[base + Place.entered]!,
      book: timeline.book,
      direction: timeline.direction,
      toward: this.toward,
      place: numbers[base + Place.position]! + since * this.rate,
      segment: this.segment,
      marks: this.marks & 15,
      remembered: this.remembered,
      goal: this.goal,
      last: this.last & 0x1ffff,
      lastUsed: this.lastUsed,
    };
    this.select(0);
    return strand;
  }

  /**
   * Goes back to where a snapshot was taken, of this performer or of another one of the same document.
   *
   * @throws {DotHopError} when it is no snapshot, or of another version of the document; nothing is changed then
   */
  restore(snapshot: PerformerSnapshot): void {
    this.stand(readSnapshot(this.controller, snapshot, false));
    if (this.told?.isWatched === true) tellMoved(this);
  }

  /**
   * Takes over a snapshot of another version of the document by names: the same state at the same phase, the same
   * signals, pulses and bands, as far as they are there. Where the state is not, it begins as a new performer would.
   *
   * @throws {DotHopError} when it is no snapshot; nothing is changed then
   */
  adopt(snapshot: PerformerSnapshot): void {
    const still = readSnapshot(this.controller, snapshot, true);
    this.stand(still);
    this.readSignals();
    this.standWhereUnknown(still);
    if (this.told?.isWatched === true) tellMoved(this);
  }

  /** Begins anew in the tracks whose state the snapshot names and this document does not have. */
  private standWhereUnknown(still: { readonly unknown: readonly number[] }): void {
    if (still.unknown.length === 0) return;
    for (const track of still.unknown) {
      this.select(track);
      this.segment = 0;
      this.marks &= ~15;
      this.numbers[this.base + Place.position] = 0;
    }
    this.select(0);
    this.findFirstState(still.unknown);
  }

  private stand(still: Standstill): void {
    const { controller, numbers, base } = this;
    numbers.set(controller.numbers.first, base);
    still.values.forEach((value, slot) => (numbers[base + placeOf(slot)] = value));
    still.timers.forEach((instant, timer) => (numbers[base + this.timerAt(timer)] = instant));
    numbers[base + Place.due] = still.time;
    // The numbers are those of the very first, and so is what the other tracks keep: this one must be, too.
    this.timeline = controller.states[controller.rest]!.books[0]![0]!;
    still.strands.forEach((strand, track) => {
      this.select(track);
      this.standIn(strand, still.time);
    });
    this.select(0);
    const { flags, terms, more } = still.words;
    this.situation = controller.situations.find(flags, terms, more);
    this.setFlags = still.setFlags;
    this.wait = Wait.stirredNow;
    this.letGo();
    this.findTimer();
    for (const { index } of controller.tracks) {
      this.select(index);
      this.readRate();
    }
    this.select(0);
    if (still.changed) return;
    // Nothing is waiting to be decided: reading finds the intervals and changes no bit. Where it does, or where what shows
    // would give way, the snapshot was changed by hand: then the next step decides.
    this.readSignals();
    if (!isSameWords(this.situation, still.words) || this.wouldSwitch()) return;
    this.findDue();
    passing[0] = still.time;
    this.waitFrom();
  }

  /** Whether any track would switch at this instant. */
  private wouldSwitch(): boolean {
    let would = false;
    for (const { index } of this.controller.tracks) {
      this.select(index);
      const { last } = this;
      would ||= this.choose(Moment.nothing) >= 0;
      this.last = last;
    }
    this.select(0);
    return would;
  }

  private standIn(strand: Strand, time: number): void {
    const { controller, numbers, base } = this;
    numbers[base + Place.marked] = time;
    numbers[base + Place.entered] = strand.entered;
    numbers[base + Place.position] = strand.place;
    this.timeline = controller.states[strand.state]!.books[strand.book]![strand.direction]!;
    this.segment = strand.segment;
    this.marks = strand.marks;
    this.toward = strand.toward;
    this.remembered = strand.remembered;
    this.last = strand.last;
    this.goal = strand.goal;
    this.lastUsed = strand.lastUsed;
  }
}

const isSameWords = (one: Words, other: Words): boolean =>
  one.flags === other.flags && one.terms === other.terms && one.more === other.more;
