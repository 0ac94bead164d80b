import type { SignalValue } from '../signal/definition.js';

/** Something that a game tells a performer. */
export type Input =
  | { readonly kind: 'set'; readonly name: string; readonly value: SignalValue }
  | { readonly kind: 'pulse' | 'ask' | 'cut' | 'route'; readonly name: string };

/** Who watches a performer: a recording, an overlay, a tool of your own. Every part may be left out. */
export interface Observer {
  /** Is asked before a signal is set or a pulse made: `true` keeps what the game tells from the performer. */
  readonly holds?: (signal: string) => boolean;
  /** Is told of what the game has told: of a signal after it was set, of a request before it is decided upon. */
  readonly input?: (input: Input) => void;
  /** Is told after each step and each request, with how many reports there are. */
  readonly step?: (reports: number) => void;
  /** Is told when the performer was put elsewhere: by `restore`, `adopt` or `reset`. */
  readonly moved?: () => void;
}

/** What of a controller says whether handles of signals are its own; and, while anybody watches, that none is at first sight. */
interface Watched {
  signalOwner: object;
  readonly tables: { readonly owner: object };
}

/** Handles belong to nobody while somebody watches, so that setting a signal takes the way on which that is asked. */
const watchedOwner = Object.freeze({});

const observers = new WeakMap<object, Observer[]>();
/** How many observers a controller's performers have. */
const counts = new WeakMap<object, number>();
const none: readonly Observer[] = [];

const of = (performer: object): readonly Observer[] => observers.get(performer) ?? none;

function count(controller: Watched, change: 1 | -1): void {
  const now = (counts.get(controller) ?? 0) + change;
  counts.set(controller, now);
  controller.signalOwner = now > 0 ? watchedOwner : controller.tables.owner;
}

/** @returns what ends it, and then whether others still watch */
export function addObserver(performer: object, controller: Watched, observer: Observer): () => boolean {
  observers.set(performer, [...of(performer), observer]);
  count(controller, 1);
  let isOn = true;
  return () => {
    if (isOn) count(controller, -1);
    isOn = false;
    const others = of(performer).filter((one) => one !== observer);
    observers.set(performer, others);
    return others.length > 0;
  };
}

export const isHeld = (performer: object, signal: string): boolean =>
  of(performer).some(({ holds }) => holds?.(signal) === true);

export function tellInput(performer: object, input: Input): void {
  for (const observer of of(performer)) observer.input?.(input);
}

export function tellStep(performer: object, reports: number): void {
  for (const observer of of(performer)) observer.step?.(reports);
}

export function tellMoved(performer: object): void {
  for (const observer of of(performer)) observer.moved?.();
}

/** Sets signals of which observers are told afterwards, or not at all. */
export function unobserved(controller: Watched, run: () => void): void {
  const { signalOwner } = controller;
  controller.signalOwner = controller.tables.owner;
  try {
    run();
  } finally {
    controller.signalOwner = signalOwner;
  }
}
