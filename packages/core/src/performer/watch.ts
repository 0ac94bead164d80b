import type { Controller } from '../controller/controller.js';
import type { Rows } from '../engine/rows.js';
import type { SignalValue } from '../signal/definition.js';

/** Something that a game tells a performer. */
export type Input =
  | { readonly kind: 'set'; readonly name: string; readonly value: SignalValue }
  | { readonly kind: 'pulse' | 'ask' | 'cut' | 'route'; readonly name: string };

/** What a player tells of itself while somebody watches it. */
export interface Watch {
  /** Whether a signal is kept from the character. */
  readonly holds: (rows: Rows, at: number, signal: string) => boolean;
  readonly input: (rows: Rows, at: number, input: Input) => void;
  readonly step: (rows: Rows, at: number, reports: number, from?: number) => void;
  readonly moved: (rows: Rows, at: number) => void;
  /** There is no such character any more. */
  readonly gone: (rows: Rows, at: number) => void;
}

/**
 * The functions that are called for watched performers: see `observing.ts`, which sets them. They are used only where
 * `Attention.watched` is on.
 */
export let watch: Watch;

/** Passes everything that players tell on to observers. */
export function watchBy(by: Watch): void {
  watch = by;
}

/** Sets signals of which observers are told afterwards, or not at all. */
export function unobserved(controller: Controller, run: () => void): void {
  const { signalOwner } = controller;
  controller.signalOwner = controller.tables.owner;
  try {
    run();
  } finally {
    controller.signalOwner = signalOwner;
  }
}
