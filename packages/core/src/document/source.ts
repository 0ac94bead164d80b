import { DotHopError, pathText, problemText } from '../problem/problem.js';
import type { DocumentPath, Problem } from '../problem/problem.js';
import { useDocumentSentences } from './sentences.js';
import type { ReadTree, SourceTree } from './tree.js';

useDocumentSentences();

/** A place in a text: line and column count from 1. */
export interface Place {
  readonly line: number;
  readonly column: number;
}

/** A {@link Problem} with its place in a file. */
export interface PlacedProblem extends Problem, Place {
  readonly file: string;
}

/** Thrown for a file that cannot be used; its message has one line a problem: `file:line:column path: sentence`. */
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

/** A text with the place of every value in it. */
export class Source {
  private readonly tree: SourceTree;
  /** Where each line begins. */
  private readonly lines: readonly number[];

  /**
   * @param read what the text is written in
   * @param file the name that errors give; `(text)` where there is none
   * @throws {DocumentError} when the text is empty, not in its format, or would be read otherwise than it is written
   */
  constructor(
    text: string,
    read: ReadTree,
    readonly file = '(text)',
  ) {
    this.lines = [0, ...[...text.matchAll(/\n/g)].map(({ index }) => index + 1)];
    const tree = read(text);
    if (!('value' in tree))
      throw new DocumentError(
        tree.map(({ code, path, values, at }) => ({ code, path, values, file, ...this.placeAt(at) })),
      );
    this.tree = tree;
  }

  /** The text as plain data. */
  get value(): unknown {
    return this.tree.value;
  }

  /**
   * The place of a value; of the nearest one around it where the path leads nowhere (a missing field).
   *
   * @param offset a place inside an expression, in characters from its beginning
   * @param part whether the value itself is meant or the key that it stands under
   */
  place(path: DocumentPath, offset = 0, part: 'value' | 'key' = 'value'): Place {
    const { at, quotes } = this.tree.find(path, part);
    return this.placeAt(at + (offset > 0 ? offset + quotes : 0));
  }

  /** The problems with their places, in the order of the text. */
  placed(problems: readonly Problem[]): DocumentError {
    const placed = problems.map((problem): PlacedProblem => ({
      ...problem,
      file: this.file,
      ...this.place(
        problem.path,
        problem.offset,
        problem.code === 'field-unknown' || problem.code === 'name-reserved' ? 'key' : 'value',
      ),
    }));
    return new DocumentError(placed.sort((a, b) => a.line - b.line || a.column - b.column));
  }

  /** Runs what may find problems in this text, and gives these their places. */
  placing<T>(run: () => T): T {
    try {
      return run();
    } catch (error) {
      if (error instanceof DotHopError && !(error instanceof DocumentError))
        throw this.placed(error.problems);
      throw error;
    }
  }

  private placeAt(at: number): Place {
    const after = this.lines.findIndex((start) => start > at);
    const line = after < 0 ? this.lines.length : after;
    return { line, column: at - this.lines[line - 1]! + 1 };
  }
}
