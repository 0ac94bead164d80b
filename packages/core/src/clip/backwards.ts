import type { Clip } from './clip.js';

/**
 * A clip as it is played backwards: the same showings in the opposite order, each as long as before. A loop goes round the other way. A
 * loop with an intro goes back through the intro to its first frame and ends there, like a clip that is played once.
 */
export function backwards(clip: Clip): Clip {
  const { order, cells, cues, ends, loopFrom } = clip;
  const whole = ends[ends.length - 1]!;
  const turned = <T>(list: readonly T[]): T[] => [...list].reverse();
  return {
    ...clip,
    order: turned(order),
    cells: turned(cells),
    cues: turned(cues),
    // Where a showing begins, it ends.
    ends: turned([0, ...ends.slice(0, -1)]).map((begins) => whole - begins),
    loopFrom: loopFrom === 0 ? 0 : -1,
  };
}
