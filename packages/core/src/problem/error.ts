import type { ProblemCode, ValuesOf } from './sentences.js';

/** Where in a document something is: keys and indices from the root, outermost first. */
export type DocumentPath = readonly (string | number)[];

/** One thing that is wrong with a document or a call. Plain data; `problemText` words it. */
export interface Problem {
  readonly code: ProblemCode;
  readonly path: DocumentPath;
  /** The values in the sentence: the value received, the known names, a limit. */
  readonly values: Readonly<Record<string, unknown>>;
  /** The position in an expression at which the fault begins, in characters from 0. Absent if the whole value is meant. */
  readonly offset?: number;
}

/** Puts a problem into words. */
type Wording = (problem: Problem) => string;

/**
 * Puts the problems of errors into words. A game that only plays carries no sentences: its errors say the code of the problem and
 * its values. `problem.ts` brings the sentences along, for all that compiles or explains.
 */
let wording: Wording = ({ code, values }) => `${code} ${JSON.stringify(values)}`;

/** Lets a function write the sentences of all further errors. */
export function wordErrorsBy(by: Wording): void {
  wording = by;
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
    lines: readonly string[] = problems.map(wording),
  ) {
    super(lines.join('\n'));
  }
}

/** Makes the {@link DotHopError} for one faulty call, such as `set('vx', NaN)`. */
export function callError<C extends ProblemCode>(code: C, values: ValuesOf<C>): DotHopError {
  return new DotHopError([{ code, path: [], values }]);
}
