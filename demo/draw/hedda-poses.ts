// The fishwife's poses, clip by clip: each is one row of her sheet.
import { frames, step, wave } from './cycle.js';
import type { Change } from './hedda-body.js';

const breathing = (p: number, i: number, hip = -13): Change => {
  const breath = (1 - Math.cos(p * 2 * Math.PI)) / 2;
  return {
    hip: [0, hip + breath * 0.4],
    headMove: [0, breath * 0.7],
    tails: [-130 + wave(p) * 4, 5],
    hem: [0, breath * 0.3],
    eye: i === 4 ? 'shut' : 'open',
  };
};

/** One arm up at the basket on her head, the other at her hip. */
const carrying: Change = { basket: 'head', nearHand: [-4.6, -8.2], nearElbow: -1, farHand: [4.6, 5.8] };

const stand: readonly Change[] = frames(6, (p, i) => ({
  ...breathing(p, i),
  nearHand: [3.2, 6.6 + wave(p) * 0.3],
  farHand: [5, 5.6 + wave(p) * 0.3],
}));

const stroll = { reach: 5.8, stance: 0.62, lift: 2.6, heel: -16, toe: 30 };
const walking = (p: number): Change => ({
  hip: [0, -12.9 + 0.7 * Math.cos((p - 0.09) * 4 * Math.PI)],
  lean: 5,
  headMove: [0.2, 0.35 * Math.cos((p - 0.2) * 4 * Math.PI)],
  nearFoot: step(p, stroll),
  farFoot: step(p + 0.5, stroll),
  hem: [-0.9 + wave(p * 2) * 0.7, 0.3],
  tails: [-112 + wave(p * 2, 0.1) * 9, 5.6],
});
const walk: readonly Change[] = frames(8, (p) => ({
  ...walking(p),
  nearHand: [0.6 - wave(p, 0.25) * 4.6, 7.4 - Math.abs(wave(p, 0.25)) * 0.8],
  farHand: [0.8 + wave(p, 0.25) * 4.6, 7.2 - Math.abs(wave(p, 0.25)) * 0.8],
}));

const loadedStand: readonly Change[] = frames(6, (p, i) => ({ ...breathing(p, i), ...carrying }));
const loadedWalk: readonly Change[] = frames(8, (p) => ({
  ...walking(p),
  ...carrying,
  lean: 2,
  farHand: [2 + wave(p, 0.25) * 3.4, 6.8 - Math.abs(wave(p, 0.25)) * 0.6],
  tip: wave(p * 2, 0.15) * 1.6,
}));

/** She draws breath, puts a hand to her mouth, and cries her fish. */
const cry: readonly Change[] = [
  { hip: [-0.4, -12.8], lean: -3, headMove: [0, 0.3], nearHand: [3.6, 5.4], farHand: [1.6, 6.8] },
  {
    hip: [-0.7, -12.6],
    lean: -8,
    head: -6,
    nearHand: [4.6, 1],
    farHand: [-1.6, 7],
    eye: 'shut',
    tails: [-140, 5],
  },
  {
    hip: [0.4, -13.2],
    lean: 7,
    head: 4,
    nearHand: [7, -3.4],
    farHand: [-3.8, 6],
    mouth: true,
    tails: [-104, 6],
    hem: [-0.8, 0.4],
  },
  {
    hip: [0.6, -13.3],
    lean: 9,
    head: 5,
    nearHand: [7.3, -3.7],
    farHand: [-4.4, 5.4],
    mouth: true,
    tails: [-98, 6.2],
    hem: [-1, 0.6],
  },
  {
    hip: [0.4, -13.1],
    lean: 7,
    head: 3,
    nearHand: [7, -3.3],
    farHand: [-4, 5.8],
    mouth: true,
    tails: [-110, 5.6],
    hem: [-0.6, 0.4],
  },
  { hip: [0, -13], lean: 3, nearHand: [4.4, 3.4], farHand: [1, 6.8], tails: [-124, 5] },
];

/** The same under her basket: she keeps her head up, so that nothing falls. */
const loadedCry = cry.map(({ lean = 0, head = 0, ...pose }): Change => ({
  ...pose,
  ...{ lean: lean * 0.35, head: head * 0.25, basket: 'head', farHand: [3.6, 6] },
}));

/** At her stall she sorts the fish before her. */
const tend: readonly Change[] = frames(6, (p, i) => ({
  ...breathing(p, i, -12.8),
  lean: 9,
  head: 10,
  nearHand: [6.4 + wave(p) * 1.6, 4.6 - Math.max(0, wave(p)) * 1.6],
  farHand: [6.8 - wave(p) * 1.6, 4.4 - Math.max(0, -wave(p)) * 1.6],
  eye: 'open',
}));

/** A fish is taken up, weighed in the hand, handed over, and the coin is put away. */
const sell: readonly Change[] = [
  { hip: [0.4, -12.2], lean: 18, head: 8, nearHand: [6.4, 6.4], farHand: [5, 6], hem: [-0.8, 0.2] },
  { hip: [0, -12.8], lean: 5, head: 2, nearHand: [6.2, 0.8], farHand: [4.6, 5.4], fish: 'near' },
  { hip: [0, -13], lean: 3, head: -2, nearHand: [6.4, -0.4], farHand: [4.6, 5.4], fish: 'near', mouth: true },
  {
    hip: [0.8, -12.9],
    lean: 10,
    head: 2,
    nearHand: [9.2, 1],
    farHand: [2.4, 6.2],
    fish: 'held',
    hem: [-1, 0.4],
  },
  {
    hip: [1, -12.8],
    lean: 12,
    head: 3,
    nearHand: [9.6, 1.4],
    farHand: [1.8, 6.4],
    fish: 'held',
    hem: [-1, 0.4],
  },
  { hip: [0.4, -12.9], lean: 5, head: 4, nearHand: [7, 3], farHand: [3.4, 6.4] },
  { hip: [0, -13], lean: 3, head: 6, nearHand: [2.2, 6.4], farHand: [4.4, 5.8], eye: 'shut' },
];

/** On a wet plank the feet go from under her; she lands on her seat. */
const slip: readonly Change[] = [
  {
    hip: [-0.4, -12.6],
    lean: -8,
    head: -4,
    nearFoot: [3, -0.6, -14],
    farFoot: [5, -1.2, -20],
    nearHand: [6.4, -1.4],
    farHand: [-4.6, 2],
    eye: 'wide',
    mouth: true,
    hem: [0.8, 0.6],
  },
  {
    hip: [-1.6, -11.4],
    lean: -24,
    head: 6,
    nearFoot: [6.4, -3.4, -34],
    farFoot: [8.6, -4.6, -40],
    nearHand: [6.4, -5.4],
    farHand: [-5.6, -3.4],
    eye: 'wide',
    mouth: true,
    hem: [2, 1.4],
    tails: [-60, 6],
  },
  {
    hip: [-3, -8],
    lean: -26,
    head: 10,
    nearFoot: [7.6, -3.6, -40],
    farFoot: [9.8, -5, -46],
    nearHand: [5.6, -6.4],
    farHand: [-4.4, -5.8],
    eye: 'wide',
    mouth: true,
    hem: [3.6, 1],
    tails: [-30, 6.4],
    seat: 4,
  },
  {
    hip: [-3.4, -4.2],
    lean: -14,
    head: 16,
    nearFoot: [7.6, -0.2, -30],
    farFoot: [9.8, -0.4, -36],
    nearHand: [1.4, 7.4],
    farHand: [-5, 6.2],
    eye: 'shut',
    hem: [4, 0.6],
    tails: [-150, 5],
    seat: 4,
  },
  {
    hip: [-3.4, -4.8],
    lean: -6,
    head: 4,
    nearFoot: [7.4, 0, -26],
    farFoot: [9.6, 0, -30],
    nearHand: [-2, 7],
    farHand: [-4.4, 6.4],
    eye: 'shut',
    hem: [4, 0.4],
    seat: 4,
  },
];
const getUp: readonly Change[] = [
  {
    hip: [-2.8, -5.4],
    lean: 10,
    head: 8,
    nearFoot: [5, 0, -10],
    farFoot: [7.4, 0, -14],
    nearHand: [-3, 6.6],
    farHand: [3.6, 6.4],
    hem: [3, 0.8],
    seat: 3,
  },
  {
    hip: [-1.4, -8],
    lean: 24,
    head: 2,
    nearFoot: [1.4, 0, 0],
    farFoot: [4.6, 0, 0],
    nearHand: [3.4, 7.6],
    farHand: [5, 6.6],
    hem: [0.8, 1.2],
    seat: 2,
  },
  {
    hip: [-0.4, -11],
    lean: 18,
    head: 0,
    nearFoot: [-1, 0, 0],
    farFoot: [3.4, 0, 0],
    nearHand: [2, 7.4],
    farHand: [4.4, 6.6],
    hem: [0.2, 0.8],
  },
  // She brushes her apron.
  {
    hip: [0, -12.6],
    lean: 10,
    head: 12,
    nearHand: [4.6, 6.6],
    farHand: [5.6, 5.6],
    eye: 'shut',
    hem: [-0.2, 0.4],
  },
  {
    hip: [0, -12.8],
    lean: 7,
    head: 9,
    nearHand: [3.4, 7.8],
    farHand: [4.6, 7],
    eye: 'shut',
    hem: [0.3, 0.4],
  },
];

export const clips: Readonly<Record<string, readonly Change[]>> = {
  stand,
  walk,
  'stand-loaded': loadedStand,
  'walk-loaded': loadedWalk,
  cry,
  tend,
  sell,
  slip,
  'get-up': getUp,
  'cry-loaded': loadedCry,
};
