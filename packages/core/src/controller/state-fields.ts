import type { Clip } from '../clip/clip.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { State } from './state.js';
import type { AtDefinition, StateDefinition } from './definition.js';

/** The most hops, and the most yields, of a state. */
const mostHops = 250;

/** Refuses what a state that ends, or never does, cannot say. */
export function checkEnd(
  { then, scrub, lasts }: StateDefinition,
  kind: State['kind'],
  clips: readonly Clip[],
  path: DocumentPath,
  problems: ProblemList,
): void {
  const endless = clips.find(({ loopFrom }) => loopFrom >= 0);
  if (kind === 'act' && endless !== undefined && lasts === undefined)
    problems.add('act-endless', [...path, 'shows'], { clip: endless.name });
  if (then !== undefined && kind === 'posture') problems.add('then-posture', [...path, 'then']);
  if (kind === 'act' && scrub !== undefined && lasts === undefined)
    problems.add('scrub-act', [...path, 'scrub']);
}

export function checkCount(
  received: number,
  code: 'too-many-hops' | 'too-many-yields',
  path: DocumentPath,
  problems: ProblemList,
): void {
  if (received > mostHops) problems.add(code, path, { received, most: mostHops });
}

/** Refuses a span that none of the clips has. */
export function checkSpan(
  span: string | undefined,
  clips: readonly Clip[],
  path: DocumentPath,
  problems: ProblemList,
): void {
  if (span === undefined || clips.length === 0 || clips.some(({ spans }) => spans.has(span))) return;
  const known = [...new Set(clips.flatMap(({ spans }) => [...spans.keys()]))];
  problems.add('span-unknown', path, { name: span, known });
}

/** Refuses an instant that none of the clips has. @param now whether `now` may be said */
export function checkInstant(
  at: AtDefinition,
  now: boolean,
  clips: readonly Clip[],
  path: DocumentPath,
  problems: ProblemList,
): void {
  if (typeof at !== 'string') {
    if ('start' in at) checkSpan(at.start, clips, [...path, 'start'], problems);
    else if ('end' in at) checkSpan(at.end, clips, [...path, 'end'], problems);
    else
      at.phases.forEach((phase, i) => {
        if (!(phase >= 0 && phase < 1))
          problems.add('phase-range', [...path, 'phases', i], { received: phase });
      });
    return;
  }
  const known = [...(now ? ['now'] : []), 'end', ...new Set(clips.flatMap((clip) => clip.cues.flat()))];
  if (clips.length > 0 && !known.includes(at)) problems.add('cue-unknown', path, { name: at, known });
}

/**
 * @param isBound whether it shows only while something is true
 * @returns whether a state says where it may be left
 */
export function leavesOf(
  { leaves }: StateDefinition,
  isBound: boolean,
  clips: readonly Clip[],
  path: DocumentPath,
  problems: ProblemList,
): boolean {
  if (leaves === undefined) return false;
  if (!isBound) problems.add('leaves-bare', path);
  checkInstant(leaves, false, clips, path, problems);
  const cue = typeof leaves === 'string' && leaves !== 'end' ? leaves : undefined;
  const span =
    typeof leaves === 'string'
      ? undefined
      : 'start' in leaves
        ? leaves.start
        : 'end' in leaves
          ? leaves.end
          : undefined;
  // In a clip without it the state could never be left.
  const without = clips.find(
    (clip) =>
      clip.loopFrom >= 0 &&
      ((cue !== undefined && !clip.cues.flat().includes(cue)) ||
        (span !== undefined && !clip.spans.has(span))),
  );
  if (without !== undefined && clips.length > 1)
    problems.add('leaves-never', path, { name: cue ?? span, clip: without.name });
  return true;
}

export function againOf(
  { again = 'ignore' }: StateDefinition,
  kind: State['kind'],
  path: DocumentPath,
  problems: ProblemList,
): State['again'] {
  if (again !== 'ignore' && kind !== 'act') problems.add('again-posture', path);
  return again;
}
