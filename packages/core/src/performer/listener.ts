import { signalNamed } from '../controller/compile.js';
import type { Controller, State } from '../controller/controller.js';
import type { Names, Settable, VectorNames } from '../controller/names.js';
import { Numbers, Place, timerOf } from '../controller/numbers.js';
import type { NumberBlock } from '../controller/numbers.js';
import { Reports } from '../controller/reports.js';
import type { Situation } from '../controller/situations.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import { holds } from '../signal/condition.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf, valueOf } from '../signal/program.js';
import { slotNamed } from '../signal/scope.js';
import { addObserver, isHeld, tellInput, unobserved } from './observing.js';
import type { Observer } from './observing.js';

/** Values of `wait`, in microseconds. */
export const enum Wait {
  /** The longest that is waited: a small integer on every engine, nearly 18 minutes. */
  longest = 0x3fff_ffff,
  /** What is taken from a woken one where a number has left its interval: more than is ever waited. */
  stirring = 0x4000_0000,
  /** That of who decides at the present instant, and reads its numbers for it. */
  stirredNow = -0x4000_0001,
}

/**
 * What a performer hears: its signals as they are set, and the situation they amounted to when it decided last.
 *
 * Setting costs two comparisons as long as the number stays in the interval within which no bit changes. Otherwise
 * `wait` turns negative, so that the next step reads all signals and decides. Nothing is computed before that: of several
 * values set between two steps only the last counts, also for bands.
 *
 * @typeParam N the names that its controller has, for the compiler alone
 */
export abstract class Listener<N extends Names = Names> {
  /** What it plays; shared by any number of performers. */
  readonly controller: Controller<N>;
  /** The numbers of this performer and of its neighbours; see {@link Numbers}. */
  protected readonly numbers: NumberBlock;
  /** Where its own begin; see {@link Place}. */
  protected readonly base: number;
  /** The clip as it shows, which also says the state and the direction. */
  protected timeline: Timeline;
  protected situation: Situation;
  /** Flags and pulses as they were set; the situation has those of the last decision. */
  protected setFlags: number;
  /**
   * Microseconds until the next instant at which anything can change. When something was set that may change what is
   * decided, what was left of it with all bits turned over, so that no step is shorter: what was due is still due then.
   * When it was a number, {@link Wait.stirring} less than that: otherwise the numbers need not be looked at.
   */
  protected wait: number;
  /** Four bits of {@link Mark}, and above them where the compass points. */
  protected marks: number;
  /** Its reports, where its latest step told something; `null` where it told nothing. */
  protected told: Reports | null;

  protected constructor(controller: Controller<N>) {
    // A definition is easily taken for what it compiles to.
    if (!isController(controller)) throw callError('controller-wanted', { received: controller });
    const { tables, states, compass, rest } = controller;
    // What every step and setting looks at comes first, so that it lies together in memory.
    this.wait = Wait.stirredNow;
    this.told = null;
    this.base = controller.numbers.take();
    this.numbers = controller.numbers.block;
    this.marks = compass.start << 4;
    this.controller = controller;
    this.timeline = states[rest]!.books[0]![compass.start]!;
    this.situation = controller.situations.find(tables.firstFlags, 0, 0);
    this.setFlags = tables.firstFlags;
  }

  /**
   * Sets a number, flag, choice or vector. It counts from the next `step` on; of several values set before it only the
   * last does.
   *
   * @param signal its name, or its handle from `signal(name)` of this very controller, which is faster
   * @param value a finite number, true or false, the name of an option, or `[x, y]`
   * @throws {DotHopError} for an unknown name (with the nearest known one), a wrong kind, or a number that is not
   *   finite; nothing is changed then
   */
  set<S extends (keyof N['values'] & string) | Signal>(signal: S, value: Settable<S, N['values']>): void {
    // Whatever comes from outside the compiler's sight is no handle.
    const one = (typeof signal === 'string' ? this.signal(signal) : signal) as Signal | undefined | null;
    if (one?.owner !== this.controller.signalOwner) this.setSpecially(one, value as SignalValue);
    else if (typeof value === 'number' && one.place !== 0) {
      if (this.staysWithin(one.place, value)) return;
      if (!Number.isFinite(value)) throw wrongKind(one, value);
      this.leaveInterval(one.place, value);
    } else if (one.kind === 'flag' && typeof value === 'boolean') {
      this.setFlags = value ? this.setFlags | one.bit : this.setFlags & ~one.bit;
      if (((this.setFlags ^ this.situation.flags) & one.bit) !== 0) this.wake();
    } else this.setOther(one, value as SignalValue);
  }

  /**
   * Sets a vector without an array being made.
   *
   * @throws {DotHopError} as {@link set} does
   */
  setVector(signal: VectorNames<N['values']> | Signal, x: number, y: number): void {
    const one = (typeof signal === 'string' ? this.signal(signal) : signal) as Signal | undefined | null;
    if (one?.owner !== this.controller.signalOwner) {
      this.setSpecially(one, [x, y]);
      return;
    }
    if (one.kind !== 'vector' || !Number.isFinite(x) || !Number.isFinite(y)) throw wrongKind(one, [x, y]);
    this.setNumber(placeOf(one.slot), x);
    this.setNumber(placeOf(one.slot + 1), y);
  }

  /**
   * Makes a pulse happen: it counts until a state uses it or its `keep` has passed. A second one while the first
   * still counts only begins `keep` anew.
   *
   * @throws {DotHopError} for an unknown name or a signal of another kind
   */
  pulse(signal: N['pulses'] | Signal<never>): void {
    const one = typeof signal === 'string' ? this.signal(signal) : this.own(signal);
    if (one.kind !== 'pulse') throw wrongKind(one, 'a pulse');
    if (this.told?.isWatched === true) {
      if (isHeld(this, one.name)) return;
      tellInput(this, { kind: 'pulse', name: one.name });
    }
    this.setFlags |= one.bit;
    this.setTimer(one.timer, one.keep);
    this.wake();
  }

  /** Refuses a handle of another controller, and sets a signal of a performer that somebody may watch. */
  private setSpecially(signal: Signal | undefined | null, value: SignalValue): void {
    const { name } = this.own(signal);
    if (isHeld(this, name)) return;
    unobserved(this.controller, () => this.set(signal as Signal<SignalValue>, value as never));
    tellInput(this, { kind: 'set', name, value });
  }

  /**
   * Has somebody watch what the game tells this performer and what comes of it. A performer that nobody watches pays for it
   * with one comparison.
   *
   * @returns what ends it
   */
  observe(observer: Observer): () => void {
    // It seems to have told something at all times, so that its steps ask who watches.
    this.told = this.ownReports;
    this.told.isWatched = true;
    const end = addObserver(this, this.controller, observer);
    return () => {
      this.ownReports.isWatched = end();
    };
  }

  /** Its reports, which are empty while it tells nothing. */
  protected get ownReports(): Reports {
    const { controller, numbers, base } = this;
    const place = (base / controller.numbers.first.length) | 0;
    return (numbers.reports[place] ??= new Reports(controller.reportNames));
  }

  /** Lets go of what its latest step told; one that is watched seems to tell on. */
  protected letGo(): void {
    const { told } = this;
    if (told === null) return;
    told.clear();
    if (!told.isWatched) this.told = null;
  }

  /**
   * A signal's value as it was set, a derived one's as it was decided last, whether a state with a tag shows, or the state
   * that a track shows.
   *
   * @param name also of a part of a vector, such as `aim.x`
   * @throws {DotHopError} for an unknown name
   */
  value<S extends N['read']>(name: S): S extends keyof N['values'] ? N['values'][S] : SignalValue;
  value(name: string): SignalValue {
    const { signals, derived, tags } = this.controller.tables;
    const signal = signals.get(name);
    if (signal !== undefined) return this.valueOf(signal);
    const slot = slotNamed(signals, name);
    if (slot !== undefined) return this.numbers[this.base + placeOf(slot)]!;
    const tag = tags.get(name);
    if (tag !== undefined) return (this.situation.flags & tag) !== 0;
    const rule = derived.get(name);
    if (rule === undefined)
      throw callError('set-unknown', { name, known: [...signals.keys(), ...derived.keys(), ...tags.keys()] });
    return 'code' in rule
      ? valueOf(rule, this.numbers, this.base, this.situation)
      : holds(rule, this.situation);
  }

  /** The state that shows. */
  protected get current(): State {
    return this.timeline.of;
  }

  /** What `wait` counts, whether woken or not. */
  protected get waiting(): number {
    const { wait } = this;
    return wait < 0 ? ~wait & (Wait.stirring - 1) : wait;
  }

  protected get microseconds(): number {
    return this.numbers[this.base + Place.due]! - this.waiting;
  }

  /** Where the compass points; the direction follows unless the state holds it. */
  protected get toward(): number {
    return this.marks >> 4;
  }

  protected set toward(direction: number) {
    this.marks = (this.marks & 15) | (direction << 4);
  }

  /** Has the next step decide at the present instant. */
  protected wake(): void {
    if (this.wait >= 0) this.wait = ~this.wait;
  }

  /** The same, and reads the numbers for it. */
  private stir(): void {
    const { wait } = this;
    if (wait >= -Wait.stirring) this.wait = (wait >= 0 ? ~wait : wait) - Wait.stirring;
  }

  /** Where the instant of a timer is kept. */
  protected timerAt(timer: number): number {
    return timerOf(this.controller.tables.regions.length, timer);
  }

  protected valueOf({ kind, slot, bit, options }: Signal): SignalValue {
    const { numbers, base } = this;
    if (kind === 'number') return numbers[base + placeOf(slot)]!;
    if (kind === 'choice') return options[numbers[base + placeOf(slot)]!]!;
    if (kind === 'vector') return [numbers[base + placeOf(slot)]!, numbers[base + placeOf(slot + 1)]!];
    return (this.setFlags & bit) !== 0;
  }

  /** Sets a timer so many microseconds ahead. */
  protected setTimer(timer: number, ahead: number): void {
    const { numbers, base } = this;
    const instant = this.microseconds + ahead;
    numbers[base + this.timerAt(timer)] = instant;
    if (instant < numbers[base + Place.timer]!) numbers[base + Place.timer] = instant;
  }

  /** Takes pulses whose time is over out of the word of flags. */
  protected expirePulses(): void {
    const { numbers, base } = this;
    const at = numbers[base + Place.due]!;
    const { pulses } = this.controller.tables;
    for (const { timer, bit } of pulses)
      if (numbers[base + this.timerAt(timer)]! <= at) this.setFlags &= ~bit;
    // Only then: several pulses may share a timer.
    for (const { timer } of pulses) {
      const place = base + this.timerAt(timer);
      if (numbers[place]! <= at) numbers[place] = Infinity;
    }
  }

  protected usePulses(used: number): void {
    if (used === 0) return;
    this.setFlags &= ~used;
    // The timer of pulses without `keep` is shared; it may run out for nothing.
    for (const { timer, bit, keep } of this.controller.tables.pulses)
      if ((bit & used) !== 0 && keep > 1) this.numbers[this.base + this.timerAt(timer)] = Infinity;
  }

  /** A handle of this very controller: one of another version of the document could mean another signal. */
  private own(signal: Signal | undefined | null): Signal {
    if (signal?.owner === this.controller.tables.owner) return signal;
    throw callError('signal-handle', { received: signal?.name ?? signal });
  }

  private signal(name: string): Signal {
    return this.controller.tables.signals.get(name) ?? signalNamed(this.controller.tables, name);
  }

  private setNumber(place: number, value: number): void {
    if (!this.staysWithin(place, value)) this.leaveInterval(place, value);
  }

  /** Takes a number over if it is within the interval in which nothing changes, which holds finite numbers alone. */
  private staysWithin(place: number, value: number): boolean {
    const { numbers, base } = this;
    const stays = value >= numbers[base + place + 1]! && value < numbers[base + place + 2]!;
    if (stays) numbers[base + place] = value;
    return stays;
  }

  private leaveInterval(place: number, value: number): void {
    const { numbers, base } = this;
    if (numbers[base + place] === value) return;
    numbers[base + place] = value;
    this.stir();
  }

  private setOther(signal: Signal, value: SignalValue): void {
    if (signal.kind === 'vector' && Array.isArray(value) && value.length === 2) {
      this.setVector(signal, value[0] as number, value[1] as number);
      return;
    }
    if (signal.kind !== 'choice' || typeof value !== 'string') throw wrongKind(signal, value);
    const option = signal.options.indexOf(value);
    if (option < 0)
      throw callError('choice-unknown', { choice: signal.name, name: value, known: signal.options });
    this.setNumber(placeOf(signal.slot), option);
  }
}

/** Whether a value is a controller, as far as a caller can get it wrong. */
const isController = (value: unknown): boolean =>
  typeof value === 'object' && value !== null && (value as Partial<Controller>).numbers instanceof Numbers;

function wrongKind(signal: Signal, received: unknown): Error {
  const expected = {
    number: 'a finite number',
    flag: 'true or false',
    choice: `one of ${signal.options.join(', ')}`,
    vector: 'two finite numbers, [x, y]',
    pulse: 'no value; call pulse()',
  }[signal.kind];
  return callError('set-kind', { name: signal.name, kind: signal.kind, expected, received });
}
