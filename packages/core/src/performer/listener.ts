import { signalNamed } from '../controller/compile.js';
import type { Controller } from '../controller/controller.js';
import { Row } from '../controller/layout.js';
import type { Names, Settable, VectorNames } from '../controller/names.js';
import { Situations } from '../controller/situations.js';
import { hearFlag, hearPulse, leaveInterval } from '../engine/hear.js';
import { catchUp, valueNamed } from '../engine/inspect.js';
import { Attention } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { callError } from '../problem/problem.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { isHeld, tellInput, unobserved } from './observing.js';
import { takeRow } from './places.js';
import { wrongKind } from './wrong-kind.js';

/**
 * What a game tells a performer: signals. A performer is this and all else; see `Performer`.
 *
 * @typeParam N the names that its controller has, for the compiler alone
 */
export abstract class Told<N extends Names = Names> {
  /** What it plays; shared by any number of performers. */
  readonly controller: Controller<N>;
  protected readonly rows: Rows;
  /** Where its row begins. */
  protected readonly at: number;
  /** Those of its rows, and which row it has: to go there by way of these would cost at every step. */
  protected readonly waits: Int32Array;
  protected readonly index: number;

  protected constructor(controller: Controller<N>, member?: { readonly rows: Rows; readonly at: number }) {
    // A definition is easily taken for what it compiles to.
    if (!isController(controller)) throw callError('controller-wanted', { received: controller });
    this.controller = controller;
    const { rows, at } = member ?? takeRow(controller);
    this.rows = rows;
    this.at = at;
    this.waits = rows.waits;
    this.index = rows.indexOf(at);
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
    else if (one.kind !== 'number' || typeof value !== 'number') this.setOther(one, value as SignalValue);
    else if (!this.staysWithin(one.place, value)) this.setFarther(one, value);
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
    this.setNumber(one.place, x);
    this.setNumber(one.place + placeOf(1), y);
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
    if (this.isWatched) {
      if (isHeld(this, one.name)) return;
      tellInput(this, { kind: 'pulse', name: one.name });
    }
    catchUp(this.rows, this.at);
    hearPulse(this.rows, this.at, one);
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
    return valueNamed(this.rows, this.at, name);
  }

  protected get isWatched(): boolean {
    return (this.rows.ints[2 * this.at + Row.attention]! & Attention.watched) !== 0;
  }

  /** Takes a number over if it is within the interval in which nothing changes, which holds finite numbers alone. */
  private staysWithin(place: number, value: number): boolean {
    const { doubles } = this.rows;
    const at = this.at + place;
    const stays = value >= doubles[at + 1]! && value < doubles[at + 2]!;
    if (stays) doubles[at] = value;
    return stays;
  }

  private leaveInterval(place: number, value: number): void {
    const at = this.at + place;
    const { doubles } = this.rows;
    if (doubles[at] === value) return;
    doubles[at] = value;
    leaveInterval(this.rows, this.at);
  }

  private setNumber(place: number, value: number): void {
    if (!this.staysWithin(place, value)) this.leaveInterval(place, value);
  }

  /** Sets a number that leaves the interval in which nothing changes. */
  private setFarther(signal: Signal, value: number): void {
    if (!Number.isFinite(value)) throw wrongKind(signal, value);
    this.leaveInterval(signal.place, value);
  }

  private setOther(signal: Signal, value: SignalValue): void {
    if (signal.kind === 'flag' && typeof value === 'boolean') {
      hearFlag(this.rows, this.at, signal, value);
      return;
    }
    if (signal.kind === 'vector' && Array.isArray(value) && value.length === 2) {
      this.setVector(signal, value[0] as number, value[1] as number);
      return;
    }
    if (signal.kind !== 'choice' || typeof value !== 'string') throw wrongKind(signal, value);
    const option = signal.options.indexOf(value);
    if (option < 0)
      throw callError('choice-unknown', { choice: signal.name, name: value, known: signal.options });
    this.setNumber(signal.place, option);
  }

  /** Refuses a handle of another controller, and sets a signal of a performer that somebody may watch. */
  private setSpecially(signal: Signal | undefined | null, value: SignalValue): void {
    const { name } = this.own(signal);
    if (isHeld(this, name)) return;
    unobserved(this.controller, () => this.set(signal as Signal<SignalValue>, value as never));
    tellInput(this, { kind: 'set', name, value });
  }

  /** A handle of this very controller: one of another version of the document could mean another signal. */
  private own(signal: Signal | undefined | null): Signal {
    if (signal?.owner === this.controller.tables.owner) return signal;
    throw callError('signal-handle', { received: signal?.name ?? signal });
  }

  private signal(name: string): Signal {
    return this.controller.tables.signals.get(name) ?? signalNamed(this.controller.tables, name);
  }
}

/** Whether a value is a controller, as far as a caller can get it wrong. */
const isController = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (value as Partial<Controller>).situations instanceof Situations;
