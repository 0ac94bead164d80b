import { checkController } from 'dot-hop/check';
import type { Finding } from 'dot-hop/check';
import { compileDocument, readDocument } from 'dot-hop/document';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/** The page of the documentation that has every finding. */
export const page = readFileSync(
  fileURLToPath(new URL('../../../docs/findings.md', import.meta.url)),
  'utf8',
);
/** With what each of its documents begins. */
export const head = `dotHop: 1\nsheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }\n`;
/**
 * Its documents: of each finding one that has it, and the same mended. Those of drawings have none of their own: the faulty sheet
 * has them all.
 */
export const examples = [
  ...page
    .split('## From the drawings')[0]!
    .matchAll(/### `([\w-]+)` \(\w+\)\n[\s\S]*?```yaml\n([\s\S]*?)```[\s\S]*?```yaml\n([\s\S]*?)```/g),
].map(([, code, text, mended]) => ({ code: code!, text: text!, mended: mended! }));

/** What is found in a document that begins as those of the page do. */
export const checked = (text: string): readonly Finding[] =>
  checkController(compileDocument(readDocument(head + text, 'example.yaml'))).findings;
