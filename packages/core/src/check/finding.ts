import type { AcceptDefinition } from '../controller/definition.js';
import { pathText } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { nearestName } from '../problem/nearest.js';
import { findings } from './sentences.js';
import type { FindingCode, Severity } from './sentences.js';

/** One finding of a check, with its sentence. */
export interface Finding {
  readonly code: FindingCode;
  readonly severity: Severity;
  readonly path: DocumentPath;
  readonly values: Readonly<Record<string, unknown>>;
  /** What is wrong and what to do about it. */
  readonly message: string;
  /** The reason why the document accepts it; `undefined` if it does not. */
  readonly accepted: string | undefined;
}

/** The index of the entry of `accept` that accepts a finding at a path; -1 if there is none. */
export function acceptOf(accepts: readonly AcceptDefinition[], code: string, path: DocumentPath): number {
  const place = pathText(path);
  return accepts.findIndex(
    ({ finding, at }) =>
      finding === code &&
      (at === undefined || place === at || (/^[.[]/.test(place.slice(at.length)) && place.startsWith(at))),
  );
}

/** Gathers findings, each once. */
export class FindingList {
  readonly all: Finding[] = [];
  private readonly used = new Set<AcceptDefinition>();

  constructor(private readonly accepts: readonly AcceptDefinition[]) {}

  add(code: FindingCode, path: DocumentPath, values: Readonly<Record<string, unknown>>): void {
    const { severity, say } = findings[code];
    const accept = this.accepts[acceptOf(this.accepts, code, path)];
    if (accept !== undefined) this.used.add(accept);
    this.all.push({ code, severity, path, values, message: say(values), accepted: accept?.because });
  }

  /** Adds what was accepted in vain. */
  finish(): void {
    this.accepts.forEach((accept, i) => {
      if (this.used.has(accept)) return;
      const { finding, at } = accept;
      const near = Object.hasOwn(findings, finding) ? undefined : nearestName(finding, Object.keys(findings));
      this.add('accept-unused', ['accept', i], {
        finding: near === undefined ? finding : `${finding}; did you mean "${near}"?`,
        at,
      });
    });
  }
}
