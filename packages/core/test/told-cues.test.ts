import { DotHopError, Performer } from 'dot-hop';
import type { VarietyDefinition } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { changedData, placeCue, removeClip, removeFrames, rename, tellCue } from 'dot-hop/edit';
import { pack } from 'dot-hop/pack';
import { Player, loadCompiled } from 'dot-hop/play';
import { runRehearsal } from 'dot-hop/rehearsal';
import { Troupe } from 'dot-hop/troupe';
import { compile, sheets, stepTold } from './characters.js';
import type { Parts } from './characters.js';

const any = ['step-left', 'step-right', 'squeak'];

/** Who walks on planks, and goes on to stand at every second footfall that is told as any of these. */
const walking = (step: VarietyDefinition, more: Partial<Parts> = {}): Parts => ({
  clips: {
    stand: { cells: 0, ms: 100 },
    walk: { cells: '1-2', ms: 100, cues: { step: [0, 1], puff: 1 } },
  },
  signals: { moving: { flag: false } },
  cues: { step },
  states: { stand: { shows: 'stand' }, walk: { shows: 'walk', while: 'moving', leaves: 'step' } },
  ...more,
});

/** By which names steps are told while time passes. */
function told(performer: Player, ms: number): string[] {
  performer.step(ms);
  return [...performer.reports].flatMap(({ kind, name, from }) =>
    kind === 'cue' && from === 'step' ? [name] : [],
  );
}

test('a cue is told by one name after the other; rules and what leaves speak of the name on the frame', () => {
  const performer = new Performer(compile(walking({ any })), { moving: true });
  expect(stepTold(performer, 199)).toEqual(['0 step-left', '100 step-right', '100 puff']);
  expect([...performer.reports].map(({ name, from }) => `${from} ${name}`)).toEqual([
    'step step-left',
    'step step-right',
    'puff puff',
  ]);
  performer.set('moving', false);
  expect(stepTold(performer, 200)).toEqual(['200 squeak', '200 walk > stand']);
  performer.set('moving', true);
  expect(told(performer, 50)).toEqual(['step-left']);
});

test('by chance the same seed tells the same, also from a snapshot, a copy and a compiled document', () => {
  const controller = compile(walking({ any, pick: 'chance' }));
  const [performer, other] = [new Performer(controller), new Performer(controller)];
  for (const one of [performer, other]) one.set('moving', true);
  other.seed = 7;
  const first = told(performer, 3000);
  expect(new Set(first)).toEqual(new Set(any));
  first.forEach((name, i) => expect(name).not.toBe(first[i - 1]));
  expect(told(other, 3000)).not.toEqual(first);
  const snapshot = JSON.parse(JSON.stringify(performer.snapshot())) as ReturnType<Performer['snapshot']>;
  expect(snapshot.told).toEqual({ step: { shows: first.at(-1), place: any.indexOf(first.at(-1)!) } });
  const player = new Player(loadCompiled(compiledOf(controller)));
  player.set('moving', true);
  expect(told(player, 3000)).toEqual(first);
  const later = new Performer(controller);
  later.restore(snapshot);
  const saved = performer.save();
  const expected = told(performer, 3000);
  expect(told(later, 3000)).toEqual(expected);
  expect(told(player, 3000)).toEqual(expected);
  performer.load(saved);
  expect(told(performer, 3000)).toEqual(expected);
  // Another version with the names in another order goes on after the one that was told last.
  const edited = new Performer(compile(walking({ any: [any[2]!, any[0]!, any[1]!] })));
  edited.adopt(snapshot);
  const next = { 'step-left': 'step-right', 'step-right': 'squeak', squeak: 'step-left' }[first.at(-1)!];
  expect(told(edited, 150)[0]).toBe(next);
});

test('members of a troupe tell in turns of their own', () => {
  const troupe = new Troupe(compile(walking({ any })), 2);
  troupe.set(0, 'moving', true);
  troupe.step(150);
  troupe.set(1, 'moving', true);
  troupe.step(200);
  const { reports } = troupe;
  const toldOf = (member: number): string[] =>
    [...reports].flatMap(({ name, from }, i) =>
      from === 'step' && reports.memberAt(i) === member ? [name] : [],
    );
  expect([toldOf(0), toldOf(1)]).toEqual([
    ['squeak', 'step-left'],
    ['step-left', 'step-right', 'squeak'],
  ]);
});

test('a rehearsal counts what is told by the name on the frame and by each of the others', () => {
  const { outcomes, trace } = runRehearsal(compile(walking({ any })), {
    lasts: 450,
    script: [
      { at: 0, set: { moving: true } },
      { until: { cue: 'squeak' }, set: { moving: false } },
    ],
    expect: [{ from: 0, to: 450, cues: { step: 4, squeak: 1, 'step-left': 2 } }],
  });
  expect(trace.find(({ kind }) => kind === 'cue')).toEqual({
    ...{ kind: 'cue', at: 0, name: 'step-left', from: 'step', track: 'body' },
  });
  expect(outcomes.map(({ instead }) => instead)).toEqual(['', '']);
});

test('renaming follows to what a cue is told by', () => {
  const definition = { dotHop: 1 as const, sheets, ...walking({ any }) };
  const renamed = (from: string, to: string) =>
    changedData(definition, rename(definition, { kind: 'cue', from, to }).changes);
  expect(renamed('step', 'tap').cues).toEqual({ tap: { any } });
  expect(renamed('squeak', 'creak').cues).toEqual({ step: { any: ['step-left', 'step-right', 'creak'] } });
});

test.each<[NonNullable<Parts['cues']>, string]>([
  [{ stpe: { any } }, 'cues.stpe: no frame has the cue "stpe"; did you mean "step"?'],
  [{ step: { any: ['tap'] } }, 'cues.step.any: "any" picks one of two or more; here is 1'],
  [{ step: { any, weights: [1, 1, 1] } }, 'cues.step.weights: "weights" is for chance'],
  [{ step: { any, repeats: false } }, 'cues.step.repeats: "repeats" is for chance'],
  [
    { step: { any, pick: 'chance', weights: [1] } },
    '"weights" has a number for each of the 3 in "any", not 1',
  ],
  [{ step: { any: 'tap' as never } }, 'cues.step.any: expected a list of names, not "tap"'],
])('what no cue can be told by is refused in words: %j', (cues, words) => {
  expect(() => compile(walking({ any }, { cues }))).toThrow(DotHopError);
  expect(() => compile(walking({ any }, { cues }))).toThrow(words);
});

test('a name that is told is no instant of a rule', () => {
  const states = { stand: { shows: 'stand' }, walk: { shows: 'walk', while: 'moving', leaves: 'squeak' } };
  expect(() => compile(walking({ any }, { states }))).toThrow('there is no cue or instant "squeak"');
});

test('taking the last of a cue away, with its clip or with its frame, takes away how it was told', () => {
  const definition = { dotHop: 1 as const, sheets, ...walking({ any }) };
  const size = { columns: 8, count: 64 };
  const told = tellCue(definition, 'puff', { any: ['puff', 'pant'] });
  const both = changedData(definition, told.changes);
  expect(both.cues).toEqual({ step: { any }, puff: { any: ['puff', 'pant'] } });
  expect(changedData(both, placeCue(both, 'walk', 'puff', []).changes).cues).toEqual({ step: { any } });
  expect(changedData(both, removeFrames(both, 'walk', size, [1]).changes).cues).toEqual({ step: { any } });
  expect(changedData(both, removeClip(both, 'walk').changes).cues).toBeUndefined();
  expect(changedData(both, tellCue(both, 'step', { any: ['tap'] }).changes).cues).toEqual({
    puff: { any: ['puff', 'pant'] },
  });
  expect(changedData(definition, tellCue(definition, 'step', { any: [] }).changes).cues).toBeUndefined();
});

test('packing leaves out how a cue is told that only clips have which nobody shows', () => {
  const images = new Map([
    ['s.png', { width: 64, height: 64, pixels: new Uint8Array(64 * 64 * 4).fill(255) }],
  ]);
  const packed = (states: Parts['states']): unknown =>
    pack(compile(walking({ any }, { states })), images, 'a.png', { padding: 1, powerOfTwo: false, most: 512 })
      .definition.cues;
  expect(packed({ stand: { shows: 'stand' }, walk: { shows: 'walk' } })).toEqual({ step: { any } });
  expect(packed({ stand: { shows: 'stand' } })).toBeUndefined();
});
