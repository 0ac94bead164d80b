#!/usr/bin/env node
// npm create dot-hop@latest my-game: a game with a character, a body, keys, edits while it runs, and a rehearsal as a test.
import {
  cpSync,
  existsSync,
  mkdirSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';

const template = fileURLToPath(new URL('../template', import.meta.url));
const { version } = JSON.parse(readFileSync(new URL('../package.json', import.meta.url), 'utf8'));

const help = `Usage: npm create dot-hop@latest [folder]

Begins a game in TypeScript with an animated character, in a new folder
(default: my-game). Nothing that is there is written over.

Example:
  npm create dot-hop@latest my-game
  cd my-game
  npm install
  npm run dev
`;

/** The call cannot be carried out: says why, and what to do. */
class Misuse extends Error {}

/** A package's name from a folder's: small letters, digits and dashes. */
const nameOf = (folder) =>
  path
    .basename(folder)
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'my-game';

/** Makes the folder, whole or not at all. */
function create(folder) {
  if (existsSync(folder)) {
    let there;
    try {
      there = readdirSync(folder);
    } catch {
      throw new Misuse(`${folder} is a file. Name a folder that is not there yet`);
    }
    if (there.length > 0)
      throw new Misuse(`${folder} has files already. Name another folder, or an empty one`);
  }
  const making = `${path.resolve(folder)}.making`;
  try {
    mkdirSync(path.dirname(making), { recursive: true });
    cpSync(template, making, { recursive: true });
    // A file of this name would not come through the registry.
    renameSync(path.join(making, 'gitignore'), path.join(making, '.gitignore'));
    const file = path.join(making, 'package.json');
    const text = readFileSync(file, 'utf8')
      .replaceAll('VERSION', `^${version}`)
      .replace('NAME', nameOf(folder));
    writeFileSync(file, text);
    if (existsSync(folder)) rmSync(folder, { recursive: true });
    renameSync(making, folder);
  } finally {
    rmSync(making, { recursive: true, force: true });
  }
}

const given = process.argv.slice(2);
const options = given.filter((one) => one.startsWith('-'));
const folders = given.filter((one) => !one.startsWith('-'));
try {
  if (options.some((one) => one === '--help' || one === '-h')) process.stdout.write(help);
  else if (options.some((one) => one === '--version' || one === '-V')) console.log(version);
  else if (options.length > 0) throw new Misuse(`there is no option ${options[0]}`);
  else if (folders.length > 1) throw new Misuse(`one folder is made at a time, not ${folders.join(', ')}`);
  else {
    const folder = folders[0] ?? 'my-game';
    create(folder);
    console.log(`A game with a character is in ${folder}. Go on with:

  cd ${folder}
  npm install
  npm run dev         play it in the browser: arrow keys walk
  npm run workbench   change the character by hand; the game shows each edit
  npm test            check and rehearse the character, check the types`);
  }
} catch (error) {
  if (!(error instanceof Misuse)) throw error;
  console.error(`error: ${error.message}\n(--help shows how it is used)`);
  process.exitCode = 2;
}
