import type { Controller } from '../controller/controller.js';
import type { Expectation } from './definition.js';
import { micros } from './recorder.js';
import type { RehearsalResult } from './trace.js';

/** What shows for less than this, in milliseconds, is expected in its turn only, and not at an instant. */
const brief = 60;

/**
 * What was seen in a rehearsal as what is to be expected of it: for each track its states in their order, for the first one each state
 * in the middle of its time too, and how often each cue was told. A run that passes the same meets all of it; one whose times
 * are a little others does too.
 */
export function expectationsSeen(controller: Controller, result: RehearsalResult): Expectation[] {
  const { trace, samples, lasts } = result;
  const cues: Record<string, number> = {};
  for (const { kind, name } of trace) if (kind === 'cue') cues[name] = (cues[name] ?? 0) + 1;
  const turns = controller.compass.names.length > 1;
  const all: Expectation[] = [];
  for (const { index, order } of controller.tracks) {
    const own = new Set(
      order
        .map((one) => controller.states[one]!)
        .filter(({ takenBy }) => takenBy < 0)
        .map(({ name }) => name),
    );
    const shown = samples
      .map(({ at, tracks }) => ({ at, ...tracks[index]! }))
      // What gives way at the very beginning never showed.
      .filter((_, i, all) => (all[i + 1]?.at ?? Infinity) > 0)
      .filter(({ state }, i, all) => state !== all[i - 1]?.state);
    if (index === 0)
      shown.forEach(({ at, state }, i) => {
        const end = shown[i + 1]?.at ?? lasts;
        const middle = Math.round((at + end) / 2);
        if (end - at < brief) return;
        const { direction } = samples.findLast((one) => micros(one.at) <= micros(middle))!.tracks[0]!;
        all.push({ at: middle, state, ...(turns && { direction }) });
      });
    // What has taken a track is expected of the one that it belongs to.
    const passes = shown
      .map(({ state }) => state)
      .filter((name) => own.has(name))
      .filter((name, i, names) => name !== names[i - 1]);
    const isFirst = index === 0;
    if (isFirst || passes.length > 1)
      all.push({
        ...{ from: 0, to: lasts, passes },
        ...(isFirst && Object.keys(cues).length > 0 && { cues }),
      });
  }
  return all;
}
