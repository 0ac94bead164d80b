import { pickDirection, stillFor } from '../compass/circle.js';
import type { State } from '../controller/controller.js';
import type { Names } from '../controller/names.js';
import { Place } from '../controller/numbers.js';
import type { Turning } from '../controller/turning.js';
import { holds } from '../signal/condition.js';
import { placeOf, programValue, runProgram } from '../signal/program.js';
import { isSame, regionOf } from '../signal/regions.js';
import type { ComputedTerm } from '../signal/tables.js';
import { Listener, Wait } from './listener.js';

/** The words while they are being computed: one scratch for all, since a reading is never interrupted. */
const reading = { flags: 0, terms: 0, more: 0 };

/** The vector that is being read: a double handed from function to function would be boxed. */
const vector = new Float64Array(2);

/** Half the side of the box around it. */
const still = new Float64Array(1);

/** What is done for the track whose strand is in the fields, or for each of several: see `Strands`. */
export const enum Each {
  openReads = 0,
  openCompass = 1,
  followCompass = 2,
  timeLeast = 3,
  findBorder = 4,
  heed = 5,
  hear = 6,
  gear = 7,
}

/**
 * How a performer understands what it hears: from the signals as they are set, the situation they amount to and where the
 * compass points. Of a number it finds the interval in which nothing would change.
 */
export abstract class Reader<N extends Names = Names> extends Listener<N> {
  /**
   * The vector that turns it now, right and down positive: that of the compass, or of the state that shows. Of a character
   * that never turns `[0, 0]`.
   */
  get vector(): readonly [number, number] {
    const turning = this.current.facesBy ?? this.controller.turning;
    if (turning === undefined) return [0, 0];
    this.readVector(turning);
    return [vector[0]!, vector[1]!];
  }

  /** Has the compass of all tracks point somewhere. */
  private point(direction: number): void {
    this.toward = direction;
    if (this.controller.furtherTracks > 0) this.pointAll();
  }

  /** Has the other tracks point where the one in the fields does. */
  protected abstract pointAll(): void;

  /** Finds the situation, and where the compass points, from the signals as they are set and the state that shows. */
  protected readSignals(): void {
    const { controller, situation } = this;
    const { computed } = controller.tables;
    const { furtherTracks, isTurningRead } = controller;
    const flags = this.setFlags | this.shownBits();
    reading.terms = situation.terms;
    reading.more = situation.more;
    if (isTurningRead) {
      if (furtherTracks === 0) this.openCompass();
      else this.inEach(Each.openCompass);
    }
    if (this.wait < -Wait.stirring || isTurningRead) this.readNumbers();
    if (furtherTracks === 0) this.openReads();
    else this.inEach(Each.openReads);
    if (computed.length > 0) {
      reading.flags = flags;
      for (const term of computed) this.compute(term);
    }
    const { terms, more } = reading;
    if (flags !== situation.flags || terms !== situation.terms || more !== situation.more)
      this.situation = controller.situations.find(flags, terms, more);
    if (!isTurningRead) return;
    if (furtherTracks === 0) this.followCompass();
    else this.inEach(Each.followCompass);
  }

  /** Reads the numbers that have left their intervals, and finds the intervals in which they are. */
  private readNumbers(): void {
    const { numbers, base } = this;
    const { regions } = this.controller.tables;
    let { terms, more } = reading;
    for (let slot = 0; slot < regions.length; slot++) {
      const place = placeOf(slot);
      const value = numbers[base + place]!;
      if (value >= numbers[base + place + 1]! && value < numbers[base + place + 2]!) continue;
      const of = regions[slot]!;
      const region = regionOf(of, value);
      terms = (terms & of.keep[region]!) | of.put[region]!;
      more = (more & of.keepMore[region]!) | of.putMore[region]!;
      if (of.toward[region]! >= 0) this.point(of.toward[region]!);
      // Of a number that is read otherwise than by thresholds every change counts: its interval is empty.
      if (of.joint) {
        numbers[base + place + 1] = Infinity;
        continue;
      }
      // Else it reaches as far as nothing would change.
      let first = region;
      let last = region;
      while (first > 0 && isSame(of, first - 1, terms, more, this.toward)) first--;
      while (last + 2 < of.bounds.length && isSame(of, last + 1, terms, more, this.toward)) last++;
      numbers[base + place + 1] = Math.max(of.bounds[first]!, -Number.MAX_VALUE);
      numbers[base + place + 2] = of.bounds[last + 1]!;
    }
    reading.terms = terms;
    reading.more = more;
  }

  /** The bits of what shows: its tags, and its name where that is asked for. */
  protected shownBits(): number {
    return this.controller.furtherTracks === 0 ? this.current.tagBits : this.bitsOfAll();
  }

  protected abstract bitsOfAll(): number;

  /** Where there are several tracks, does something for each of them. @returns whether any said so */
  protected abstract inEach(what: Each): boolean;

  /** Has every change of the numbers counted that the state which shows reads itself. */
  protected openReads(): void {
    const { reads } = this.current;
    if (reads.length === 0) return;
    for (const slot of reads) this.numbers[this.base + placeOf(slot) + 1] = Infinity;
  }

  /** Has the intervals of the vector found anew: what the compass left of them is for where it was read last. */
  protected openCompass(): void {
    this.widen(this.current);
  }

  protected followCompass(): void {
    this.readCompass(this.current);
  }

  /** Finds where the compass points for the vector that a state faces by. */
  protected readCompass(state: State): void {
    const turning = state.facesBy ?? this.controller.turning;
    if (turning === undefined) return;
    this.readVector(turning);
    const { toward } = this;
    const { compass, xPlace, yPlace } = turning;
    const direction = pickDirection(compass, vector, toward);
    if (direction !== toward) this.toward = direction;
    // Within a box around the vector the compass stays as it is, and its parts need not be read.
    stillFor(compass, vector, direction, still);
    if (xPlace > 0) this.narrow(xPlace);
    if (yPlace > 0) this.narrow(yPlace);
  }

  private widen(state: State): void {
    const turning = state.facesBy ?? this.controller.turning;
    if (turning === undefined) return;
    const { numbers, base } = this;
    if (turning.xPlace > 0) numbers[base + turning.xPlace + 1] = Infinity;
    if (turning.yPlace > 0) numbers[base + turning.yPlace + 1] = Infinity;
  }

  /** Narrows the interval of a number to the box in which the compass stays. */
  private narrow(place: number): void {
    const numbers = this.numbers;
    const at = this.base + place;
    const value = numbers[at]!;
    numbers[at + 1] = Math.max(numbers[at + 1]!, value - still[0]!);
    numbers[at + 2] = Math.min(numbers[at + 2]!, value + still[0]!);
  }

  /** Puts the vector of a compass, right and down positive, where it is read. */
  private readVector(turning: Turning): void {
    const { numbers, base } = this;
    const { xPlace, yPlace, compass } = turning;
    // Each is put there by itself: of two kinds of source one would be boxed.
    if (xPlace > 0) vector[0] = numbers[base + xPlace]!;
    else {
      runProgram(turning.x, numbers, base, this.situation);
      vector[0] = programValue[0]!;
    }
    if (yPlace > 0) vector[1] = numbers[base + yPlace]!;
    else {
      runProgram(turning.y, numbers, base, this.situation);
      vector[1] = programValue[0]!;
    }
    if (compass.isUpward) vector[1] = -vector[1];
  }

  private compute(term: ComputedTerm): void {
    const { numbers, base } = this;
    const { bit } = term;
    const word = term.word === 'terms' ? 'terms' : 'more';
    if (term.kind !== 'lasting') {
      runProgram(term.program, numbers, base, reading);
      const value = programValue[0]!;
      if (term.kind === 'joint' ? value !== 0 : value > term.above) reading[word] |= bit;
      else if (term.kind === 'joint' || value < term.below) reading[word] &= ~bit;
      return;
    }
    const on = (reading[word] & bit) !== 0;
    const wanted = holds(term.condition, reading);
    const timer = this.timerAt(term.timer);
    if (wanted === on) {
      numbers[base + timer] = Infinity;
      return;
    }
    const at = numbers[base + Place.due]!;
    if (numbers[base + timer] === Infinity) this.setTimer(term.timer, wanted ? term.settle : term.linger);
    if (numbers[base + timer]! > at) return;
    numbers[base + timer] = Infinity;
    if (wanted) reading[word] |= bit;
    else reading[word] &= ~bit;
  }
}
