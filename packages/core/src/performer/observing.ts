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

/** How many observers there are, of all performers: a performer asks for this one number and no more where there is none. */
export const observing = { count: 0 };

const observers = new WeakMap<object, Observer[]>();
const none: readonly Observer[] = [];

const of = (performer: object): readonly Observer[] => observers.get(performer) ?? none;

/** @returns what ends it */
export function addObserver(performer: object, observer: Observer): () => void {
  observers.set(performer, [...of(performer), observer]);
  observing.count++;
  let isOn = true;
  return () => {
    if (isOn) observing.count--;
    isOn = false;
    observers.set(
      performer,
      of(performer).filter((one) => one !== observer),
    );
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

/** Does what an observer is told of afterwards. */
export function unobserved<T>(run: () => T): T {
  const { count } = observing;
  observing.count = 0;
  try {
    return run();
  } finally {
    observing.count = count;
  }
}
