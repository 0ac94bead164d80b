import { listOf } from './definition.js';
import type { Expectation } from './definition.js';
import type { Sample, TraceEntry } from './trace.js';

/** What an expectation says in words, and what happened instead (nothing when it was met). */
export interface Judgement {
  readonly from: number;
  readonly to: number;
  readonly expected: string;
  readonly instead: string;
  readonly failedAt: number | undefined;
}

const times = (count: number): string => (count === 1 ? 'once' : `${count} times`);

/** Compares an expectation with what happened. */
export function judge(
  expectation: Expectation,
  trace: readonly TraceEntry[],
  samples: readonly Sample[],
  lasts: number,
): Judgement {
  const { at, state, direction, cell, passes, never, cues } = expectation;
  const from = at ?? expectation.from ?? 0;
  const to = at ?? expectation.to ?? lasts;
  const begin = Math.max(
    0,
    samples.findLastIndex((sample) => sample.at <= from),
  );
  const shown = samples.slice(begin).filter((sample, i) => i === 0 || sample.at <= to);
  const now = samples.findLast((sample) => sample.at <= to) ?? samples[0]!;
  const order = shown.map((sample) => sample.state).filter((name, i, all) => name !== all[i - 1]);
  const wanted: string[] = [];
  const instead: string[] = [];
  let failedAt = Infinity;
  const judgeOne = (words: string, met: boolean, found: string, when = to): void => {
    wanted.push(words);
    if (met) return;
    instead.push(found);
    failedAt = Math.min(failedAt, when);
  };
  /** When a state showed first within the time. */
  const firstOf = (test: (name: string) => boolean): number =>
    Math.max(from, shown.find((sample) => test(sample.state))?.at ?? to);
  if (state !== undefined && at !== undefined)
    judgeOne(`state ${state}`, now.state === state, `state ${now.state}`);
  else if (state !== undefined)
    judgeOne(
      `only state ${state}`,
      order.every((name) => name === state),
      `states ${order.join(', ')}`,
      firstOf((name) => name !== state),
    );
  if (direction !== undefined)
    judgeOne(`facing ${direction}`, now.direction === direction, `facing ${now.direction}`);
  if (cell !== undefined)
    judgeOne(`cell ${cell}`, now.pose.cell.index === cell, `cell ${now.pose.cell.index}`);
  if (passes !== undefined) {
    let found = 0;
    for (const name of order) if (name === passes[found]) found++;
    judgeOne(
      `states ${passes.join(', ')} in this order`,
      found === passes.length,
      `${passes[found] ?? ''} did not come in turn: ${order.join(', ')}`,
    );
  }
  for (const name of listOf(never))
    judgeOne(
      `never ${name}`,
      !order.includes(name),
      `${name} showed`,
      firstOf((one) => one === name),
    );
  for (const [cue, count] of Object.entries(cues ?? {})) {
    const heard = trace.filter((e) => e.kind === 'cue' && e.name === cue && e.at >= from && e.at <= to);
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
  };
}
