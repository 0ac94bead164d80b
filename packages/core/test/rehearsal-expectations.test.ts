import { compileController } from 'dot-hop';

import { assertRehearsal, toGoAsRehearsed } from 'dot-hop/rehearsal';
import type { RehearsalScript } from 'dot-hop/rehearsal';
import { controller, ferryman, run } from './ferryman.js';

test('an expectation may name the clip; of a clip in rows its own name, or that of the direction', () => {
  const rows = ['south', 'north'];
  const inRows = compileController({
    ...ferryman,
    sheets: { all: { image: 'a.png', size: [160, 20], grid: { cell: [10, 10] } } },
    clips: { stand: { cells: 0, rows }, walk: { cells: '4-5', rows, fps: 10 } },
    compass: { directions: 'four', by: ['vx', 'vy'], start: 'south' },
    states: { stand: { shows: 'stand' }, stroll: { shows: 'walk', while: 'vy != 0' } },
  });
  const expectedAt = (...clips: string[]): boolean[] =>
    run(
      { lasts: 100, script: [{ at: 10, set: { vy: -9 } }], expect: clips.map((clip) => ({ at: 50, clip })) },
      inRows,
    ).outcomes.map(({ met }) => met);
  expect(expectedAt('walk', 'walk-north', 'walk-south', 'stand')).toEqual([true, true, false, false]);
  const [unmet] = run({ lasts: 10, script: [], expect: [{ at: 5, clip: 'stroll' }] }).outcomes;
  expect(unmet).toMatchObject({ met: false, expected: 'at 5 ms: clip stroll', instead: 'clip stand' });
  expect(() => run({ lasts: 10, script: [], expect: [{ at: 5, clip: 'strol' }] })).toThrow(
    /expect\[0\]\.clip: there is no clip or flipbook "strol"; did you mean "stroll"/,
  );
});

test('the name of a group stands for its states', () => {
  const aboard = compileController({
    ...ferryman,
    signals: { ...ferryman.signals, aboard: { flag: false } },
    groups: {
      boat: {
        while: 'aboard',
        priority: 50,
        rest: 'sit',
        states: { sit: { shows: 'stand' }, row: { shows: 'stroll', while: 'moving', takes: ['hand'] } },
      },
    },
    tracks: { hand: { states: { hang: { inStep: 'body' } } } },
  });
  const script: RehearsalScript['script'] = [
    { at: 100, set: { aboard: true } },
    { until: { state: 'boat' }, within: 50, expect: { state: 'boat' } },
    { at: 200, set: { vx: 60 } },
    { at: 300, set: { aboard: false } },
  ];
  const judged = (...expect: NonNullable<RehearsalScript['expect']>): boolean[] =>
    run({ lasts: 400, script, expect }, aboard).outcomes.map(({ met }) => met);
  expect(
    judged(
      { from: 100, to: 299, state: 'boat' },
      { from: 0, to: 400, passes: ['stand', 'boat', 'row', 'stroll'] },
      { from: 301, to: 400, never: 'boat' },
      { at: 250, state: 'hand.row' },
    ),
  ).toEqual([true, true, true, true, true, true]);
  expect(
    judged(
      { from: 0, to: 400, state: 'boat' },
      { from: 0, to: 400, never: 'boat' },
      { at: 50, state: 'boat' },
    ),
  ).toEqual([false, false, false, true, true]);
  const misspelt: RehearsalScript = { lasts: 9, script: [], expect: [{ at: 5, state: 'baot' }] };
  expect(() => run(misspelt, aboard)).toThrow('there is no state "baot"; did you mean "boat"?');
  const asked: RehearsalScript = { lasts: 9, script: [{ at: 1, ask: 'boat' }] };
  expect(() => run(asked, aboard)).toThrow('script[0].ask: there is no state "boat"');
});

describe('unmet expectations', () => {
  test.each([
    [{ from: 0, to: 900, never: 'wave' }, 100, 'wave shows since 100 ms: it ranks above stand'],
    [{ from: 150, to: 900, state: 'wave' }, 300, 'stand shows since 300 ms: wave gave way'],
    [{ from: 0, to: 900, cues: { hail: 0 } }, 200, 'wave shows since 100 ms'],
    [{ from: 0, to: 700, passes: ['wave', 'stroll'] }, 300, 'stand shows since 300 ms'],
  ] as const)('%j says why when it went wrong', (one, failedAt, why) => {
    const never = { ...one, ...('passes' in one ? { passes: [...one.passes] } : {}) };
    const { outcomes } = run({ lasts: 1000, script: [{ at: 100, pulse: 'wave' }], expect: [never] });
    expect(outcomes[0]).toMatchObject({ met: false, failedAt });
    expect(outcomes[0]!.why).toContain(why);
  });

  test('a test of a user fails with all of this as its message', () => {
    expect.extend({ toGoAsRehearsed });
    const rehearsal: RehearsalScript = {
      lasts: 400,
      script: [{ at: 100, pulse: 'wave' }],
      expect: [{ at: 150, state: 'wave' }],
    };
    const wrong = { ...rehearsal, expect: [{ at: 150, state: 'stroll' }] };
    expect(assertRehearsal(controller, rehearsal).outcomes[0]!.met).toBe(true);
    (expect(controller) as unknown as { toGoAsRehearsed(one: RehearsalScript): void }).toGoAsRehearsed(
      rehearsal,
    );
    const words = /expected at 150 ms: state stroll\n {2}instead: state wave\n {4}wave shows since 100 ms/;
    expect(() => assertRehearsal(controller, wrong)).toThrow(words);
    expect(() => {
      (expect(controller) as unknown as { toGoAsRehearsed(one: RehearsalScript): void }).toGoAsRehearsed(
        wrong,
      );
    }).toThrow(words);
  });
});
