import type { ControllerDefinition } from '../controller/definition.js';
import type { PartDefinition } from '../sheet/definition.js';
import type { Edit } from './history.js';

/* Parts of a sheet: the same drawings once more on images of their own, back to front. */

/** Reads a part of a sheet, in whichever form it is written. */
export const partOf = (
  { sheets }: ControllerDefinition,
  sheet: string,
  part: string,
): PartDefinition | undefined => {
  const said = sheets[sheet]?.parts?.[part];
  return typeof said === 'string' ? { image: said } : said;
};

/** Adds a part, in front of the others. */
export const addPart = (sheet: string, part: string, image: string): Edit => ({
  says: `${image} is the part ${part} of ${sheet}`,
  changes: [{ op: 'set', path: ['sheets', sheet, 'parts', part], value: image }],
});

/** Sets the point by which a part hangs on the body's drawing. `undefined` puts pivot on pivot. */
export function hangPart(
  definition: ControllerDefinition,
  sheet: string,
  part: string,
  joint: string | undefined,
): Edit {
  const before = partOf(definition, sheet, part);
  if (before === undefined) return { says: '', changes: [] };
  const rest = Object.fromEntries(Object.entries(before).filter(([field]) => field !== 'joint'));
  const isPlain = joint === undefined && Object.keys(rest).length === 1;
  return {
    says: joint === undefined ? `${part} lies pivot on pivot` : `${part} hangs by ${joint}`,
    changes: [
      {
        op: 'set',
        path: ['sheets', sheet, 'parts', part],
        value: isPlain ? rest.image : { ...rest, ...(joint !== undefined && { joint }) },
      },
    ],
  };
}

/** Removes a part, and the list with the last one. */
export function removePart({ sheets }: ControllerDefinition, sheet: string, part: string): Edit {
  const parts = Object.keys(sheets[sheet]?.parts ?? {});
  const path = ['sheets', sheet, 'parts'];
  return {
    says: `${sheet} without the part ${part}`,
    changes: parts.includes(part)
      ? [{ op: 'remove', path: parts.length === 1 ? path : [...path, part] }]
      : [],
  };
}

/** Moves a part to another place among the parts of its sheet, counted from the back without it. */
export const movePart = (sheet: string, part: string, to: number): Edit => ({
  says: `${part} lies further ${to === 0 ? 'back' : 'in front'}`,
  changes: [{ op: 'move', path: ['sheets', sheet, 'parts', part], to }],
});
