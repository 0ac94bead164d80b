import type { Controller } from '../controller/controller.js';
import { versionOf } from '../controller/version.js';
import { chanceOf, nextChance } from '../engine/chance.js';
import { Performer } from '../performer/performer.js';
import type { Outfit } from '../performer/outfit.js';
import type { PerformerSnapshot } from '../performer/snapshot-data.js';
import type { Expectation, StepsDefinition } from './definition.js';
import { examine } from './examine.js';
import { FeedingBody } from './feeds.js';
import { judge } from './judge.js';
import type { Judgement } from './judge.js';
import { statesMeant } from './meant.js';
import { Recorder, micros, sampling } from './recorder.js';
import { Script, waitText } from './script.js';
import type { ScriptEvent } from './script.js';
import type { Outcome, RehearsalResult } from './trace.js';
import type { RehearsalScript } from './definition.js';

/** Options for running a rehearsal. */
export interface RehearsalOptions {
  /** The outfit in the poses of the samples. It changes nothing else. */
  readonly outfit?: Outfit | undefined;
  /** Gives the place of a state, such as `wick.dothop.yaml:30`, for answers to why. */
  readonly placeOf?: ((state: string, track: string) => string) | undefined;
}

/**
 * Runs a rehearsal without a game. It sets everything that is due at an instant, decides that instant, and goes on to the next. The result
 * is the same on every machine and in every run.
 *
 * @throws {DotHopError} when the script or an expectation uses a name that the controller does not have, or lies past the end; each problem
 *   has its path in the rehearsal
 */
export function runRehearsal(
  controller: Controller,
  rehearsal: RehearsalScript,
  options: RehearsalOptions = {},
): RehearsalResult {
  examine(controller, rehearsal);
  const { recorder, outcomes } = perform(controller, rehearsal, new Set(), options);
  const failed = new Set(outcomes.flatMap(({ failedAt }) => failedAt ?? []));
  // Only once more, so that a run without faults asks no performer why.
  const whys = failed.size > 0 ? perform(controller, rehearsal, failed, options).recorder.whys : undefined;
  return {
    lasts: rehearsal.lasts,
    trace: recorder.trace,
    samples: recorder.samples,
    trail: recorder.trail,
    path: recorder.path,
    outcomes: outcomes.map(({ track, ...one }): Outcome => ({
      ...one,
      why: one.failedAt === undefined ? undefined : whys?.get(one.failedAt)?.[track],
    })),
  };
}

/** An outcome before it is asked why, with the track that is to be asked. */
type Judged = Omit<Outcome, 'why'> & { readonly track: number };

/** @param looks instants at which it is asked why; asking changes nothing */
function perform(
  controller: Controller,
  rehearsal: RehearsalScript,
  looks: ReadonlySet<number>,
  { outfit, placeOf }: RehearsalOptions,
): { recorder: Recorder; outcomes: Judged[] } {
  const { lasts, expect = [] } = rehearsal;
  const body = rehearsal.body && new FeedingBody(controller, rehearsal.body);
  const stops = [...expect.flatMap(({ at }) => at ?? []), ...looks].sort((a, b) => a - b);
  const performer = new Performer(controller, Object.fromEntries(body?.changes() ?? []));
  performer.wear(outfit);
  if (rehearsal.begins !== undefined) beginFrom(performer, rehearsal.begins as unknown as PerformerSnapshot);
  const recorder = new Recorder(performer, stops, looks, placeOf);
  const script = new Script(rehearsal.script, recorder, body);
  const tick = rehearsal.steps === undefined ? undefined : ticksOf(rehearsal.steps);
  for (;;) {
    script.play();
    recorder.decide();
    if (micros(recorder.time) >= micros(lasts)) break;
    const next = tick
      ? tick(recorder.time)
      : Math.min(script.next(), script.isBusy ? recorder.time + sampling : Infinity);
    recorder.advance(Math.min(next, lasts));
  }
  script.finish();
  const { trace, samples } = recorder;
  const judged = (one: Expectation): Judgement => judge(controller, one, trace, samples, lasts);
  const found = [
    ...expect.map((one, i) => ({ path: ['expect', i], ...judged(one) })),
    ...script.moments.map((moment) => ofMoment(controller, moment, lasts, judged)),
  ];
  return {
    recorder,
    outcomes: found.map((one, index) => ({ index, ...one, met: one.instead === '' })),
  };
}

/** Stands where a snapshot was taken. One of another version of the same document counts as far as its names are still there. */
function beginFrom(performer: Performer, snapshot: PerformerSnapshot): void {
  const { controller } = performer;
  const isEdited = snapshot.controller === controller.name && snapshot.version !== versionOf(controller);
  if (isEdited) performer.adopt(snapshot);
  else performer.restore(snapshot);
}

/** What came of a line that waits or expects something. */
function ofMoment(
  controller: Controller,
  { kind, index, line, since, at }: ScriptEvent,
  lasts: number,
  judged: (one: Expectation) => Judgement,
): Omit<Judged, 'index' | 'met'> {
  const path = ['script', index];
  if (kind === 'expects') return { path: [...path, 'expect'], ...judged({ at, ...line.expect }) };
  if (line.until === undefined) {
    const expected = `a line that takes place ${line.after ?? 0} ms after the one above it`;
    return {
      path,
      from: since,
      to: lasts,
      expected,
      instead: 'the rehearsal was over first',
      failedAt: lasts,
      track: 0,
    };
  }
  const { until } = line;
  const { track = 0 } =
    typeof until === 'object' && 'state' in until ? (statesMeant(controller, until.state) ?? {}) : {};
  const limit = line.within === undefined ? '' : ` within ${line.within} ms`;
  const came = kind === 'waited';
  return {
    path: [...path, 'until'],
    from: since,
    to: at,
    expected: `after ${Number(since.toFixed(3))} ms: ${waitText(line)}${limit}`,
    instead: came ? '' : `it did not come until ${Number(at.toFixed(3))} ms`,
    failedAt: came ? undefined : at,
    track,
  };
}

/** Tells at an instant when the next step of the game begins, in milliseconds. */
function ticksOf(steps: StepsDefinition): (now: number) => number {
  let count = 0;
  // Counted, so that rounding to microseconds does not add up.
  if ('perSecond' in steps) return () => (++count * 1000) / steps.perSecond;
  let state = steps.seed;
  return (now) => {
    state = nextChance(state);
    return now + steps.from + (steps.to - steps.from) * chanceOf(state);
  };
}
