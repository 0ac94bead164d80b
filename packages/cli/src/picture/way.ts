import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { PathPoint, RehearsalResult } from 'dot-hop/rehearsal';

/** Where a character is at an instant, in pixels, y downwards. */
export type Way = (ms: number) => { readonly x: number; readonly y: number };

/** Whether a character is seen from above: it can go in more directions than two. */
export const isFromAbove = ({ compass }: Controller): boolean => compass.names.length > 2;

/**
 * The way of a rehearsal's body. Without one it is the way on which the signals would have led that are named as a body's speeds
 * are: `vx`, and of a character seen from above `vy` too. What these say of leaps is not enough to go by.
 */
export function wayOf(result: RehearsalResult, controller: Controller): Way {
  const points = result.path.length > 0 ? result.path : ledBy(result, controller);
  return (ms) => {
    const next = points.findIndex(({ at }) => at > ms);
    const [from, to] = [points[next < 0 ? points.length - 1 : next - 1], points[next]];
    if (from === undefined) return points[0] ?? { x: 0, y: 0 };
    if (to === undefined) return from;
    const part = (ms - from.at) / (to.at - from.at);
    return { x: from.x + (to.x - from.x) * part, y: from.y + (to.y - from.y) * part };
  };
}

function ledBy({ trace, lasts }: RehearsalResult, controller: Controller): PathPoint[] {
  const up = controller.compass.isUpward ? -1 : 1;
  const speed = { vx: 0, vy: 0 };
  for (const { name, kind, first } of describeController(controller).signals)
    if ((name === 'vx' || name === 'vy') && kind === 'number') speed[name] = Number(first);
  const points: PathPoint[] = [{ at: 0, x: 0, y: 0 }];
  const go = (to: number): void => {
    const { at, x, y } = points[points.length - 1]!;
    const seconds = (to - at) / 1000;
    const down = isFromAbove(controller) ? speed.vy * up * seconds : 0;
    points.push({ at: to, x: x + speed.vx * seconds, y: y + down });
  };
  for (const entry of trace)
    if (entry.kind === 'set' && (entry.name === 'vx' || entry.name === 'vy')) {
      go(entry.at);
      speed[entry.name] = Number(entry.value);
    }
  go(lasts);
  return points;
}
