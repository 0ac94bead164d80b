import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { Performer, compileController, defineController } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import ts from 'typescript';

const gull = defineController({
  dotHop: 1,
  name: 'gull',
  sheets: {
    gull: {
      image: 'gull.png',
      size: [64, 16],
      grid: { cell: [16, 16] },
      parts: { feathers: 'gull-feathers.png' },
    },
  },
  clips: {
    sit: { cells: 0, sheet: 'gull' },
    peck: { cells: '1-3', fps: 8, loop: 'once', cues: { tap: 2 }, spans: { bite: '1-2' } },
    turn: { cells: 2, loop: 'once', lasts: 80 },
  },
  flipbooks: { both: { east: 'sit' } },
  compass: { directions: 'sides', by: ['vx', 0], mirror: { west: 'east' } },
  signals: {
    vx: { number: 0 },
    near: { flag: false },
    mood: { choice: ['calm', 'cross'] },
    aim: { vector: [0, 0] },
    crumb: { pulse: { keep: 300 } },
  },
  derived: { moving: { of: 'abs(vx)', above: 9, below: 5 }, lively: 'moving || aim.x > 1e-3' },
  states: {
    sit: { shows: 'both', bridges: { peck: 'turn' } },
    peck: {
      shows: 'peck',
      when: 'crumb && !near && mood == calm && clamp(vx, 0, 1) < 2',
      priority: 10,
      tags: ['busy'],
      hops: [{ to: 'sit', if: 'lively && busy', during: 'bite', at: { end: 'bite' } }],
      yields: [{ to: ['sit'] }],
    },
  },
  rest: 'sit',
  tracks: {
    wings: {
      draws: ['feathers'],
      states: {
        still: { inStep: 'body' },
        flap: {
          shows: 'peck',
          while: 'moving && !body.peck',
          priority: 5,
          takes: { body: '!near' },
          tags: ['loud'],
        },
      },
      rest: 'still',
    },
  },
});

test('a definition is the same plain data as a document, there and back', () => {
  const again = readDocument(JSON.stringify(gull), 'gull.json').definition;
  expect(again).toEqual(gull);
  expect(readDocument(JSON.stringify(again), 'gull.json').definition).toEqual(again);
});

test('what it compiles to knows its names, and is a controller and performer like any other', () => {
  const controller = compileController(gull);
  const performer = new Performer(controller, { near: true });
  performer.set('mood', 'cross');
  performer.set('aim', [1, 2]);
  performer.pulse('crumb');
  performer.step(16);
  const state: 'sit' | 'peck' | 'still' | 'flap' = performer.state;
  const facing: 'east' | 'west' = performer.facing;
  const plain: [Controller, Performer] = [controller, performer];
  expect([state, facing, plain.length]).toEqual(['sit', 'east', 2]);
});

/** What the compiler says of lines of code, each compiled with the gull above at hand. */
function complaints(lines: readonly string[]): string[] {
  const file = fileURLToPath(new URL('virtual.ts', import.meta.url));
  const own = fileURLToPath(import.meta.url);
  const text = ts.sys.readFile(own)!;
  const definition = text.slice(text.indexOf('const gull'), text.indexOf("test('a definition"));
  const head = `import { Performer, compileController, defineController } from 'dot-hop'; import type { SignalValue } from 'dot-hop';\n${definition}
const of = { ...gull };
const performer = new Performer(compileController(gull));
`;
  const source = head + lines.join('\n');
  const config = ts.readConfigFile(path.join(path.dirname(own), '../../../tsconfig.tests.json'), (name) =>
    ts.sys.readFile(name),
  );
  const root = path.join(path.dirname(own), '../../..');
  const { options } = ts.parseJsonConfigFileContent(config.config, ts.sys, root);
  const host = ts.createCompilerHost(options);
  const inner = { ...host };
  host.fileExists = (name) => name === file || inner.fileExists(name);
  host.getSourceFile = (name, ...rest) =>
    name === file
      ? ts.createSourceFile(name, source, ts.ScriptTarget.ES2022)
      : inner.getSourceFile(name, ...rest);
  const program = ts.createProgram([file], { ...options, types: [] }, host);
  const first = head.split('\n').length - 1;
  const said = lines.map(() => '');
  for (const { file: at, start, messageText } of program.getSemanticDiagnostics(
    program.getSourceFile(file),
  )) {
    const line = at!.getLineAndCharacterOfPosition(start!).line - first;
    const where = source
      .split('\n')
      [line + first]!.slice(at!.getLineAndCharacterOfPosition(start!).character);
    said[Math.max(0, line)] =
      `${where.slice(0, 12)} | ${ts.flattenDiagnosticMessageText(messageText, ' ')}\n`;
  }
  return said;
}

test('a misspelt name is an error at its place that says so', () => {
  const peck = "of.states.peck, shows: 'peck'";
  const state = (fields: string): string =>
    `defineController({ ...of, states: { ...of.states, peck: { ${fields} } } });`;
  const track = (states: string): string =>
    `defineController({ ...of, tracks: { wings: { states: { ${states} } } } });`;
  const cases: [string, string, string][] = [
    [`defineController(of);`, '', ''],
    [state(`...${peck}, priority: 3`), '', ''],
    [state(`shows: 'peck', while: 'not near and (near or not near)'`), '', ''],
    [state(`shows: 'pekc', while: 'near'`), 'shows', 'there is no clip or flipbook \\"pekc\\"'],
    [
      state(`shows: 'peck', while: 'naer && !near'`),
      'while',
      'there is no signal, derived signal or tag \\"naer\\"',
    ],
    [
      state(`shows: 'peck', when: "mood == 'calm' && crum"`),
      'when',
      'signal, derived signal or tag \\"crum\\"',
    ],
    [state(`shows: 'peck', when: 'crumb', then: 'sti'`), 'then', 'there is no state \\"sti\\"'],
    [state(`shows: 'peck', hops: [{ to: 'sat' }]`), 'to', 'there is no state \\"sat\\"'],
    [state(`shows: 'peck', hops: [{ to: 'sit', during: 'bit' }]`), 'during', 'there is no span \\"bit\\"'],
    [state(`shows: 'peck', hops: [{ to: 'sit', at: 'tip' }]`), 'at', 'there is no cue or instant \\"tip\\"'],
    [
      state(`shows: 'peck', hops: [{ to: 'sit', at: { start: 'bit' } }]`),
      'start',
      'there is no span \\"bit\\"',
    ],
    [state(`shows: 'peck', yields: [{ to: ['sit', 'st'] }]`), "'st'", 'there is no state \\"st\\"'],
    [state(`shows: 'peck', bridges: { sti: 'turn' }`), 'sti', 'there is no state \\"sti\\"'],
    [state(`shows: 'peck', bridges: { sit: 'trun' }`), 'sit', 'there is no clip or flipbook \\"trun\\"'],
    [state(`shows: 'peck', rate: 'speed / 2'`), 'rate', 'derived signal or tag \\"speed\\"'],
    [state(`shows: 'peck', rate: { travel: 'vy' }`), 'travel', 'derived signal or tag \\"vy\\"'],
    [
      state(`shows: 'peck', scrub: { by: 'aim.z', from: 0, to: 1 }`),
      'by',
      'derived signal or tag \\"aim.z\\"',
    ],
    [
      state(`gaits: { by: 'vx', shows: ['sit', 'pack'], above: [3] }`),
      "'pack'",
      'there is no clip or flipbook \\"pack\\"',
    ],
    [state(`shows: 'peck', carry: { sti: 'phase' }`), 'sti', 'there is no state \\"sti\\"'],
    [state(`shows: { any: ['peck', 'pack'] }`), "'pack'", 'there is no clip or flipbook \\"pack\\"'],
    [state(`shows: 'peck', facing: { by: ['wx', 0] }`), "'wx'", 'derived signal or tag \\"wx\\"'],
    [state(`shows: 'peck', facing: 'held'`), '', ''],
    [
      `defineController({ ...of, variants: { mood: { cross: { both: 'turn' } }, near: { both: 'turn' } } });`,
      '',
      '',
    ],
    [
      `defineController({ ...of, variants: { mod: { cross: { both: 'turn' } } } });`,
      'mod',
      'no signal \\"mod\\"',
    ],
    [`defineController({ ...of, variants: { near: { both: 'trun' } } });`, 'both', 'flipbook \\"trun\\"'],
    [`defineController({ ...of, cues: { tap: { any: ['tick', 'tock'] } } });`, '', ''],
    [`defineController({ ...of, cues: { tip: { any: ['tick'] } } });`, 'tip', 'there is no cue \\"tip\\"'],
    [
      `defineController({ ...of, wardrobe: { layers: {}, ordr: ['body'] } });`,
      'ordr',
      '"ordr\\" is not known here',
    ],
    [`defineController({ ...of, rest: 'set' });`, 'rest', 'there is no state \\"set\\"'],
    [
      `defineController({ ...of, derived: { slow: '!movign' } });`,
      'slow',
      'derived signal or tag \\"movign\\"',
    ],
    [`defineController({ ...of, compass: { directions: 'sides', by: ['wx', 0] } });`, "'wx'", 'tag \\"wx\\"'],
    [
      `defineController({ ...of, flipbooks: { both: { east: 'sat' } } });`,
      'east',
      'there is no clip \\"sat\\"',
    ],
    [
      `defineController({ ...of, clips: { ...of.clips, sit: { cells: 0, sheet: 'gul' } } });`,
      'sheet',
      'no sheet \\"gul\\"',
    ],
    [
      track(
        `still: { inStep: 'body' }, flap: { shows: 'peck', while: 'wings.still || loud', tags: ['loud'] }`,
      ),
      '',
      '',
    ],
    [track(`still: { shows: 'peck', while: "'sit' == body || wings != 'still'" }`), '', ''],
    [track(`still: { shows: 'peck', while: "bdoy == 'sit'" }`), 'while', 'derived signal or tag \\"bdoy\\"'],
    [track(`still: { inStep: 'bdoy' }`), 'inStep', 'there is no track \\"bdoy\\"'],
    [track(`still: { shows: 'peck', while: 'body.pekc' }`), 'while', 'derived signal or tag \\"body.pekc\\"'],
    [track(`still: { shows: 'peck', then: 'sit' }`), 'then', 'there is no state \\"sit\\"'],
    [track(`still: { shows: 'peck', takes: ['bdy'] }`), "'bdy'", 'there is no track \\"bdy\\"'],
    [track(`still: { shows: 'peck', takes: { bdy: 'near' } }`), 'bdy', 'there is no track \\"bdy\\"'],
    [track(`still: { shows: 'peck', takes: { body: 'naer' } }`), 'body', 'derived signal or tag \\"naer\\"'],
    [
      `defineController({ ...of, tracks: { wings: { states: { a: { inStep: 'body' } }, rest: 'b' } } });`,
      'rest',
      'there is no state of this track or group \\"b\\"',
    ],
    [
      `defineController({ ...of, tracks: { wings: { draws: ['feather'], states: {} } } });`,
      "'feather'",
      'no part of a sheet \\"feather\\"',
    ],
    [state(`shows: 'peck', prority: 3`), 'prority', '"prority\\" is not known here'],
    [state(`shows: 'peck', hops: [{ to: 'sit', iff: 'near' }]`), 'iff', '"iff\\" is not known here'],
    [`defineController({ ...of, rset: 'sit' });`, 'rset', '"rset\\" is not known here'],
    [`defineController({ ...of, staets: {} });`, 'staets', '"staets\\" is not known here'],
    [
      `defineController({ ...of, clips: { ...of.clips, sit: { cells: 0, lop: 'once' } } });`,
      'lop',
      '"lop\\" is not known here',
    ],
    [
      `defineController({ ...of, sheets: { gull: { image: 'g.png', grid: { cell: [1, 2], gpa: 1 } } } });`,
      'gpa',
      '"gpa\\" is not known here',
    ],
    [`defineController({ ...of, signals: { ...of.signals, vx: { numbr: 0 } } });`, 'numbr', 'numbr'],
    [
      `defineController({ ...of, clips: { ...of.clips, sit: { cells: 0, loop: 'twice' } } });`,
      'loop',
      'LoopDefinition',
    ],
    [`defineController({ ...of, compass: { directions: 'side', by: ['vx', 0] } });`, 'directions', '"sides"'],
    [`performer.value('vy');`, "'vy'", '"vy"'],
    [
      `const moving: SignalValue = performer.value('moving'); performer.value('body.sit'); console.log(moving);`,
      '',
      '',
    ],
    [
      `const vx: number = performer.value('vx'); performer.value('aim.x'); performer.value('busy'); console.log(vx);`,
      '',
      '',
    ],
    [`const near: number = performer.value('near'); console.log(near);`, 'near', 'boolean'],
    [`compileController(gull).signal('vz');`, "'vz'", '"vz"'],
    [`performer.set(compileController(gull).signal('vx'), 3);`, '', ''],
    [`performer.set(compileController(gull).signal('vx'), 'fast');`, "'fast'", 'number'],
    [`performer.pulse(compileController(gull).signal('vx'));`, 'compile', 'Signal<number>'],
    [`performer.pulse(compileController(gull).signal('crumb'));`, '', ''],
    [`for (const { name } of performer.reports) if (name === 'tip') console.log(1);`, 'name', 'no overlap'],
    [`for (const { name } of performer.reports) if (name === 'tap') console.log(1);`, '', ''],
    [`if (performer.reports.name(0) === 'tip') console.log(1);`, 'performer', 'no overlap'],
    [`if (performer.clip === 'pekc') console.log(1);`, 'performer', 'no overlap'],
    [`if (performer.clip === 'peck') console.log(1);`, '', ''],
    [`performer.showing('wigs');`, "'wigs'", '"body" | "wings"'],
    [`if (performer.state === 'flap') console; performer.ask('flap');`, '', ''],
    [`performer.set('vy', 3);`, "'vy'", '"vy"'],
    [`performer.set('vx', true);`, 'true', 'number'],
    [`performer.set('mood', 'merry');`, "'merry'", '["calm", "cross"]'],
    [`performer.set('crumb', true);`, "'crumb'", '"crumb"'],
    [`performer.pulse('near');`, "'near'", '"near"'],
    [`performer.ask('flee');`, "'flee'", '"sit" | "peck"'],
    [`if (performer.state === 'flee') console;`, 'performer', 'no overlap'],
    [`new Performer(compileController(gull), { vx: 'fast' });`, 'vx', 'number'],
  ];
  const said = complaints(cases.map(([line]) => line));
  cases.forEach(([line, place, words], i) => {
    if (words === '') expect({ line, said: said[i] }).toEqual({ line, said: '' });
    else {
      expect({ line, said: said[i] }).toEqual({ line, said: expect.stringContaining(words) as string });
      expect({ line, place: said[i]!.startsWith(place) || said[i] }).toEqual({ line, place: true });
    }
  });
}, 240_000);

/** What an editor proposes, with all that does not change read once. */
const editor = ((): ((source: string, at: number) => string[]) => {
  const folder = path.dirname(fileURLToPath(import.meta.url));
  const file = path.join(folder, 'virtual.ts');
  const root = path.join(folder, '../../..');
  const config = ts.readConfigFile(path.join(root, 'tsconfig.tests.json'), (name) => ts.sys.readFile(name));
  const { options } = ts.parseJsonConfigFileContent(config.config, ts.sys, root);
  let written = '';
  let version = 0;
  const service = ts.createLanguageService({
    getCompilationSettings: () => ({ ...options, types: [] }),
    getScriptFileNames: () => [file],
    getScriptVersion: (name) => (name === file ? String(version) : '1'),
    getScriptSnapshot: (name) => {
      const read = name === file ? written : ts.sys.readFile(name);
      return read === undefined ? undefined : ts.ScriptSnapshot.fromString(read);
    },
    getCurrentDirectory: () => folder,
    getDefaultLibFileName: (one) => ts.getDefaultLibFilePath(one),
    fileExists: (name) => name === file || ts.sys.fileExists(name),
    readFile: (name) => (name === file ? written : ts.sys.readFile(name)),
    readDirectory: (...some) => ts.sys.readDirectory(...some),
    directoryExists: (name) => ts.sys.directoryExists(name),
    getDirectories: (name) => ts.sys.getDirectories(name),
  });
  return (source, at) => {
    written = source;
    version++;
    return service.getCompletionsAtPosition(file, at, {})?.entries.map(({ name }) => name) ?? [];
  };
})();

/** What an editor proposes at the place of `|` in a gull with one line more. */
function proposed(line: string, beside: string): string[] {
  const text = ts.sys.readFile(fileURLToPath(import.meta.url))!;
  const definition = text.slice(text.indexOf('const gull'), text.indexOf("test('a definition"));
  const source = `import { defineController } from 'dot-hop';\n${definition.replace(beside, `${line.replace('|', '')}\n${beside}`)}`;
  return editor(source, source.indexOf(line.replace('|', '')) + line.indexOf('|'));
}

const sit = "    sit: { shows: 'both'";
test.each([
  ["far: { shows: '|' },", sit, ['both', 'sit', 'peck', 'turn']],
  ["rest: '|',", '  states: {', ['sit', 'peck']],
  ['far: { sh| },', sit, ['shows', 'while', 'priority']],
  ["far: { shows: 'peck', then: '|' },", sit, ['sit', 'peck', 'far']],
  ["far: { shows: 'peck', hops: [{ to: '|' }] },", sit, ['sit', 'peck', 'far']],
  ["far: { shows: 'peck', hops: [{ to: 'sit', at: '|' }] },", sit, ['now', 'end', 'tap']],
  ["far: { shows: 'peck', hops: [{ to: 'sit', at: { start: '|' } }] },", sit, ['bite']],
  ["far: { shows: 'peck', hops: [{ to: 'sit', during: '|' }] },", sit, ['bite']],
  ["far: { shows: 'peck', yields: [{ to: ['|'] }] },", sit, ['sit', 'peck', 'far']],
  ["far: { shows: 'peck', bridges: { | } },", sit, ['sit', 'peck']],
  ["far: { shows: 'peck', bridges: { sit: '|' } },", sit, ['both', 'turn']],
  ["far: { shows: 'peck', takes: ['|'] },", sit, ['body', 'wings']],
  ["far: { shows: 'peck', carry: { | } },", sit, ['sit', 'peck']],
  ["far: { shows: { any: ['|'] } },", sit, ['both', 'sit', 'peck', 'turn']],
  ["glow: { shows: 'peck', then: '|' },", '      still: {', ['still', 'flap', 'glow']],
  ["glow: { inStep: '|' },", '      still: {', ['body', 'wings']],
  ["draws: ['|'],", '      draws: [', ['feathers']],
  ["far: { sheet: '|', cells: 0 },", '    sit: { cells', ['gull']],
])('an editor completes %s', (line, beside, names) => {
  expect(proposed(line, beside)).toEqual(expect.arrayContaining(names));
});
