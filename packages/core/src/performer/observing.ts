import type { Controller } from '../controller/controller.js';
import type { Rows } from '../engine/rows.js';
import { watchBy } from './watch.js';
import type { Input } from './watch.js';

/** Functions that are called for a performer: by a recording, an overlay, or a tool of your own. You may leave out any of them. */
export interface Observer {
  /** Called before a signal is set or a pulse made. Return `true` to keep it from the performer. */
  readonly holds?: (signal: string) => boolean;
  /** Called with what the game did: after a signal was set, and before a request is decided. */
  readonly input?: (input: Input) => void;
  /**
   * Called after each step and each request, with the number of reports and the index of the first one. That index is 0, except
   * for a member of a troupe, because the reports of all members stand in one list.
   */
  readonly step?: (reports: number, from: number) => void;
  /** Called when the performer was moved by `restore`, `adopt`, `reset` or `load`. */
  readonly moved?: () => void;
}

/** Handles belong to nobody while somebody watches, so that setting a signal takes the way on which that is asked. */
const watchedOwner = Object.freeze({});

/** The observers of each row, by where it begins. */
const observers = new WeakMap<Rows, Map<number, Observer[]>>();
/** How many observers a controller's performers have. */
const counts = new WeakMap<Controller, number>();
const none: readonly Observer[] = [];

const of = (rows: Rows, at: number): readonly Observer[] => observers.get(rows)?.get(at) ?? none;

function count(controller: Controller, change: 1 | -1): void {
  const now = (counts.get(controller) ?? 0) + change;
  counts.set(controller, now);
  controller.signalOwner = now > 0 ? watchedOwner : controller.tables.owner;
}

/** @returns what ends it, and then whether others still watch */
export function addObserver(rows: Rows, at: number, observer: Observer): () => boolean {
  const all = observers.get(rows) ?? new Map<number, Observer[]>();
  observers.set(rows, all.set(at, [...of(rows, at), observer]));
  count(rows.controller, 1);
  let isOn = true;
  return () => {
    if (isOn) count(rows.controller, -1);
    isOn = false;
    const others = of(rows, at).filter((one) => one !== observer);
    all.set(at, others);
    return others.length > 0;
  };
}

// A bundler keeps this wherever anything of this module is used.
watchBy({
  holds: (rows, at, signal) => of(rows, at).some(({ holds }) => holds?.(signal) === true),
  input: (rows, at, input) => of(rows, at).forEach((observer) => observer.input?.(input)),
  step: (rows, at, reports, from = 0) => of(rows, at).forEach((observer) => observer.step?.(reports, from)),
  moved: (rows, at) => of(rows, at).forEach((observer) => observer.moved?.()),
  gone: (rows, at) => observers.get(rows)?.delete(at),
});
