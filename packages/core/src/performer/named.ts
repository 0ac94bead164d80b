import type { Controller } from '../controller/controller.js';
import { callError } from '../problem/error.js';

/** The index of a track by name. @throws {DotHopError} for an unknown track, with the nearest known one */
export function trackNamed({ tracks }: Controller, name: string): number {
  const track = tracks.find((one) => one.name === name);
  if (track === undefined) throw callError('track-unknown', { name, known: tracks.map((one) => one.name) });
  return track.index;
}

/** The index of a state by name. @throws {DotHopError} for an unknown state, with the nearest known one */
export function stateNamed({ stateNamed: states }: Controller, name: string): number {
  const state = states.get(name);
  if (state === undefined) throw callError('state-unknown', { name, known: [...states.keys()] });
  return state.index;
}
