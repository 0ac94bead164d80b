import { nearestName } from '../problem/nearest.js';

/**
 * Finds the file that a misspelt name most likely means. It does not compare the ending, because all documents have the same one.
 *
 * @param file the name without its folder
 * @param beside the names of the files in that folder
 */
export function nearestFile(file: string, beside: Iterable<string>): string | undefined {
  const [stem = ''] = file.split('.', 1);
  return nearestName(file, beside, Math.max(1, Math.floor(stem.length / 3)));
}
