import { sentence } from './sentences.js';
import type { ProblemCode } from './sentences.js';

/** Where in a document something is: keys and indices from the root, outermost first. */
export type DocumentPath = readonly (string | number)[];

/** One thing that is wrong with a document or a call. Plain data; {@link problemText} words it. */
export interface Problem {
  readonly code: ProblemCode;
  readonly path: DocumentPath;
  /** What the sentence of this code speaks of: the value received, the names known, a limit. */
  readonly values: Readonly<Record<string, unknown>>;
  /** Where in an expression the fault begins, in characters from 0; absent when the whole value is meant. */
  readonly offset?: number;
}

/** `states.run.hops[0].if`, as it is written in messages. The root is `(document)`. */
export function pathText(path: DocumentPath): string {
  let text = '';
  for (const part of path) {
    if (typeof part === 'number') text += `[${part}]`;
    else if (/^[\w$-]+$/.test(part)) text += text === '' ? part : `.${part}`;
    else text += `[${JSON.stringify(part)}]`;
  }
  return text === '' ? '(document)' : text;
}

/** The sentence for a problem, without its place. */
export function problemText(problem: Problem): string {
  return sentence(problem.code, problem.values);
}

/** Thrown for a document that cannot become a controller and for a call with a value that cannot be used. */
export class DotHopError extends Error {
  override readonly name: string = 'DotHopError';

  /**
   * @param problems every problem found, in the order of the document; never empty
   * @param lines one line for each problem; by default the path and the sentence
   */
  constructor(
    readonly problems: readonly Problem[],
    lines: readonly string[] = problems.map(plainLine),
  ) {
    super(lines.join('\n'));
  }
}

function plainLine(problem: Problem): string {
  const text = problemText(problem);
  return problem.path.length === 0 ? text : `${pathText(problem.path)}: ${text}`;
}

/** Collects problems while a document is read, so that all of them are told at once. */
export class ProblemList {
  readonly problems: Problem[] = [];

  add(code: ProblemCode, path: DocumentPath, values: Record<string, unknown> = {}, offset?: number): void {
    this.problems.push(offset === undefined ? { code, path, values } : { code, path, values, offset });
  }

  /** @throws {DotHopError} when anything was added */
  throwIfAny(): void {
    if (this.problems.length > 0) throw new DotHopError(this.problems);
  }
}

/** A {@link DotHopError} for one faulty call, such as `set('vx', NaN)`. */
export function callError(code: ProblemCode, values: Record<string, unknown>): DotHopError {
  return new DotHopError([{ code, path: [], values }]);
}
