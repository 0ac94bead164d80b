import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import path from 'node:path';
import { root } from './command-line.js';

/** A workbench that the command serves. */
export interface OpenedFolder {
  /** The address with its token. */
  readonly address: string;
  readonly process: ChildProcess;
  close(): Promise<void>;
}

/** Runs `dot-hop open` until it has printed its address. */
export const openFolder = (folder: string, ...args: string[]): Promise<OpenedFolder> =>
  openFrom(process.cwd(), folder, ...args);

/** The same in a folder in which the command works. */
export async function openFrom(cwd: string, folder: string, ...args: string[]): Promise<OpenedFolder> {
  const command = path.join(root, 'packages/cli/bin/dot-hop.js');
  const child = spawn('node', [command, 'open', folder, '--no-browser', ...args], { cwd });
  let said = '';
  child.stderr.on('data', (part: Buffer) => (said += part.toString()));
  const address = await new Promise<string>((done, fail) => {
    child.stdout.on('data', (part: Buffer) => {
      const [found] = /http:\S+/.exec(part.toString()) ?? [];
      if (found !== undefined) done(found);
    });
    child.on('exit', (code) => fail(new Error(`it ended with ${code}: ${said}`)));
  });
  return {
    address,
    process: child,
    close: async () => {
      child.removeAllListeners('exit');
      const ended = once(child, 'exit');
      child.kill('SIGINT');
      await ended;
    },
  };
}
