// Before `dot-hop` is packed: takes the pages of docs/ into the package, without their pictures, which would be twenty times as large.
// With --away, after it was packed: they go again.
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { root } from './run.js';

const from = path.join(root, 'docs');
const to = path.join(root, 'packages/core/docs');
const pages = readdirSync(from).filter((file) => file.endsWith('.md') && file !== 'index.md');

/** A page whose links lead to other pages only: what is not in the package is named and not linked. */
function withoutPictures(text: string): string {
  return text
    .replace(/^!\[[^\]]*\]\([^)]*\)\n+/gm, '')
    .replace(/!\[[^\]]*\]\([^)]*\)/g, '')
    .replace(/\[([^\]]*)\]\(([^)#]*)(#[^)]*)?\)/g, (link: string, name: string, address: string) =>
      address === '' || pages.includes(address) ? link : name,
    );
}

rmSync(to, { recursive: true, force: true });
if (!process.argv.includes('--away')) {
  mkdirSync(to);
  for (const page of pages)
    writeFileSync(path.join(to, page), withoutPictures(readFileSync(path.join(from, page), 'utf8')));
}
