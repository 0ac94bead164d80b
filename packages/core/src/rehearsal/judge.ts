import type { Controller } from '../controller/controller.js';
import { listOf } from './definition.js';
import type { Expectation } from './definition.js';
import { statesMeant } from './meant.js';
import type { Meant } from './meant.js';
import { tellsCue } from './trace.js';
import type { Sample, TraceEntry } from './trace.js';

/** An expectation in words, and what happened instead. Nothing happened instead if it was met. */
export interface Judgement {
  readonly from: number;
  readonly to: number;
  readonly expected: string;
  readonly instead: string;
  readonly failedAt: number | undefined;
  /** The index of the track to ask why. */
  readonly track: number;
}

const times = (count: number): string => (count === 1 ? 'once' : `${count} times`);

/** A state that begins to show, in which track and which sample. */
interface Beginning {
  readonly sample: number;
  readonly track: number;
  readonly state: string;
}

/** The states that each track shows in turn. */
function beginningsOf(shown: readonly Sample[]): Beginning[] {
  return shown.flatMap(({ tracks }, sample) =>
    tracks.flatMap(({ state }, track): Beginning[] =>
      state === shown[sample - 1]?.tracks[track]!.state ? [] : [{ sample, track, state }],
    ),
  );
}

/** Compares an expectation with what happened. */
export function judge(
  controller: Controller,
  expectation: Expectation,
  trace: readonly TraceEntry[],
  samples: readonly Sample[],
  lasts: number,
): Judgement {
  const { at, state, direction, clip, cell, passes, never, cues } = expectation;
  const from = at ?? expectation.from ?? 0;
  const to = at ?? expectation.to ?? lasts;
  const begin = Math.max(
    0,
    samples.findLastIndex((sample) => sample.at <= from),
  );
  const shown = samples.slice(begin).filter((sample, i) => i === 0 || sample.at <= to);
  const now = samples.findLast((sample) => sample.at <= to) ?? samples[0]!;
  const begun = beginningsOf(shown);
  const wanted: string[] = [];
  const instead: string[] = [];
  let failedAt = Infinity;
  let asked = 0;
  const judgeOne = (words: string, met: boolean, found: string, when = to, track = 0): void => {
    wanted.push(words);
    if (met) return;
    instead.push(found);
    if (when >= failedAt) return;
    failedAt = when;
    asked = track;
  };
  const orderIn = (track: number): string[] =>
    begun.filter((one) => one.track === track).map((one) => one.state);
  /** When a state of a track showed first within the time. */
  const firstOf = (track: number, test: (name: string) => boolean): number =>
    Math.max(from, shown.find(({ tracks }) => test(tracks[track]!.state))?.at ?? to);
  if (state !== undefined) {
    const { track, states } = statesMeant(controller, state)!;
    const found = now.tracks[track]!.state;
    const order = orderIn(track);
    const isIt = (name: string): boolean => states.has(name);
    if (at !== undefined) judgeOne(`state ${state}`, isIt(found), `state ${found}`, to, track);
    else
      judgeOne(
        `only state ${state}`,
        order.every(isIt),
        `states ${order.join(', ')}`,
        firstOf(track, (name) => !isIt(name)),
        track,
      );
  }
  if (direction !== undefined)
    judgeOne(`facing ${direction}`, now.direction === direction, `facing ${now.direction}`);
  if (clip !== undefined) {
    const isIt = clip === now.clip || clip === controller.clips.get(now.clip)?.of;
    judgeOne(`clip ${clip}`, isIt, `clip ${now.clip}`);
  }
  if (cell !== undefined)
    judgeOne(`cell ${cell}`, now.pose.cell.index === cell, `cell ${now.pose.cell.index}`);
  if (passes !== undefined) {
    const meant = passes.map((name) => statesMeant(controller, name)!);
    const { left, next } = firstNotPassed(meant, begun);
    const track = meant[left]?.track ?? 0;
    judgeOne(
      `states ${passes.join(', ')} in this order`,
      left === passes.length,
      `${passes[left] ?? ''} did not come in turn: ${orderIn(track).join(', ')}`,
      // Where another state came in its place; where none did, it was waited for to the end.
      next === undefined ? to : Math.max(from, shown[next.sample]!.at),
      track,
    );
  }
  for (const name of listOf(never)) {
    const { track, states } = statesMeant(controller, name)!;
    const isIt = (one: string): boolean => states.has(one);
    judgeOne(`never ${name}`, !orderIn(track).some(isIt), `${name} showed`, firstOf(track, isIt), track);
  }
  for (const [cue, count] of Object.entries(cues ?? {})) {
    const heard = trace.filter((one) => tellsCue(one, cue) && one.at >= from && one.at <= to);
    const found = `cue ${cue} ${times(heard.length)}`;
    judgeOne(`cue ${cue} ${times(count)}`, heard.length === count, found, heard[count]?.at);
  }
  const when = at === undefined ? `from ${from} to ${to} ms` : `at ${Number(at.toFixed(3))} ms`;
  return {
    from,
    to,
    expected: `${when}: ${wanted.join(', ')}`,
    instead: instead.join('; '),
    failedAt: instead.length > 0 ? failedAt : undefined,
    track: asked,
  };
}

/**
 * The first of some states that does not come in turn, and what began in its place after those that did. Of tracks that switch
 * at the same instant each may be first.
 */
function firstNotPassed(
  wanted: readonly Meant[],
  begun: readonly Beginning[],
): { left: number; next: Beginning | undefined } {
  let found = 0;
  let left = begun;
  while (found < wanted.length) {
    const { track, states } = wanted[found]!;
    const at = left.findIndex((one) => one.track === track && states.has(one.state));
    if (at < 0) return { left: found, next: left.find((one) => one.track === track) };
    const { sample } = left[at]!;
    left = left.filter((one, i) => i !== at && one.sample >= sample);
    found++;
  }
  return { left: found, next: undefined };
}
