import { spawn } from 'node:child_process';
import { cpSync, mkdtempSync, realpathSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { DotHopPluginOptions } from '../../vite/src/index.js';
import { root } from './command-line.js';

/** A page that is served from its sources, in a folder of its own where they can be changed. */
export interface ServedPage {
  readonly folder: string;
  readonly address: string;
  /** Ends the server and takes the folder away. */
  close(): Promise<void>;
}

/**
 * Copies a page and the starter's character into a folder of their own and serves them, by a server in a process of its own.
 *
 * @param prepare changes what was copied before it is served
 * @param plugin what the plugin is told
 */
export async function servePage(
  from: string,
  prepare: (folder: string) => unknown = () => undefined,
  plugin: DotHopPluginOptions = { names: true },
): Promise<ServedPage> {
  const folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-page-')));
  cpSync(from, folder, { recursive: true });
  cpSync(path.join(root, 'packages/cli/starter'), folder, { recursive: true });
  prepare(folder);
  symlinkSync(path.join(root, 'node_modules'), path.join(folder, 'node_modules'), 'dir');
  writeFileSync(
    path.join(folder, 'vite.config.mjs'),
    `import { dotHop } from '@dot-hop/vite';
    export default { plugins: [dotHop(${JSON.stringify(plugin)})], server: { port: 0, fs: { strict: false } }, cacheDir: 'cache', clearScreen: false };`,
  );
  const server = spawn(process.execPath, [path.join(root, 'node_modules/vite/bin/vite.js')], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, NO_COLOR: '1' },
  });
  const ended = new Promise((done) => server.once('exit', done));
  const address = await new Promise<string>((done, fail) => {
    let said = '';
    const hear = (part: Buffer): void => {
      said += part.toString();
      const found = /http:\/\/localhost:\d+\//.exec(said);
      if (found !== null) done(found[0]);
    };
    server.stdout.on('data', hear);
    server.stderr.on('data', hear);
    server.on('exit', () => fail(new Error(said)));
  });
  return {
    folder,
    address,
    async close() {
      // At once, and awaited: it may be writing there up to its end.
      server.kill('SIGKILL');
      await ended;
      rmSync(folder, { recursive: true });
    },
  };
}
