import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { ClipDefinition, LoopDefinition } from './definition.js';

/** The shortest frame, in milliseconds; no display shows a shorter one. */
const shortestFrame = 1;

/** The longest frame, in milliseconds: an hour. */
const longestFrame = 3_600_000;

/** How long each frame of a clip counts when it has but one and no time is said, in milliseconds. */
const stillFrame = 100;

/** The most frames that a clip may show in one pass, repeats counted. */
const mostFrames = 100_000;

/** The exact duration of each frame in milliseconds; problems leave durations that can still be used. */
export function frameDurations(
  definition: ClipDefinition,
  frames: number,
  path: DocumentPath,
  problems: ProblemList,
): number[] {
  const { hold } = definition;
  const shares = new Array<number>(frames).fill(1);
  for (const [frame, times] of Object.entries(hold ?? {})) {
    const at = [...path, 'hold', frame];
    if (shares[Number(frame)] === undefined) problems.add('frame-range', at, { received: frame, frames });
    else if (!(times > 0 && Number.isFinite(times))) problems.add('hold-times', at, { received: times });
    else shares[Number(frame)] = times;
  }
  const durations = plainDurations(definition, shares, path, problems);
  const odd = durations.findIndex((duration) => !(duration >= shortestFrame && duration <= longestFrame));
  if (odd >= 0) {
    const { fps, ms } = definition;
    const field =
      ms !== undefined
        ? typeof ms === 'number'
          ? ['ms']
          : ['ms', odd]
        : fps !== undefined
          ? ['fps']
          : ['lasts'];
    const received = durations[odd];
    if (fps !== undefined && !(fps > 0 && fps <= 1000))
      problems.add('fps-range', [...path, 'fps'], { received: fps });
    else
      problems.add('duration', [...path, ...field], {
        received,
        least: shortestFrame,
        most: longestFrame,
      });
  }
  return durations;
}

function plainDurations(
  { fps, ms, lasts }: ClipDefinition,
  shares: readonly number[],
  path: DocumentPath,
  problems: ProblemList,
): number[] {
  if ([fps, ms, lasts].filter((one) => one !== undefined).length > 1) problems.add('clip-timing-both', path);
  if (fps !== undefined) return shares.map((share) => (1000 * share) / fps);
  if (lasts !== undefined) {
    const sum = shares.reduce((total, share) => total + share, 0);
    return shares.map((share) => (lasts * share) / sum);
  }
  if (ms === undefined) {
    if (shares.length > 1) problems.add('clip-timing-none', path);
    return shares.map((share) => stillFrame * share);
  }
  if (typeof ms === 'number') return shares.map((share) => ms * share);
  if (ms.length !== shares.length)
    problems.add('clip-ms-count', [...path, 'ms'], { received: ms.length, frames: shares.length });
  return ms.map((duration, i) => duration * (shares[i] ?? 1));
}

/** The order in which a clip shows its frames, and where it goes on after the last: -1 to stay there. */
export interface FrameOrder {
  readonly frames: readonly number[];
  readonly loopFrom: number;
}

/** Unrolls a loop rule: back and forth and a number of times become frames in a row. */
export function frameOrder(
  loop: LoopDefinition | undefined,
  frames: number,
  path: DocumentPath,
  problems: ProblemList,
): FrameOrder {
  const once = Array.from({ length: frames }, (_, frame) => frame);
  if (loop === undefined || loop === 'forever') return { frames: once, loopFrom: 0 };
  if (loop === 'once') return { frames: once, loopFrom: -1 };
  // The ends are not shown twice: 0 1 2 1, then 0 again.
  if (loop === 'back-and-forth') return { frames: [...once, ...once.slice(1, -1).reverse()], loopFrom: 0 };
  if (typeof loop === 'number') {
    const sound = Number.isInteger(loop) && loop >= 1 && loop * frames <= mostFrames;
    if (!sound) problems.add('loop-times', path, { received: loop, most: Math.floor(mostFrames / frames) });
    return { frames: sound ? Array.from({ length: loop }, () => once).flat() : once, loopFrom: -1 };
  }
  const { from } = loop;
  if (once[from] === undefined) problems.add('frame-range', [...path, 'from'], { received: from, frames });
  return { frames: once, loopFrom: from };
}
