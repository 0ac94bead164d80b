import fc from 'fast-check';
import { readFileSync, readdirSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { cellNumbers } from 'dot-hop';
import type { Controller, ControllerDefinition } from 'dot-hop';
import { durationsOf } from 'dot-hop/explain';
import { compileDocument, readDocument } from 'dot-hop/document';
import * as edit from 'dot-hop/edit';
import type { Edit, History, Renaming } from 'dot-hop/edit';
import { readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type { RehearsalDefinition } from 'dot-hop/rehearsal';
import { often } from './often.js';

const demo = fileURLToPath(new URL('../../../demo', import.meta.url));
const wick = readFileSync(path.join(demo, 'wick.dothop.yaml'), 'utf8');
const size = { columns: 8, count: 96 };
const definitionOf = (text: string): ControllerDefinition =>
  readDocument(text, 'wick.dothop.yaml').definition;

function compiled(text: string): Controller {
  const document = readDocument(text, 'wick.dothop.yaml');
  const files = [...document.images.keys()];
  const images = Object.fromEntries(files.map((file) => [file, { width: 512, height: 728 }]));
  return compileDocument(document, { images });
}

/** Wick with an edit made. */
const after = (make: (definition: ControllerDefinition) => Edit, text = wick): string =>
  edit.changedText(text, make(definitionOf(text)).changes);
const clip = (text: string, name: string): unknown => definitionOf(text).clips[name];

test('frames of a clip with cues and spans: what hangs on them goes with them', () => {
  const before = clip(wick, 'swing1');
  expect(before).toMatchObject({ cells: '38-43', cues: { whoosh: 2 }, spans: { strike: '2-3' } });
  const added = after((one) => edit.insertFrames(one, 'swing1', size, 2, [0, 1]));
  expect(clip(added, 'swing1')).toEqual({
    cells: ['38-39', '0-1', '40-43'],
    ms: [50, 90, 90, 90, 60, 70, 80, 70],
    loop: 'once',
    cues: { whoosh: 4 },
    spans: { strike: '4-5', 'follow-up': '4-7', recovery: 7 },
  });
  const removed = after((one) => edit.removeFrames(one, 'swing1', size, [2, 5]));
  expect(clip(removed, 'swing1')).toEqual({
    cells: ['38-39', '41-42'],
    ms: [50, 90, 70, 80],
    loop: 'once',
    spans: { strike: 2, 'follow-up': '2-3' },
  });
  const moved = after((one) => edit.moveFrame(one, 'swing1', size, 2, 0));
  expect(clip(moved, 'swing1')).toMatchObject({
    cells: [40, '38-39', '41-43'],
    ms: [60, 50, 90, 70, 80, 70],
    cues: { whoosh: 0 },
  });
});

test('times: a rate stays one where it can, else each frame says its own', () => {
  const longer = after((one) => edit.timeFrames(one, 'walk', size, { 3: 200 }));
  expect(clip(longer, 'walk')).toEqual({
    cells: '8-15',
    ms: [91, 91, 91, 200, 91, 91, 91, 91],
    cues: { step: [0, 4] },
    stride: 23,
  });
  const back = after((one) => edit.rateClip(one, 'walk', 11), longer);
  expect(definitionOf(back).clips.walk).toEqual(definitionOf(wick).clips.walk);
  const shorter = after((one) => edit.removeFrames(one, 'walk', size, [7]));
  expect(clip(shorter, 'walk')).toMatchObject({ cells: '8-14', fps: 11 });
});

test('cues and spans come and go, and a loop that is the usual one is not written', () => {
  const cued = after((one) => edit.placeCue(one, 'doze', 'snore', [4, 1]));
  expect(clip(cued, 'doze')).toEqual({ cells: '54-59', fps: 4, cues: { snore: [1, 4] } });
  expect(
    clip(
      after((one) => edit.placeCue(one, 'doze', 'snore', []), cued),
      'doze',
    ),
  ).toEqual(clip(wick, 'doze'));
  const spanned = after((one) => edit.placeSpan(one, 'doze', 'deep', { first: 4, last: 2 }));
  expect(clip(spanned, 'doze')).toMatchObject({ spans: { deep: '2-4' } });
  expect(
    clip(
      after((one) => edit.placeSpan(one, 'doze', 'deep', undefined), spanned),
      'doze',
    ),
  ).toEqual(clip(wick, 'doze'));
  const once = after(() => edit.loopClip('doze', 'once'));
  expect(after(() => edit.loopClip('doze', 'forever'), once)).toBe(wick);
});

test('pivots: one that all share stands at the sheet, and none is written twice', () => {
  const place =
    (pivots: Record<number, readonly [number, number]>): ((one: ControllerDefinition) => Edit) =>
    (one) =>
      edit.placePivots(one, 'wick', pivots, 96);
  const two = after(place({ 0: [30, 50], 10: [31, 51] }));
  expect(definitionOf(two).sheets.wick!.perCell).toMatchObject({
    0: { pivot: [30, 50] },
    10: { points: { waist: [32, 39] }, pivot: [31, 51] },
  });
  // As the sheet has it: written nowhere, and the cell that had nothing else is gone.
  const back = after(place({ 0: [32, 53], 10: [32, 53] }), two);
  expect(definitionOf(back)).toEqual(definitionOf(wick));
  const all = Object.fromEntries(Array.from({ length: 96 }, (_, i) => [i, [32, 54] as const]));
  const shared = definitionOf(after(place(all), two)).sheets.wick!;
  expect(shared.pivot).toEqual([32, 54]);
  expect(Object.values(shared.perCell!).filter(({ pivot }) => pivot !== undefined)).toEqual([]);
});

test('marks are copied, taken off, and followed through a range of cells', () => {
  const copied = after((one) => edit.copyMarks(one, 'wick', 40, [1, 2]));
  expect(definitionOf(copied).sheets.wick!.perCell).toMatchObject({
    1: { points: { waist: [35, 41] }, boxes: { strike: [30, 6, 32, 34] } },
    2: { points: { waist: [35, 41] } },
  });
  const off = after((one) => edit.removeMark(one, 'wick', 'boxes', 'strike', [1]), copied);
  expect(definitionOf(off).sheets.wick!.perCell![1]).toEqual({ points: { waist: [35, 41] } });
  expect(edit.between([3, 4, 5], [0, 10], [5, 20])).toEqual({ 3: [0, 10], 4: [3, 15], 5: [5, 20] });
});

const islands = `dotHop: 1
sheets:
  gull:
    image: gull.png
    size: [90, 20]
    cells:
      - [0, 0, 10, 10]   # sits
      - [20, 0, 10, 10]
      - [40, 0, 10, 10]
      - [60, 0, 10, 10]
      - [80, 0, 10, 10]
    perCell:
      3: { pivot: [5, 9] }
clips:
  sit: { cells: 0 }
  fly: { cells: 1-4, fps: 9 }
`;

test('rectangles are dropped, joined, split and moved, and clips and marks go with their cells', () => {
  const cut = (make: (one: ControllerDefinition) => Edit): unknown[] => {
    const { sheets, clips } = definitionOf(after(make, islands));
    const cells = sheets.gull!.cells!;
    const flies = cellNumbers(clips.fly!.cells, cells.length, cells.length);
    return [
      cells.map((cell) => (cell as readonly number[])[0]),
      flies,
      Object.keys(sheets.gull!.perCell ?? {}),
    ];
  };
  expect(cut((one) => edit.dropCells(one, 'gull', [2]))).toEqual([[0, 20, 60, 80], [1, 2, 3], ['2']]);
  expect(cut((one) => edit.joinCells(one, 'gull', [1, 2]))).toEqual([[0, 20, 60, 80], [1, 2, 3], ['2']]);
  expect(cut((one) => edit.splitCell(one, 'gull', 1, 'x', 25))).toEqual([
    [0, 20, 25, 40, 60, 80],
    [1, 3, 4, 5],
    ['4'],
  ]);
  expect(cut((one) => edit.moveCell(one, 'gull', 3, 0))).toEqual([[60, 0, 20, 40, 80], [2, 3, 0, 4], ['0']]);
  expect(edit.clipsUsing(definitionOf(islands), 'gull', [0], { columns: 5, count: 5 })).toEqual(['sit']);
});

const rehearsals = readdirSync(demo)
  .filter((file) => file.endsWith('.rehearsal.yaml'))
  .map((file) => readFileSync(path.join(demo, file), 'utf8'))
  .filter((text) => text.includes('document: wick'));

test.each<Renaming>([
  { kind: 'state', from: 'go', to: 'move-on' },
  { kind: 'state', from: 'swing1', to: 'first swing' },
  { kind: 'state', from: 'flip', to: 'somersault' },
  { kind: 'clip', from: 'skid', to: 'brake' },
  { kind: 'clip', from: 'run', to: 'sprint' },
  { kind: 'sheet', from: 'wick', to: 'lamplighter' },
  { kind: 'cue', from: 'whoosh', to: 'swish' },
  { kind: 'span', from: 'follow-up', to: 'next' },
  { kind: 'signal', from: 'vx', to: 'along_speed' },
  { kind: 'signal', from: 'moving', to: 'goes' },
  { kind: 'tag', from: 'airborne', to: 'aloft' },
  { kind: 'point', from: 'waist', to: 'belt' },
  { kind: 'box', from: 'strike', to: 'hit' },
  { kind: 'track', from: 'arms', to: 'upper' },
  { kind: 'part', from: 'legs', to: 'lower' },
])('rename: a $kind with all that refers to it, there and back', (renaming) => {
  const definition = definitionOf(wick);
  const now = edit.changedText(wick, edit.rename(definition, renaming).changes);
  // It compiles: nothing asks for the old name any more.
  const controller = compiled(now);
  const back = { kind: renaming.kind, from: renaming.to, to: renaming.from };
  expect(edit.changedText(now, edit.rename(definitionOf(now), back).changes)).toBe(wick);
  expect(rehearsals.length).toBeGreaterThan(2);
  for (const text of rehearsals) {
    const { definition: rehearsal } = readRehearsal(text);
    const renamed = edit.changedText(text, edit.renameInRehearsal(rehearsal, definition, renaming));
    const { outcomes } = runRehearsal(controller, readRehearsal(renamed).definition);
    expect(outcomes.filter(({ met }) => !met)).toEqual([]);
  }
});

test('renaming follows what a rehearsal presses and expects to show, but not the buttons of its body', () => {
  const definition = definitionOf(wick);
  const rehearsal = {
    dotHopRehearsal: 1,
    document: 'wick.dothop.yaml',
    lasts: 900,
    script: [
      { at: 0, press: ['swing', 'jump'] },
      { at: 90, release: 'swing', expect: { clip: 'run' } },
    ],
  } as const;
  const renamed = (kind: 'signal' | 'clip', from: string, to: string, one: RehearsalDefinition): unknown =>
    edit.changedData(one, edit.renameInRehearsal(one, definition, { kind, from, to }));
  expect(renamed('signal', 'swing', 'strike', rehearsal)).toMatchObject({
    script: [{ press: ['strike', 'jump'] }, { release: 'strike' }],
  });
  expect(renamed('clip', 'run', 'sprint', rehearsal)).toMatchObject({
    script: [{}, { expect: { clip: 'sprint' } }],
  });
  expect(renamed('signal', 'jump', 'leap', rehearsal)).toMatchObject({
    script: [{ press: ['swing', 'leap'] }, {}],
  });
  expect(renamed('signal', 'jump', 'leap', { ...rehearsal, body: { platformer: {} } })).toMatchObject({
    script: [{ press: ['swing', 'jump'] }, {}],
    body: { platformer: { feeds: { leap: 'jump' } } },
  });
});

test.each([
  ['states.walk.shows', 'values', ['walk', 'run'], ['moving']],
  ['states.walk.bridges', 'keys', ['stand', 'air'], []],
  ['states.walk.bridges.run', 'values', ['skid'], []],
  ['states.walk.hops.to', 'values', ['stand', 'air'], ['skid']],
  ['states.walk.hops.at', 'values', ['now', 'end', 'whoosh'], ['follow-up']],
  ['states.walk.hops.during', 'values', ['follow-up'], ['whoosh']],
  ['states.walk.when', 'values', ['vx', 'moving', 'airborne'], ['walk']],
  ['states.walk.takes', 'keys', ['body', 'arms'], []],
  ['states.walk.facing.by', 'values', ['vx'], []],
  ['tracks.arms.states.swing1.then', 'values', ['swing1'], ['walk']],
  ['tracks.arms.rest', 'values', ['swing1'], ['walk']],
  ['clips.walk.sheet', 'values', ['wick'], []],
  ['signals.vx', 'values', [], ['vx']],
  ['states', 'keys', [], ['walk']],
] as const)('the names proposed at %s, %s', (path, as, some, none) => {
  const names = edit.proposedNames(definitionOf(wick), path.split('.'))[as];
  expect(names).toEqual(expect.arrayContaining([...some]));
  expect(names.filter((name) => (none as readonly string[]).includes(name))).toEqual([]);
  expect(new Set(names).size).toBe(names.length);
});

/** Edits by chance, some of which follow from what is there. */
function anyEdit(one: ControllerDefinition, [what, which, number]: readonly [number, number, number]): Edit {
  const names = Object.keys(one.clips);
  const name = names[which % names.length]!;
  const frames = edit.framesOf(one.clips[name]!, size)!.length;
  const frame = number % frames;
  return [
    () => edit.timeFrames(one, name, size, { [frame]: 30 + number }),
    () => edit.insertFrames(one, name, size, frame, [number % 94]),
    () => edit.removeFrames(one, name, size, [frame]),
    () => edit.moveFrame(one, name, size, frame, which % frames),
    () => edit.duplicateFrame(one, name, size, frame),
    () => edit.placeCue(one, name, 'tick', [frame]),
    () => edit.placeSpan(one, name, 'sweep', { first: frame, last: frame }),
    () => edit.rateClip(one, name, 1 + (number % 30)),
    () => edit.loopClip(name, number % 2 === 0 ? 'once' : 'back-and-forth'),
    () => edit.placePivots(one, 'wick', { [number % 94]: [number % 60, 50] }, 96),
    () => edit.copyMarks(one, 'wick', which % 94, [number % 94]),
    () => edit.moveClip(name, number % names.length),
    () => edit.duplicateClip(one, name),
    () => edit.strideClip(name, 1 + number),
  ][what % 14]!();
}

test('law: forty mixed edits undone give the text back letter by letter, and done again the same as before', () => {
  const numbers = fc.tuple(fc.nat(), fc.nat(), fc.nat(200));
  fc.assert(
    fc.property(fc.array(numbers, { minLength: 40, maxLength: 40 }), (many) => {
      let history: History = edit.beginHistory(wick);
      for (const one of many) {
        const definition = definitionOf(history.text);
        const made = anyEdit(definition, one);
        history = edit.edited(history, made);
        // What shows at once is what the text then says.
        expect(edit.changedData(definition, made.changes)).toEqual(definitionOf(history.text));
      }
      const { text } = history;
      const count = history.past.length;
      while (edit.undoSays(history) !== undefined) history = edit.undone(history);
      expect(history.text).toBe(wick);
      expect(history.future).toHaveLength(count);
      while (edit.redoSays(history) !== undefined) history = edit.redone(history);
      expect(history.text).toBe(text);
    }),
    { numRuns: often(1) },
  );
});

test('steps that join are one, typing and edits share one history, and it says what it undoes', () => {
  const start = edit.beginHistory('a: 1\n');
  let now = edit.withText(start, 'a: 12\n', 'type', 'typing');
  now = edit.withText(now, 'a: 123\n', 'type', 'typing');
  now = edit.edited(now, { says: 'say b', changes: [{ op: 'set', path: ['b'], value: 2 }] });
  expect([now.text, now.past.length, edit.undoSays(now)]).toEqual(['a: 123\nb: 2\n', 2, 'say b']);
  now = edit.undone(now);
  expect([now.text, edit.redoSays(now)]).toEqual(['a: 123\n', 'say b']);
  // Something else done: what was undone cannot be done again.
  const other = edit.withText(now, 'a: 9\n', 'type', 'typing');
  expect(edit.redoSays(other)).toBeUndefined();
  expect(edit.undone(edit.undone(other)).text).toBe('a: 1\n');
  expect(edit.withText(now, now.text, 'nothing')).toBe(now);
});

test('a track and a state of one name are told apart', () => {
  const text = `dotHop: 1
sheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }
clips: { c: { cells: 0 } }
states: { stand: { shows: c, takes: [arms] }, nod: { shows: c, while: arms == arms } }
tracks: { arms: { rest: arms, states: { arms: { shows: c, hops: [{ to: swing }] }, swing: { shows: c, hops: [{ to: arms }] } } } }
`;
  const { changes } = edit.rename(definitionOf(text), { kind: 'track', from: 'arms', to: 'upper' });
  const now = text.replace('[arms]', '[upper]').replace('arms == arms', 'upper == arms');
  expect(edit.changedText(text, changes)).toBe(now.replace('tracks: { arms:', 'tracks: { upper:'));
  const rehearsal: RehearsalDefinition = {
    dotHopRehearsal: 1,
    document: 'a.dothop.yaml',
    lasts: 9,
    script: [],
    expect: [
      { at: 1, state: 'arms.arms' },
      { at: 2, state: 'arms' },
    ],
  };
  const renaming: Renaming = { kind: 'track', from: 'arms', to: 'upper' };
  expect(
    edit.changedData(rehearsal, edit.renameInRehearsal(rehearsal, definitionOf(text), renaming)),
  ).toMatchObject({ expect: [{ state: 'upper.arms' }, { state: 'arms' }] });
});

test('what accepts a finding deep in groups and tracks is renamed along, wherever the name stands in its place', () => {
  const text = `dotHop: 1
sheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }
clips: { c: { cells: 0 } }
signals: { up: { flag: false } }
states: { stand: { shows: c } }
tracks:
  arms:
    states: { hang: { shows: c } }
    groups: { high: { while: up, rest: wave, states: { wave: { shows: c } } } }
accept: [{ finding: flicker, at: "tracks.arms.groups.high.states.wave.hops[0]", because: so }]
`;
  const placeAfter = (renaming: Renaming): string =>
    definitionOf(edit.changedText(text, edit.rename(definitionOf(text), renaming).changes)).accept![0]!.at!;
  expect(placeAfter({ kind: 'track', from: 'arms', to: 'upper' })).toBe(
    'tracks.upper.groups.high.states.wave.hops[0]',
  );
  expect(placeAfter({ kind: 'state', from: 'high', to: 'aloft' })).toBe(
    'tracks.arms.groups.aloft.states.wave.hops[0]',
  );
  expect(placeAfter({ kind: 'state', from: 'wave', to: 'hail' })).toBe(
    'tracks.arms.groups.high.states.hail.hops[0]',
  );
  expect(placeAfter({ kind: 'clip', from: 'c', to: 'states' })).toBe(
    'tracks.arms.groups.high.states.wave.hops[0]',
  );
});

test('times of frames are the ones that then play', () => {
  const text = after((one) => edit.timeFrames(one, 'knocked', size, { 0: 333, 15: 44 }));
  const played = durationsOf(compiled(text).clips.get('knocked')!);
  expect([played[0], played[1], played[15]]).toEqual([333, 80, 44]);
});

test('a state that a track is compared with is renamed with and without quotes, and an option is no signal', () => {
  const text = `dotHop: 1
sheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }
clips: { c: { cells: 0 } }
signals: { mode: { choice: [ladder, quay] }, ladder: { flag: false } }
states:
  stand: { shows: c }
  climb: { shows: c, while: mode == ladder and not ladder, priority: 1 }
tracks:
  arms:
    states:
      hang: { shows: c }
      swing: { shows: c, while: "body.climb and body != stand and 'swing' != arms", priority: 1 }
`;
  const renamed = (renaming: Renaming): string =>
    edit.changedText(text, edit.rename(definitionOf(text), renaming).changes);
  expect(renamed({ kind: 'signal', from: 'ladder', to: 'rung' })).toContain(
    'while: mode == ladder and not rung,',
  );
  expect(renamed({ kind: 'state', from: 'stand', to: 'stand-by' })).toContain("body != 'stand-by' and");
  expect(renamed({ kind: 'state', from: 'swing', to: 'big_swing' })).toContain("'big_swing' != arms");
  expect(renamed({ kind: 'track', from: 'arms', to: 'upper' })).toContain("'swing' != upper");
  expect(renamed({ kind: 'track', from: 'arms', to: 'upper' })).toContain('  upper:\n    states:');
});
