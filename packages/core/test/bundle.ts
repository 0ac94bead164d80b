import { fileURLToPath } from 'node:url';
import { build } from 'esbuild';

const source = fileURLToPath(new URL('../src', import.meta.url));

/** What of the core ends up in a game's bundle. */
export interface Bundle {
  /** All modules that were read, and those of which anything is left in it. */
  readonly read: readonly string[];
  readonly left: readonly string[];
  readonly contents: Uint8Array;
}

/** Bundles code that imports from the core's sources, such as `export * from "./index.ts"`. */
export async function bundleOf(code: string): Promise<Bundle> {
  const { metafile, outputFiles } = await build({
    stdin: { contents: code, resolveDir: source, loader: 'ts' },
    bundle: true,
    minify: true,
    write: false,
    metafile: true,
    format: 'esm',
    target: 'es2022',
    logLevel: 'silent',
  });
  const [output] = Object.values(metafile.outputs);
  const left = Object.entries(output!.inputs).flatMap(([file, { bytesInOutput }]) =>
    bytesInOutput > 0 ? [file] : [],
  );
  return { read: Object.keys(metafile.inputs), left, contents: outputFiles[0]!.contents };
}
