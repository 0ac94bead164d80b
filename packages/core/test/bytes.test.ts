import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const bench = fileURLToPath(new URL('../../../bench/bytes.ts', import.meta.url));

/** In a process of its own: what else was compiled there changes what the engine keeps in registers. */
test.each(['wick.dothop.yaml', 'townsfolk/folk.dothop.yaml'])(
  'no step of %s allocates a byte, whatever changes, and no picture of what is worn',
  (file) => {
    const { stdout, stderr } = spawnSync(
      process.execPath,
      [
        '--expose-gc',
        '--import',
        'tsx',
        '--input-type=module',
        '--eval',
        `import { bytesPerAnything, demo } from ${JSON.stringify(bench)};
        console.log(bytesPerAnything(demo(${JSON.stringify(file)})));`,
      ],
      { encoding: 'utf8', cwd: fileURLToPath(new URL('../../..', import.meta.url)) },
    );
    expect(stderr).toBe('');
    // One number in a box at every hundredth step would be more than this.
    expect(Number(stdout)).toBeLessThan(0.1);
  },
);
