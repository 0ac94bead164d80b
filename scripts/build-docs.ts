// npm run docs: the site from docs/, with pages made from the code: the fields of a document and the names of the library. It is
// written to out/docs; `npm run docs -- --serve` serves the pages as they are edited.
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Application } from 'typedoc';
import type { TypeDocOptions } from 'typedoc';
import type { PluginOptions } from 'typedoc-plugin-markdown';
import { build as buildSite, createServer } from 'vitepress';
import { stringify } from 'yaml';
import { build, root, say } from './run.js';

const docs = path.join(root, 'docs');
build();
const { documentWords } = await import('../packages/core/dist/document/words.js');
const { documentFieldExamples } = await import('../packages/core/dist/document/field-examples.js');
const { rehearsalWords } = await import('../packages/core/dist/rehearsal/words.js');
const { rehearsalFieldExamples } = await import('../packages/core/dist/rehearsal/field-examples.js');

/** The shapes of a document in the order of the work, each with what it describes. */
const shapes = {
  document: 'A document',
  sheet: 'A sheet (`sheets.NAME`)',
  grid: 'A grid (`sheets.NAME.grid`)',
  rectangle: 'A rectangle (`sheets.NAME.cells`)',
  composed: 'A piece of a composed cell (`sheets.NAME.compose`)',
  part: 'A part (`sheets.NAME.parts.NAME`)',
  marks: 'Marks of one cell (`sheets.NAME.perCell.NUMBER`)',
  clip: 'A clip (`clips.NAME`)',
  line: 'A row of cells',
  upright: 'A column of cells',
  loop: 'A loop that goes on from a frame',
  compass: 'The compass (`compass`)',
  number: 'A number (`signals.NAME`)',
  flag: 'A flag',
  choice: 'A choice',
  vector: 'A vector',
  pulse: 'A pulse',
  kept: 'A pulse that is remembered',
  band: 'A band (`derived.NAME`)',
  linger: 'A flag that lingers',
  settle: 'A flag that settles',
  state: 'A state (`states.NAME`)',
  hop: 'A hop (`states.NAME.hops`)',
  atStart: 'The start of a span',
  atEnd: 'The end of a span',
  atPhases: 'Instants at parts of a pass',
  yield: 'A yield (`states.NAME.yields`)',
  gaits: 'Gaits (`states.NAME.gaits`)',
  variety: 'One of several flipbooks (`states.NAME.shows`)',
  rate: 'A rate that follows what is travelled',
  scrub: 'A scrub',
  turns: 'A turn',
  facing: 'A way of facing',
  group: 'A group (`groups.NAME`)',
  track: 'A track (`tracks.NAME`)',
  otherwise: 'A cue with several names',
  palette: 'A palette (`palettes.NAME`)',
  wardrobe: 'The wardrobe (`wardrobe`)',
  layer: 'A layer of clothes',
  piece: 'A piece of clothing',
  order: 'An order of layers',
  where: 'Where an order counts',
  accept: 'A finding that is accepted',
};

/** The shapes of a rehearsal, likewise. */
const rehearsalShapes = {
  rehearsal: 'A rehearsal',
  line: 'A line of the script (`script`)',
  untilState: 'Until a state shows',
  untilCue: 'Until a cue is told',
  shown: 'What shows then (`script[N].expect`)',
  expectation: 'An expectation (`expect`)',
  runner: 'A body (`body`)',
  platformer: 'A body that leaps (`body.platformer`)',
  stroller: 'Another body (`body`)',
  walker: 'A body seen from above (`body.walker`)',
  even: 'Even steps (`steps`)',
  uneven: 'Uneven steps (`steps`)',
  begins: 'A snapshot to begin from (`begins`)',
};

/** A table of the fields of each shape. */
function fieldTables(
  headings: Readonly<Record<string, string>>,
  words: Readonly<Record<string, string>>,
  examples: Readonly<Record<string, unknown>>,
): string {
  const found = new Map<string, string[]>();
  // A brace would be read as code of the page.
  const plain = (text: string): string =>
    text.replaceAll('|', '\\|').replaceAll('{', '&#123;').replaceAll('<', '&lt;');
  for (const [place, text] of Object.entries(words)) {
    const [shape = '', field = ''] = place.split('.');
    const flow = stringify(examples[place], { collectionStyle: 'flow', lineWidth: 0 }).trim();
    const value = flow.replaceAll('[ ', '[').replaceAll(' ]', ']');
    const rows = found.get(shape) ?? [];
    found.set(shape, [
      ...rows,
      `| \`${field}\` | ${plain(text)} | \`${`${field}: ${value}`.replaceAll('|', '\\|')}\` |`,
    ]);
  }
  const unnamed = [...found.keys()].filter((shape) => !Object.hasOwn(headings, shape));
  if (unnamed.length > 0) throw new Error(`fields of ${unnamed.join(', ')} have no heading in build-docs.ts`);
  return Object.entries(headings)
    .flatMap(([shape, heading]) => {
      const rows = found.get(shape);
      return rows === undefined
        ? []
        : [`## ${heading}\n\n| field | what it says | such as |\n| --- | --- | --- |\n${rows.join('\n')}\n`];
    })
    .join('\n');
}

const fieldsPage = (): string => `# Fields of a document and of a rehearsal

Each field that a document can have, by the part of the document it stands in. An editor that knows the schema (\`dot-hop/schema.json\`)
shows the same texts while you write. The [fields of a rehearsal](#a-rehearsal) follow.

${fieldTables(shapes, documentWords, documentFieldExamples)}
${fieldTables(rehearsalShapes, rehearsalWords, rehearsalFieldExamples)}`;

async function libraryPages(): Promise<void> {
  const entry = (name: string, file: string): string => path.join(root, 'packages', name, 'src', file);
  const core = ['index', 'play/index', 'troupe/index', 'document/index', 'wardrobe/index', 'view/index'];
  const tools = [
    'check/index',
    'rehearsal/index',
    'explain/index',
    'compiled/index',
    'pack/index',
    'pixels/index',
  ];
  const more = ['gather/index', 'edit/index'];
  const options: Partial<TypeDocOptions & PluginOptions> = {
    plugin: ['typedoc-plugin-markdown'],
    entryPoints: [
      ...[...core, ...tools, ...more].map((file) => entry('core', `${file}.ts`)),
      entry('browser', 'index.ts'),
      entry('browser', 'overlay/index.ts'),
      entry('three', 'index.ts'),
      entry('vite', 'index.ts'),
    ],
    tsconfig: path.join(root, 'tsconfig.tests.json'),
    out: path.join(docs, 'api'),
    name: 'Names of the library',
    readme: 'none',
    entryFileName: 'index.md',
    skipErrorChecking: true,
    excludeInternal: true,
    excludePrivate: true,
    disableSources: true,
    hidePageHeader: true,
    hideBreadcrumbs: false,
    useCodeBlocks: true,
    sanitizeComments: true,
    logLevel: 'Error',
  };
  const app = await Application.bootstrapWithPlugins(options);
  const project = await app.convert();
  if (project === undefined) throw new Error('the names of the library cannot be read');
  // A module goes by the name that one imports it by, not by its file.
  for (const module of project.children ?? []) module.name = importName(module.name);
  rmSync(path.join(docs, 'api'), { recursive: true, force: true });
  await app.generateOutputs(project);
}

/** `core/src/check` becomes `dot-hop/check`. */
function importName(file: string): string {
  const [, name, part = ''] = /^(\w+)\/src\/?(.*?)(?:\/?index)?$/.exec(file) ?? [];
  if (name === undefined) return file;
  const of = name === 'core' ? 'dot-hop' : `@dot-hop/${name}`;
  return part === '' ? of : `${of}/${part}`;
}

say('writing the pages that are made from the code');
mkdirSync(path.join(docs, 'api'), { recursive: true });
writeFileSync(path.join(docs, 'fields.md'), fieldsPage());
await libraryPages();
if (process.argv.includes('--serve')) {
  const server = await createServer(docs);
  await server.listen();
  server.printUrls();
} else {
  say('building the site into out/docs');
  await buildSite(docs);
}
