// npm run bench: what a step costs, as a ratio against the same character written by hand, both in one run, turn by
// turn. Results are medians; a ratio under 1 means less time than by hand.
import { Performer, compileController } from 'dot-hop';
import { HandWritten } from './yardstick.mjs';

const count = 2000;
const ticks = 120;
const turns = 15;
const tick = 1000 / 60;

const clip = (first, frames, ms, loop = 'forever', cues = {}) => ({
  cells: `${first}-${first + frames - 1}`,
  ms,
  loop,
  cues,
});
const step = { step: [0, 4] };

/** The yardstick's character as a document. */
const definition = {
  dotHop: 1,
  sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
  clips: {
    stand: clip(0, 8, 125),
    walk: clip(8, 8, 90, 'forever', step),
    run: clip(16, 8, 70, 'forever', step),
    takeoff: clip(24, 4, 40, 'once'),
    rise: clip(28, 2, 110),
    fall: clip(30, 2, 100),
    land: clip(32, 3, 70, 'once'),
    swing: clip(35, 6, 70, 'once'),
    hurt: clip(41, 4, 110, 'once'),
  },
  compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0], deadZone: 6 },
  signals: {
    vx: { number: 0 },
    vy: { number: 0 },
    grounded: { flag: true },
    jump: { pulse: { keep: 120 } },
    swing: { pulse: { keep: 200 } },
    hurt: { pulse: true },
  },
  derived: {
    speed: 'abs(vx)',
    moving: { of: 'speed', above: 12, below: 8 },
    fast: { of: 'speed', above: 95, below: 80 },
  },
  states: {
    stand: { shows: 'stand' },
    walk: { shows: 'walk', while: 'grounded && moving', priority: 10 },
    run: { shows: 'run', while: 'grounded && fast', priority: 12 },
    land: { shows: 'land', when: 'grounded', while: 'grounded', priority: 15 },
    fall: { shows: 'fall', while: '!grounded && vy >= 0', priority: 20 },
    rise: { shows: 'rise', while: '!grounded && vy < 0', priority: 20 },
    takeoff: { shows: 'takeoff', when: 'jump && grounded', priority: 30 },
    swing: { shows: 'swing', when: 'swing && grounded', priority: 40 },
    hurt: { shows: 'hurt', when: 'hurt', priority: 60 },
  },
  rest: 'stand',
};

/** The same numbers for everybody, whatever the order in which they are asked. */
function chance(seed) {
  let value = Math.imul(seed ^ 0x9e3779b1, 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return ((value ^ (value >>> 16)) >>> 0) / 2 ** 32;
}

/**
 * For each tick and character a new speed, or NaN where nothing changes. Bodies speed up and slow down, left and right,
 * once in a second and a half to three; in a calm load 5 of 100 tell their new speed in a tick, in a busy one 97.
 */
function script(share) {
  return Float64Array.from({ length: ticks * count }, (_, k) => {
    if (chance(k) >= share) return NaN;
    const [tickOf, one] = [Math.floor(k / count), k % count];
    const period = 90 + chance(one + 3_000_000) * 90;
    return 140 * Math.sin((tickOf / period + chance(one + 7_000_000)) * 2 * Math.PI);
  });
}

const controller = compileController(definition);

const ways = {
  'by hand': {
    make: () => Array.from({ length: count }, () => new HandWritten()),
    run(all, speeds) {
      for (let t = 0, k = 0; t < ticks; t++)
        for (let i = 0; i < count; i++, k++) {
          const one = all[i];
          const speed = speeds[k];
          if (speed === speed) one.vx = speed;
          if (k % 977 === 0) one.swing();
          one.step(tick);
        }
    },
  },
  performer: {
    make: () => Array.from({ length: count }, () => new Performer(controller)),
    run(all, speeds) {
      for (let t = 0, k = 0; t < ticks; t++)
        for (let i = 0; i < count; i++, k++) {
          const one = all[i];
          const speed = speeds[k];
          if (speed === speed) one.set('vx', speed);
          if (k % 977 === 0) one.pulse('swing');
          one.step(tick);
        }
    },
  },
};

const median = (list) => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)];

const loads = { calm: script(0.05), busy: script(0.97) };
const results = [];
for (const [load, speeds] of Object.entries(loads)) {
  const taken = Object.fromEntries(Object.keys(ways).map((name) => [name, []]));
  for (let turn = 0; turn < turns + 3; turn++)
    for (const [name, { make, run }] of Object.entries(ways)) {
      const all = make();
      const begin = performance.now();
      run(all, speeds);
      // The first turns warm the compiler up.
      if (turn >= 3) taken[name].push(performance.now() - begin);
    }
  const perStep = (name) => (median(taken[name]) * 1e6) / (count * ticks);
  results.push({
    load,
    byHand: perStep('by hand'),
    performer: perStep('performer'),
    ratio: perStep('performer') / perStep('by hand'),
  });
}

/** Bytes that a step allocates, over many steps of one performer that runs, turns and swings. */
function bytesPerStep() {
  const one = new Performer(controller);
  const go = (steps) => {
    for (let i = 0; i < steps; i++) {
      if (i % 40 === 0) one.set('vx', i % 80 === 0 ? 120 : -30);
      if (i % 300 === 0) one.pulse('swing');
      one.step(tick);
    }
  };
  go(100_000);
  globalThis.gc?.();
  const before = process.memoryUsage().heapUsed;
  go(200_000);
  return (process.memoryUsage().heapUsed - before) / 200_000;
}

const bytes = bytesPerStep();
if (process.argv.includes('--json'))
  console.log(JSON.stringify({ loads: results, bytesPerStep: bytes }, null, 2));
else {
  console.log(`${count} characters, ${ticks} ticks, median of ${turns} turns`);
  for (const { load, byHand, performer, ratio } of results)
    console.log(
      `  ${load.padEnd(5)} by hand ${byHand.toFixed(1)} ns   performer ${performer.toFixed(1)} ns   ratio ${ratio.toFixed(2)}`,
    );
  console.log(`  bytes allocated a step: ${bytes.toFixed(3)}`);
}
