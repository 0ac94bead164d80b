import { CommanderError } from 'commander';
import { DotHopError } from 'dot-hop';
import pc from 'picocolors';
import { exit } from './commands/command.js';
import type { Output } from './commands/command.js';
import { forgetReads } from './files/reading.js';
import { Misuse } from './misuse.js';
import { buildProgram } from './program.js';

/** Off a terminal `isTTY` is not false but missing, and a missing argument would mean the colour package's own guess. */
function isTerminal({ isTTY }: { readonly isTTY?: boolean }): boolean {
  return isTTY === true;
}

/**
 * A text without the signs by which a name could command a terminal: all control characters but tabs and line ends, and but
 * the colours that this command itself puts in.
 */
export const printable = (text: string): string =>
  text.replace(/\x1b\[\d{1,3}m|[\x00-\x08\x0b-\x1f\x7f-\x9f]/g, (sign) =>
    sign.length > 1 ? sign : `\\u${sign.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );

/** `FORCE_COLOR`, as many programs read it, asks for colours where there is no terminal. */
const isForced = (): boolean => !['', '0', undefined].includes(process.env.FORCE_COLOR);

/**
 * Runs the command.
 *
 * @param args the words after `dot-hop`
 * @returns the exit code: 0 when all went well, 1 for findings and failures, 2 for a call that cannot be carried out
 */
export async function main(args: readonly string[]): Promise<number> {
  const output: Output = {
    line: (text = '') => void process.stdout.write(`${printable(text)}\n`),
    note: (text) => void process.stderr.write(`${printable(text)}\n`),
    paint: pc.createColors((isTerminal(process.stdout) && pc.isColorSupported) || isForced()),
    width: isTerminal(process.stdout) ? process.stdout.columns : undefined,
  };
  // A reader such as `head` that closes its end early is no fault.
  process.stdout.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code === 'EPIPE') process.exit(exit.well);
    throw error;
  });
  forgetReads();
  let code: number = exit.well;
  try {
    await buildProgram(output, (result) => (code = result)).parseAsync([...args], { from: 'user' });
    return code;
  } catch (error) {
    if (error instanceof CommanderError) return error.exitCode === 0 ? exit.well : exit.misuse;
    if (error instanceof Misuse) output.note(`dot-hop: ${error.message}`);
    else if (error instanceof DotHopError) output.note(error.message);
    else throw error;
    return exit.misuse;
  }
}
