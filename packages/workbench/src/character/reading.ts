import { DotHopError, pathText, problemText } from 'dot-hop';
import type { Controller, ControllerDefinition, DocumentPath, ImageSize } from 'dot-hop';
import { DocumentError, compileDocument, readSoundPart } from 'dot-hop/document';
import type { Bases, CharacterDocument, Layers, Source } from 'dot-hop/document';
import { compileWorn } from 'dot-hop/wardrobe';

/** Something that is wrong with the document, where it stands. */
export interface Trouble {
  readonly path: DocumentPath;
  /** Where in words: `clips.run.cells`. */
  readonly place: string;
  readonly text: string;
  /** Line and column in the text, from 1; `undefined` until the text was read. */
  readonly line: number | undefined;
  readonly column: number | undefined;
  /** The file of those lines, where it is not the document's own. */
  readonly file?: string | undefined;
}

/** What a text comes to. Both may be missing: a text that is no document, or one that cannot be performed. */
export interface Reading {
  readonly definition: ControllerDefinition | undefined;
  readonly controller: Controller | undefined;
  /** Of a document that builds on others. */
  readonly layers?: Layers | undefined;
  readonly troubles: readonly Trouble[];
}

export type Sizes = Readonly<Record<string, ImageSize>>;

const troublesOf = (error: unknown, own: string): Trouble[] => {
  if (!(error instanceof DotHopError)) throw error;
  const placed = error instanceof DocumentError ? error.problems : undefined;
  return error.problems.map((problem, i) => ({
    path: problem.path,
    place: problem.path.length === 0 ? '' : pathText(problem.path),
    text: problemText(problem),
    line: placed?.[i]?.line,
    column: placed?.[i]?.column,
    ...(placed?.[i] !== undefined && placed[i].file !== own && { file: placed[i].file }),
  }));
};

/** The images that a document names and that are not there, unless it says how large they are. */
function missingImages({ definition, source, images: named }: CharacterDocument, images: Sizes): Trouble[] {
  return [...named].flatMap(([image, path]) =>
    image in images || definition.sheets[String(path[1])]?.size !== undefined
      ? []
      : [
          {
            path,
            place: pathText(path),
            text: `${image} is not among the files. Drop it on this page.`,
            ...placeIn(source, path),
          },
        ],
  );
}

/** The line of a path, with the file where it is another document's. */
function placeIn(source: Source, path: DocumentPath): Pick<Trouble, 'line' | 'column' | 'file'> {
  const { file, line, column } = source.place(path);
  return file === source.file ? { line, column } : { file, line, column };
}

/**
 * Reads and compiles a text.
 *
 * @param bases the documents that it builds on
 */
export function readText(text: string, file: string, images: Sizes, bases: Bases): Reading {
  let definition: ControllerDefinition | undefined;
  let layers: Layers | undefined;
  try {
    const document = readSoundPart(text, file, bases);
    ({ definition, layers } = document);
    // What follows from a fault or from an image that is not there would only hide it.
    if (document.problems.length > 0) throw new DocumentError(document.problems);
    const troubles = missingImages(document, images);
    // A document that was only just begun has nothing to compile yet.
    if (troubles.length > 0 || Object.keys(definition.clips).length === 0)
      return { definition, controller: undefined, layers, troubles };
    return { definition, controller: compileDocument(document, { images }), layers, troubles: [] };
  } catch (error) {
    return { definition, controller: undefined, layers, troubles: troublesOf(error, file) };
  }
}

/** The same from plain data: what shows an edit before its text is written. */
export function readData(definition: ControllerDefinition, images: Sizes): Reading {
  if (Object.keys(definition.clips).length === 0) return { definition, controller: undefined, troubles: [] };
  try {
    return { definition, controller: compileWorn(definition, { images }), troubles: [] };
  } catch (error) {
    return { definition, controller: undefined, troubles: troublesOf(error, '') };
  }
}
