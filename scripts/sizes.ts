// npm run sizes: what each entry weighs in a game's bundle, minified and gzipped.
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import { build } from 'esbuild';
import { root } from './run.js';

const entries = {
  'dot-hop (runtime)': 'packages/core/src/index.ts',
  'dot-hop/check': 'packages/core/src/check/index.ts',
  'dot-hop/document': 'packages/core/src/document/index.ts',
  'dot-hop/rehearsal': 'packages/core/src/rehearsal/index.ts',
  'dot-hop/pack': 'packages/core/src/pack/index.ts',
  '@dot-hop/browser': 'packages/browser/src/index.ts',
};

for (const [name, file] of Object.entries(entries)) {
  const { outputFiles } = await build({
    entryPoints: [path.join(root, file)],
    bundle: true,
    minify: true,
    write: false,
    format: 'esm',
    target: 'es2022',
    conditions: ['@dot-hop/source'],
  });
  const bytes = outputFiles[0]!.contents;
  const kilo = (count: number): string => `${(count / 1000).toFixed(1)} kB`;
  console.log(
    `${name.padEnd(20)} ${kilo(bytes.length).padStart(9)} minified ${kilo(gzipSync(bytes).length).padStart(9)} gzipped`,
  );
}
