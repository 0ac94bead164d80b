import { LineCounter, isMap, isScalar, isSeq, parseDocument } from 'yaml';
import type { Document, Node } from 'yaml';
import { DotHopError, pathText, problemText } from '../problem/problem.js';
import type { DocumentPath, Problem } from '../problem/problem.js';

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
  constructor(override readonly problems: readonly PlacedProblem[]) {
    super(problems, problems.map(placedLine));
  }
}

function placedLine(problem: PlacedProblem): string {
  const { file, line, column, path } = problem;
  const where = path.length === 0 ? '' : `${pathText(path)}: `;
  return `${file}:${line}:${column} ${where}${problemText(problem)}`;
}

/** A YAML or JSON text with the place of every value in it. */
export class Source {
  private readonly lines = new LineCounter();
  private readonly tree: Document;

  /**
   * @param text YAML 1.2, or JSON where the file's name ends in `.json`
   * @param file the name that errors give; `(text)` where there is none
   * @throws {DocumentError} when the text is empty or not in its format
   */
  constructor(
    text: string,
    readonly file = '(text)',
  ) {
    this.tree = parseDocument(text, { lineCounter: this.lines, prettyErrors: false });
    const json = file.endsWith('.json');
    const [fault] = this.tree.errors;
    if (fault !== undefined) {
      const { line, col: column } = this.lines.linePos(fault.pos[0]);
      const values = { format: json ? 'JSON' : 'YAML', detail: fault.message };
      throw new DocumentError([{ code: 'document-syntax', path: [], values, file, line, column }]);
    }
    if (json) this.checkJson(text);
    if (this.tree.contents === null || (isScalar(this.tree.contents) && this.tree.contents.value === null))
      throw new DocumentError([{ code: 'document-empty', path: [], values: {}, file, line: 1, column: 1 }]);
  }

  /** The text as plain data. */
  get value(): unknown {
    return this.tree.toJS({ maxAliasCount: 100 }) as unknown;
  }

  /**
   * The place of a value; of the nearest one around it where the path leads nowhere (a missing field).
   *
   * @param offset a place inside an expression, in characters from its beginning
   * @param part whether the value itself is meant or the key that it stands under
   */
  place(path: DocumentPath, offset = 0, part: 'value' | 'key' = 'value'): Place {
    let node: unknown = this.tree.contents;
    let at = 0;
    for (const step of path) {
      const next = isMap(node)
        ? node.items.find((pair) => keyOf(pair.key) === String(step))
        : isSeq(node)
          ? { key: null, value: node.items[Number(step)] }
          : undefined;
      if (next?.value === undefined || next.value === null) {
        at = startOf(next?.key) ?? at;
        break;
      }
      node = next.value;
      at = (part === 'key' ? startOf(next.key) : undefined) ?? startOf(node) ?? at;
    }
    const quoted = isScalar(node) && (node.type === 'QUOTE_DOUBLE' || node.type === 'QUOTE_SINGLE') ? 1 : 0;
    const { line, col: column } = this.lines.linePos(at + (offset > 0 ? offset + quoted : 0));
    return { line, column };
  }

  /** The problems with their places, in the order of the text. */
  placed(problems: readonly Problem[]): DocumentError {
    const placed = problems.map((problem): PlacedProblem => ({
      ...problem,
      file: this.file,
      ...this.place(problem.path, problem.offset, problem.code === 'field-unknown' ? 'key' : 'value'),
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

  private checkJson(text: string): void {
    try {
      JSON.parse(text);
    } catch (error) {
      const found = /position (\d+)/.exec(String(error));
      const { line, col: column } = this.lines.linePos(Number(found?.[1] ?? 0));
      const detail = error instanceof Error ? error.message : String(error);
      const values = { format: 'JSON', detail };
      throw new DocumentError([{ code: 'document-syntax', path: [], values, file: this.file, line, column }]);
    }
  }
}

const keyOf = (key: unknown): string => String(isScalar(key) ? key.value : key);

const startOf = (node: unknown): number | undefined => (node as Node | null | undefined)?.range?.[0];
