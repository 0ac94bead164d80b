#!/usr/bin/env node
// npm create dot-hop@latest my-game: a game with a character, a body, keys, edits while it runs, and a rehearsal as a test.
import {
  chmodSync,
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  renameSync,
  rmSync,
  statSync,
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
    .basename(path.resolve(folder))
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'my-game';

/** What the disk refuses, in words. */
const reasons = {
  EACCES: 'this user may not write there',
  EROFS: 'nothing can be written there',
  ENOSPC: 'the disk is full',
  EEXIST: 'a part of the path is a file',
  ENOTDIR: 'a part of the path is a file',
};

/** Makes the folder, whole or not at all. */
function create(folder) {
  if (existsSync(folder)) {
    if (!statSync(folder).isDirectory())
      throw new Misuse(`${folder} is a file. Name a folder that is not there yet`);
    if (readdirSync(folder).length > 0)
      throw new Misuse(`${folder} has files already. Name another folder, or an empty one`);
  }
  const above = path.dirname(path.resolve(folder));
  mkdirSync(above, { recursive: true });
  // A folder of its own name, so that nothing of anybody's is in the way.
  const making = mkdtempSync(path.join(above, '.dot-hop-making-'));
  try {
    cpSync(template, making, { recursive: true });
    // A file of this name would not come through the registry.
    renameSync(path.join(making, 'gitignore'), path.join(making, '.gitignore'));
    const file = path.join(making, 'package.json');
    const text = readFileSync(file, 'utf8')
      .replaceAll('VERSION', `^${version}`)
      .replace('NAME', nameOf(folder));
    writeFileSync(file, text);
    chmodSync(making, 0o777 & ~process.umask());
    // An empty folder may be the one in which one works: it is filled, and not exchanged.
    if (existsSync(folder))
      for (const name of readdirSync(making)) renameSync(path.join(making, name), path.join(folder, name));
    else renameSync(making, folder);
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
    const isHere = path.resolve(folder) === process.cwd();
    const enter = isHere ? '' : `  cd ${/\s/.test(folder) ? JSON.stringify(folder) : folder}\n`;
    console.log(`A game with a character is in ${isHere ? 'this folder' : folder}. Go on with:

${enter}  npm install
  npm run dev         play it in the browser: arrow keys walk
  npm run workbench   change the character by hand; the game shows each edit
  npm test            check and rehearse the character, check the types`);
  }
} catch (error) {
  const reason = reasons[error.code];
  if (!(error instanceof Misuse) && reason === undefined) throw error;
  const told =
    error instanceof Misuse ? error.message : `${error.path ?? 'the folder'} cannot be made: ${reason}`;
  console.error(`error: ${told}\n(--help shows how it is used)`);
  process.exitCode = 2;
}
