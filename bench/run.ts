// npm run bench: what a step costs, as a ratio against the same character written by hand, both in one run, turn by turn,
// after it was checked that both show the same at every tick. Results are medians; a ratio under 1 means less time than
// by hand. `--json` prints them as data; `--page` writes the table into docs/performance.md as well.
import { readFileSync, writeFileSync } from 'node:fs';
import { Performer, compileController } from 'dot-hop';
import type { CompassDefinition, Controller, ControllerDefinition, Outfit } from 'dot-hop';
import { wardrobeOf } from 'dot-hop/wardrobe';
import { bytesPerAnything, bytesPerPose, bytesPerStep, demo, settledMemory } from './bytes.js';
import { document, times } from './character.js';
import { load, ticks } from './load.js';
import type { Load } from './load.js';
import { median } from './median.js';
import { byHand, byPerformers, byTroupe, reading } from './players.js';
import type { Way } from './players.js';
import { byArrays } from './arrays.js';
import { crowd } from './crowd.js';
import type * as Yardstick from './yardstick.js';

/** Ways by their names; how each keeps its characters is its own. */
type Ways = Readonly<Record<string, Way<unknown>>>;

type Named = [name: string, way: Way<unknown>];

/** Nanoseconds of a step by way, one for each turn. */
type Times = Record<string, number[]>;

const count = 500;
const turns = 40;
const warmUps = 8;
const json = process.argv.includes('--json');
const page = process.argv.includes('--page') ? new URL('../docs/performance.md', import.meta.url) : undefined;
const say = (text: string): void => {
  if (!json) console.log(text);
};

const names = Object.keys(times);
// A module loaded under another address is another class to the engine, as other characters' classes would be.
const eight = (rest = ''): Promise<(typeof Yardstick.HandWritten)[]> =>
  Promise.all(
    Array.from({ length: 8 }, async (_, i) => {
      const loaded = (await import(`./yardstick.js?kind=${i}${rest}`)) as typeof Yardstick;
      return loaded.HandWritten;
    }),
  );
const kinds = await eight();
const ownKinds = await eight('&own');
const compiled = (definition: ControllerDefinition): Controller => compileController(definition);
const controllers = Array.from({ length: 8 }, () => compiled(document()));
const controller = controllers[0]!;

const ways = {
  // Of a class of its own, so that the engine counts on it alone.
  'by hand': byHand(ownKinds.slice(0, 1), names),
  'by hand, over arrays': byArrays(),
  performer: byPerformers(controllers.slice(0, 1)),
  'performer, 40 states': byPerformers([compiled(document(28))]),
  troupe: byTroupe(controller),
};
// Played after the others: before, the engine could count on one kind of character written by hand.
const mixedWays = {
  'by hand, 8 kinds': byHand(kinds, names),
  'by hand, 8 written apart': byHand(ownKinds, names),
  'performer, 8 controllers': byPerformers(controllers),
};
// What facing costs: the same character without a compass, and with eight directions by both parts of its velocity.
const never: CompassDefinition = { directions: 'none' };
const around: CompassDefinition = {
  directions: 'eight',
  mirror: 'west',
  by: ['vx', 'vy'],
  deadZone: 6,
  stick: 8,
};
const facingWays = {
  'never turns': byPerformers([compiled({ ...document(), compass: never })]),
  'two sides': byPerformers([compiled(document())]),
  'eight directions': byPerformers([compiled({ ...document(), compass: around })]),
  'eight, each 60 ms': byPerformers([compiled({ ...document(), compass: { ...around, through: 60 } })]),
};
// What a further track costs: one whose arms hang along all the time, and one that swings while the legs go on.
const { states: legs, ...further } = document();
const { swing1, swing2, ...walking } = legs;
if (swing1 === undefined || swing2 === undefined) throw new Error('the character swings no more');
const along = { along: { inStep: 'body' } };
const trackWays = {
  'one track': byPerformers([compiled(document())]),
  'arms that hang along': byPerformers([compiled({ ...document(), tracks: { arms: { states: along } } })]),
  'arms that swing': byPerformers([
    compiled({
      ...further,
      states: walking,
      tracks: { arms: { states: { ...along, swing1, swing2 } } },
    }),
  ]),
};
// What is worn: the same character, its pose read at every tick, bare, in one layer and in four.
const layers = ['coat', 'hair', 'hat', 'bag'];
const { sheets } = document();
const [bodySheet, body] = Object.entries(sheets)[0]!;
const clothed = compiled({
  ...document(),
  sheets: {
    ...sheets,
    ...Object.fromEntries(layers.map((name) => [name, { ...body, image: `${name}.png` }])),
  },
  clips: Object.fromEntries(
    Object.entries(document().clips).map(([name, clip]) => [
      name,
      { ...clip, sheet: clip.sheet ?? bodySheet },
    ]),
  ),
  wardrobe: {
    layers: Object.fromEntries(layers.map((name) => [name, { pieces: { one: { sheet: name } } }])),
  },
});
const inLayers = (count: number, controller: Controller = clothed): Outfit =>
  wardrobeOf(controller)!.outfit({
    pieces: Object.fromEntries(layers.slice(0, count).map((name) => [name, 'one'])),
  });
// The same where the arms swing by themselves, and what is worn is cut in parts as the body is.
const parts = { legs: 's-legs.png', arms: 's-arms.png' };
const inParts = compiled({
  ...clothed.definition,
  sheets: Object.fromEntries(
    Object.entries(clothed.definition.sheets).map(([name, sheet]) => [name, { ...sheet, parts }]),
  ),
  states: walking,
  tracks: { arms: { draws: ['arms'], states: { ...along, swing1, swing2 } } },
});
const wornWays = {
  'pose read, bare': reading(clothed, undefined),
  'pose read, one layer': reading(clothed, inLayers(1)),
  'pose read, four layers': reading(clothed, inLayers(4)),
};
const loads = { calm: load(count, 4), busy: load(count, 97), restless: load(count, 97, true) };

/** A load as all ways played it. */
interface Played {
  /** Of what was shown. */
  readonly hash: string;
  readonly changing: number;
  readonly ns: Times;
}

/** A hash (FNV-1a) of what each character shows at every tick, and of the cues it has had. */
function hashOf<All>(way: Way<All>, given: Load): { hash: number; trail: string[] } {
  let hash = 0x811c9dc5;
  const trail: string[] = [];
  const all = way.make(given.count);
  for (let t = 0; t < ticks; t++) {
    way.run(all, given, t, t + 1);
    for (let i = 0; i < given.count; i++) {
      const text = way.shown(all, i).join(' ');
      trail.push(text);
      for (let c = 0; c < text.length; c++) hash = Math.imul(hash ^ text.charCodeAt(c), 0x01000193);
    }
  }
  return { hash: hash >>> 0, trail };
}

/** The hash of what all ways show. @throws with the first place at which one shows something else */
function checkEqual(all: Ways, given: Load, loadName: string): string {
  const [[first, way], ...others] = Object.entries(all) as [Named, ...Named[]];
  const one = hashOf(way, given);
  for (const [name, other] of others) {
    const { hash, trail } = hashOf(other, given);
    if (hash === one.hash) continue;
    const at = trail.findIndex((text, i) => text !== one.trail[i]);
    const place = `tick ${Math.floor(at / given.count)}, character ${at % given.count}`;
    throw new Error(
      `${loadName}: ${first} shows ${one.trail[at]} at ${place}, but ${name} shows ${trail[at]}`,
    );
  }
  return one.hash.toString(16);
}

/** Median nanoseconds of a step, for each way, turn by turn. */
function measure(all: Ways, given: Load): Times {
  const taken: Times = Object.fromEntries(Object.keys(all).map((name) => [name, []]));
  for (let turn = 0; turn < turns + warmUps; turn++)
    for (const [name, way] of Object.entries(all)) {
      const characters = way.make(given.count);
      const begin = performance.now();
      way.run(characters, given, 0, ticks);
      if (turn >= warmUps) taken[name]!.push(performance.now() - begin);
    }
  const steps = given.speeds.length;
  return Object.fromEntries(
    Object.entries(taken).map(([name, list]) => [name, list.map((ms) => (ms * 1e6) / steps)]),
  );
}

function bytesPerPerformer(): number {
  const many = 50_000;
  const all = new Array<Performer | null>(many).fill(null);
  for (let i = 0; i < 100; i++) new Performer(controller);
  const before = settledMemory();
  for (let i = 0; i < many; i++) all[i] = new Performer(controller);
  const bytes = (settledMemory() - before) / many;
  return all.length === many ? bytes : NaN;
}

/** Milliseconds. */
function compileTime(
  definition: ControllerDefinition,
  times = 400,
): { readonly first: number; readonly median: number } {
  const taken: number[] = [];
  for (let i = 0; i < times; i++) {
    const begin = performance.now();
    compileController(definition);
    taken.push(performance.now() - begin);
  }
  return { first: taken[0]!, median: median(taken) };
}

say(`${count} characters, ${ticks} ticks, medians of ${turns} turns; results checked to be equal`);
const compile = compileTime(document(28));
const compileMany = [1988, 7988].map((more) => compileTime(document(more), 3).median);
const played = (name: string, given: Load): Played => ({
  hash: checkEqual(ways, given, name),
  changing: given.changing,
  ns: measure(ways, given),
});
const calm = played('calm', loads.calm);
const busy = played('busy', loads.busy);
const restless = played('restless', loads.restless);
const all = { calm, busy, restless };
for (const name of ['calm', 'busy'] as const)
  Object.assign(all[name].ns, measure(facingWays, loads[name]), measure(wornWays, loads[name]));
for (const name of ['calm', 'busy'] as const) Object.assign(all[name].ns, measure(trackWays, loads[name]));
const bytes = {
  step: bytesPerStep(controller),
  stepFacing: bytesPerStep(compiled({ ...document(), compass: around })),
  pose: bytesPerPose(clothed, inLayers(4)),
  poseInParts: bytesPerPose(inParts, inLayers(4, inParts)),
  anything: bytesPerAnything(demo('wick.dothop.yaml')),
  anythingAround: bytesPerAnything(demo('townsfolk/folk.dothop.yaml')),
  performer: bytesPerPerformer(),
};
for (const name of ['calm', 'busy', 'restless'] as const) {
  if (checkEqual(mixedWays, loads[name], name) !== all[name].hash)
    throw new Error(`${name}: 8 kinds show otherwise`);
  Object.assign(all[name].ns, measure(mixedWays, loads[name]));
}
const many = crowd(byHand(ownKinds.slice(0, 1), names), byArrays(), byTroupe(controller), controller);

// The median of each turn's ratio: a machine that others slow down now and then slows both in one turn.
const ratio = ({ ns }: Played, one: string, other: string): number =>
  median(ns[one]!.map((time, turn) => time / ns[other]![turn]!));
const figures: readonly [what: string, value: number, must: number, aim: number][] = [
  ['performer against by hand, calm', ratio(calm, 'performer', 'by hand'), 0.7, 0.5],
  ['performer against by hand, busy', ratio(busy, 'performer', 'by hand'), 0.75, 0.55],
  ['the same where all turn, hop and swing at once', ratio(restless, 'performer', 'by hand'), 1.1, 0.8],
  [
    '8 controllers against 8 kinds by hand, calm',
    ratio(calm, 'performer, 8 controllers', 'by hand, 8 kinds'),
    0.2,
    0.12,
  ],
  [
    '8 controllers against 8 kinds by hand, busy',
    ratio(busy, 'performer, 8 controllers', 'by hand, 8 kinds'),
    0.3,
    0.2,
  ],
  [
    'the same, each kind written from scratch, calm',
    ratio(calm, 'performer, 8 controllers', 'by hand, 8 written apart'),
    NaN,
    NaN,
  ],
  [
    'the same, each kind written from scratch, busy',
    ratio(busy, 'performer, 8 controllers', 'by hand, 8 written apart'),
    NaN,
    NaN,
  ],
  ['40 states against 12, calm', ratio(calm, 'performer, 40 states', 'performer'), 1.1, 1.05],
  ['40 states against 12, busy', ratio(busy, 'performer, 40 states', 'performer'), 1.1, 1.05],
  ['two sides against never turning, busy', ratio(busy, 'two sides', 'never turns'), NaN, NaN],
  ['eight directions against never turning, calm', ratio(calm, 'eight directions', 'never turns'), NaN, NaN],
  ['eight directions against never turning, busy', ratio(busy, 'eight directions', 'never turns'), NaN, NaN],
  [
    'arms that hang along against one track, calm',
    ratio(calm, 'arms that hang along', 'one track'),
    1.8,
    1.5,
  ],
  [
    'arms that hang along against one track, busy',
    ratio(busy, 'arms that hang along', 'one track'),
    1.8,
    1.5,
  ],
  ['arms that swing against one track, calm', ratio(calm, 'arms that swing', 'one track'), 1.8, 1.5],
  ['arms that swing against one track, busy', ratio(busy, 'arms that swing', 'one track'), 1.8, 1.5],
  ['one layer worn against bare, calm', ratio(calm, 'pose read, one layer', 'pose read, bare'), NaN, NaN],
  ['four layers worn against bare, calm', ratio(calm, 'pose read, four layers', 'pose read, bare'), 1.5, 1.3],
  ['four layers worn against bare, busy', ratio(busy, 'pose read, four layers', 'pose read, bare'), NaN, NaN],
  ['bytes allocated a step', bytes.step, 0, 0],
  ['bytes allocated to read a dressed pose', bytes.pose, 0, 0],
  ['the same, in parts that two tracks draw', bytes.poseInParts, 0, 0],
  ['bytes allocated a step, eight directions', bytes.stepFacing, 0, 0],
  ['the lamplighter, all of him by chance, dressed', bytes.anything, 0, 0],
  ['one of the townsfolk, likewise', bytes.anythingAround, 0, 0],
  ['bytes of a performer', bytes.performer, 250, 200],
  ['a troupe of 100,000 against by hand, calm', many.calm, 0.15, 0.08],
  ['a troupe of 100,000 against by hand, busy', many.busy, 0.55, 0.45],
  ['a troupe of a million against loops over arrays, calm', many.ofMillion, 3, 1.5],
  ['ns of a step for a member that sleeps', many.asleep, 0.2, 0],
  ['ns to save a performer', many.save, 500, 100],
  ['ns to load a performer', many.load, 500, 100],
  ['ns to save a member, all of a troupe', many.saveMember, 500, 100],
  ['ns to load a member, all of a troupe', many.loadMember, 500, 100],
  ['bytes of a member of a troupe', many.bytes, 80, 48],
  ['ms to compile 40 states, the first time here', compile.first, NaN, NaN],
  ['ms to compile 40 states, median of 400', compile.median, 1.5, 1],
  ['ms to compile 2,000 states, median of three', compileMany[0]!, 200, 100],
  ['ms to compile 8,000 states, likewise', compileMany[1]!, 1000, 500],
];
const rows = figures.map(([what, value, must, aim]) => ({ what, value, must, aim }));

const figure = (value: number): string =>
  Number.isNaN(value) ? '' : value.toFixed(value === 0 || value >= 10 ? 0 : 2);
if (page !== undefined) {
  const table = rows.map(
    ({ what, value, must, aim }) =>
      `| ${what} | ${figure(value)} | ${Number.isNaN(must) ? '' : must} | ${Number.isNaN(aim) ? '' : aim} |`,
  );
  const text = [
    `Measured on ${new Date().toISOString().slice(0, 10)} with Node ${process.versions.node.split('.')[0]} on two cores of a shared machine:`,
    '',
    '| | measured | must | aim |',
    '| --- | --- | --- | --- |',
    ...table,
  ].join('\n');
  const between = /(<!-- bench -->\n)[\s\S]*(<!-- \/bench -->)/;
  writeFileSync(
    page,
    readFileSync(page, 'utf8').replace(between, (_, from: string, to: string) => `${from}\n${text}\n\n${to}`),
  );
}
if (json)
  console.log(
    JSON.stringify({ compile, compileMany, loads: all, bytes, crowd: many, targets: rows }, null, 2),
  );
else {
  for (const [name, { hash, changing, ns }] of Object.entries(all)) {
    console.log(
      `${name}: ${(changing * 100).toFixed(0)}% of the characters change in a tick; all show ${hash}`,
    );
    for (const [way, times] of Object.entries(ns))
      console.log(`  ${way.padEnd(26)} ${median(times).toFixed(1).padStart(7)} ns a step`);
  }
  console.log(`${''.padEnd(46)}  value   must    aim`);
  for (const { what, value, must, aim } of rows) {
    const verdict = Number.isNaN(must)
      ? ''
      : value <= must + 0.005
        ? value <= aim + 0.005
          ? 'aim reached'
          : 'must reached'
        : 'NOT REACHED';
    const cells = [
      value.toFixed(value < 10 ? 2 : 0),
      Number.isNaN(must) ? '' : String(must),
      Number.isNaN(aim) ? '' : String(aim),
    ].map((text) => text.padStart(7));
    console.log(`${what.padEnd(44)} ${cells.join('')}   ${verdict}`);
  }
}
