// How many bytes a step allocates: of the bench's characters and of the demo's. It needs `node --expose-gc`.
import { readFileSync } from 'node:fs';
import { Performer } from 'dot-hop';
import type { Controller, Outfit, Signal } from 'dot-hop';
import { compileDocument, readDocument } from 'dot-hop/document';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';

/** Gives back what is not needed any more. @throws without --expose-gc */
function collect(): void {
  if (globalThis.gc === undefined) throw new Error('run it with node --expose-gc');
  globalThis.gc();
}

/** Bytes in use, also of what typed arrays keep outside the heap. */
export const memory = (): number => process.memoryUsage().heapUsed + process.memoryUsage().arrayBuffers;

/** The same once all that is not needed any more has been given back: buffers are given back some time after their owners. */
export function settledMemory(): number {
  let before = Infinity;
  for (let tries = 0; tries < 20; tries++) {
    collect();
    const now = memory();
    if (Math.abs(before - now) < 1000) return now;
    before = now;
  }
  return before;
}

/**
 * Bytes that each of a million goes allocates, after some that warm the engine up: the least of up to eight millions, since
 * what the engine keeps for itself when it compiles something anew comes now and then, and what a go allocates every time.
 */
function bytesOf(go: (times: number) => void, warmUp: number): number {
  go(warmUp);
  let least = Infinity;
  for (let i = 0; i < 8 && least > 0.005; i++) {
    collect();
    const before = memory();
    go(1_000_000);
    least = Math.min(least, Math.max(0, memory() - before) / 1_000_000);
  }
  return least;
}

/** Bytes that stepping and reading the pose of somebody dressed allocates, who may swing now and then. */
export function bytesPerPose(controller: Controller, outfit: Outfit): number {
  const one = new Performer(controller);
  one.wear(outfit);
  let drawn = 0;
  const go = (steps: number): void => {
    for (let i = 0; i < steps; i++) {
      if (i % 60 === 0) one.pulse('swing');
      one.step(1000 / 60);
      drawn += one.pose.layers.length;
    }
  };
  const bytes = bytesOf(go, 2_000_000);
  return drawn > 0 ? bytes : NaN;
}

/** A character of the demo, without its images. */
export function demo(file: string): Controller {
  const read = readDocument(readFileSync(new URL(`../demo/${file}`, import.meta.url), 'utf8'), file);
  const size = { width: 512, height: 728 };
  const images = Object.fromEntries([...read.images.keys()].map((name) => [name, size]));
  return compileDocument(read, { images });
}

/**
 * Bytes that a step and its picture allocate of somebody dressed whose signals change by chance, whatever these are for: rates,
 * gaits, scrubs, tracks.
 */
export function bytesPerAnything(controller: Controller): number {
  const one = new Performer(controller);
  const wardrobe = wardrobeOf(controller)!;
  one.wear(wardrobe.outfit(randomOutfit(wardrobe, 1)));
  const signals = [...controller.tables.signals.values()];
  // Objects already, as in what follows.
  const numbers: readonly unknown[] = ['', ...Array.from({ length: 12 }, (_, i) => i * 37.5 - 200.25)];
  let seed = 1;
  const chance = (most: number): number => {
    seed = (Math.imul(seed, 1103515245) + 12345) | 0;
    return (seed >>> 8) % most;
  };
  let drawn = 0;
  const go = (steps: number): void => {
    for (let i = 0; i < steps; i++) {
      // The same chances over and over: a situation that was never met takes its place in the tables, once.
      if (i % 20_000 === 0) seed = 1;
      const signal = signals[chance(signals.length * 3)];
      if (signal?.kind === 'number') one.set(signal, numbers[1 + chance(12)]);
      else if (signal?.kind === 'flag') one.set(signal, chance(2) === 0);
      else if (signal?.kind === 'pulse') one.pulse(signal as Signal<never>);
      one.step(1000 / 60);
      drawn += one.pose.layers.length;
    }
  };
  const bytes = bytesOf(go, 1_000_000);
  return drawn > 0 ? bytes : NaN;
}

/** Bytes that a step allocates, over many steps of one performer that runs, turns, hops and swings. */
export function bytesPerStep(controller: Controller): number {
  const one = new Performer(controller);
  // Numbers that are objects already: one that is computed here would be boxed by this loop when it calls.
  const numbers: readonly unknown[] = [
    '',
    120.5,
    -30.25,
    ...Array.from({ length: 7 }, (_, i) => i * 10.5 - 30.25),
  ];
  const go = (steps: number): void => {
    for (let i = 0; i < steps; i++) {
      if (i % 40 === 0) one.set('vx', numbers[i % 80 === 0 ? 1 : 2] as number);
      if (i % 55 === 0) one.set('vy', numbers[3 + (i % 7)] as number);
      if (i % 300 === 0) one.pulse('swing');
      if (i % 170 === 0) one.set('grounded', i % 340 === 0);
      one.step(1000 / 60);
    }
  };
  // Until the engine has optimised what is called rarely, it keeps doubles in boxes of its own.
  return bytesOf(go, 6_000_000);
}
