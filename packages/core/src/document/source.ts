import { DotHopError, pathText, problemText } from '../problem/problem.js';
import type { DocumentPath, Problem } from '../problem/problem.js';
import { useDocumentSentences } from './sentences.js';
import type { ReadTree } from './tree.js';

useDocumentSentences();

/** A place in a file: line and column count from 1. */
export interface Place {
  readonly file: string;
  readonly line: number;
  readonly column: number;
}

/** A {@link Problem} with its place in a file. */
export interface PlacedProblem extends Problem, Place {}

/** Thrown for a file that cannot be used. Its message has one line for each problem: `file:line:column path: sentence`. */
export class DocumentError extends DotHopError {
  override readonly name = 'DocumentError';

  constructor(override readonly problems: readonly PlacedProblem[]) {
    super(problems, problems.map(placedLine));
  }
}

function placedLine(problem: PlacedProblem): string {
  const { file, line, column, path } = problem;
  const where = path.length === 0 ? '' : `${pathText(path)}: `;
  return `${file}:${line}:${column} ${where}${problemText(problem)}`;
}

/** One text with the place of every value in it. */
export interface TextPlaces {
  readonly file: string;
  /** The text as plain data. */
  readonly value: unknown;
  /** See {@link Source.place}. */
  place(path: DocumentPath, offset: number, part: 'value' | 'key'): Place;
}

/**
 * Finds the values of a text.
 *
 * @param read what the text is written in
 * @throws {DocumentError} when the text is empty, not in its format, or would be read otherwise than it is written
 */
export function placesIn(text: string, read: ReadTree, file: string): TextPlaces {
  const lines = [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
  const placeAt = (at: number): Place => {
    const after = lines.findIndex((start) => start > at);
    const line = after < 0 ? lines.length : after;
    return { file, line, column: at - lines[line - 1]! + 1 };
  };
  const tree = read(text);
  if (!('value' in tree))
    throw new DocumentError(
      tree.map(({ code, path, values, at }) => ({ code, path, values, ...placeAt(at) })),
    );
  return {
    file,
    value: tree.value,
    place(path, offset, part) {
      const { at, quotes } = tree.find(path, part);
      return placeAt(at + (offset > 0 ? offset + quotes : 0));
    },
  };
}

/** In which text a value stands. What `inner` does not name stands there too. */
export interface Origin {
  readonly text: TextPlaces;
  /** The fields of a map that several texts write. */
  readonly inner?: ReadonlyMap<string, Origin>;
}

/** The data of a document, and the place of each value: in its own text, or in that of a base. */
export class Source {
  constructor(
    /** The data, as the texts say it. */
    readonly value: unknown,
    private readonly origin: Origin,
  ) {}

  /**
   * The source that one text is.
   *
   * @param file the name that errors give; `(text)` where there is none
   * @throws {DocumentError} when the text is empty, not in its format, or would be read otherwise than it is written
   */
  static of(text: string, read: ReadTree, file = '(text)'): Source {
    const places = placesIn(text, read, file);
    return new Source(places.value, { text: places });
  }

  /** The name of the document's own file. */
  get file(): string {
    return this.origin.text.file;
  }

  /**
   * The place of a value. If the path leads nowhere (a missing field), that of the nearest value around it.
   *
   * @param offset a place inside an expression, in characters from its beginning
   * @param part whether the value itself is meant or the key that it stands under
   */
  place(path: DocumentPath, offset = 0, part: 'value' | 'key' = 'value'): Place {
    let { origin } = this;
    for (const step of path) {
      const inner = origin.inner?.get(String(step));
      if (inner === undefined) break;
      origin = inner;
    }
    return origin.text.place(path, offset, part);
  }

  /** Adds places to problems, and sorts them by these. */
  placed(problems: readonly Problem[]): DocumentError {
    const placed = problems.map((problem): PlacedProblem => ({
      ...problem,
      ...this.place(
        problem.path,
        problem.offset,
        problem.code === 'field-unknown' || problem.code === 'name-reserved' ? 'key' : 'value',
      ),
    }));
    const own = (file: string): number => Number(file !== this.file);
    return new DocumentError(
      placed.sort(
        (a, b) =>
          own(a.file) - own(b.file) ||
          (a.file < b.file ? -1 : Number(a.file > b.file)) ||
          a.line - b.line ||
          a.column - b.column,
      ),
    );
  }

  /** Runs a function that may throw problems of this text, and adds their places. */
  placing<T>(run: () => T): T {
    try {
      return run();
    } catch (error) {
      if (error instanceof DotHopError && !(error instanceof DocumentError))
        throw this.placed(error.problems);
      throw error;
    }
  }
}
