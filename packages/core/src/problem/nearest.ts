/** Edits (insert, delete, replace, swap of neighbours) that turn one word into the other. */
function distance(a: string, b: string): number {
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, j) => j);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      let edits = Math.min(row[j - 1]! + same, row[j]! + 1, next[j - 1]! + 1);
      const swapped = i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1];
      if (swapped) edits = Math.min(edits, before[j - 2]! + 1);
      next.push(edits);
    }
    before = row;
    row = next;
  }
  return row[b.length]!;
}

/**
 * Finds the known name that a misspelt name most likely means.
 *
 * @param most the largest number of edits. Default: a third of the name's length, and at least one
 * @returns the nearest name by edit distance; `undefined` if none is near enough. Upper and lower case count as equal. Source: the
 *   restricted Damerau-Levenshtein distance (optimal string alignment).
 */
export function nearestName(
  name: string,
  known: Iterable<string>,
  most = Math.max(1, Math.floor(name.length / 3)),
): string | undefined {
  const wanted = name.toLowerCase();
  let best: string | undefined;
  let fewest = most + 1;
  for (const candidate of known) {
    const edits = distance(wanted, candidate.toLowerCase());
    if (edits < fewest) {
      fewest = edits;
      best = candidate;
    }
  }
  return best;
}
