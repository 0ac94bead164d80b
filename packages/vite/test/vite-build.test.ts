import {
  cpSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  realpathSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { root, runIn, runProgram } from '../../cli/test/command-line.js';

let folder: string;
const file = (name: string): string => path.join(folder, name);
const vite = path.join(root, 'node_modules/vite/bin/vite.js');
const run = (...args: string[]) => runProgram(folder, process.execPath, args);

beforeAll(() => {
  folder = realpathSync(mkdtempSync(path.join(tmpdir(), 'dot-hop-build-')));
  cpSync(path.join(root, 'packages/cli/starter'), folder, { recursive: true });
  symlinkSync(path.join(root, 'node_modules'), file('node_modules'), 'dir');
  expect(runIn(folder, ['pack', 'keeper.dothop.yaml', '-o', 'game.json']).code).toBe(0);
  writeFileSync(
    file('vite.config.mjs'),
    `import { dotHop } from '@dot-hop/vite'; export default { plugins: [dotHop()], build: { outDir: 'out' } };`,
  );
  // As a worker, a server or a test would: there is no picture that could be loaded.
  writeFileSync(
    file('worker.js'),
    `import { Performer, compileController } from 'dot-hop';
    import keeper from './keeper.dothop.yaml';
    import packed from './game.json?dothop';
    for (const { definition, sizes, images } of [keeper, packed]) {
      const performer = new Performer(compileController(definition, { images: sizes }));
      performer.set('vx', 30);
      performer.step(100);
      console.log(performer.state, performer.facing, Object.keys(images).join());
    }`,
  );
});
afterAll(() => rmSync(folder, { recursive: true }));

test('an imported document is compiled without a picture, and a packed one may have any name', () => {
  const { code, err } = run(vite, 'build', '--ssr', 'worker.js');
  expect({ code, err: code === 0 ? '' : err }).toEqual({ code: 0, err: '' });
  expect(run('out/worker.mjs').out.trim().split('\n')).toEqual([
    'walk east keeper.png',
    'walk east game.png',
  ]);
});

test('a document can be compiled where it is built, so that the page carries no compiler', () => {
  writeFileSync(
    file('compiled.config.mjs'),
    `import { dotHop } from '@dot-hop/vite';
    export default { plugins: [dotHop({ compiled: true, names: true })], build: { outDir: 'compiled' } };`,
  );
  writeFileSync(
    file('player.js'),
    `import { Player, loadCompiled } from 'dot-hop/play';
    import keeper from './keeper.dothop.yaml';
    const player = new Player(loadCompiled(keeper.compiled));
    player.set('vx', 30);
    player.step(100);
    console.log(player.state, player.facing, Object.keys(keeper.images).join());`,
  );
  const { code, err } = run(vite, 'build', '--config', 'compiled.config.mjs', '--ssr', 'player.js');
  expect({ code, err: code === 0 ? '' : err }).toEqual({ code: 0, err: '' });
  expect(run('compiled/player.mjs').out.trim()).toBe('walk east keeper.png');
  writeFileSync(file('index.html'), '<script type="module" src="./player.js"></script>');
  expect(run(vite, 'build', '--config', 'compiled.config.mjs').code).toBe(0);
  const scripts = readdirSync(file('compiled/assets')).filter((name) => name.endsWith('.js'));
  const text = scripts.map((name) => readFileSync(file(`compiled/assets/${name}`), 'utf8')).join('');
  expect(text).toContain('dotHopCompiled');
  // A sentence of the compiler, and a word of what the document says.
  expect(text).not.toMatch(/does not fit into an image|expected a finite number|"dotHop":1/);
  expect(text.length).toBeLessThan(80_000);
  expect(readFileSync(file('keeper.dothop.d.yaml.ts'), 'utf8')).toContain('CompiledModule<{');
  rmSync(file('keeper.dothop.d.yaml.ts'));
});

test('small images are files of their own, so that a page may allow images of its own origin alone', () => {
  writeFileSync(file('index.html'), '<script type="module" src="./worker.js"></script>');
  expect(run(vite, 'build').code).toBe(0);
  const built = readdirSync(file('out/assets'));
  expect(built.filter((name) => name.endsWith('.png'))).toHaveLength(2);
  for (const name of built.filter((one) => one.endsWith('.js'))) {
    const code = readFileSync(file(`out/assets/${name}`), 'utf8');
    expect(code).not.toContain('data:image');
    // Nothing that a policy without 'unsafe-eval' refuses.
    expect(code).not.toMatch(/\bnew Function\(|\beval\(/);
  }
});

test.each([
  ['keepre.png', undefined, 'there is no such file; did you mean "keeper.png"?'],
  ['none.png', '', 'the file is empty'],
  ['words.png', 'a lamp', 'is not a picture that can be read'],
  ['cut.png', 300, 'its end is missing'],
])('an image %s that cannot be used stops the build at the line that names it', (image, content, told) => {
  const whole = readFileSync(file('keeper.png'));
  if (content !== undefined)
    writeFileSync(file(image), typeof content === 'number' ? whole.subarray(0, content) : content);
  const text = readFileSync(file('keeper.dothop.yaml'), 'utf8');
  writeFileSync(file('faulty.dothop.yaml'), text.replace('keeper.png', image));
  writeFileSync(file('faulty.js'), `import keeper from './faulty.dothop.yaml'; console.log(keeper.images);`);
  const { code, err } = run(vite, 'build', '--ssr', 'faulty.js');
  expect(code).toBe(1);
  expect(err).toMatch(/faulty\.dothop\.yaml:12:18 sheets\.body\.image: /);
  expect(err).toContain(told);
  for (const name of readdirSync(folder).filter((one) => one === image || one.startsWith('faulty')))
    rmSync(file(name));
});

test('a document outside of what a server may give away is refused, and nothing is written beside it', () => {
  const script = `
    import { createServer } from 'vite';
    import { dotHop } from '@dot-hop/vite';
    const server = await createServer({
      root: './site', configFile: false, logLevel: 'silent', cacheDir: './cache',
      plugins: [dotHop({ names: true })], server: { middlewareMode: true, ws: false },
    });
    for (const file of ['site/keeper.dothop.yaml', 'keeper.dothop.yaml'])
      await server.transformRequest('/@fs' + process.cwd() + '/' + file).then(
        ({ code }) => console.log(code.includes('definition')),
        (error) => console.log(error.message),
      );
    await server.close();`;
  cpSync(path.join(root, 'packages/cli/starter'), file('site'), { recursive: true });
  const { out, err } = run('--input-type=module', '-e', script);
  const [inside, outside] = out.trim().split('\n');
  expect({ inside, err }).toEqual({ inside: 'true', err: '' });
  expect(outside).toContain('lies outside of what this server may give away');
  expect(readdirSync(folder)).not.toContain('keeper.dothop.d.yaml.ts');
  expect(readdirSync(file('site'))).toContain('keeper.dothop.d.yaml.ts');
});
