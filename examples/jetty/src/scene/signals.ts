import type { Performer } from 'dot-hop';

/** What any body of a platformer can say of itself, whatever moves it. Pixels a second, right and down positive. */
export interface Told {
  /** How fast it really went, whatever it wanted: before a wall that is nothing. */
  readonly wentAlong: number;
  readonly vy: number;
  readonly grounded: boolean;
  /** Whether it goes down a step, over an edge with ground near below. The pictures walk on as if it stood. */
  readonly stepsDown: boolean;
  /** Whether a wall stopped it in the air just now. */
  readonly bumped: boolean;
  /** Whether a dash is left. */
  readonly fresh: boolean;
}

/**
 * Tells a performer what its body does: after each step of the physics, before the step of the performer. These few lines are
 * all that stands between the movement of this game and its pictures.
 *
 * Speeds are rounded to hundredths: an engine's rest trembles in the far decimals, and a signal that does not change costs
 * nothing.
 */
export function tellBody(performer: Performer, body: Told): void {
  performer.set('vx', Math.round(body.wentAlong * 100) / 100);
  performer.set('vy', Math.round(body.vy * 100) / 100);
  performer.set('grounded', body.grounded || body.stepsDown);
  performer.set('fresh', body.fresh);
  if (body.bumped) performer.pulse('bump');
}
