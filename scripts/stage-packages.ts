// npm run stage: puts each package into out/packages as it is published: what its users need, and nothing else. Sources and what only this
// repository needs stay here. `dot-hop` takes the pages of docs/ along, the beginner's game its character.
import { cpSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { build, compiled, node, root, say, typescript } from './run.js';

/** The folders of `packages/` that are published. */
const published = ['core', 'browser', 'three', 'vite', 'cli', 'workbench', 'create'] as const;

/** One of them. */
export type Published = (typeof published)[number];

/** An entry of `exports`, or its entries by condition. */
type Entry = string | { readonly [condition: string]: Entry };

interface Manifest {
  readonly files: readonly string[];
  readonly exports?: Entry;
}

/** What of a manifest is for this repository alone. All that is staged is published. */
const ours = ['files', 'scripts', 'devDependencies', 'publishConfig'];

const stage = path.join(root, 'out/packages');
const docs = path.join(root, 'docs');
const pages = readdirSync(docs).filter((file) => file.endsWith('.md') && file !== 'index.md');

/** Builds the packages and stages them all. @returns where each is */
export function stagePackages(): Record<Published, string> {
  // Anew: the compiler leaves what it has made of files that are gone.
  for (const name of compiled)
    for (const made of ['dist', 'tsconfig.tsbuildinfo'])
      rmSync(path.join(root, 'packages', name, made), { recursive: true, force: true });
  build();
  node(...typescript, 'scripts/build-workbench.ts');
  say('putting the packages together as they are published');
  rmSync(stage, { recursive: true, force: true });
  const folders = Object.fromEntries(published.map((name) => [name, staged(name)])) as Record<
    Published,
    string
  >;
  takeDocs(path.join(folders.core, 'docs'));
  // It begins with the same character as "dot-hop new", which has its place with the command.
  cpSync(path.join(root, 'packages/cli/starter'), path.join(folders.create, 'template/character'), {
    recursive: true,
  });
  return folders;
}

/** Copies what of a package is published. @returns the folder */
function staged(name: Published): string {
  const from = path.join(root, 'packages', name);
  const to = path.join(stage, name);
  const manifest = JSON.parse(readFileSync(path.join(from, 'package.json'), 'utf8')) as Manifest;
  mkdirSync(to, { recursive: true });
  for (const file of [...manifest.files, 'README.md', 'LICENSE'])
    cpSync(path.join(from, file), path.join(to, file), {
      recursive: true,
    });
  const lean = Object.fromEntries(
    Object.entries(manifest)
      .filter(([field]) => !ours.includes(field))
      .map(([field, value]) => [
        field,
        field === 'exports' ? withoutSources(value as Entry) : (value as unknown),
      ]),
  );
  writeFileSync(path.join(to, 'package.json'), `${JSON.stringify(lean, null, 2)}\n`);
  return to;
}

/** Entries without the condition that leads to the sources. */
function withoutSources(entry: Entry): Entry {
  if (typeof entry === 'string') return entry;
  const kept = Object.entries(entry).filter(([condition]) => condition !== '@dot-hop/source');
  return Object.fromEntries(kept.map(([condition, one]) => [condition, withoutSources(one)]));
}

/** Writes the pages of docs/ into a folder, without their pictures, which would be twenty times as large. */
function takeDocs(to: string): void {
  mkdirSync(to);
  for (const page of pages)
    writeFileSync(path.join(to, page), withoutPictures(readFileSync(path.join(docs, page), 'utf8')));
}

/** A page whose links lead to other pages only: what is not in the package is named and not linked. */
function withoutPictures(text: string): string {
  return text
    .replace(/^!\[[^\]]*\]\([^)]*\)\n+/gm, '')
    .replace(/!\[[^\]]*\]\([^)]*\)/g, '')
    .replace(/\[([^\]]*)\]\(([^)#]*)(#[^)]*)?\)/g, (link: string, name: string, address: string) =>
      address === '' || pages.includes(address) ? link : name,
    );
}

if (process.argv[1] === import.meta.filename) stagePackages();
