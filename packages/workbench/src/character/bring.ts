import type { ClipDefinition, ControllerDefinition } from 'dot-hop';
import {
  addPart,
  addSheet,
  changedData,
  cutSheet,
  freeName,
  newClips,
  partOf,
  updateImages,
} from 'dot-hop/edit';
import type { Edit } from 'dot-hop/edit';
import { clipsOfRows, cutByTable, cutIslands, naturalOrder, plainName, sequenceOf } from 'dot-hop/gather';
import type { TableColumns, TableRows } from 'dot-hop/gather';
import { filmOf } from './film.js';
import { decoded, isDocument, isPicture } from './files.js';
import type { NamedFiles } from './files.js';
import { drawnOf } from './pictures.js';
import type { Drawn } from './pictures.js';
import { useWorkbench } from './store.js';

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
 * folder or name, or sheets of their own where each holds several drawings; one that moves is a sheet with its own times.
 */
export async function bringIn(files: NamedFiles, definition: ControllerDefinition): Promise<Brought> {
  const pictures = new Map([...files].filter(([name]) => isPicture(name)));
  const unread = [...files.keys()].filter(isDocument);
  if (pictures.size === 0)
    return nothing([
      ...unread.map((name) => `${name} is not a character: a character's document says "dotHop: 1".`),
      `There is no picture among ${files.size === 1 ? 'that' : `the ${files.size} files`}. Drop PNG, WebP, GIF or JPEG.`,
    ]);
  if (pictures.size === 1) {
    const [[name, file]] = [...pictures] as [[string, Blob]];
    const film = await filmOf(file, name);
    if (film !== undefined) return bringFilm(film, name, definition);
  }
  const { drawn, refused } = await decoded(pictures);
  if (drawn.size === 0) return nothing(refused);
  const parts = partsAmong(drawn, definition);
  const sheets = new Map([...drawn].filter(([name]) => !parts.some((one) => one.file === name)));
  const own = new Map([...pictures].filter(([name]) => drawn.has(name)));
  const bring = sheets.size === 1 ? bringOne : areSheets(sheets, definition) ? bringSheets : bringMany;
  const brought = sheets.size === 0 ? nothing([]) : bring(own, sheets, definition);
  const whole = bringParts(parts, own, drawn, changedData(definition, brought.edit.changes));
  return {
    edit: {
      says: sheets.size === 0 ? whole.edit.says : brought.edit.says,
      changes: [...brought.edit.changes, ...whole.edit.changes],
    },
    files: new Map([...brought.files, ...whole.files]),
    drawn: new Map([...brought.drawn, ...whole.drawn]),
    told: [...refused, ...brought.told, ...whole.told],
    sheet: brought.sheet ?? whole.sheet,
  };
}

/** A picture that has a part of the drawings of another one. */
interface PartFile {
  readonly file: string;
  /** The image of the whole. */
  readonly of: string;
  readonly part: string;
}

/** Pictures that are laid out like another one and named after it: `hedda-legs.png` beside `hedda.png`, as large as that. */
function partsAmong(drawn: ReadonlyMap<string, Drawn>, { sheets }: ControllerDefinition): PartFile[] {
  const present = useWorkbench.getState().drawn;
  const known = Object.values(sheets).flatMap(({ image }) => image ?? []);
  const wholes = [
    ...[...drawn].map(([name, { picture }]) => ({ name: baseOf(name), picture })),
    ...known.flatMap((name) => {
      const picture = present.get(name)?.picture;
      return picture === undefined ? [] : [{ name, picture }];
    }),
  ];
  return [...drawn].flatMap(
    ([
      file,
      {
        picture: { width, height },
      },
    ]): PartFile[] => {
      const name = plainName(file);
      const whole = wholes.find(
        ({ name: other, picture }) =>
          name.startsWith(`${plainName(other)}-`) && picture.width === width && picture.height === height,
      );
      if (whole === undefined) return [];
      return [{ file, of: whole.name, part: name.slice(plainName(whole.name).length + 1) }];
    },
  );
}

const baseOf = (path: string): string => path.replace(/^.*\//, '');

/** Takes parts into their sheets, those that are there already included. */
function bringParts(
  parts: readonly PartFile[],
  files: NamedFiles,
  drawn: ReadonlyMap<string, Drawn>,
  definition: ControllerDefinition,
): Brought {
  const taken = parts.flatMap((one) => {
    const sheet = Object.keys(definition.sheets).find((name) => definition.sheets[name]!.image === one.of);
    return sheet === undefined ? [] : [{ ...one, sheet, image: baseOf(one.file) }];
  });
  const fresh = taken.filter(({ sheet, part }) => partOf(definition, sheet, part) === undefined);
  return {
    edit: {
      says: `parts ${taken.map(({ part }) => part).join(', ')}`,
      changes: fresh.flatMap(({ sheet, part, image }) => addPart(sheet, part, image).changes),
    },
    files: new Map(taken.map(({ file, image }) => [image, files.get(file)!])),
    drawn: new Map(taken.map(({ file, image }) => [image, drawn.get(file)!])),
    told: taken.map(
      ({ image, sheet, part }) => `${image} is laid out like ${sheet}: it is its part ${part}.`,
    ),
    sheet: taken[0]?.sheet,
  };
}

/** @param single the name of the clip, where all drawings are one */
function bringOne(
  files: NamedFiles,
  drawn: ReadonlyMap<string, Drawn>,
  definition: ControllerDefinition,
  single?: string,
): Brought {
  const [[path, { picture }]] = [...drawn] as [[string, Drawn]];
  const image = baseOf(path);
  const known = Object.entries(definition.sheets).find(
    ([, sheet]) => sheet.image === image || sheet.images?.includes(image),
  );
  const placed = { files: new Map([[image, files.get(path)!]]), drawn: new Map([[image, drawn.get(path)!]]) };
  if (known !== undefined)
    return {
      edit: { says: `image ${image}`, changes: [] },
      ...placed,
      told: [`${image} is in its place on ${known[0]}.`],
      sheet: known[0],
    };
  const name = freeName(plainName(image), definition.sheets);
  const found = cutIslands(picture);
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
  const rows = grid === undefined ? found.clips : clipsOfRows(found.picture, grid);
  const [only, ...more] = Object.values(rows);
  const clips = single !== undefined && only !== undefined && more.length === 0 ? { [single]: only } : rows;
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
      changes: [...addSheet(definition, name, sheet).changes, ...newClips(definition, name, clips)],
    },
    ...placed,
    told,
    sheet: name,
  };
}

/** A picture with fewer drawings than this may be one drawing with sparks about it. */
const fewest = 3;

/** Whether pictures are a sheet each: no two belong together by their names, and each holds several drawings. */
function areSheets(drawn: ReadonlyMap<string, Drawn>, { sheets }: ControllerDefinition): boolean {
  if (Object.values(sheets).some(({ images }) => images !== undefined)) return false;
  const { images, clips } = sequenceOf([...drawn.keys()], rootOf([...drawn.keys()]));
  if (Object.keys(clips).length < images.length) return false;
  return [...drawn.values()].every(({ picture }) => (cutIslands(picture)?.cells.length ?? 0) >= fewest);
}

/** Several sheets, each cut by itself. The clip of a sheet with one row of drawings is called like its file. */
function bringSheets(
  files: NamedFiles,
  drawn: ReadonlyMap<string, Drawn>,
  definition: ControllerDefinition,
): Brought {
  let now = definition;
  const all = naturalOrder([...drawn.keys()]).map((path) => {
    const one = bringOne(
      new Map([[path, files.get(path)!]]),
      new Map([[path, drawn.get(path)!]]),
      now,
      plainName(path),
    );
    now = changedData(now, one.edit.changes);
    return one;
  });
  const sheets = all.flatMap(({ sheet }) => sheet ?? []);
  return {
    edit: {
      says: `add sheets ${sheets.join(', ')}`,
      changes: all.flatMap(({ edit }) => edit.changes),
    },
    files: new Map(all.flatMap((one) => [...one.files])),
    drawn: new Map(all.flatMap((one) => [...one.drawn])),
    told: all.map(({ sheet = '', told }) => `${sheet}: ${told.join(' ')}`),
    sheet: sheets[0],
  };
}

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
  return {
    edit: {
      says: `add sheet ${name}`,
      changes: [...addSheet(definition, name, { images }).changes, ...newClips(definition, name, clips)],
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
  const clip: ClipDefinition = {
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
        ...newClips(definition, name, { [name]: clip }),
      ],
    },
    files: new Map([[image, file]]),
    drawn: new Map([[image, await drawnOf(file, image)]]),
    told: [`${times.length} pictures that move have become the sheet ${image}, with their own times.`],
    sheet: name,
  };
}

/**
 * Reads a CSV table whose first line names its columns.
 *
 * @returns `undefined` for what is none, or has no rows
 */
export async function readTable(text: string): Promise<TableRows | undefined> {
  const { parse } = await import('csv-parse/browser/esm/sync');
  try {
    const rows = parse<Record<string, string>>(text, {
      columns: true,
      skip_empty_lines: true,
      trim: true,
      bom: true,
    });
    return rows.length === 0 ? undefined : rows;
  } catch {
    return undefined;
  }
}

/** Cuts a sheet by the rectangles of a table. What is wrong with the table is told. */
export function bringTable(
  rows: TableRows,
  columns: TableColumns,
  sheet: string,
  definition: ControllerDefinition,
): { readonly edit: Edit } | { readonly trouble: string } {
  const cut = cutByTable(rows, columns);
  if ('kind' in cut)
    return {
      trouble:
        cut.kind === 'no-pixels'
          ? `Line ${cut.line}, ${cut.column}: whole pixels are expected, not "${cut.received}".`
          : `There is no column "${cut.column}" for ${cut.field}.`,
    };
  return {
    edit: {
      says: `cut ${sheet} by a table`,
      changes: [
        ...cutSheet(definition, sheet, { cells: cut.cells }).changes,
        ...newClips(definition, sheet, cut.clips),
      ],
    },
  };
}
