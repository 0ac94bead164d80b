import { DotHopError, wordErrorsBy } from './error.js';
import type { DocumentPath, Problem } from './error.js';
import { sentence } from './sentences.js';
import type { ProblemCode, ValuesOf } from './sentences.js';

export { DotHopError, callError } from './error.js';
export type { DocumentPath, Problem } from './error.js';

/** Writes a path as in messages: `states.run.hops[0].if`. The root is `(document)`. */
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

function plainLine(problem: Problem): string {
  const text = problemText(problem);
  return problem.path.length === 0 ? text : `${pathText(problem.path)}: ${text}`;
}

/** Makes errors say in sentences what is wrong. */
export function wordErrors(): void {
  wordErrorsBy(plainLine);
}

// A bundler keeps this wherever anything of this module is used.
wordErrors();

/** Collects problems while a document is read, so that all of them are told at once. */
export class ProblemList {
  readonly problems: Problem[] = [];

  /** @param values what the sentence of the code speaks of; left out where that is nothing */
  add<C extends ProblemCode>(
    code: C,
    path: DocumentPath,
    ...[values = {} as ValuesOf<C>, offset]: Record<string, never> extends ValuesOf<C>
      ? [values?: ValuesOf<C>, offset?: number]
      : [values: ValuesOf<C>, offset?: number]
  ): void {
    this.problems.push(offset === undefined ? { code, path, values } : { code, path, values, offset });
  }

  /** @throws {DotHopError} when anything was added */
  throwIfAny(): void {
    if (this.problems.length > 0) throw new DotHopError(this.problems);
  }
}
