import type { Controller } from '../controller/controller.js';
import { Row } from '../controller/layout.js';
import type { Names, Settable, VectorNames } from '../controller/names.js';
import { Situations } from '../controller/situations.js';
import { writePulse } from '../engine/write-signals.js';
import { valueNamed } from '../engine/inspect.js';
import { Attention } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { callError } from '../problem/error.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { takeRow } from './row-pool.js';
import { setNumber, setSignal, setVector, signalOf, wrongKind } from './set-signal.js';
import { unobserved, watch } from './watch.js';

/**
 * The part of a performer that a game tells things: signals. {@link Player} adds the rest.
 *
 * @typeParam N the names of its controller, for the compiler only
 */
export abstract class Listener<N extends Names = Names> {
  /** The controller that it plays. Any number of performers share it. */
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
   * Sets a number, flag, choice or vector. The value counts from the next `step` on. If you set it several times before that step, only the
   * last value counts.
   *
   * @param signal its name, or its handle from `signal(name)` of the same controller, which is faster
   * @param value a finite number, true or false, the name of an option, or `[x, y]`
   * @throws {DotHopError} for an unknown name (with the nearest known one), a value of the wrong kind, or a number that is not finite; then
   *   nothing changes
   */
  set<S extends (keyof N['values'] & string) | Signal>(signal: S, value: Settable<S, N['values']>): void {
    // Whatever comes from outside the compiler's sight is no handle.
    const one = (typeof signal === 'string' ? this.signal(signal) : signal) as Signal | undefined | null;
    if (one?.owner !== this.controller.signalOwner) this.setSpecially(one, value as SignalValue);
    else if (one.kind !== 'number' || typeof value !== 'number')
      setSignal(this.rows, this.at, one, value as SignalValue);
    else if (!this.staysWithin(one.place, value)) setNumber(this.rows, this.at, one, value);
  }

  /**
   * Sets a vector from two numbers, so that you need not make an array.
   *
   * @throws {DotHopError} as {@link set} does
   */
  setVector(signal: VectorNames<N['values']> | Signal, x: number, y: number): void {
    const one = (typeof signal === 'string' ? this.signal(signal) : signal) as Signal | undefined | null;
    if (one?.owner !== this.controller.signalOwner) {
      this.setSpecially(one, [x, y]);
      return;
    }
    setVector(this.rows, this.at, one, x, y);
  }

  /**
   * Makes a pulse happen. It counts until a state uses it or its `keep` has passed. A second pulse before that only begins `keep` again.
   *
   * @throws {DotHopError} for an unknown name or a signal of another kind
   */
  pulse(signal: N['pulses'] | Signal<never>): void {
    const one = this.signal(signal);
    if (one.kind !== 'pulse') throw wrongKind(one, 'a pulse');
    if (this.isWatched) {
      if (watch.holds(this.rows, this.at, one.name)) return;
      watch.input(this.rows, this.at, { kind: 'pulse', name: one.name });
    }
    writePulse(this.rows, this.at, one);
  }

  /**
   * The value of a name: a signal as you set it last, a derived signal as of the last decision, whether a state with a tag shows, or the
   * name of the state that a track shows.
   *
   * @param name a part of a vector is written `aim.x`
   * @throws {DotHopError} for an unknown name
   */
  value<S extends N['read']>(name: S): S extends keyof N['values'] ? N['values'][S] : SignalValue;
  value(name: string): SignalValue {
    return valueNamed(this.rows, this.at, name);
  }

  /** Refuses what is done for a troupe as a whole. */
  protected checkAlone(): void {
    if (this.rows.crowd !== null) throw callError('step-member', {});
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

  /** Refuses a handle of another controller, and sets a signal of a performer that somebody may watch. */
  private setSpecially(signal: Signal | undefined | null, value: SignalValue): void {
    const { name } = this.signal(signal);
    if (this.isWatched && watch.holds(this.rows, this.at, name)) return;
    unobserved(this.controller, () => this.set(signal as Signal<SignalValue>, value as never));
    if (this.isWatched) watch.input(this.rows, this.at, { kind: 'set', name, value });
  }

  private signal(signal: unknown): Signal {
    return signalOf(this.controller.tables, signal);
  }
}

/** Whether a value is a controller, as far as a caller can get it wrong. */
const isController = (value: unknown): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (value as Partial<Controller>).situations instanceof Situations;
