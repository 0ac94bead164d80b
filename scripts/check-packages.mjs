// npm run check-packages: whether the packages are ready to publish (exports, types, files), and whether `dot-hop open` works where
// nothing but the packed packages is installed.
import { spawn, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build, node, root, say } from './run.mjs';

build();
node('scripts/build-workbench.mjs');
const folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-pack-'));

/** Packs a package. @returns the packed file */
function packed(name) {
  const from = path.join(root, 'packages', name);
  const { stdout } = spawnSync('npm', ['pack', '--json', '--pack-destination', folder], {
    cwd: from,
    encoding: 'utf8',
  });
  const [made] = Object.values(JSON.parse(stdout));
  return path.join(folder, made.filename);
}

/** Installs packed packages in an empty folder, makes a character there, and opens it. */
async function openInstalled(files) {
  say('installing the packed packages in an empty folder, and opening a character there');
  const empty = path.join(folder, 'empty');
  mkdirSync(empty);
  writeFileSync(path.join(empty, 'package.json'), '{ "private": true }\n');
  const run = (command, ...args) => {
    const { status, stdout, stderr } = spawnSync(command, args, { cwd: empty, encoding: 'utf8' });
    if (status !== 0)
      throw new Error(`${command} ${args.join(' ')} ended with ${status}\n${stdout}${stderr}`);
  };
  run('npm', 'install', '--no-audit', '--no-fund', '--loglevel', 'error', ...files);
  const command = path.join(empty, 'node_modules/.bin/dot-hop');
  run(command, 'new', 'keeper');
  const opened = spawn(command, ['open', 'keeper', '--no-browser'], { cwd: empty });
  try {
    const [address, token] = await new Promise((done, fail) => {
      let said = '';
      const hear = (part) => {
        said += part;
        const found = /(http:\S+)#token=([\w-]+)/.exec(said);
        if (found !== null) done([found[1], found[2]]);
      };
      opened.stdout.on('data', hear);
      opened.stderr.on('data', hear);
      opened.on('exit', () => fail(new Error(said)));
    });
    const page = await (await fetch(address)).text();
    const script = /src="([^"]+\.js)"/.exec(page)?.[1] ?? 'none';
    const code = await fetch(new URL(script, address));
    const listed = await fetch(`${address}api/folder`, { headers: { authorization: `Bearer ${token}` } });
    const { document, files: beside } = await listed.json();
    if (!code.ok || !document.endsWith('.dothop.yaml') || beside.length < 2)
      throw new Error(`the page is not whole: ${script} ${code.status}, ${document}, ${beside.length} files`);
    say(`opened ${document} with ${beside.length} files`);
  } finally {
    opened.kill('SIGINT');
  }
}

try {
  const files = ['core', 'browser', 'three', 'cli'].map((name) => {
    say(`checking packages/${name}`);
    node('node_modules/publint/src/cli.js', path.join(root, 'packages', name), '--strict');
    const file = packed(name);
    node('node_modules/@arethetypeswrong/cli/dist/index.js', file, '--profile', 'esm-only');
    return file;
  });
  await openInstalled([...files, packed('workbench')]);
} finally {
  rmSync(folder, { recursive: true });
}
