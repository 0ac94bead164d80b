import { Performer } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compileDocument, readDocument } from 'dot-hop/document';
import { measureClips } from 'dot-hop/pixels';

// The mistakes of the trade (docs/model.md says the rules against them): each is impossible here, or found by a check.

const head = `dotHop: 1
sheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }
`;
const compiled = (text: string) => compileDocument(readDocument(head + text, 'mistake.yaml'));
const perform = (text: string): Performer => new Performer(compiled(text));
const checked = (text: string) => checkController(compiled(text)).findings;
/** What is found that weighs. */
const codes = (text: string): string[] =>
  checked(text)
    .filter(({ severity }) => severity !== 'note')
    .map(({ code }) => code);

const hero = `clips:
  stand: { cells: 0-3, fps: 8 }
  walk: { cells: 8-15, fps: 12, cues: { step: [0, 4] } }
  run: { cells: 16-23, fps: 16, cues: { step: [0, 4] } }
  takeoff: { cells: 24-26, ms: 50, loop: once }
  swing: { cells: 32-35, ms: 50, loop: once }
  swing2: { cells: 40-43, ms: 50, loop: once }
compass: { directions: sides, mirror: west, by: [vx, 0], deadZone: 4 }
signals: { vx: { number: 0 }, button: { flag: false }, jump: { pulse: true } }
derived:
  moving: { of: abs(vx), above: 12, below: 8 }
  fast: { of: abs(vx), above: 95, below: 80 }
states:
  stand: { shows: stand }
  walk: { shows: walk, while: moving, priority: 10, carry: phase }
  run: { shows: run, while: fast, priority: 11, carry: phase }
  takeoff: { shows: takeoff, when: jump, priority: 30 }
  swing: { shows: swing, when: button, priority: 20, then: swing2 }
  swing2: { shows: swing2, priority: 20 }
rest: stand
`;

/** The states that show at every tick of some time. */
function shown(performer: Performer, ms: number): string[] {
  const states: string[] = [];
  for (let time = 0; time < ms; time += 16) {
    performer.step(16);
    if (states[states.length - 1] !== performer.state) states.push(performer.state);
  }
  return states;
}

test('the walk goes on after the character has stopped', () => {
  const performer = perform(hero);
  performer.set('vx', 40);
  expect(shown(performer, 400)).toEqual(['walk']);
  performer.set('vx', 0);
  expect(shown(performer, 400)).toEqual(['stand']);
});

test('the jump never ends', () => {
  expect(() => perform(hero.replace('ms: 50, loop: once', 'ms: 50'))).toThrow(
    'the clip "takeoff" loops forever, so this act would never end',
  );
  const performer = perform(hero);
  performer.pulse('jump');
  expect(shown(performer, 400)).toEqual(['takeoff', 'stand']);
});

test('the jump is overwritten a tick later by another rule', () => {
  const performer = perform(hero);
  performer.set('vx', 120);
  performer.step(16);
  performer.pulse('jump');
  // Running all the while, he takes off to the end.
  expect(shown(performer, 144)).toEqual(['takeoff']);
  expect(shown(performer, 100)).toEqual(['run']);
});

test('a held button restarts the swing at every tick', () => {
  const performer = perform(hero);
  performer.set('button', true);
  performer.step(16);
  const cells = new Set<number>();
  for (let i = 0; i < 12; i++) {
    cells.add(performer.pose.cell.index);
    performer.step(16);
  }
  expect([...cells]).toEqual([32, 33, 34, 35]);
});

test('a rule that looks at every moment starves what should follow', () => {
  const performer = perform(hero);
  performer.set('button', true);
  expect(shown(performer, 1000)).toEqual(['swing', 'swing2', 'stand']);
});

test('the character runs backwards', () => {
  const performer = perform(hero);
  for (const [vx, facing] of [
    [120, 'east'],
    [-120, 'west'],
    [30, 'east'],
  ] as const) {
    performer.set('vx', vx);
    performer.step(16);
    expect([performer.facing, performer.pose.mirrored]).toEqual([facing, vx < 0]);
  }
});

test('it snaps to face the viewer when it stops', () => {
  const performer = perform(hero);
  performer.set('vx', -40);
  performer.step(100);
  performer.set('vx', 0);
  performer.step(500);
  expect([performer.state, performer.facing]).toEqual(['stand', 'west']);
});

test('a switch restarts at frame one and the feet jump', () => {
  const performer = perform(hero);
  performer.set('vx', 40);
  performer.step(300);
  const { phase } = performer;
  expect(phase).toBeGreaterThan(0.4);
  performer.set('vx', 120);
  performer.step(0);
  expect(performer.state).toBe('run');
  expect(performer.phase).toBeCloseTo(phase, 5);
});

test('one misspelt name and nothing shows', () => {
  expect(() => perform(hero.replace('while: moving', 'while: movign'))).toThrow(
    'there is no signal "movign"; did you mean "moving"?',
  );
  expect(() => perform(hero.replace('shows: walk,', 'shows: wlak,'))).toThrow('did you mean "walk"?');
  const performer = perform(hero);
  expect(() => performer.set('xv', 3)).toThrow('there is no signal "xv"; did you mean "vx"?');
});

describe('found by the check', () => {
  const clips =
    'clips: { stand: { cells: 0 }, walk: { cells: 1 }, jump: { cells: 2 }, swing: { cells: 3-5, fps: 9, loop: once } }\n';

  test('a combination nobody thought of (crouched and moving) shows the wrong thing', () => {
    const text = `${clips}signals: { vx: { number: 0 }, low: { flag: false } }
derived: { moving: { of: abs(vx), above: 5, below: 3 } }
states:
  stand: { shows: stand }
  walk: { shows: walk, while: moving && !low, priority: 1 }
  low: { shows: jump, while: low && !moving, priority: 1 }\n`;
    const [found] = checked(text).filter(({ code }) => code === 'rest-while-moving');
    expect(found!.message).toContain('low');
    expect(found!.message).toContain('moving');
    expect(codes(text.replace('low && !moving', 'low'))).toEqual([]);
  });

  test('two thresholds touch and the states flicker', () => {
    const text = (during: string) => `${clips}signals: { vx: { number: 0 } }
derived: { fast: { of: abs(vx), above: 95, below: 80 } }
states: { stand: { shows: stand }, walk: { shows: walk, while: ${during}, priority: 1 } }\n`;
    expect(codes(text('abs(vx) > 90'))).toEqual(['derived-unused', 'flicker']);
    expect(codes(text('fast'))).toEqual([]);
    expect(codes(text('fast, atLeast: 80'))).toEqual([]);
  });

  test('a threshold compares a signed speed, so it works to the right only', () => {
    const text = (during: string) => `${clips}signals: { vx: { number: 0 } }
compass: { directions: sides, mirror: west, by: [vx, 0] }
states: { stand: { shows: stand }, walk: { shows: walk, while: ${during}, priority: 1, atLeast: 40 } }\n`;
    expect(codes(text('vx > 5'))).toEqual(['one-sided']);
    expect(codes(text('vx > 5 || vx < -5'))).toEqual([]);
    expect(codes(text('abs(vx) > 5'))).toEqual([]);
  });

  test('the follow-up that never comes', () => {
    const text = (rank: number) => `${clips}signals: { press: { pulse: true }, grounded: { flag: true } }
states:
  stand: { shows: stand }
  swing: { shows: swing, when: press, priority: 5, then: walk }
  walk: { shows: walk, while: grounded, priority: ${rank} }
  jump: { shows: jump, while: grounded, priority: 2 }\n`;
    expect(codes(text(1))).toContain('follow-up-overtaken');
    expect(codes(text(3))).not.toContain('follow-up-overtaken');
    // Nobody takes over from what is final.
    const final = text(1).replace('priority: 1 }', 'priority: 1, final: true }');
    expect(codes(final)).not.toContain('follow-up-overtaken');
  });

  test('one clip is drawn two pixels off and the body sinks into a wall', () => {
    const controller =
      compiled(`clips: { stand: { cells: 0-3, fps: 8 }, run: { cells: 4-7, fps: 8, loop: once }, walk: { cells: 8-15, fps: 8 } }
signals: { on: { flag: false } }
states:
  stand: { shows: stand }
  run: { shows: run, when: '!on' }
  walk: { shows: walk, while: on, priority: 1 }\n`);
    /** A sheet of small bodies; those of the second row stand so many pixels higher. */
    const found = (off: number): string[] => {
      const pixels = new Uint8Array(64 * 64 * 4);
      for (let cell = 0; cell < 16; cell++)
        for (let y = 3; y < 8; y++)
          for (let x = 2; x < 5; x++) {
            const row = cell >= 8 ? 8 + y - off : y;
            pixels.set([cell * 16, y * 30, x * 50, 255], (row * 64 + (cell % 8) * 8 + x) * 4);
          }
      const { findings } = measureClips([...controller.clips.values()], () => ({
        width: 64,
        height: 64,
        pixels,
      }));
      return checkController(controller, { drawings: findings })
        .findings.map(({ code, path }) => `${code} ${path.join('.')}`)
        .filter((one) => !one.startsWith('cell-cut'));
    };
    expect(found(2)).toEqual(['clip-foot-line clips.walk']);
    expect(found(0)).toEqual([]);
  });
});
