import { spawnSync } from 'node:child_process';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

/** The folder of the repository. */
export const root = fileURLToPath(new URL('../../..', import.meta.url));
const program = path.join(root, 'packages/cli/bin/dot-hop.js');

/** Runs the command as a process, in a folder. */
export function runIn(
  folder: string,
  args: string[],
  input = '',
): { code: number | null; out: string; err: string } {
  const { status, stdout, stderr } = spawnSync(process.execPath, [program, ...args], {
    cwd: folder,
    input,
    encoding: 'utf8',
    // As in CI, which some programs take for a reason to paint.
    env: { ...process.env, CI: 'true' },
  });
  return { code: status, out: stdout, err: stderr };
}
