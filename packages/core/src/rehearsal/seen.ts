import type { Controller } from '../controller/controller.js';
import type { Expectation } from './definition.js';
import { micros } from './recorder.js';
import { runRehearsal } from './run.js';
import type { RehearsalScript } from './definition.js';
import { tellsCue } from './trace.js';

/** What shows for less than this, in milliseconds, is expected in its turn only, and not at an instant. */
const brief = 60;

/**
 * Runs a rehearsal and turns what happened into expectations: the states of each track in order, the states of the first track
 * at the middle of their time, and how often each cue was told. A run whose times differ only a little meets them too.
 *
 * @throws {DotHopError} as {@link runRehearsal} does
 */
export function expectationsSeen(controller: Controller, rehearsal: RehearsalScript): Expectation[] {
  const { lasts } = rehearsal;
  const { trace, samples: first } = runRehearsal(controller, { ...rehearsal, expect: undefined });
  const { name: body } = controller.tracks[0]!;
  const begun = [
    { at: 0, name: first[0]!.state },
    ...trace.filter((entry) => entry.kind === 'switch' && entry.track === body),
  ];
  const middles = begun.flatMap(({ at }, i) => {
    const end = begun[i + 1]?.at ?? lasts;
    return end - at < brief ? [] : [Math.round((at + end) / 2)];
  });
  // Pictures are sampled now and then, and exactly at an instant at which something is expected.
  const looked = middles.map((at) => ({ at, state: begun[0]!.name }));
  const { samples } = runRehearsal(controller, { ...rehearsal, expect: looked });
  const turns = controller.compass.names.length > 1;
  const seen = middles.map((at): Expectation => {
    const { state, direction } = samples.findLast((one) => micros(one.at) <= micros(at))!;
    return { at, state, ...(turns && { direction }) };
  });
  const told = trace.flatMap((entry) => (entry.kind === 'cue' ? [entry.from ?? entry.name] : []));
  // Counted as they will be judged.
  const cues = Object.fromEntries(
    [...new Set(told)].map((cue) => [cue, trace.filter((entry) => tellsCue(entry, cue)).length]),
  );
  const passed = controller.tracks.flatMap(({ index, order }): Expectation[] => {
    // What has taken a track is expected of the one that it belongs to.
    const states = order.map((one) => controller.states[one]!).filter(({ takenBy }) => takenBy < 0);
    const own = new Set(states.map(({ name }) => name));
    const passes = samples
      // What gives way at the very beginning never showed.
      .filter((_, i) => (samples[i + 1]?.at ?? Infinity) > 0)
      .map(({ tracks }) => tracks[index]!.state)
      .filter((name, i, names) => name !== names[i - 1] && own.has(name))
      .filter((name, i, names) => name !== names[i - 1]);
    if (index > 0) return passes.length > 1 ? [{ from: 0, to: lasts, passes }] : [];
    return [{ from: 0, to: lasts, passes, ...(Object.keys(cues).length > 0 && { cues }) }];
  });
  return [...seen, ...passed];
}
