import { nearestName } from '../problem/nearest.js';
import type { DocumentPath, Problem } from '../problem/problem.js';
import { isMap } from '../shape/check.js';
import { folderOf, isAbsolute, joined, namedFrom } from './addresses.js';
import { over } from './layers.js';
import type { Built, Layers } from './layers.js';
import { Source, placesIn } from './source.js';
import type { TextPlaces } from './source.js';
import type { ReadTree } from './tree.js';
import { otherKind } from './validate.js';
import { broughtUp } from './versions.js';

/** The text of a base, or the reason why it could not be read. */
export type BaseText = { readonly text: string } | { readonly trouble: string };

/** The bases of a document, and their bases, by their addresses from the document. */
export type Bases = ReadonlyMap<string, BaseText>;

type Data = Readonly<Record<string, unknown>>;

/** The addresses that `from` names, in the order in which they are laid over one another. */
function namedBy(data: unknown): readonly { readonly address: string; readonly path: DocumentPath }[] {
  const from = isMap(data) ? data.from : undefined;
  if (typeof from === 'string') return [{ address: from, path: ['from'] }];
  if (!Array.isArray(from)) return [];
  return from.flatMap((address: unknown, i) =>
    typeof address === 'string' ? [{ address, path: ['from', i] }] : [],
  );
}

/**
 * Reads the documents that a text builds on, and those that these build on.
 *
 * @param readText gives the text at an address, which counts from the folder of the document; what it throws is told where the
 *   document names it
 */
export async function gatherWith(
  readerOf: (address: string) => ReadTree,
  text: string,
  file: string | undefined,
  readText: (address: string) => Promise<string>,
): Promise<Bases> {
  const found = new Map<string, BaseText>();
  const gather = async (inside: string, read: ReadTree, folder: string): Promise<void> => {
    const tree = read(inside);
    if (!('value' in tree)) return;
    for (const { address } of namedBy(tree.value)) {
      const base = joined(folder, address);
      if (found.has(base) || isAbsolute(base)) continue;
      // Noted before it is read, so that documents which build on one another come to an end.
      found.set(base, { trouble: '' });
      try {
        const given = await readText(base);
        found.set(base, { text: given });
        await gather(given, readerOf(base), folderOf(base));
      } catch (error) {
        found.set(base, { trouble: error instanceof Error ? error.message : String(error) });
      }
    }
  };
  await gather(text, readerOf(file ?? ''), '');
  return found;
}

/** Builds a document on those that it names. */
class Building {
  /** What each base amounts to: several may build on the same one, and each of these on two more. */
  private readonly built = new Map<string, Built>();

  constructor(
    private readonly readerOf: (address: string) => ReadTree,
    private readonly file: string,
    private readonly bases: Bases,
  ) {}

  /** A document's name for errors, by its address; empty for the outermost one. */
  private nameOf(address: string): string {
    if (address === '') return this.file;
    const name = joined(folderOf(this.file), address);
    return this.file.startsWith('/') ? `/${name}` : name;
  }

  /** @param chain the addresses from the outermost document to this one */
  build(text: TextPlaces, chain: readonly string[]): Built {
    const fail = (problem: Problem): Error => new Source(text.value, { text }).placed([problem]);
    const now = broughtUp(text.value, 'dotHop');
    if ('problem' in now) throw fail(now.problem);
    const { data } = now;
    const own: Built = { value: data, origin: { text } };
    if (!isMap(data)) {
      if (chain.length === 0) return own;
      throw fail({
        code: 'field-kind',
        path: [],
        values: { expected: 'a document: { dotHop: 1, ... }', received: data },
      });
    }
    const other = chain.length > 0 ? otherKind(data, 'dotHop') : undefined;
    if (other !== undefined) throw fail(other);
    if (chain.length > 0 && !Object.hasOwn(data, 'dotHop'))
      throw fail({ code: 'field-missing', path: ['dotHop'], values: { field: 'dotHop', expected: '1' } });
    const { from, ...said } = data;
    const named = namedBy(data);
    const count = from === undefined ? 0 : Array.isArray(from) ? from.length : 1;
    // What is no list of names is told by the shape of the document. Without a base an empty value is a fault of its own.
    if (named.length !== count || (from === undefined && chain.length === 0)) return own;
    let below: Built = { value: {}, origin: { text } };
    for (const { address, path } of named)
      below = over(below, this.base(address, path, chain, fail), () => undefined);
    const problems: Problem[] = [];
    const built = over(below, { value: said, origin: { text } }, (path, known) =>
      problems.push({ code: 'base-nothing', path, values: { name: String(path.at(-1)), known } }),
    );
    if (problems.length > 0) throw new Source(data, { text }).placed(problems);
    return { ...built, layers: { own: data, below: below.value } };
  }

  private base(
    address: string,
    path: DocumentPath,
    chain: readonly string[],
    fail: (problem: Problem) => Error,
  ): Built {
    const base = joined(folderOf(chain.at(-1) ?? ''), address);
    if (isAbsolute(base)) throw fail({ code: 'base-absolute', path, values: { received: address } });
    const circle = ['', ...chain].map((one) => this.nameOf(one));
    const name = this.nameOf(base);
    if (circle.includes(name))
      throw fail({
        code: 'base-circle',
        path,
        values: { names: [...circle.slice(circle.indexOf(name)), name] },
      });
    const given = this.bases.get(base);
    if (given === undefined) throw fail({ code: 'base-unread', path, values: { received: address } });
    if ('trouble' in given)
      throw fail({ code: 'base-missing', path, values: { received: address, detail: given.trouble } });
    let built = this.built.get(base);
    if (built === undefined) {
      built = this.build(placesIn(given.text, this.readerOf(base), name), [...chain, base]);
      this.built.set(base, built);
    }
    const { value, origin } = built;
    return { value: namedFrom(folderOf(address), value as Data), origin };
  }
}

/** Names what may have been meant where a thing misses a field because the bases have none of its name. */
export function withNearNames(problems: readonly Problem[], layers: Layers | undefined): readonly Problem[] {
  if (layers === undefined) return problems;
  return problems.map((problem) => {
    const around = problem.path.slice(0, -2);
    const name = String(problem.path.at(-2));
    if (problem.code !== 'field-missing' || around.length === 0) return problem;
    let below = layers.below;
    for (const step of around) below = isMap(below) ? below[step] : undefined;
    if (!isMap(below) || Object.hasOwn(below, name)) return problem;
    const near = nearestName(name, Object.keys(below));
    return near === undefined
      ? problem
      : { ...problem, code: 'base-field', values: { ...problem.values, near } };
  });
}

/**
 * Reads a document and lays it over those that it builds on.
 *
 * @param bases what {@link gatherWith} read
 * @throws {DocumentError} when a text cannot be read, or a document builds on none or on itself
 */
export function buildWith(
  readerOf: (address: string) => ReadTree,
  text: string,
  file = '(text)',
  bases: Bases = new Map(),
): { readonly source: Source; readonly layers: Layers | undefined } {
  const places = placesIn(text, readerOf(file), file);
  const { value, origin, layers } = new Building(readerOf, file, bases).build(places, []);
  return { source: new Source(value, origin), layers };
}
