import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { ClipDefinition } from './definition.js';

/** The directions of a flipbook, each with the clip that is drawn for it. */
export type FlipbookDefinition = Readonly<Record<string, string>>;

/** A clip of a document, or one row of it. */
export interface ClipRow {
  readonly definition: ClipDefinition;
  /** The clip of the document that it is, or of whose rows it is one. */
  readonly of: string;
  /** The direction of its row; `undefined` for a clip without rows. */
  readonly direction: string | undefined;
  /** How many rows below its `cells` it lies. */
  readonly row: number;
  /** Where the document says it. */
  readonly path: DocumentPath;
}

/** The clips and flipbooks of a document, those that it says in rows written out. */
export interface WrittenOut {
  readonly clips: ReadonlyMap<string, ClipRow>;
  readonly flipbooks: ReadonlyMap<string, FlipbookDefinition>;
}

/**
 * Writes out clips whose `rows` name directions: `walk` with rows of south and east becomes the clips `walk-south` and
 * `walk-east` and the flipbook `walk`.
 */
export function writeOutRows(
  clips: Readonly<Record<string, ClipDefinition>>,
  flipbooks: Readonly<Record<string, FlipbookDefinition>>,
  problems: ProblemList,
): WrittenOut {
  const written = new Map(Object.entries(flipbooks));
  const out = new Map<string, ClipRow>();
  for (const [name, definition] of Object.entries(clips))
    if (definition.rows === undefined)
      out.set(name, { definition, of: name, direction: undefined, row: 0, path: ['clips', name] });
  for (const [name, definition] of Object.entries(clips)) {
    const { rows } = definition;
    if (rows === undefined) continue;
    const path = ['clips', name];
    if (written.has(name)) problems.add('rows-twice', path, { name, what: 'flipbook' });
    const places: [string, number][] = Array.isArray(rows)
      ? (rows as string[]).map((direction, row) => [direction, row])
      : Object.entries(rows as Readonly<Record<string, number>>);
    if (places.length === 0) problems.add('rows-none', [...path, 'rows']);
    const flipbook: Record<string, string> = {};
    places.forEach(([direction, row], i) => {
      const at = [...path, 'rows', Array.isArray(rows) ? i : direction];
      if (!Number.isInteger(row) || row < 0)
        problems.add('field-kind', at, { expected: 'a row from 0', received: row });
      const clip = `${name}-${direction}`;
      if (out.has(clip)) problems.add('rows-twice', at, { name: clip, what: 'clip' });
      out.set(clip, { definition, of: name, direction, row, path });
      flipbook[direction] = clip;
    });
    written.set(name, flipbook);
  }
  return { clips: out, flipbooks: written };
}
