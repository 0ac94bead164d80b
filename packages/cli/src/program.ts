import { Command, InvalidArgumentError, Option } from 'commander';
import { cells } from './commands/cells.js';
import type { CellsOptions } from './commands/cells.js';
import type { Output } from './commands/command.js';
import { preview } from './commands/preview.js';
import type { PreviewOptions } from './commands/preview.js';
import { rehearse } from './commands/rehearse.js';
import type { RehearseOptions } from './commands/rehearse.js';

function wholeNumber(least: number, most: number) {
  return (text: string): number => {
    const value = Number(text);
    if (!Number.isInteger(value) || value < least || value > most)
      throw new InvalidArgumentError(`It must be a whole number from ${least} to ${most}.`);
    return value;
  };
}

function rate(text: string): number {
  const value = Number(text);
  if (!(value >= 0.01 && value <= 100))
    throw new InvalidArgumentError('It must be a number from 0.01 to 100.');
  return value;
}

function size(text: string): [number, number] {
  const found = /^(\d{1,5})x(\d{1,5})$/.exec(text);
  const [width, height] = [Number(found?.[1] ?? 0), Number(found?.[2] ?? 0)];
  if (width < 1 || height < 1)
    throw new InvalidArgumentError('It must be written as width x height, such as 48x48.');
  return [width, height];
}

/** The command line: every command with its help. `finish` receives a command's exit code. */
export function buildProgram(output: Output, finish: (code: number) => void): Command {
  const program = new Command('dot-hop');
  program
    .description('Frame-based animation controllers for sprite-sheet characters.')
    .version('0.1.0')
    .exitOverride()
    .showSuggestionAfterError()
    .showHelpAfterError('(--help shows how it is used)')
    .addHelpText(
      'after',
      '\nA DOCUMENT is a character in YAML or JSON; "-" reads it from standard input.\nExit codes: 0 well, 1 something was not as expected, 2 the call cannot be carried out.',
    );

  program
    .command('cells')
    .description('the cells of a sheet, numbered: a table, and one picture with -o')
    .argument('<source>', 'an image, or a document')
    .option('-o, --out <file.png>', 'write the numbered picture here')
    .option('--cell <width>x<height>', "an image's cells, in pixels", size)
    .option('--sheet <name>', 'which sheet of a document; default: the first')
    .option('--csv', 'print the table as CSV')
    .option('--json', 'print the table as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop cells demo/wick.dothop.yaml -o cells.png',
        'dot-hop cells demo/wick.png --cell 64x56 --csv',
      ),
    )
    .action(async (source: string, options: CellsOptions) => finish(await cells(source, options, output)));

  program
    .command('preview')
    .description('a clip, flipbook or state: moving in a .webp, side by side in a .png')
    .argument('<document>', 'the character')
    .argument('<name>', 'a clip, flipbook or state')
    .option('-o, --out <file>', 'write it here, as .webp or .png')
    .option('--scale <times>', 'how many times as large', wholeNumber(1, 32), 4)
    .option('--direction <name>', 'the direction it faces; default: the one it starts with')
    .option('--rate <times>', 'how many times as fast', rate, 1)
    .addOption(
      new Option('--background <kind>', 'what stands behind')
        .choices(['plain', 'checker', 'none'])
        .default('plain'),
    )
    .option('--json', 'print the frames as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop preview demo/wick.dothop.yaml run -o run.webp',
        'dot-hop preview demo/wick.dothop.yaml swing1 --direction west -o swing.png',
      ),
    )
    .action(async (document: string, name: string, options: PreviewOptions) =>
      finish(await preview(document, name, options, output)),
    );

  program
    .command('rehearse')
    .description('runs scripts of signals without a game; tells what happened and what was not as expected')
    .argument('<rehearsal...>', 'rehearsals in YAML or JSON')
    .option('-o, --out <file.png>', 'draw what happened here')
    .option('-q, --quiet', 'print only what was not as expected')
    .option('--json', 'print what happened as JSON')
    .addHelpText('after', example('dot-hop rehearse demo/evening.rehearsal.yaml -o evening.png'))
    .action(async (files: string[], options: RehearseOptions) =>
      finish(await rehearse(files, options, output)),
    );

  return program;
}

function example(...lines: string[]): string {
  return `\nExamples, on the demo data:\n${lines.map((line) => `  ${line}`).join('\n')}`;
}
