import type { ControllerDefinition, RectangleDefinition } from 'dot-hop';
import { addSheet, freeName, updateImages } from 'dot-hop/edit';
import type { Change, Edit } from 'dot-hop/edit';
import { clipOf, clipsOfNames, clipsOfRows, cutIslands, plainName, sequenceOf } from 'dot-hop/gather';
import { filmOf } from './film.js';
import { decoded, isPicture } from './files.js';
import type { NamedFiles } from './files.js';
import { drawnOf } from './pictures.js';
import type { Drawn } from './pictures.js';

/** What files amount to: an edit, the files that it needs, and what was noticed. */
export interface Brought {
  readonly edit: Edit;
  readonly files: ReadonlyMap<string, Blob>;
  readonly drawn: ReadonlyMap<string, Drawn>;
  /** What one should know, in sentences. */
  readonly told: readonly string[];
  /** The sheet that it is about. */
  readonly sheet: string | undefined;
}

const nothing = (told: readonly string[]): Brought => ({
  edit: { says: 'nothing', changes: [] },
  files: new Map(),
  drawn: new Map(),
  told,
  sheet: undefined,
});

/** The folder in which all files lie. */
function rootOf(names: readonly string[]): string {
  const folders = names.map((name) => name.split('/').slice(0, -1));
  const first = folders[0] ?? [];
  let depth = 0;
  while (depth < first.length && folders.every((folder) => folder[depth] === first[depth])) depth++;
  return first.slice(0, depth).join('/');
}

/**
 * Takes pictures into a character: one is a sheet to be cut, several are a sheet of separate images with a clip for each
 * folder or name, one that moves is a sheet with its own times.
 */
export async function bringIn(files: NamedFiles, definition: ControllerDefinition): Promise<Brought> {
  const pictures = new Map([...files].filter(([name]) => isPicture(name)));
  if (pictures.size === 0)
    return nothing([
      `There is no picture among ${files.size === 1 ? 'that' : `the ${files.size} files`}. Drop PNG, WebP, GIF or JPEG.`,
    ]);
  if (pictures.size === 1) {
    const [[name, file]] = [...pictures] as [[string, Blob]];
    const film = await filmOf(file, name);
    if (film !== undefined) return bringFilm(film, name, definition);
  }
  const { drawn, refused } = await decoded(pictures);
  if (drawn.size === 0) return nothing(refused);
  const own = new Map([...pictures].filter(([name]) => drawn.has(name)));
  const brought = drawn.size === 1 ? bringOne(own, drawn, definition) : bringMany(own, drawn, definition);
  return { ...brought, told: [...refused, ...brought.told] };
}

function bringOne(
  files: NamedFiles,
  drawn: ReadonlyMap<string, Drawn>,
  definition: ControllerDefinition,
): Brought {
  const [[path, { picture }]] = [...drawn] as [[string, Drawn]];
  const image = path.replace(/^.*\//, '');
  const known = Object.entries(definition.sheets).find(
    ([, sheet]) => sheet.image === image || sheet.images?.includes(image),
  );
  const placed = { files: new Map([[image, files.get(path)!]]), drawn: new Map([[image, drawn.get(path)!]]) };
  if (known !== undefined)
    return {
      edit: { says: `image ${image}`, changes: [] },
      ...placed,
      told: [`${image} has taken the place of the old one.`],
      sheet: known[0],
    };
  const name = freeName(plainName(image), definition.sheets);
  const found = cutIslands(picture);
  const isFirst = Object.keys(definition.sheets).length === 0;
  const onSheet = isFirst ? {} : { sheet: name };
  if (found === undefined || found.cells.length === 0) {
    const sheet = { image, grid: { cell: [picture.width, picture.height] as const } };
    return {
      edit: addSheet(definition, name, sheet),
      ...placed,
      told: ['Its drawings cannot be told apart by themselves: say how large a cell is.'],
      sheet: name,
    };
  }
  const { grid } = found;
  const clips = grid === undefined ? found.clips : clipsOfRows(found.picture, grid);
  const sheet = grid === undefined ? { image, cells: found.cells } : { image, grid };
  const told = [
    grid === undefined
      ? `${found.cells.length} drawings found by the gaps between them.`
      : `Cut in cells of ${grid.cell.join(' x ')}, which fit.`,
    ...(found.ground === undefined
      ? []
      : [`${found.ground}, the colour in its corners, is taken for transparent.`]),
  ];
  return {
    edit: {
      says: `add sheet ${name}`,
      changes: [...addSheet(definition, name, sheet).changes, ...newClips(clips, definition, onSheet)],
    },
    ...placed,
    told,
    sheet: name,
  };
}

const newClips = (
  clips: Readonly<Record<string, object>>,
  definition: ControllerDefinition,
  onSheet: object,
): Change[] =>
  Object.entries(clips).map(([clip, value]) => ({
    op: 'set',
    path: ['clips', freeName(clip, definition.clips)],
    value: { ...onSheet, ...value },
  }));

function bringMany(
  files: NamedFiles,
  drawn: ReadonlyMap<string, Drawn>,
  definition: ControllerDefinition,
): Brought {
  const names = [...drawn.keys()];
  const root = rootOf(names);
  const known = Object.entries(definition.sheets).find(([, { images }]) => images !== undefined);
  if (known !== undefined) {
    const [sheet, { images = [] }] = known;
    const all = sequenceOf([...new Set([...images, ...names])], root).images;
    const { edit, joined } = updateImages(definition, sheet, all, root);
    const told = joined.map(
      ({ clip, images: come }) =>
        `${come.length === 1 ? 'An image has' : `${come.length} images have`} joined ${clip}, because of ${come.length === 1 ? 'its name' : 'their names'}.`,
    );
    return { edit, files, drawn, told, sheet };
  }
  const { images, clips } = sequenceOf(names, root);
  const only = Object.keys(clips);
  const name = freeName(only.length === 1 ? only[0]! : plainName(root), definition.sheets);
  const onSheet = Object.keys(definition.sheets).length === 0 ? {} : { sheet: name };
  return {
    edit: {
      says: `add sheet ${name}`,
      changes: [...addSheet(definition, name, { images }).changes, ...newClips(clips, definition, onSheet)],
    },
    files,
    drawn,
    told: [
      `${images.length} images, in ${only.length === 1 ? 'one clip' : `${only.length} clips`}: ${only.join(', ')}.`,
    ],
    sheet: name,
  };
}

async function bringFilm(
  film: NonNullable<Awaited<ReturnType<typeof filmOf>>>,
  path: string,
  definition: ControllerDefinition,
): Promise<Brought> {
  const { sheet: file, width, height, times, passes } = film;
  const name = freeName(plainName(path), definition.sheets);
  const image = `${name}-sheet.png`;
  const clip = {
    ...(Object.keys(definition.sheets).length === 0 ? {} : { sheet: name }),
    cells: `0-${times.length - 1}`,
    ms: new Set(times).size === 1 ? times[0]! : times,
    ...(passes === 1 ? { loop: 'once' } : passes > 1 ? { loop: passes } : {}),
  };
  const sheet = { image, grid: { cell: [width, height] as const, count: times.length } };
  return {
    edit: {
      says: `add sheet ${name}`,
      changes: [
        ...addSheet(definition, name, sheet).changes,
        { op: 'set', path: ['clips', freeName(name, definition.clips)], value: clip },
      ],
    },
    files: new Map([[image, file]]),
    drawn: new Map([[image, await drawnOf(file, image)]]),
    told: [`${times.length} pictures that move have become the sheet ${image}, with their own times.`],
    sheet: name,
  };
}

/** Which column of a table is what. */
export interface TableColumns {
  readonly x: string;
  readonly y: string;
  readonly width: string;
  readonly height: string;
  /** The names, which make the clips. */
  readonly name: string | undefined;
}

/** A table as rows of fields by column. */
export type Table = readonly Readonly<Record<string, string>>[];

/** Reads CSV (RFC 4180), with the names of the columns in its first line. */
export function readTable(text: string): Table {
  const rows: string[][] = [[]];
  const pattern = /"((?:[^"]|"")*)"|([^,\r\n"]+)|(,)|(\r?\n)/g;
  let field = '';
  for (const [, quoted, plain, comma, line] of text.matchAll(pattern)) {
    if (quoted !== undefined) field += quoted.replaceAll('""', '"');
    else if (plain !== undefined) field += plain;
    else {
      rows[rows.length - 1]!.push(field.trim());
      field = '';
      if (line !== undefined && comma === undefined) rows.push([]);
    }
  }
  rows[rows.length - 1]!.push(field.trim());
  const [head = [], ...rest] = rows.filter((row) => row.length > 1 || row[0] !== '');
  return rest.map((row) => Object.fromEntries(head.map((name, i) => [name, row[i] ?? ''])));
}

/** What most tables call their columns. */
const usualNames = {
  x: /^(?:x|left|frame\.?x)$/i,
  y: /^(?:y|top|frame\.?y)$/i,
  width: /^(?:w|width)$/i,
  height: /^(?:h|height)$/i,
  name: /^(?:name|id|file|filename|frame|title)$/i,
};

/** The columns that a table seems to have; what could not be told is `undefined`. */
export function guessedColumns(table: Table): Partial<TableColumns> {
  const columns = Object.keys(table[0] ?? {});
  return Object.fromEntries(
    Object.entries(usualNames).map(([field, pattern]) => [
      field,
      columns.find((column) => pattern.test(column)),
    ]),
  );
}

/** The number of a field; NaN for an empty one, which is no 0. */
const numberIn = (field: string | undefined): number =>
  field === undefined || field === '' ? NaN : Number(field);

/** Cuts a sheet by the rectangles of a table. What is wrong with the table is told, by its line. */
export function bringTable(
  table: Table,
  columns: TableColumns,
  sheet: string,
  definition: ControllerDefinition,
): { readonly edit: Edit } | { readonly trouble: string } {
  const cells: RectangleDefinition[] = [];
  for (const [i, row] of table.entries()) {
    const numbers = (['x', 'y', 'width', 'height'] as const).map((field) => numberIn(row[columns[field]]));
    const odd = numbers.findIndex((number) => !Number.isInteger(number) || number < 0);
    if (odd >= 0) {
      const column = [columns.x, columns.y, columns.width, columns.height][odd]!;
      return { trouble: `Line ${i + 2}, ${column}: whole pixels are expected, not "${row[column] ?? ''}".` };
    }
    cells.push(numbers as [number, number, number, number]);
  }
  const { name } = columns;
  const clips =
    name === undefined
      ? { all: clipOf(cells.map((_, i) => i)) }
      : clipsOfNames(table.map((row, i) => (row[name] === '' ? `cell-${i}` : (row[name] ?? ''))));
  const onSheet = Object.keys(definition.sheets)[0] === sheet ? {} : { sheet };
  return {
    edit: {
      says: `cut ${sheet} by a table`,
      changes: [
        { op: 'remove', path: ['sheets', sheet, 'grid'] },
        { op: 'set', path: ['sheets', sheet, 'cells'], value: cells },
        ...newClips(clips, { ...definition, clips: {} }, onSheet),
      ],
    },
  };
}
