import { nearestName } from 'dot-hop/document';

/** The end of a sentence about an unknown name: the nearest known one, else all. */
export function nearestOf(name: string, known: readonly string[]): string {
  const near = nearestName(name, known);
  return near === undefined ? `; there are ${known.join(', ')}` : `; did you mean "${near}"?`;
}
