import { spawnSync } from 'node:child_process';
import { cpSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the repository. */
export const root = fileURLToPath(new URL('../../..', import.meta.url));
const program = path.join(root, 'packages/cli/bin/dot-hop.js');

/** The images of Wick, whole and in parts. */
export const wickImages = ['wick-behind.png', 'wick-legs.png', 'wick-upper.png', 'wick.png'];

/** Copies Wick, and further files of the demo, into a folder. */
export function copyWick(folder: string, ...files: readonly string[]): void {
  for (const file of [...wickImages, 'wick.dothop.yaml', ...files])
    cpSync(path.join(root, 'demo', file), path.join(folder, file));
  cpSync(path.join(root, 'demo/gear'), path.join(folder, 'gear'), { recursive: true });
}

/** Runs the command as a process, in a folder; or another program. */
export function runIn(
  folder: string,
  args: readonly string[],
  input = '',
  instead?: string,
): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(
    instead ?? process.execPath,
    instead === undefined ? [program, ...args] : args,
    {
      cwd: folder,
      input,
      encoding: 'utf8',
      // As in CI, which some programs take for a reason to paint.
      env: { ...process.env, CI: 'true' },
    },
  );
  return { code: status, out: stdout, err: stderr };
}
