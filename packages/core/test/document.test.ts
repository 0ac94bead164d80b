import { DotHopError } from 'dot-hop';
import { DocumentError, compileDocument, readDocument } from 'dot-hop/document';
import { broughtUp } from '../src/document/versions.js';
import type { Upgrade } from '../src/document/versions.js';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';

const sound = `# a gull
dotHop: 1
name: gull
sheets:
  gull: { image: gull.png, size: [16, 8], grid: { cell: [8, 8] } }
clips:
  sit: { cells: 0 }
  hop: { cells: [0, 1], fps: 10, loop: once, cues: { flap: 1 } }
signals:
  near: { flag: false }
  crumb: { pulse: { keep: 50 } }
states:
  sit: { shows: sit }
  hop: { shows: hop, when: crumb && !near, priority: 2 }
rest: sit
`;

const load = (text: string, file = 'gull.yaml') => compileDocument(readDocument(text, file));

describe('documents', () => {
  test('YAML and JSON of the same structure give the same controller', () => {
    const yaml = readDocument(sound, 'gull.yaml');
    const json = readDocument(JSON.stringify(yaml.definition, null, 2), 'gull.json');
    expect(json.definition).toEqual(yaml.definition);
    expect([...load(sound).stateNamed.keys()]).toEqual(['sit', 'hop']);
  });

  test.each([
    ['', 'gull.yaml:1:1 the document is empty'],
    ['# only a comment\n', 'gull.yaml:1:1 the document is empty'],
    ['[]', 'gull.yaml:1:1 expected a document: dotHop, sheets, clips, states, rest, not []'],
    ['dotHop: 1\n  bad: [', 'gull.yaml:1:9 this is not YAML: '],
    [
      sound.replace('dotHop: 1', 'dotHop: 2'),
      'gull.yaml:2:9 dotHop: this is version 2 of the format, and this program reads up to version 1; bring the program up',
    ],
    [
      sound.replace('fps: 10', 'fsp: 10'),
      'gull.yaml:8:25 clips.hop.fsp: "fsp" is not known here; did you mean "fps"?',
    ],
    [sound.replace('fps: 10', 'fps: ten'), 'gull.yaml:8:30 clips.hop.fps: expected a number, not "ten"'],
    [sound.replace('fps: 10', 'fps: 0'), 'gull.yaml:8:30 clips.hop.fps: "fps" must be more than 0'],
    [sound.replace('fps: 10', 'fps: .nan'), 'gull.yaml:8:30 clips.hop.fps: expected a number, not NaN'],
    [
      sound.replace('[0, 1]', '0-2'),
      'clips.hop.cells: there is no cell 2: sheet "gull" has the cells 0 to 1',
    ],
    [
      sound.replace('shows: hop', 'shows: hpo'),
      'gull.yaml:14:17 states.hop.shows: there is no clip or flipbook "hpo"; did you mean "hop"?',
    ],
    [sound.replace('clips:', 'clps:'), '"clips" is missing; expected clips by name'],
    [
      sound.replace('rest: sit', 'rest: sat'),
      'gull.yaml:15:7 rest: there is no state "sat"; did you mean "sit"?',
    ],
    [sound.replace('{ flag: false }', '{ flg: false }'), 'gull.yaml:10:9 signals.near: expected a signal'],
    [
      sound.replace('crumb && !near', 'crumb && nera'),
      'gull.yaml:14:37 states.hop.when: there is no signal "nera"; did you mean "near"?',
    ],
    [
      sound.replace('[8, 8]', '[32, 8]'),
      'sheets.gull.grid.cell: a grid of cells of 32x8 pixels does not fit into an image of 16x8',
    ],
    [sound.replace('[8, 8]', '[0, 8]'), 'sheets.gull.grid.cell'],
    [sound.replace('size: [16, 8], ', ''), 'the size of "gull.png" is not known'],
    [sound.replace('sheets:', 'sheets: {}\nnone:'), '"none" is not known here'],
  ])('%#: a faulty one is told with file, line, column, path, value and remedy', (text, words) => {
    expect(() => load(text)).toThrow(DocumentError);
    expect(() => load(text)).toThrow(words);
  });

  test('an older version is brought up step by step, and the data given is left alone', () => {
    const old = { dotHop: 1, body: 'wick', speed: 3 };
    const steps: Upgrade[] = [
      ({ body, ...rest }) => ({ ...rest, name: body }),
      ({ speed, ...rest }) => ({ ...rest, pace: Number(speed) * 2 }),
    ];
    expect(broughtUp(old, 'dotHop', steps)).toEqual({ data: { dotHop: 3, name: 'wick', pace: 6 } });
    expect(old).toEqual({ dotHop: 1, body: 'wick', speed: 3 });
    expect(broughtUp({ dotHop: 2, name: 'wick', speed: 3 }, 'dotHop', steps)).toEqual({
      data: { dotHop: 3, name: 'wick', pace: 6 },
    });
    const current = { dotHop: 3, name: 'wick', pace: 6 };
    expect(broughtUp(current, 'dotHop', steps)).toEqual({ data: current });
    expect(broughtUp({ dotHop: 4 }, 'dotHop', steps)).toMatchObject({
      problem: { code: 'document-version', values: { received: 4, current: 3 } },
    });
    for (const other of [{ dotHop: 0.5 }, { dotHop: 'two' }, {}, [], null, 7])
      expect(broughtUp(other, 'dotHop', steps)).toEqual({ data: other });
  });

  test('faulty JSON is told with its place', () => {
    expect(() => load('{ "dotHop": 1, }', 'gull.json')).toThrow(/^gull\.json:1:\d+ this is not JSON: /);
    expect(() => load('{ "dotHop" 1 }', 'gull.json')).toThrow('gull.json:1:');
  });

  test('all faults are told at once, in the order of the text', () => {
    const text = sound
      .replace('cells: 0 }', 'cells: 9 }')
      .replace('flap: 1', 'flap: 7')
      .replace('rest: sit', 'rest: st');
    try {
      load(text);
      throw new Error('not refused');
    } catch (error) {
      expect(error).toBeInstanceOf(DotHopError);
      const { problems } = error as DocumentError;
      expect(problems.map(({ line, code }) => [line, code])).toEqual([
        [7, 'cell-range'],
        [8, 'frame-range'],
        [15, 'state-unknown'],
      ]);
    }
  });

  test('a thousand aliases do not fill the memory', () => {
    const bomb = `a: &a [x,x,x,x,x,x,x,x,x]\n${'bcdefghij'
      .split('')
      .map((name, i) => `${name}: &${name} [${new Array(9).fill(`*${'abcdefghij'[i]!}`).join(',')}]`)
      .join('\n')}`;
    expect(() => load(bomb)).toThrow();
  });
});

describe('rehearsals', () => {
  const rehearse = (script: string, expectations: string) => {
    const text = `dotHopRehearsal: 1\ndocument: gull.yaml\nlasts: 500\nscript:\n${script}\nexpect:\n${expectations}\n`;
    const { source, definition } = readRehearsal(text, 'gull.rehearsal.yaml');
    return source.placing(() => runRehearsal(load(sound), definition));
  };

  test('tells what happened at its exact instant', () => {
    const { trace } = rehearse('- { at: 33.5, pulse: crumb }', '- { at: 40, state: hop }');
    expect(trace).toEqual([
      { kind: 'pulse', at: 33.5, name: 'crumb' },
      { kind: 'switch', at: 33.5, name: 'hop', from: 'sit', rule: 'rank', track: 'body' },
      { kind: 'cue', at: 133.5, name: 'flap', track: 'body' },
      { kind: 'switch', at: 233.5, name: 'sit', from: 'hop', rule: 'rest', track: 'body' },
    ]);
  });

  test.each([
    ['{ at: 0, state: sit }', true, ''],
    ['{ at: 33.5, state: hop, cell: 0 }', true, ''],
    ['{ at: 233, state: hop, cell: 1 }', true, ''],
    ['{ at: 233.5, state: hop }', false, 'state sit'],
    ['{ at: 100, cell: 1 }', false, 'cell 0'],
    ['{ from: 0, to: 500, passes: [sit, hop, sit] }', true, ''],
    ['{ from: 0, to: 200, passes: [sit, hop, sit] }', false, 'sit did not come in turn: sit, hop'],
    ['{ from: 0, to: 30, never: hop }', true, ''],
    ['{ from: 0, to: 500, never: hop }', false, 'hop showed'],
    ['{ from: 50, to: 200, state: hop }', true, ''],
    ['{ from: 50, to: 300, state: hop }', false, 'states hop, sit'],
    ['{ from: 0, to: 500, cues: { flap: 1 } }', true, ''],
    ['{ from: 200, to: 500, cues: { flap: 1 } }', false, 'cue flap 0 times'],
    ['{ at: 40, direction: front }', true, ''],
  ])('%s is judged', (expectation, met, instead) => {
    const { outcomes } = rehearse('- { at: 33.5, pulse: crumb }', `- ${expectation}`);
    expect(outcomes[0]).toMatchObject({ met, instead });
  });

  test('one that would run for ever is refused', () => {
    const text = 'dotHopRehearsal: 1\ndocument: gull.yaml\nlasts: 1e12\nscript: []\n';
    expect(() => readRehearsal(text, 'long.yaml')).toThrow(
      'long.yaml:3:8 lasts: expected milliseconds, at most 3600000 (an hour)',
    );
  });

  test('instants finer than a microsecond are reached', () => {
    const { trace } = rehearse(
      '- { at: 33.33333333333, pulse: crumb }',
      '- { at: 66.66666666666, state: hop }',
    );
    expect(trace.map(({ kind, at }) => `${kind} ${at}`).slice(1, 3)).toEqual([
      'switch 33.333',
      'cue 133.333',
    ]);
  });

  test('an unmet expectation at an instant says why', () => {
    const { outcomes } = rehearse(
      '- { at: 10, set: { near: true } }\n- { at: 33, pulse: crumb }',
      '- { at: 40, state: hop }',
    );
    expect(outcomes[0]!.why).toContain('hop: its condition is not true');
    expect(outcomes[0]!.why).toContain('when crumb && !near   + crumb   - !near');
  });

  test.each([
    [
      '- { at: 600, pulse: crumb }',
      '- { at: 40, state: hop }',
      'script[0].at: 600 ms is past the end of the rehearsal at 500 ms',
    ],
    [
      '- { at: 6, pulse: crum }',
      '- { at: 40, state: hop }',
      'gull.rehearsal.yaml:5:19 script[0].pulse: there is no signal "crum"; did you mean "crumb"?',
    ],
    [
      '- { at: 6, set: { near: 3 } }',
      '- { at: 40, state: hop }',
      '"near" is a flag and takes true or false, not 3',
    ],
    [
      '- { at: 6 }',
      '- { at: 40, state: hip }',
      'expect[0].state: there is no state "hip"; did you mean "hop"?',
    ],
    ['- { at: 6 }', '- { state: hop }', 'say when it is expected'],
    ['- { at: 6 }', '- { at: 6 }', 'an expectation says what is expected'],
    ['- { at: -6 }', '- { at: 6, state: sit }', 'script[0].at: expected milliseconds, 0 or more, not -6'],
    [
      '- { at: 6, puls: crumb }',
      '- { at: 6, state: sit }',
      '"puls" is not known here; did you mean "pulse"?',
    ],
  ])('%s with %s is refused in words', (script, expectations, words) => {
    expect(() => rehearse(script, expectations)).toThrow(words);
  });
});
