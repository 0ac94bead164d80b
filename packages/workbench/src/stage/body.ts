import type { Controller } from 'dot-hop';

/** How a body moves while one tries: by running and jumping, seen from above, or not at all. */
export type BodyKind = 'platformer' | 'walker' | 'none';

/** A body of the kind that a character's signals are made for. */
export function bodyOf({ definition }: Controller): 'platformer' | 'walker' {
  const signals = definition.signals ?? {};
  return 'grounded' in signals || !('vy' in signals || 'velocity' in signals) ? 'platformer' : 'walker';
}
