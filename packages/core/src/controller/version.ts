import type { Controller } from './controller.js';
import { hashOf } from './hash.js';
import { variantsShown } from './variants.js';

const versions = new WeakMap<Controller, string>();

/**
 * The version of what a controller decides: a hash of its signals, states and compass, and of how the clips that it shows are timed. A
 * document that is packed decides the same as before, whatever its sheets are now, and has the same version; so has a compiled one.
 */
export function versionOf(controller: Controller): string {
  if (controller.version !== undefined) return controller.version;
  let version = versions.get(controller);
  if (version === undefined) versions.set(controller, (version = hashOf(decided(controller))));
  return version;
}

/**
 * What timelines decide: what shows where, and how it is timed. Drawings are left out, and directions: timelines stand in their order, and a
 * clip that a row of a sheet makes knows its own where the packed one does not.
 */
const timing = ['state', 'flipbook', 'clip', 'name', 'order', 'ends', 'loopFrom', 'cues', 'stride'];

function decided(controller: Controller): string {
  const { definition, timelines } = controller;
  const { signals, derived, states, rest, tracks, compass, cues } = definition;
  const spans = timelines.map(({ clip }) => [...clip.spans]);
  return (
    JSON.stringify([signals, derived, states, rest, tracks, compass, variantsShown(controller), spans]) +
    JSON.stringify(timelines, timing) +
    (cues === undefined ? '' : JSON.stringify(cues))
  );
}
