import { Performer, compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { rename } from 'dot-hop/edit';
import { changedData } from 'dot-hop/edit';
import { variantNamed, variantsShown } from 'dot-hop/explain';
import { Player, loadCompiled } from 'dot-hop/play';
import { Troupe } from 'dot-hop/troupe';
import { stepTold } from './characters.js';

const definition = {
  dotHop: 1,
  sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
  clips: {
    stand: { cells: 0, fps: 10 },
    walk: { cells: '1-4', fps: 10, cues: { step: 0 } },
    run: { cells: '5-8', fps: 20 },
    'walk-pole': { cells: '9-12', fps: 5, cues: { step: 0 } },
    plod: { cells: '13-16', fps: 2 },
    'plod-pole': { cells: '17-20', fps: 2 },
    skid: { cells: '21-22', fps: 10, loop: 'once' },
    'skid-pole': { cells: '23-24', fps: 10, loop: 'once' },
  },
  signals: {
    vx: { number: 0 },
    holds: { choice: ['nothing', 'pole', 'lamp'] },
    tired: { flag: false },
  },
  derived: { speed: 'abs(vx)' },
  variants: {
    holds: { pole: { walk: 'walk-pole', skid: 'skid-pole' } },
    tired: { walk: 'plod', 'walk-pole': 'plod-pole' },
  },
  states: {
    stand: { shows: 'stand', bridges: { go: { run: 'skid' } } },
    go: {
      gaits: { by: 'speed', shows: ['walk', 'run'], above: [50] },
      while: 'vx != 0',
      priority: 1,
    },
  },
  rest: 'stand',
} as const satisfies ControllerDefinition;
const begin = (): Performer => new Performer(compileController(definition as ControllerDefinition));

test('while an option is chosen its flipbook shows in place of another, at the same phase', () => {
  const performer = begin();
  performer.set('vx', 10);
  performer.step(150);
  expect([performer.clip, performer.phase]).toEqual(['walk', 0.375]);
  performer.set('holds', 'pole');
  expect(stepTold(performer, 0)).toEqual(['150 flipbook walk-pole']);
  expect([performer.clip, performer.phase, performer.state]).toEqual(['walk-pole', 0.375, 'go']);
  // What has no variant stays: neither a lamp nor running says anything.
  performer.set('vx', 60);
  expect(stepTold(performer, 0)).toEqual(['150 flipbook run']);
  performer.set('holds', 'lamp');
  performer.set('vx', 10);
  expect(stepTold(performer, 0)).toEqual(['150 flipbook walk']);
});

test('several signals at once: what the first puts there is looked up in those of the next', () => {
  const performer = begin();
  performer.set('vx', 10);
  const shown = (holds: string, tired: boolean): string => {
    performer.set('holds', holds);
    performer.set('tired', tired);
    performer.step(0);
    return performer.clip;
  };
  for (const [holds, tired, clip] of [
    ['nothing', false, 'walk'],
    ['nothing', true, 'plod'],
    ['pole', true, 'plod-pole'],
    ['pole', false, 'walk-pole'],
  ] as const) {
    expect(shown(holds, tired)).toBe(clip);
    expect(variantNamed(definition, 'walk', { holds, tired })).toBe(clip);
  }
});

test('a bridge has variants too, and goes by the gait whatever variant shows', () => {
  const performer = begin();
  performer.set('vx', 60);
  performer.set('holds', 'pole');
  performer.set('tired', true);
  performer.step(100);
  performer.set('vx', 0);
  performer.step(50);
  expect([performer.state, performer.clip]).toEqual(['stand', 'skid-pole']);
  performer.set('holds', 'nothing');
  expect(stepTold(performer, 0)).toEqual(['150 flipbook skid']);
  performer.step(200);
  expect(performer.clip).toBe('stand');
});

test('it begins in the variant that is chosen then; a snapshot, a compiled document and a troupe have it', () => {
  const performer = new Performer(compileController(definition as ControllerDefinition), {
    holds: 'pole',
    vx: 10,
  });
  expect(performer.clip).toBe('walk-pole');
  performer.step(300);
  const other = begin();
  other.restore(JSON.parse(JSON.stringify(performer.snapshot())) as never);
  expect([other.clip, other.phase]).toEqual([performer.clip, performer.phase]);
  const player = new Player(
    loadCompiled(JSON.parse(JSON.stringify(compiledOf(performer.controller))) as never),
    { holds: 'pole', vx: 10 },
  );
  player.step(300);
  expect([player.clip, player.phase]).toEqual([performer.clip, performer.phase]);
  const troupe = new Troupe(performer.controller, 2);
  troupe.set(1, 'vx', 10);
  troupe.set(1, 'holds', 'pole');
  troupe.step(0);
  expect(troupe.pose(1).cell.index).toBe(9);
});

test('what is never shown is left out of what is packed, and out of the version', () => {
  const two = compileController({
    ...definition,
    variants: { ...definition.variants, holds: { ...definition.variants.holds, lamp: { stand: 'stand' } } },
  });
  expect(variantsShown(two)!.holds).toHaveProperty('lamp');
  const without = compileController({
    ...definition,
    variants: {
      ...definition.variants,
      holds: { ...definition.variants.holds, lamp: { 'skid-pole': 'run' } },
    },
    states: { stand: { shows: 'stand' }, go: { shows: 'walk', while: 'vx != 0' } },
  });
  expect(variantsShown(without)).toEqual({
    holds: { pole: { walk: 'walk-pole' } },
    tired: { walk: 'plod', 'walk-pole': 'plod-pole' },
  });
});

test('an option is one whatever its name', () => {
  const odd = compileController({
    ...definition,
    signals: { ...definition.signals, holds: { choice: ['nothing', "the keeper's pole"] } },
    variants: { holds: { "the keeper's pole": { walk: 'walk-pole' } } },
  });
  const performer = new Performer(odd, { vx: 10, holds: "the keeper's pole" });
  expect(performer.clip).toBe('walk-pole');
});

test('renaming a clip, a signal or a choice reaches the variants', () => {
  const { changes } = rename(definition, {
    kind: 'clip',
    from: 'walk',
    to: 'stride',
  });
  expect(changedData(definition as ControllerDefinition, changes).variants).toEqual({
    holds: { pole: { stride: 'walk-pole', skid: 'skid-pole' } },
    tired: { stride: 'plod', 'walk-pole': 'plod-pole' },
  });
  const { changes: others } = rename(definition, {
    kind: 'signal',
    from: 'tired',
    to: 'weary',
  });
  expect(Object.keys(changedData(definition as ControllerDefinition, others).variants!)).toEqual([
    'holds',
    'weary',
  ]);
});

test.each([
  [{ holdz: { pole: { walk: 'run' } } }, /variants\.holdz: there is no signal "holdz"; did you mean "holds"/],
  [{ tird: { walk: 'run' } }, /variants\.tird: there is no signal "tird"; did you mean "tired"/],
  [
    { holds: { pol: { walk: 'run' } } },
    /variants\.holds\.pol: there is no option "pol"; did you mean "pole"/,
  ],
  [
    { holds: { walk: 'run' } },
    /variants\.holds: "holds" is a choice, so its variants are a map for each option: \{ nothing:/,
  ],
  [{ tired: { on: { walk: 'run' } } }, /variants\.tired: "tired" is not a choice/],
  [{ vx: { walk: 'run' } }, /variants\.vx: .*compare it, such as vx > 0/],
  [
    { tired: { wlak: 'run' } },
    /variants\.tired\.wlak: there is no clip or flipbook "wlak"; did you mean "walk"/,
  ],
  [
    { tired: { walk: 'rum' } },
    /variants\.tired\.walk: there is no clip or flipbook "rum"; did you mean "run"/,
  ],
  [{ tired: { skid: 'run' } }, /bridge/],
])('refused: %j', (variants, told) => {
  expect(() => compileController({ ...definition, variants })).toThrow(told);
});
