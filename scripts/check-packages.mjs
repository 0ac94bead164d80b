// npm run check-packages: whether the packages are ready to publish (exports, types, files).
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { build, node, root, say } from './run.mjs';

build();
const folder = mkdtempSync(path.join(tmpdir(), 'dot-hop-pack-'));
try {
  for (const name of ['core', 'browser', 'cli']) {
    const from = path.join(root, 'packages', name);
    say(`checking packages/${name}`);
    node('node_modules/publint/src/cli.js', from, '--strict');
    const packed = spawnSync('npm', ['pack', '--json', '--pack-destination', folder], {
      cwd: from,
      encoding: 'utf8',
    });
    const [made] = Object.values(JSON.parse(packed.stdout));
    node(
      'node_modules/@arethetypeswrong/cli/dist/index.js',
      path.join(folder, made.filename),
      '--profile',
      'esm-only',
    );
  }
} finally {
  rmSync(folder, { recursive: true });
}
