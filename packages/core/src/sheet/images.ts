import type { DocumentPath } from '../problem/problem.js';
import type { SheetDefinition } from './definition.js';

/** The images of sheets and of their parts, each with the first path that names it. */
export function imagesOf(sheets: Readonly<Record<string, SheetDefinition>>): Map<string, DocumentPath> {
  const found = new Map<string, DocumentPath>();
  const add = (file: string, ...at: (string | number)[]): void => {
    if (!found.has(file)) found.set(file, ['sheets', ...at]);
  };
  for (const [name, { image, images = [], parts = {} }] of Object.entries(sheets)) {
    if (image !== undefined) add(image, name, 'image');
    images.forEach((file, i) => {
      add(file, name, 'images', i);
    });
    for (const [part, given] of Object.entries(parts))
      if (typeof given === 'string') add(given, name, 'parts', part);
      else add(given.image, name, 'parts', part, 'image');
  }
  return found;
}
