// npm run check-packages: whether the packages are ready to publish (exports, types, files), and whether a game is begun, tested and
// built, and `dot-hop open` works, where nothing but the packed packages is installed.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { node, say } from './run.js';
import { stagePackages } from './stage-packages.js';
import type { Published } from './stage-packages.js';

const staged = stagePackages();
const folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-pack-'));

/** Packs a package as it is published. @returns the packed file */
function packed(name: Published): string {
  const { stdout } = spawnSync('npm', ['pack', '--json', '--pack-destination', folder], {
    cwd: staged[name],
    encoding: 'utf8',
  });
  const [made] = Object.values(JSON.parse(stdout) as Record<string, { filename: string }>);
  if (made === undefined) throw new Error(`npm pack said nothing of ${name}`);
  return path.join(folder, made.filename);
}

/** Runs a command in a folder to its end. @throws with all that it said */
function ran(cwd: string, command: string, ...args: string[]): string {
  const { status, stdout, stderr } = spawnSync(command, args, { cwd, encoding: 'utf8' });
  if (status !== 0) throw new Error(`${command} ${args.join(' ')} ended with ${status}\n${stdout}${stderr}`);
  return stdout;
}

/** Begins a game as `npm create dot-hop` does, installs it from packed packages, tests and builds it. */
function beginGame(create: string, files: Readonly<Record<string, string>>): void {
  say('beginning a game from the packed packages, testing and building it');
  const begun = path.join(folder, 'begun');
  mkdirSync(begun);
  ran(begun, 'npm', 'install', '--no-audit', '--no-fund', '--loglevel', 'error', create);
  ran(begun, path.join(begun, 'node_modules/.bin/create-dot-hop'), 'Harbour Walk');
  const game = path.join(begun, 'Harbour Walk');
  const file = path.join(game, 'package.json');
  const told = JSON.parse(readFileSync(file, 'utf8')) as {
    name: string;
    dependencies: Record<string, string>;
    devDependencies: Record<string, string>;
  };
  if (told.name !== 'harbour-walk') throw new Error(`the game is named ${told.name}`);
  // The packages of this very version are not in the registry yet.
  for (const [packed, file] of Object.entries(files)) {
    Reflect.deleteProperty(told.devDependencies, packed);
    told.dependencies[packed] = `file:${file}`;
  }
  writeFileSync(file, JSON.stringify(told));
  ran(game, 'npm', 'install', '--no-audit', '--no-fund', '--loglevel', 'error');
  ran(game, 'npm', 'test');
  ran(game, 'npm', 'run', 'build');
  const built = readFileSync(path.join(game, 'dist/index.html'), 'utf8');
  if (!built.includes('src="./assets/')) throw new Error(`the built game has no script of its own: ${built}`);
}

/** Installs packed packages in an empty folder, makes a character there, and opens it. */
async function openInstalled(files: readonly string[]): Promise<void> {
  say('installing the packed packages in an empty folder, and opening a character there');
  const empty = path.join(folder, 'empty');
  mkdirSync(empty);
  writeFileSync(path.join(empty, 'package.json'), '{ "private": true }\n');
  ran(empty, 'npm', 'install', '--no-audit', '--no-fund', '--loglevel', 'error', ...files);
  const command = path.join(empty, 'node_modules/.bin/dot-hop');
  ran(empty, command, 'new', 'keeper');
  const opened = spawn(command, ['open', 'keeper', '--no-browser'], { cwd: empty });
  try {
    const [address, token] = await new Promise<[string, string]>((done, fail) => {
      let said = '';
      const hear = (part: Buffer): void => {
        said += part.toString();
        const found = /(http:\S+)#token=([\w-]+)/.exec(said);
        if (found !== null) done([found[1]!, found[2]!]);
      };
      opened.stdout.on('data', hear);
      opened.stderr.on('data', hear);
      opened.on('exit', () => {
        fail(new Error(said));
      });
    });
    const page = await (await fetch(address)).text();
    const script = /src="([^"]+\.js)"/.exec(page)?.[1] ?? 'none';
    const code = await fetch(new URL(script, address));
    const listed = await fetch(`${address}api/folder`, { headers: { authorization: `Bearer ${token}` } });
    const { document, files: beside } = (await listed.json()) as { document: string; files: unknown[] };
    if (!code.ok || !document.endsWith('.dothop.yaml') || beside.length < 2)
      throw new Error(`the page is not whole: ${script} ${code.status}, ${document}, ${beside.length} files`);
    say(`opened ${document} with ${beside.length} files`);
  } finally {
    opened.kill('SIGINT');
  }
}

try {
  const files: Record<string, string> = {};
  for (const [name, from] of Object.entries({
    'dot-hop': 'core',
    '@dot-hop/browser': 'browser',
    '@dot-hop/three': 'three',
    '@dot-hop/vite': 'vite',
    '@dot-hop/cli': 'cli',
  } as const)) {
    say(`checking ${name}`);
    node('node_modules/publint/src/cli.js', staged[from], '--strict');
    const file = packed(from);
    files[name] = file;
    node('node_modules/@arethetypeswrong/cli/dist/index.js', file, '--profile', 'esm-only');
  }
  files['@dot-hop/workbench'] = packed('workbench');
  // The scene of three dimensions needs a package of its own beside it.
  const inGame = Object.fromEntries(Object.entries(files).filter(([name]) => name !== '@dot-hop/three'));
  beginGame(packed('create'), inGame);
  await openInstalled(Object.values(inGame));
} finally {
  rmSync(folder, { recursive: true });
}
