import { tableFields } from 'dot-hop/gather';
import { createRequire } from 'node:module';
import { Command, InvalidArgumentError, Option } from 'commander';
import { readVariants } from './variants.js';
import type { CheckOptions } from './commands/check.js';
import type { OpenOptions } from './commands/open.js';
import type { CellsOptions } from './commands/cells.js';
import type { Output } from './commands/command.js';
import type { ConvertOptions } from './commands/convert.js';
import type { DressOptions } from './commands/dress.js';
import type { LadderOptions } from './commands/ladder.js';
import type { PackCommandOptions } from './commands/pack.js';
import type { PreviewOptions } from './commands/preview.js';
import type { RehearseOptions } from './commands/rehearse.js';

// Each command is loaded when it is called: the help of all is there at once.
const { version } = createRequire(import.meta.url)('../package.json') as { version: string };

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

function colour(text: string): string {
  if (!/^#[0-9a-f]{6}$/i.test(text)) throw new InvalidArgumentError('It must be a colour such as #ff00ff.');
  return text.toLowerCase();
}

function place(text: string): [number, number] {
  const found = /^(\d{1,5})[x,](\d{1,5})$/.exec(text);
  if (found === null) throw new InvalidArgumentError('It must be written as x and y, such as 2x2.');
  return [Number(found[1]), Number(found[2])];
}

function rates(text: string): number[] {
  const values = text.split(',').map(Number);
  if (values.length > 6 || !values.every((value) => value >= 1 && value <= 120))
    throw new InvalidArgumentError('It must be one to six numbers of frames a second, such as 24,12,6.');
  return values;
}

function columns(text: string): Record<string, string> {
  const pairs = text.split(',').map((pair) => pair.split('='));
  if (!pairs.every(([field, name]) => (tableFields as readonly string[]).includes(field!) && name))
    throw new InvalidArgumentError(
      `It must be fields and names, such as x=left,y=top; fields: ${tableFields.join(', ')}.`,
    );
  return Object.fromEntries(pairs as [string, string][]);
}

function wear(text: string): Record<string, string> {
  const pairs = text.split(',').map((pair) => pair.split('='));
  if (!pairs.every(([name, one]) => name && one))
    throw new InvalidArgumentError(
      'It must be layers or palettes with what is worn, such as hat=straw,coat.cloth=moss.',
    );
  return Object.fromEntries(pairs as [string, string][]);
}

/** What is worn in a picture that is about something else. */
const wornOption = (): Option =>
  new Option(
    '--wear <list>',
    'what is worn, such as hat=straw; the rest by chance, always the same',
  ).argParser(wear);
const bareOption = (): Option =>
  new Option('--bare', 'the body alone, without its wardrobe').conflicts('wear');

/** The command line: every command with its help. `finish` receives a command's exit code. */
export function buildProgram(output: Output, finish: (code: number) => void): Command {
  const program = new Command('dot-hop');
  program
    .description('Frame-based animation controllers for sprite-sheet characters.')
    .version(version)
    .exitOverride()
    .showSuggestionAfterError()
    .showHelpAfterError('(--help shows how it is used)')
    .addHelpText(
      'after',
      '\nA DOCUMENT is a character in YAML or JSON; "-" reads it from standard input.\nExit codes: 0 well, 1 something was not as expected, 2 the call cannot be carried out.',
    );

  program
    .command('new')
    .description('a character to begin with: drawings, document, rehearsal')
    .argument('<folder>', 'where to put it; it is made if it is not there')
    .option('--json', 'print what was written as JSON')
    .addHelpText('after', example('dot-hop new my-keeper'))
    .action(async (folder: string, options: { json?: boolean }) =>
      finish(await (await import('./commands/new.js')).newCharacter(folder, options, output)),
    );

  program
    .command('open')
    .description('opens the workbench: a character is cut, timed and tried by hand, in the browser')
    .argument(
      '[place]',
      'a document, the folder of a character or of its drawings, or one of several characters',
      '.',
    )
    .option('--port <number>', 'listen there; default: any that is free', wholeNumber(1, 65_535))
    .option('--no-browser', 'print the address and open no browser')
    .addHelpText(
      'after',
      `\nOnly this machine can reach it, and only with the address that is printed: the token in it opens the folder.\n${example(
        'dot-hop open keeper',
        'dot-hop open my-drawings',
        'dot-hop open my-drawings/hero.dothop.yaml',
      )}`,
    )
    .action(async (place: string, options: OpenOptions) =>
      finish(await (await import('./commands/open.js')).open(place, options, output)),
    );

  program
    .command('cells')
    .description('cuts and numbers cells: a table, one picture with -o, a document with --write')
    .argument('<sources...>', 'a document; or an image, an animation, a folder or many images')
    .option('-o, --out <file.png>', 'draw the numbered cells here')
    .option('--write <document>', 'write a document with these cells and clips, or bring it up to date')
    .option('--cell <width>x<height>', "an image's cells, in pixels", size)
    .option('--margin <pixels>', 'space around all cells', wholeNumber(0, 4096))
    .option('--gap <pixels>', 'space between cells', wholeNumber(0, 4096))
    .option('--offset <x>x<y>', 'where the first cell begins', place)
    .option('--islands', 'find the drawings by the transparent gaps between them')
    .option('--ground <colour>', 'with --islands: the colour taken for transparent, such as #ff00ff', colour)
    .option(
      '--join <pixels>',
      'with --islands: what lies so near is one drawing; default: 2',
      wholeNumber(0, 256),
    )
    .addOption(
      new Option('--pivot <where>', 'with --write: put pivots where the drawings stand').choices([
        'feet',
        'own-feet',
      ]),
    )
    .option('--table <file.csv>', 'take the rectangles from a table')
    .option('--columns <list>', "the table's names, such as x=left,y=top,width=w,height=h,name=id", columns)
    .option('--sheet <name>', 'which sheet of a document; default: the first')
    .option('--marks', 'draw pivots, boxes and points')
    .option('--measure', 'measure the drawings; exit code 1 when something is off')
    .option('--csv', 'print the table as CSV')
    .option('--json', 'print the table as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop cells keeper/keeper.dothop.yaml -o cells.png --marks',
        'dot-hop cells keeper/keeper.png --cell 40x48 --write keeper/first.dothop.yaml',
        'dot-hop cells keeper/keeper.png --islands --write keeper/found.dothop.yaml --pivot feet',
        'dot-hop cells keeper/keeper.dothop.yaml --measure',
      ),
    )
    .action(async (sources: string[], options: CellsOptions) =>
      finish(await (await import('./commands/cells.js')).cells(sources, options, output)),
    );

  program
    .command('preview')
    .description('a clip, flipbook or state: moving in a .webp, .gif or .apng, side by side in a .png')
    .argument('<document>', 'the character')
    .argument('<name>', 'a clip, flipbook or state')
    .option('-o, --out <file>', 'write it here')
    .option('--scale <times>', 'how many times as large', wholeNumber(1, 32), 4)
    .option('--direction <name>', 'the direction it faces; default: the one it starts with')
    .option('--rate <times>', 'how many times as fast', rate, 1)
    .option('--compare <list>', 'frames a second side by side, such as 24,12,6', rates)
    .option('--ghosts', 'show the neighbouring frames faintly')
    .option('--ground', 'draw the ground; with a stride it passes under the feet')
    .option('--marks', 'draw pivots, boxes, points and cues')
    .addOption(
      new Option('--background <kind>', 'what stands behind')
        .choices(['plain', 'checker', 'none'])
        .default('plain'),
    )
    .option('--over <name>', 'with a state of a track, such as arms: what the body shows under it')
    .option('--with <values>', 'the variants for these values of signals, such as weapon=pole', readVariants)
    .option('--dial', 'all directions around the compass, as a .png')
    .addOption(wornOption())
    .addOption(bareOption())
    .option('--trail <rehearsal>', 'with --dial: the vectors of a rehearsal, in the colour of what was faced')
    .option('--json', 'print the frames as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop preview keeper/keeper.dothop.yaml walk -o walk.webp --ground',
        'dot-hop preview keeper/keeper.dothop.yaml walk -o walk.gif --compare 24,12,6',
        'dot-hop preview keeper/keeper.dothop.yaml walk --direction west -o walk.png',
        'dot-hop preview keeper/keeper.dothop.yaml walk --dial --trail keeper/first.rehearsal.yaml -o dial.png',
      ),
    )
    .action(async (document: string, name: string, options: PreviewOptions) =>
      finish(await (await import('./commands/preview.js')).preview(document, name, options, output)),
    );

  program
    .command('dress')
    .description('people from a wardrobe, by chance or as told: what they wear, one picture with -o')
    .argument('<document>', 'the character')
    .option('-o, --out <file.png>', 'draw them here; one alone in every direction and frame')
    .option('--count <people>', 'how many', wholeNumber(1, 2000), 1)
    .option('--seed <text>', 'the same seed gives the same people', '1')
    .option('--differ <choices>', 'in how many choices any two differ at least', wholeNumber(1, 100), 3)
    .option('--wear <list>', 'what is not left to chance, such as hat=straw,coat.cloth=moss', wear)
    .option('--scale <times>', 'how many times as large', wholeNumber(1, 32), 2)
    .addOption(new Option('--csv', 'print what they wear as CSV').conflicts('json'))
    .option('--json', 'print what they wear as JSON')
    .addHelpText(
      'after',
      examplesOf('Examples, with a document that has a wardrobe', [
        'dot-hop dress folk.dothop.yaml --count 100 --seed quay -o town.png',
        'dot-hop dress folk.dothop.yaml --wear hat=straw,coat=shawl,coat.cloth=wine -o one.png',
        'dot-hop dress folk.dothop.yaml --count 5 --json',
      ]),
    )
    .action(async (document: string, options: DressOptions) =>
      finish(await (await import('./commands/dress.js')).dress(document, options, output)),
    );

  program
    .command('convert')
    .description(
      'a document as YAML, JSON or a state chart (SCXML 1.0), its clips as a CSV table, and back from one',
    )
    .argument('<document>', 'the character')
    .option('-o, --out <file>', 'write it here, as .yaml, .json, .csv or .scxml')
    .addOption(
      new Option('--to <format>', 'what to print without -o').choices(['yaml', 'json', 'csv', 'scxml']),
    )
    .option('--clips <table.csv>', 'take the clips of this table over into the document')
    .option('--whole', 'write what the document takes over from others ("from") into it')
    .addHelpText(
      'after',
      example(
        'dot-hop convert keeper/keeper.dothop.yaml --to csv',
        'dot-hop convert keeper/keeper.dothop.yaml -o keeper/copy.dothop.json',
        'dot-hop convert keeper/keeper.dothop.yaml -o keeper.scxml',
      ),
    )
    .action(async (document: string, options: ConvertOptions) =>
      finish(await (await import('./commands/convert.js')).convert(document, options, output)),
    );

  program
    .command('ladder')
    .description('the states by rank with conditions, hops and follow-ups: a table, one picture with -o')
    .argument('<document>', 'the character')
    .option('-o, --out <file.png>', 'draw it here')
    .addOption(wornOption())
    .addOption(bareOption())
    .option('--winners', 'print who takes over in which situation instead: the first row that fits')
    .option('--when <condition>', 'who takes over in situations of this kind, such as "grounded && moving"')
    .option(
      '--track <name>',
      "only this track; --winners and --when speak of the document's own states by default",
    )
    .addOption(new Option('--csv', 'print the table as CSV').conflicts('json'))
    .option('--json', 'print it as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop ladder keeper/keeper.dothop.yaml -o ladder.png',
        'dot-hop ladder keeper/keeper.dothop.yaml --winners',
        'dot-hop ladder keeper/keeper.dothop.yaml --when "not moving"',
      ),
    )
    .action(async (document: string, options: LadderOptions) =>
      finish(await (await import('./commands/ladder.js')).ladder(document, options, output)),
    );

  program
    .command('check')
    .description('finds what can never show, what flickers, what gets stuck, before any game runs')
    .argument('<document...>', 'characters')
    .option('-o, --out <file.png>', 'draw the ladder with what was found here')
    .option('--accepted', 'show what the documents accept too')
    .option('--json', 'print what was found as JSON')
    .addOption(new Option('--sarif', 'print it as SARIF 2.1, for editors and code hosts').conflicts('json'))
    .addHelpText(
      'after',
      example(
        'dot-hop check keeper/keeper.dothop.yaml',
        'dot-hop check keeper/keeper.dothop.yaml --accepted -o check.png',
      ),
    )
    .action(async (files: string[], options: CheckOptions) =>
      finish(await (await import('./commands/check.js')).check(files, options, output)),
    );

  program
    .command('rehearse')
    .description('runs scripts of signals without a game; tells what happened and what was not as expected')
    .argument('<rehearsal...>', 'rehearsals in YAML or JSON, or folders with *.rehearsal.yaml or .json')
    .option(
      '-o, --out <file>',
      'draw what happened here: along its time (.png) or moving (.webp, .gif, .apng)',
    )
    .addOption(wornOption())
    .addOption(bareOption())
    .option('-q, --quiet', 'print only what was not as expected')
    .option('-w, --watch', 'run again whenever one of their files changes')
    .option(
      '--expect-seen',
      'write what is seen into a rehearsal that expects nothing yet, as its expectations',
    )
    .option('--json', 'print what happened as JSON')
    .addOption(
      new Option('--junit', 'print what came of the expectations as JUnit XML, for test reports').conflicts(
        'json',
      ),
    )
    .addHelpText(
      'after',
      example(
        'dot-hop rehearse keeper/first.rehearsal.yaml -o first.png',
        'dot-hop rehearse keeper/first.rehearsal.yaml -o first.webp',
        'dot-hop rehearse keeper --quiet',
      ),
    )
    .action(async (files: string[], options: RehearseOptions) =>
      finish(await (await import('./commands/rehearse.js')).rehearse(files, options, output)),
    );

  program
    .command('names')
    .description('the names of documents for TypeScript, written beside them (wick.dothop.d.yaml.ts)')
    .argument('<document...>', 'characters')
    .option('--json', 'print what was written as JSON')
    .addHelpText('after', example('dot-hop names keeper/keeper.dothop.yaml'))
    .action(async (files: string[], options: { json?: boolean }) =>
      finish(await (await import('./commands/names.js')).names(files, options, output)),
    );

  program
    .command('pack')
    .description('one image and one document with only what the game needs')
    .argument('<document>', 'the character')
    .requiredOption(
      '-o, --out <file>',
      'write the document here, as .json or .yaml; the image lies beside it as .png',
    )
    .option(
      '--padding <pixels>',
      'empty pixels between drawings and at the edge (default: 2)',
      wholeNumber(0, 16_384),
    )
    .option('--power-of-two', 'widths and heights of 256, 512, 1024, ...')
    .option('--most <pixels>', 'the largest width and height (default: 4096)', wholeNumber(0, 16_384))
    .option('--compiled', 'write what is played instead of the document: games load it without a compiler')
    .option('--json', 'print what came of it as JSON')
    .addHelpText(
      'after',
      example(
        'dot-hop pack keeper/keeper.dothop.yaml -o keeper-game.json --compiled',
        'dot-hop pack keeper/keeper.dothop.yaml -o packed.json',
      ),
    )
    .action(async (document: string, options: PackCommandOptions) =>
      finish(await (await import('./commands/pack.js')).packCharacter(document, options, output)),
    );

  return program;
}

const newFirst = 'Examples, with the character that "dot-hop new keeper" makes';

function example(...lines: string[]): string {
  return examplesOf(newFirst, lines);
}

function examplesOf(title: string, lines: readonly string[]): string {
  return `\n${title}:\n${lines.map((line) => `  ${line}`).join('\n')}`;
}
