// npm run mutants -- FOLDER [--count N] [--seed N] [--only FILE or FILE:LINE]: changes the core in small ways, one at a time, and runs the
// tests that speak of the folder. What no test notices is told: a test is missing, or the change means the same.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import { parseArgs } from 'node:util';
import { uniformFloat32 } from 'pure-rand/distribution/uniformFloat32';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';
import { build, root, say } from '../run.js';
import { changesOf } from './changes.js';
import type { Change } from './changes.js';

/** A change of a file. */
interface Mutant extends Change {
  readonly file: string;
}

/** The tests that speak of a folder of the core, the quick ones first: at the first that fails the mutant is found. */
const testsOf: Readonly<Record<string, readonly string[]>> = {
  clip: ['clip', 'backwards', 'sheet', 'hard-cases'],
  compass: [
    'compass',
    'direction-drawings',
    'compass-refused',
    'compass-laws',
    'view',
    'hard-cases',
    'rules-of-tracks',
    'tracks',
  ],
  engine: [
    'rules-of-deciding',
    'rules-of-time',
    'rules-of-tracks',
    'decision',
    'switching',
    'hard-cases',
    'backwards',
    'rates',
    'variety',
    'variants',
    'told-cues',
    'lengths',
    'tracks',
    'groups',
    'pace',
    'compass',
    'pressed-together',
    'many',
    'agreement',
    'troupe',
    'snapshot',
  ],
  performer: [
    'rules-of-time',
    'reports',
    'mistakes',
    'bounds',
    'why-parts',
    'snapshot',
    'recording',
    'told-cues',
    'variety',
    'decision',
    'pace',
    'hard-cases',
    'tracks',
  ],
  troupe: ['troupe', 'many'],
  wardrobe: ['wardrobe', 'wardrobe-chance', 'wardrobe-where', 'worn-parts', 'refused-fields', 'mistakes'],
  check: ['rates', 'bounds', 'drawn-parts', 'winners', 'remedy', 'feet', 'check-edges', 'check'],
  signal: ['signal', 'rates', 'bounds', 'decision', 'hard-cases', 'refused-fields', 'mistakes'],
  controller: [
    'decision',
    'switching',
    'groups',
    'tracks',
    'variants',
    'variety',
    'refused-states',
    'just-refused',
    'mistakes',
    'hard-cases',
    'compass',
    'clip',
    'rates',
    'lengths',
    'backwards',
    'many',
    'rules-of-time',
    'rules-of-deciding',
    'rules-of-tracks',
    'agreement',
  ],
};
/** A mutant that runs longer goes round for ever, which a test would notice. */
const longest = 240_000;

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    count: { type: 'string', default: '30' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string' },
  },
});
const [name = ''] = positionals;
const suites = Object.hasOwn(testsOf, name) ? testsOf[name] : undefined;
if (positionals.length !== 1 || suites === undefined) {
  console.error(`npm run mutants -- FOLDER: one of ${Object.keys(testsOf).join(', ')}`);
  process.exit(2);
}
const count = Number(values.count);
const seed = Number(values.seed);
if (!Number.isInteger(count) || count < 1 || !Number.isInteger(seed)) {
  console.error(
    `--count is a whole number from 1, and --seed a whole number; not ${values.count} and ${values.seed}`,
  );
  process.exit(2);
}

const [onlyFile = '', onlyLine] = values.only?.split(':') ?? [];
const folder = path.join(root, 'packages/core/src', name);
const filesIn = (from: string): string[] =>
  readdirSync(from).flatMap((file) => {
    const full = path.join(from, file);
    return statSync(full).isDirectory() ? filesIn(full) : full.endsWith('.ts') ? [full] : [];
  });
const all: Mutant[] = filesIn(folder)
  // Sentences are tested by their places.
  .filter((file) => !/sentences|definition|shape\.ts$/.test(file))
  .filter((file) => file.endsWith(onlyFile))
  .flatMap((file) => changesOf(readFileSync(file, 'utf8')).map((change) => ({ file, ...change })))
  .filter(({ line }) => onlyLine === undefined || line === Number(onlyLine));

if (all.length === 0) {
  console.error(`there is nothing to change in ${values.only ?? name}`);
  process.exit(2);
}

/** Some of a list, by the seed, in its order. */
function some(list: readonly Mutant[], many: number): Mutant[] {
  const generator = xoroshiro128plus(seed);
  return list
    .map((one, i) => [uniformFloat32(generator), i, one] as const)
    .sort(([a], [b]) => a - b)
    .slice(0, many)
    .sort(([, a], [, b]) => a - b)
    .map(([, , one]) => one);
}

const tests = suites.map((test) => `packages/core/test/${test}.test.ts`);
for (const test of tests) if (!existsSync(path.join(root, test))) throw new Error(`there is no ${test}`);

/** Whether the tests notice a mutant. */
function isNoticed(mutant: Partial<Mutant>): Promise<boolean> {
  const jest = spawn(
    process.execPath,
    [
      '--experimental-vm-modules',
      '--no-warnings',
      'node_modules/jest/bin/jest.js',
      '--config',
      'scripts/mutants/jest.config.mjs',
      '--bail',
      '--runInBand',
      ...tests,
    ],
    {
      cwd: root,
      stdio: 'ignore',
      env: {
        ...process.env,
        MUTANT: JSON.stringify(mutant),
        MUTANT_TESTS: JSON.stringify(tests),
        LAWS: process.env.LAWS ?? '1',
      },
    },
  );
  return new Promise<boolean>((resolve) => {
    const late = setTimeout(() => jest.kill('SIGKILL'), longest);
    jest.on('exit', (code) => {
      clearTimeout(late);
      resolve(code !== 0);
    });
  });
}

build();
say(`the tests without a change: ${tests.length} files`);
if (await isNoticed({ file: '', from: 0, to: 0, put: '' })) {
  console.error('the tests fail as they are; mend them first');
  process.exit(1);
}
const tried = some(all, count);
say(`${tried.length} of ${all.length} mutants of ${name}, seed ${seed}`);
const outlived: string[] = [];
for (const [i, mutant] of tried.entries()) {
  const { file, line, what } = mutant;
  const place = `${path.relative(root, file)}:${line}  ${what.replaceAll(/\s+/g, ' ').slice(0, 120)}`;
  const noticed = await isNoticed(mutant);
  if (!noticed) outlived.push(place);
  console.log(`${String(i + 1).padStart(4)}/${tried.length}  ${noticed ? 'noticed ' : 'OUTLIVED'}  ${place}`);
}
const found = tried.length - outlived.length;
console.log(`\n${found} of ${tried.length} noticed (${Math.round((100 * found) / tried.length)}%)`);
if (outlived.length > 0) console.log(`outlived:\n${outlived.join('\n')}`);
process.exitCode = outlived.length > 0 ? 1 : 0;
