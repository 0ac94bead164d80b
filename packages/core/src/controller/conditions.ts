import type { DocumentPath } from '../problem/problem.js';
import type { SignalCompiler } from '../signal/compiler.js';
import type { Condition } from '../signal/condition.js';

/** Whether a condition has to stand in brackets where others must hold too. */
const joins = (text: string): boolean => /\bor\b|\|\||\?/.test(text);

/** A condition as it is written, and where. */
interface Said {
  readonly text: string;
  readonly path: DocumentPath;
}

/** The conditions of all states, each once, by number. */
export class Conditions {
  readonly list: Condition[] = [];
  readonly texts: string[] = [];
  private readonly numbers = new Map<string, number>();
  /** The places of those that cannot be. */
  private readonly refused = new Set<string>();

  constructor(private readonly signals: SignalCompiler) {}

  /** @returns its number; -1 for none, and where a problem was added */
  read(text: string | undefined, path: DocumentPath): number {
    return text === undefined ? -1 : this.keep(text, () => this.once(text, path));
  }

  /** The number of several that must all hold. */
  readAll(said: readonly Said[]): number {
    const parts = said.map(({ text, path }) => this.read(text, path));
    if (parts.length <= 1 || parts.includes(-1)) return parts[0] ?? -1;
    return this.keep(said.map(({ text }) => (joins(text) ? `(${text})` : text)).join(' and '), () =>
      parts.map((part) => this.list[part]!).reduce((left, right) => ({ op: 'and', left, right })),
    );
  }

  /** The number of a condition by its text. @param make makes it where there is none of this text yet; `undefined` after a problem was added */
  keep(text: string, make: () => Condition | undefined): number {
    const known = this.numbers.get(text);
    if (known !== undefined) return known;
    const condition = make();
    if (condition === undefined) return -1;
    this.texts.push(text);
    this.numbers.set(text, this.list.length);
    return this.list.push(condition) - 1;
  }

  /** What a group says counts for each of its states, and what is wrong with it is told once. */
  private once(text: string, path: DocumentPath): Condition | undefined {
    const place = path.join('.');
    if (this.refused.has(place)) return undefined;
    const condition = this.signals.condition(text, path);
    if (condition === undefined) this.refused.add(place);
    return condition;
  }
}
