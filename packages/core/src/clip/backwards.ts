import type { Clip } from './clip.js';

/**
 * A clip as it is played backwards: its showings in the other order, each for as long as it is. A loop goes round the other way; one with
 * an intro goes back through the intro to its first frame, and ends there, as a clip that is played once does.
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
