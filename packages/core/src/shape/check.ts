import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { FieldsShape, Shape } from './shape.js';

type Data = Readonly<Record<string, unknown>>;

/** Whether a value is a map as documents have them, and no list. */
export const isMap = (value: unknown): value is Data =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** Whether a value fits a shape in full. */
function fits(value: unknown, shape: Shape): boolean {
  switch (shape.kind) {
    case 'number': {
      const { least = -Infinity, over = -Infinity, most = Infinity, whole = false } = shape;
      return (
        typeof value === 'number' &&
        Number.isFinite(value) &&
        value >= least &&
        value > over &&
        value <= most &&
        (!whole || Number.isSafeInteger(value))
      );
    }
    case 'text':
      return typeof value === 'string';
    case 'flag':
      return typeof value === 'boolean';
    case 'one':
      return (shape.values as readonly unknown[]).includes(value);
    case 'list':
      return Array.isArray(value) && value.every((inner) => fits(inner, shape.of));
    case 'tuple':
      return (
        Array.isArray(value) &&
        value.length === shape.of.length &&
        shape.of.every((inner, i) => fits(value[i], inner))
      );
    case 'map':
      return (
        isMap(value) && Object.entries(value).every(([key, inner]) => isName(key) && fits(inner, shape.of))
      );
    case 'fields':
      return (
        isMap(value) &&
        Object.entries(shape.must).every(
          ([key, inner]) => Object.hasOwn(value, key) && fits(value[key], inner),
        ) &&
        Object.entries(value).every(([key, inner]) => {
          if (inner === undefined || Object.hasOwn(shape.must, key)) return true;
          return Object.hasOwn(shape.may, key) ? fits(inner, shape.may[key]!) : shape.open;
        })
      );
    case 'any':
      return shape.of.some((inner) => fits(value, inner));
  }
}

/** The one name that plain data cannot hold: assigning it would change what an object is. */
const isName = (key: string): boolean => key !== '__proto__';

/**
 * Checks data against a shape.
 *
 * @param problems gets what is wrong: a field that is missing, one that is not known (with the nearest known name), a value
 *   of another kind
 */
export function checkShape(value: unknown, shape: Shape, path: DocumentPath, problems: ProblemList): void {
  const wrong = (): void => problems.add('field-kind', path, { expected: shape.says, received: value });
  switch (shape.kind) {
    case 'list':
      if (!Array.isArray(value)) wrong();
      else value.forEach((inner, i) => checkShape(inner, shape.of, [...path, i], problems));
      return;
    case 'map':
      if (!isMap(value)) wrong();
      else
        for (const [key, inner] of Object.entries(value))
          if (isName(key)) checkShape(inner, shape.of, [...path, key], problems);
          else problems.add('name-reserved', [...path, key], { name: key });
      return;
    case 'fields':
      if (!isMap(value)) wrong();
      else checkFields(value, shape, path, problems);
      return;
    case 'any': {
      if (fits(value, shape)) return;
      const meant = meantOf(value, shape.of);
      if (meant === undefined) wrong();
      else checkShape(value, meant, path, problems);
      return;
    }
    default:
      if (!fits(value, shape)) wrong();
  }
}

function checkFields(value: Data, shape: FieldsShape, path: DocumentPath, problems: ProblemList): void {
  const { must, may, open } = shape;
  for (const [key, inner] of Object.entries(must))
    if (!Object.hasOwn(value, key) || value[key] === undefined)
      problems.add('field-missing', [...path, key], { field: key, expected: inner.says });
  for (const [key, inner] of Object.entries(value)) {
    const known = Object.hasOwn(must, key) ? must[key] : Object.hasOwn(may, key) ? may[key] : undefined;
    if (inner === undefined) continue;
    if (known !== undefined) checkShape(inner, known, [...path, key], problems);
    else if (!open)
      problems.add('field-unknown', [...path, key], {
        field: key,
        known: [...Object.keys(must), ...Object.keys(may)],
      });
  }
}

/**
 * Which of several shapes was meant, so that the fault is reported at its exact place. For a list it is the only list shape.
 * For a map it is the fields shape whose required fields are all there, or the only shape that a map can have.
 */
function meantOf(value: unknown, shapes: readonly Shape[]): Shape | undefined {
  if (Array.isArray(value)) {
    const lists = shapes.filter(({ kind }) => kind === 'list');
    return lists.length === 1 ? lists[0] : undefined;
  }
  if (!isMap(value)) return undefined;
  const maps = shapes.flatMap((one) => (one.kind === 'any' ? one.of : [one]));
  const some = maps.filter((one) => one.kind === 'fields' || one.kind === 'map');
  if (some.length === 1) return some[0];
  return some.find(
    (one) =>
      one.kind === 'fields' &&
      Object.keys(one.must).length > 0 &&
      Object.keys(one.must).every((key) => Object.hasOwn(value, key)),
  );
}
