import type { DocumentPath } from '../problem/problem.js';

/** Where something is in a text, in characters from 0. */
export interface Span {
  readonly at: number;
  /** How many characters of quotes stand before its own text. */
  readonly quotes: number;
}

/** What a text amounts to, and where in it everything stands. */
export interface SourceTree {
  /** The text as plain data. */
  readonly value: unknown;
  /**
   * Where a value stands; the nearest one around it where the path leads nowhere (a missing field).
   *
   * @param part whether the value itself is meant or the key that it stands under
   */
  find(path: DocumentPath, part: 'value' | 'key'): Span;
}

/** A fault that keeps a text from being read. */
export interface TextFault {
  readonly code: 'document-syntax' | 'document-empty' | 'yaml-sign' | 'yaml-merge' | 'yaml-comma';
  readonly at: number;
  readonly path: DocumentPath;
  readonly values: Readonly<Record<string, unknown>>;
}

/** Reads a text: the tree of it, or every fault in it. */
export type ReadTree = (text: string) => SourceTree | readonly TextFault[];

/** The deepest that lists and maps may lie in one another. No document needs more than a dozen. */
export const deepest = 100;
