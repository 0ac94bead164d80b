import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { compileDocument, readDocument } from 'dot-hop/document';

const document = readDocument(
  readFileSync(fileURLToPath(new URL('../../../demo/wick.dothop.yaml', import.meta.url)), 'utf8'),
  'wick.dothop.yaml',
);
const size = { width: 512, height: 728 };

/** Wick, as the demo has him. */
export const wick = compileDocument(document, {
  images: Object.fromEntries([...document.images.keys()].map((file) => [file, size])),
});
