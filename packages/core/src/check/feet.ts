import type { Controller } from '../controller/controller.js';
import { documentStateOf } from '../controller/document-state.js';
import type { State } from '../controller/state.js';
import { saidOf } from '../controller/groups.js';
import type { FindingList } from './finding.js';

/**
 * Finds states whose clip begins at its first frame although the feet were moving in the state before, so that the feet jump. Two clips
 * have a common phase if both travel in a loop and tell the same cue equally often in a pass: the footfalls of a walk and of a run.
 */
export function checkFeet(controller: Controller, found: FindingList): void {
  const paces = new Map(controller.states.map((state) => [state, paceOf(state)]));
  for (const [state, pace] of paces) {
    const own = documentStateOf(controller, state);
    if (own === undefined || pace.size === 0) continue;
    // Whoever has said what is carried has thought of it; a state before its groups.
    if (typeof saidOf(own, 'carry') === 'string') continue;
    const from = [...paces].flatMap(([other, paceBefore]) => {
      const isSaid = state.carry[other.index] !== undefined || state.bridges[other.index] !== undefined;
      if (other === state || other.track !== state.track || isSaid) return [];
      const cue = [...pace].find(([name, times]) => paceBefore.get(name) === times)?.[0];
      return cue === undefined ? [] : [{ state: other.name, cue }];
    });
    if (from.length > 0)
      found.add('feet-jump', own.path, {
        state: state.name,
        from: from.map((one) => one.state),
        cue: from[0]!.cue,
      });
  }
}

/** How often the clip of a state that travels in a loop tells each of its cues in a pass; nothing where time does not lead it. */
function paceOf({ flipbooks, gaitCount, scrub, inStep, takenBy, lasts }: State): ReadonlyMap<string, number> {
  const pace = new Map<string, number>();
  if (scrub !== undefined || inStep >= 0 || takenBy >= 0 || lasts?.fits === true) return pace;
  for (const [timeline] of flipbooks.slice(0, gaitCount)) {
    const { clip } = timeline!;
    if (clip.loopFrom < 0 || clip.stride === undefined) continue;
    const told = clip.cues.slice(clip.loopFrom).flat();
    for (const cue of told) pace.set(cue, told.filter((one) => one === cue).length);
  }
  return pace;
}
