import type { DocumentPath } from '../problem/problem.js';
import { isMap } from './check.js';
import type { Shape, TextRole } from './shape.js';

/** A text in data, or a key, that has a role by the shape of the data. */
export interface PlacedText {
  readonly path: DocumentPath;
  readonly role: TextRole;
  /** Whether it is the key at the path, or its value. */
  readonly as: 'key' | 'value';
  readonly text: string;
}

/** Every text with a role in data, in the order of the data. Data that does not fit the shape is passed over. */
export function textsIn(data: unknown, shape: Shape, path: DocumentPath = []): PlacedText[] {
  const found: PlacedText[] = [];
  visit(data, shape, path, found);
  return found;
}

function visit(data: unknown, shape: Shape, path: DocumentPath, found: PlacedText[]): void {
  switch (shape.kind) {
    case 'text':
      if (shape.role !== undefined && shape.role !== 'none' && typeof data === 'string')
        found.push({ path, role: shape.role, as: 'value', text: data });
      return;
    case 'list':
    case 'tuple':
      if (Array.isArray(data))
        data.forEach((inner, i) => {
          const of = shape.kind === 'list' ? shape.of : shape.of[i];
          if (of !== undefined) visit(inner, of, [...path, i], found);
        });
      return;
    case 'map':
      if (isMap(data))
        for (const [key, inner] of Object.entries(data)) {
          const { keys } = shape;
          if (keys !== undefined && keys !== 'none')
            found.push({ path: [...path, key], role: keys, as: 'key', text: key });
          visit(inner, shape.of, [...path, key], found);
        }
      return;
    case 'fields':
      if (isMap(data))
        for (const [key, inner] of Object.entries(data)) {
          const of = Object.hasOwn(shape.must, key) ? shape.must[key] : shape.may[key];
          if (of !== undefined) visit(inner, of, [...path, key], found);
        }
      return;
    case 'any': {
      const meant = meantBy(data, shape.of);
      if (meant !== undefined) visit(data, meant, path, found);
      return;
    }
    default:
  }
}

/** Which of several shapes some data has: of texts the first, unless it is one of given values; of maps the one whose required fields it has. */
function meantBy(data: unknown, shapes: readonly Shape[]): Shape | undefined {
  const all = shapes.flatMap((one) => (one.kind === 'any' ? one.of : [one]));
  if (typeof data === 'string') {
    const isGiven = all.some((one) => one.kind === 'one' && one.values.includes(data));
    return isGiven ? undefined : all.find(({ kind }) => kind === 'text');
  }
  if (Array.isArray(data)) return all.find(({ kind }) => kind === 'list' || kind === 'tuple');
  if (!isMap(data)) return undefined;
  return (
    all.find(
      (one) => one.kind === 'fields' && Object.keys(one.must).every((key) => Object.hasOwn(data, key)),
    ) ?? all.find(({ kind }) => kind === 'map')
  );
}
