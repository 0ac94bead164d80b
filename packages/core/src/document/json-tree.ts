import type { DocumentPath } from '../problem/problem.js';
import { deepest } from './tree.js';
import type { SourceTree, Span, TextFault } from './tree.js';

/** A value of a JSON text. */
interface JsonNode {
  readonly at: number;
  readonly isText: boolean;
  /** The inner values by key or number, with where the keys stand. */
  readonly inner: ReadonlyMap<string, { readonly key: number; readonly node: JsonNode }>;
}

/** JSON with the place of every value. The text is known to be JSON already, so this reader need not check it. */
class JsonPlaces {
  private at = 0;
  readonly twice: { readonly at: number; readonly key: string }[] = [];

  constructor(private readonly text: string) {}

  /** @throws {RangeError} for what lies deeper than any document */
  read(depth = 0): JsonNode {
    if (depth > deepest) throw new RangeError('too deep');
    this.space();
    const at = this.at;
    const sign = this.text[at];
    const inner = new Map<string, { key: number; node: JsonNode }>();
    if (sign === '"') this.string();
    else if (sign === '{' || sign === '[') {
      this.at++;
      while (!this.isEnd()) {
        const key = this.at;
        const name = sign === '[' ? String(inner.size) : this.string();
        if (sign === '{') this.pass(':');
        if (inner.has(name)) this.twice.push({ at: key, key: name });
        inner.set(name, { key: sign === '[' ? -1 : key, node: this.read(depth + 1) });
        this.space();
        if (this.text[this.at] === ',') this.at++;
      }
      this.at++;
    } else while (this.at < this.text.length && !/[\s,\]}]/.test(this.text[this.at]!)) this.at++;
    return { at, isText: sign === '"', inner };
  }

  private isEnd(): boolean {
    this.space();
    return '}]'.includes(this.text[this.at]!);
  }

  private space(): void {
    while (/\s/.test(this.text[this.at] ?? '.')) this.at++;
  }

  private pass(sign: string): void {
    this.at = this.text.indexOf(sign, this.at) + 1;
  }

  private string(): string {
    const start = this.at++;
    while (this.text[this.at] !== '"') this.at += this.text[this.at] === '\\' ? 2 : 1;
    this.at++;
    return JSON.parse(this.text.slice(start, this.at)) as string;
  }
}

/** Reads JSON. */
export function readJsonTree(text: string): SourceTree | readonly TextFault[] {
  const syntax = (at: number, detail: string): TextFault[] => [
    { code: 'document-syntax', at, path: [], values: { format: 'JSON', detail } },
  ];
  if (text.trim() === '') return [{ code: 'document-empty', at: 0, path: [], values: {} }];
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    const detail = error instanceof Error ? error.message : String(error);
    return syntax(Number(/position (\d+)/.exec(detail)?.[1] ?? 0), detail);
  }
  if (value === null) return [{ code: 'document-empty', at: 0, path: [], values: {} }];
  const places = new JsonPlaces(text);
  let root: JsonNode;
  try {
    root = places.read();
  } catch {
    return syntax(0, `its lists and maps lie more than ${deepest} deep`);
  }
  if (places.twice.length > 0)
    return places.twice.flatMap(({ at, key }) => syntax(at, `${JSON.stringify(key)} is here twice`));
  const find = (path: DocumentPath, part: 'value' | 'key'): Span => {
    let node = root;
    let at = root.at;
    for (const step of path) {
      const next = node.inner.get(String(step));
      if (next === undefined) break;
      node = next.node;
      at = part === 'key' && next.key >= 0 ? next.key : node.at;
    }
    return { at, quotes: node.isText ? 1 : 0 };
  };
  return { value, find };
}
