import type { Controller } from '../controller/controller.js';
import type { RuleName } from '../controller/rule.js';
import { Performer } from '../performer/performer.js';
import type { SignalValue } from '../signal/definition.js';
import { whyText } from '../explain/index.js';
import { DotHopError, ProblemList } from '../problem/problem.js';
import type { Pose } from '../sheet/pose.js';
import type { Expectation, RehearsalDefinition, ScriptLine } from './definition.js';

/** One thing that happened, at its exact instant in milliseconds. */
export type TraceEntry =
  | { readonly kind: 'set'; readonly at: number; readonly name: string; readonly value: SignalValue }
  | { readonly kind: 'pulse' | 'cue'; readonly at: number; readonly name: string }
  | { readonly kind: 'turn' | 'gait'; readonly at: number; readonly name: string; readonly from: string }
  | {
      readonly kind: 'ask' | 'cut' | 'route';
      readonly at: number;
      readonly name: string;
      /** Whether it was granted. */
      readonly granted: boolean;
    }
  | {
      readonly kind: 'switch';
      readonly at: number;
      readonly name: string;
      readonly from: string;
      readonly rule: RuleName;
    };

/** What showed from an instant on, until the next sample. */
export interface Sample {
  readonly at: number;
  readonly state: string;
  readonly clip: string;
  readonly frame: number;
  readonly direction: string;
  readonly pose: Pose;
}

/** An expectation with what came of it. */
export interface Outcome {
  readonly expectation: Expectation;
  /** Its place among the expectations, from 0. */
  readonly index: number;
  readonly met: boolean;
  /** What was expected, in words. */
  readonly expected: string;
  /** What happened instead; empty when it was met. */
  readonly instead: string;
  /** The performer's answer to why, at the instant of an unmet expectation that has one. */
  readonly why: string | undefined;
}

/** The vector that turned the character from an instant on, and where it faced then. */
export interface TrailPoint {
  readonly at: number;
  /** To the right and downwards. */
  readonly x: number;
  readonly y: number;
  readonly direction: string;
}

/** What a rehearsal brought about. */
export interface RehearsalResult {
  readonly lasts: number;
  readonly trace: readonly TraceEntry[];
  /** What showed, one entry a change of picture or state. */
  readonly samples: readonly Sample[];
  /** The vectors in turn, one entry a change of vector or direction. */
  readonly trail: readonly TrailPoint[];
  readonly outcomes: readonly Outcome[];
}

/** How finely pictures are sampled, in milliseconds. Switches and cues have their exact instants whatever this is. */
const sampling = 5;

/**
 * Runs a rehearsal without a game: everything scripted for an instant is set, that instant is decided, then time goes
 * on to the next.
 *
 * @throws {DotHopError} when the script or an expectation names what the controller does not have, or lies past the
 *   end; each problem has its path in the rehearsal
 */
export function runRehearsal(controller: Controller, rehearsal: RehearsalDefinition): RehearsalResult {
  checkRehearsal(controller, rehearsal);
  const performer = new Performer(controller);
  const recorder = new Recorder(performer);
  const expectations = rehearsal.expect ?? [];
  const whys = new Map<number, string>();
  const lines = [...rehearsal.script.entries()].sort(([, a], [, b]) => a.at - b.at);
  const instants = [
    ...lines.map(([, { at }]) => at),
    ...expectations.flatMap(({ at }) => at ?? []),
    rehearsal.lasts,
  ];
  let next = 0;
  for (const instant of [...new Set(instants)].sort((a, b) => a - b)) {
    recorder.advance(instant);
    for (; next < lines.length && lines[next]![1].at <= instant; next++) {
      const [index, line] = lines[next]!;
      recorder.play(line, ['script', index]);
    }
    recorder.step(0);
    expectations.forEach((expectation, index) => {
      if (expectation.at === instant) whys.set(index, whyText(performer.why()));
    });
  }
  const { trace, samples, trail } = recorder;
  const outcomes = expectations.map((expectation, index): Outcome => {
    const { expected, instead } = judge(expectation, trace, samples, rehearsal.lasts);
    const met = instead === '';
    return { expectation, index, met, expected, instead, why: met ? undefined : whys.get(index) };
  });
  return { lasts: rehearsal.lasts, trace, samples, trail, outcomes };
}

/** Steps a performer and writes down what happens. */
class Recorder {
  readonly trace: TraceEntry[] = [];
  readonly samples: Sample[] = [];
  readonly trail: TrailPoint[] = [];

  constructor(private readonly performer: Performer) {
    this.recordVector();
  }

  play({ at, set, pulse, ask, cut, route }: ScriptLine, path: (string | number)[]): void {
    for (const [name, value] of Object.entries(set ?? {})) {
      placing([...path, 'set', name], () => this.performer.set(name, value));
      this.trace.push({ kind: 'set', at, name, value });
    }
    for (const name of pulse === undefined ? [] : [pulse].flat()) {
      placing([...path, 'pulse'], () => this.performer.pulse(name));
      this.trace.push({ kind: 'pulse', at, name });
    }
    const { performer } = this;
    const request = (
      kind: 'ask' | 'cut' | 'route',
      name: string | undefined,
      run: (name: string) => boolean,
    ): void => {
      if (name !== undefined) placing([...path, kind], () => this.request(kind, at, name, () => run(name)));
    };
    request('ask', ask, (name) => performer.ask(name));
    request('route', route, (name) => performer.route(name));
    request('cut', cut, (name) => {
      performer.cut(name);
      return true;
    });
  }

  private request(kind: 'ask' | 'cut' | 'route', at: number, name: string, run: () => boolean): void {
    const { length } = this.trace;
    const granted = run();
    this.record(this.performer.reports.count);
    this.trace.splice(length, 0, { kind, at, name, granted });
  }

  advance(to: number): void {
    // The performer counts whole microseconds: a finer instant would never be reached.
    const end = Math.round(to * 1000);
    const left = (): number => (end - Math.round(this.performer.time * 1000)) / 1000;
    while (left() > 0) this.step(Math.min(sampling, left()));
  }

  step(time: number): void {
    this.record(this.performer.step(time));
  }

  /** Writes down what the latest step or request reported, and what shows now. */
  private record(count: number): void {
    const { performer, trace } = this;
    const { reports } = performer;
    for (let i = 0; i < count; i++) {
      const [kind, at, name, from] = [reports.kind(i), reports.at(i), reports.name(i), reports.from(i)];
      if (kind === 'cue') trace.push({ kind, at, name });
      else if (kind !== 'switch') trace.push({ kind, at, name, from });
      else trace.push({ kind, at, name, from, rule: reports.rule(i)! });
    }
    this.recordVector();
    const { state, clip, frameIndex: frame, facing: direction, pose } = performer;
    const last = this.samples[this.samples.length - 1];
    if (last?.pose === pose && last.state === state && last.frame === frame && count === 0) return;
    const switched = trace.findLast((entry) => entry.kind === 'switch');
    const entered = last !== undefined && last.state !== state && switched !== undefined;
    this.samples.push({ at: entered ? switched.at : performer.time, state, clip, frame, direction, pose });
  }

  private recordVector(): void {
    const [x, y] = this.performer.vector;
    const { facing: direction, time: at } = this.performer;
    const last = this.trail[this.trail.length - 1];
    if (last?.x !== x || last.y !== y || last.direction !== direction)
      this.trail.push({ at, x, y, direction });
  }
}

function placing(path: (string | number)[], run: () => void): void {
  try {
    run();
  } catch (error) {
    if (!(error instanceof DotHopError)) throw error;
    throw new DotHopError(
      error.problems.map((problem) => ({ ...problem, path: [...path, ...problem.path] })),
    );
  }
}

function checkRehearsal(controller: Controller, { lasts, script, expect = [] }: RehearsalDefinition): void {
  const problems = new ProblemList();
  const states = [...controller.stateNamed.keys()];
  const known = (
    code: 'state-unknown' | 'direction-unknown' | 'cue-unknown',
    name: string,
    names: readonly string[],
    path: (string | number)[],
  ): void => {
    if (!names.includes(name)) problems.add(code, path, { name, known: names });
  };
  script.forEach(({ at }, i) => {
    if (at > lasts) problems.add('rehearsal-order', ['script', i, 'at'], { received: at, lasts });
  });
  expect.forEach((one, i) => {
    const path = ['expect', i];
    const { at, from, to, state, direction, cell, passes, never, cues } = one;
    const instant = at !== undefined;
    if (instant === (from !== undefined && to !== undefined)) problems.add('rehearsal-time', path);
    if ((at ?? to ?? 0) > lasts) problems.add('rehearsal-order', path, { received: at ?? to, lasts });
    if ([state, direction, cell, passes, never, cues].every((what) => what === undefined))
      problems.add('rehearsal-expect', path);
    if (state !== undefined) known('state-unknown', state, states, [...path, 'state']);
    if (direction !== undefined)
      known('direction-unknown', direction, controller.compass.names, [...path, 'direction']);
    passes?.forEach((name, j) => known('state-unknown', name, states, [...path, 'passes', j]));
    for (const name of never === undefined ? [] : [never].flat())
      known('state-unknown', name, states, [...path, 'never']);
    for (const name of Object.keys(cues ?? {}))
      known('cue-unknown', name, controller.cueNames, [...path, 'cues', name]);
  });
  problems.throwIfAny();
}

/** What an expectation says in words, and what happened instead (nothing when it was met). */
function judge(
  expectation: Expectation,
  trace: readonly TraceEntry[],
  samples: readonly Sample[],
  lasts: number,
): { expected: string; instead: string } {
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
  const judgeOne = (words: string, met: boolean, found: string): void => {
    wanted.push(words);
    if (!met) instead.push(found);
  };
  if (state !== undefined && at !== undefined)
    judgeOne(`state ${state}`, now.state === state, `state ${now.state}`);
  else if (state !== undefined)
    judgeOne(
      `only state ${state}`,
      order.every((name) => name === state),
      `states ${order.join(', ')}`,
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
  for (const name of never === undefined ? [] : [never].flat())
    judgeOne(`never ${name}`, !order.includes(name), `${name} showed`);
  for (const [cue, count] of Object.entries(cues ?? {})) {
    const heard = trace.filter(
      (e) => e.kind === 'cue' && e.name === cue && e.at >= from && e.at <= to,
    ).length;
    judgeOne(`cue ${cue} ${count} times`, heard === count, `cue ${cue} ${heard} times`);
  }
  const when = at === undefined ? `from ${from} to ${to} ms` : `at ${at} ms`;
  return { expected: `${when}: ${wanted.join(', ')}`, instead: instead.join('; ') };
}
