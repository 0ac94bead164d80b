import { spawnSync } from 'node:child_process';
import { cpSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { endWarm, runWarm } from './warm-command.js';
import type { Ran } from './warm-command.js';

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

afterAll(endWarm);

/** Runs the command in a folder: in a process that has run it before, or, with an input, in one of its own. */
export const runIn = (folder: string, args: readonly string[], input = ''): Ran =>
  input === '' ? runWarm(folder, args) : runAlone(folder, args, input);

/** Runs the command in a process of its own. */
export const runAlone = (folder: string, args: readonly string[], input = ''): Ran =>
  runProgram(folder, process.execPath, [program, ...args], input);

/** Runs a program. */
export function runProgram(folder: string, name: string, args: readonly string[], input = ''): Ran {
  const { status, stdout, stderr } = spawnSync(name, args, {
    cwd: folder,
    input,
    encoding: 'utf8',
    // As in CI, which some programs take for a reason to paint.
    env: { ...process.env, CI: 'true' },
  });
  return { code: status, out: stdout, err: stderr };
}
