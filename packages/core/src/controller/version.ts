import type { Clip } from '../clip/clip.js';
import type { Controller } from './controller.js';
import { hashOf } from './hash.js';

const versions = new WeakMap<Controller, string>();

/**
 * The version of what a controller decides: a hash of its signals, states and compass, and of how the clips that it shows are timed. A
 * document that is packed decides the same as before, whatever its sheets are now, and has the same version; so has a compiled one.
 */
export function versionOf(controller: Controller): string {
  if (controller.version !== undefined) return controller.version;
  let version = versions.get(controller);
  if (version === undefined)
    versions.set(controller, (version = hashOf(JSON.stringify(decided(controller)))));
  return version;
}

function decided({ definition, timelines }: Controller): unknown {
  const { signals, derived, states, rest, tracks, compass } = definition;
  const clips = new Set(timelines.map(({ clip }) => clip));
  const shown = timelines.map(({ state, book, direction, clip }) => [state, book, direction, clip.name]);
  return [signals, derived, states, rest, tracks, compass, shown, [...clips].map(timing)];
}

const timing = ({ name, order, ends, loopFrom, cues, spans, stride }: Clip): unknown => [
  name,
  order,
  ends,
  loopFrom,
  cues,
  [...spans],
  stride,
];
