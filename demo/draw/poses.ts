// Wick's poses, clip by clip, in the order of the sheet.
import { bump, dash, flip } from './air.js';
import { climb, getUp, knocked, propped, skid } from './blows.js';
import type { Change } from './body.js';
import { frames, step, wave } from './cycle.js';
import { swing1, swing2, swing3 } from './swings.js';

const stand: readonly Change[] = frames(8, (p, i) => {
  const breath = (1 - Math.cos(p * 2 * Math.PI)) / 2;
  return {
    hip: [0, -13.4 + breath * 0.35],
    headMove: [0, breath * 0.8],
    nearHand: [9.2, 3.6 - breath * 0.3],
    farHand: [-2.5, 8.5 + breath * 0.5],
    scarf: [-150 + wave(p) * 5, 9.5, p * 2 * Math.PI],
    coat: [0, breath * 0.4],
    pole: { angle: 1, grip: 17.4 - breath * 0.3, length: 39.5 },
    eye: i === 5 ? 'shut' : 'open',
    flame: i % 4 === 1 ? 0.2 : 0,
  };
});

const walking = { reach: 7, stance: 0.6, lift: 3.4, heel: -22, toe: 38 };
const walk: readonly Change[] = frames(8, (p) => ({
  hip: [0, -13.3 + 0.75 * Math.cos((p - 0.09) * 4 * Math.PI)],
  lean: 6,
  headMove: [0.2, 0.35 * Math.cos((p - 0.2) * 4 * Math.PI)],
  nearFoot: step(p, walking),
  farFoot: step(p + 0.5, walking),
  nearHand: [4.6 - wave(p, 0.25) * 1.1, 4.6 + wave(p * 2) * 0.3],
  farHand: [wave(p, 0.25) * 5.4, 7.6 - Math.abs(wave(p, 0.25)) * 1.2],
  pole: { angle: -42 + wave(p * 2) * 2.5, grip: 6, length: 34 },
  scarf: [-118 + wave(p * 2, 0.1) * 9, 10, p * 4 * Math.PI],
  coat: [-wave(p * 2) * 0.8 - 0.6, 0.8],
}));

const running = { reach: 9.6, stance: 0.36, lift: 7, heel: -14, toe: 54 };
const run: readonly Change[] = frames(8, (p) => ({
  hip: [0.5, -13.5 - 1.6 * Math.cos((p - 0.42) * 4 * Math.PI)],
  lean: 19,
  head: -8,
  headMove: [0.6, 0.6 * Math.cos((p - 0.3) * 4 * Math.PI)],
  nearFoot: step(p, running),
  farFoot: step(p + 0.5, running),
  nearHand: [3 - wave(p, 0.25) * 3.4, 5.6 - Math.abs(wave(p, 0.25)) * 0.6],
  farHand: [1 + wave(p, 0.25) * 6, 5.6 - wave(p, 0.25) * 1.6],
  pole: { angle: -76 + wave(p * 2, 0.2) * 4, grip: 11, length: 33 },
  scarf: [-94 + wave(p * 2, 0.15) * 9, 12.5, p * 4 * Math.PI],
  coat: [-3.4 - wave(p * 2, 0.1) * 1.2, 1.4],
  hat: [-0.2, wave(p * 2, 0.3) * 0.3, -2],
}));

const takeoff: readonly Change[] = [
  {
    hip: [-0.6, -10.6],
    lean: 20,
    head: -4,
    headMove: [0.4, 1],
    nearFoot: [3.2, 0, 0],
    farFoot: [-2.6, 0, 0],
    nearHand: [1, 6.8],
    farHand: [-5, 6],
    pole: { angle: -62, grip: 11, length: 34 },
    scarf: [-140, 9, 0],
    coat: [-0.6, 1.8],
  },
  {
    hip: [-1, -8.6],
    lean: 28,
    head: -8,
    headMove: [0.8, 1.4],
    nearFoot: [3.4, 0, 0],
    farFoot: [-2.8, 0, 4],
    nearHand: [-1.4, 6.8],
    farHand: [-6.8, 4],
    pole: { angle: -76, grip: 12, length: 34 },
    scarf: [-128, 9, 0.6],
    coat: [-0.4, 2.4],
  },
  {
    hip: [1.4, -14.6],
    lean: 14,
    head: -12,
    nearFoot: [1.2, -0.6, 34],
    farFoot: [-4, -1.6, 50],
    nearHand: [6, 1.4],
    farHand: [4.6, 3.2],
    pole: { angle: -26, grip: 12, length: 34, behind: true },
    scarf: [-150, 10, 1],
    coat: [-1.8, 0.4],
  },
  {
    hip: [2, -17],
    lean: 8,
    head: -16,
    nearFoot: [5.6, -8.2, 16],
    farFoot: [-4.4, -3, 62],
    nearHand: [7, -2],
    farHand: [-4, 4],
    pole: { angle: 4, grip: 12, length: 33 },
    scarf: [-158, 11.5, 1.6],
    coat: [-1.4, -0.4],
  },
];

const rising = (flutter: number): Change => ({
  hip: [1.4, -17.4],
  lean: 7,
  head: -18,
  nearFoot: [6.4, -9.6, 12],
  farFoot: [-4.8, -8, 58],
  nearHand: [6.6, -3.6],
  farHand: [-5.4, 3.4],
  pole: { angle: 10, grip: 12, length: 31 },
  scarf: [-156 + flutter * 10, 12, flutter * 2],
  coat: [-1, -0.2 + flutter * 0.8],
});
const rise: readonly Change[] = [rising(0), rising(1)];

const fallStart: readonly Change[] = [
  {
    hip: [0.8, -17.4],
    lean: 3,
    head: -8,
    nearFoot: [6, -9, 4],
    farFoot: [-3.6, -6.4, 44],
    nearHand: [7.6, -1.4],
    farHand: [-6, 1.4],
    pole: { angle: 20, grip: 12, length: 31 },
    scarf: [-124, 11, 0.5],
    coat: [0, 1],
  },
  {
    hip: [0.4, -17.2],
    lean: 0,
    head: 2,
    nearFoot: [5.6, -7.4, -4],
    farFoot: [-4, -7, 28],
    nearHand: [7.8, 0.4],
    farHand: [-7, -0.8],
    pole: { angle: 30, grip: 12, length: 31 },
    scarf: [-82, 10.5, 0.4],
    coat: [0.4, 2],
  },
  {
    hip: [0, -17],
    lean: -4,
    head: 8,
    nearFoot: [5, -5.4, -10],
    farFoot: [-4.4, -6.4, 14],
    nearHand: [7.8, -1],
    farHand: [-7.4, -2.6],
    pole: { angle: 38, grip: 12, length: 31 },
    scarf: [-46, 11, 0.2],
    coat: [0.6, 3],
  },
];

const falling = (flutter: number): Change => ({
  hip: [-0.2, -16.8],
  lean: -6,
  head: 11,
  nearFoot: [4.8, -4.4 - flutter * 0.6, -14],
  farFoot: [-4.6, -5.8 + flutter * 0.6, 8],
  nearHand: [7.6, -2.4 + flutter * 0.7],
  farHand: [-7, -4 - flutter * 1],
  pole: { angle: 42 - flutter * 4, grip: 12, length: 31 },
  scarf: [-24 + flutter * 14, 12, flutter * 1.6],
  coat: [0.6, 3.4 - flutter * 0.6],
  hat: [0, -0.9, 4],
  eye: 'wide',
});
const fall: readonly Change[] = [falling(0), falling(1)];

const land: readonly Change[] = [
  {
    hip: [0.4, -8.2],
    lean: 26,
    head: -4,
    headMove: [0.8, 1.8],
    nearFoot: [4.6, 0, 0],
    farFoot: [-4, 0, 0],
    nearHand: [5.6, 5.4],
    farHand: [-6.4, 3.6],
    pole: { angle: 52, grip: 11, length: 32 },
    scarf: [-50, 10.5, 0],
    coat: [0, 3],
    eye: 'shut',
    puffs: [
      [11, -1.6, 2.4],
      [-11, -1.6, 2.4],
      [15, -2.6, 1.5],
      [-15, -2.6, 1.5],
    ],
  },
  {
    hip: [0.3, -9.8],
    lean: 19,
    head: -2,
    headMove: [0.4, 1],
    nearFoot: [4.2, 0, 0],
    farFoot: [-3.6, 0, 0],
    nearHand: [6.4, 5],
    farHand: [-4.6, 6.2],
    pole: { angle: 30, grip: 12, length: 34 },
    scarf: [-84, 9.5, 0.6],
    coat: [0, 2.2],
    puffs: [
      [14, -2.2, 1.8],
      [-14, -2.2, 1.8],
    ],
  },
  {
    hip: [0.1, -12.2],
    lean: 9,
    nearFoot: [3, 0, 0],
    farFoot: [-2.8, 0, 0],
    nearHand: [8.6, 4],
    farHand: [-3, 8],
    pole: { angle: 6, grip: 16, length: 38.5 },
    scarf: [-120, 9, 1],
    coat: [0, 1],
  },
];

const splashed: readonly Change[] = [
  {
    hip: [-1.4, -12.8],
    lean: -13,
    head: -12,
    nearFoot: [3.6, 0, -14],
    farFoot: [-4, 0, 0],
    nearHand: [9, -0.6],
    farHand: [3, -2.6],
    pole: { angle: 4, grip: 14, length: 34 },
    scarf: [-90, 10, 0],
    coat: [1, 1.6],
    eye: 'wide',
    mouth: true,
    drops: [
      [13, -13, 2.1],
      [12, -24, 1.8],
      [17, -19, 1.5],
      [15, -6, 1.7],
    ],
  },
  {
    hip: [-2.8, -11.8],
    lean: -20,
    head: -16,
    nearFoot: [3.8, -1.2, -24],
    farFoot: [-5, 0, 0],
    nearHand: [8.4, -2.4],
    farHand: [6, -3.8],
    pole: { angle: 6, grip: 13, length: 31 },
    scarf: [-60, 10.5, 0.6],
    coat: [1.6, 2.2],
    eye: 'shut',
    mouth: true,
    hat: [-0.6, -1.6, -10],
    drops: [
      [12, -31, 1.8],
      [-15, -30, 1.6],
      [17, -26, 1.5],
      [18, -9, 1.6],
      [-15, -16, 1.5],
    ],
  },
  {
    hip: [-1.6, -11.4],
    lean: 9,
    head: 10,
    headMove: [0.4, 1],
    nearFoot: [3.2, 0, 0],
    farFoot: [-4.4, 0, 0],
    nearHand: [8.4, 4],
    farHand: [-1.6, 7],
    pole: { angle: 6, grip: 15, length: 37 },
    scarf: [-166, 9, 1],
    coat: [0, -0.4],
    eye: 'shut',
    hat: [0, -0.4, 6],
    drops: [
      [15, -31, 1.5],
      [-13, -25, 1.5],
      [13, -4, 1.5],
      [-12, -4, 1.5],
    ],
  },
  {
    hip: [-0.6, -12.6],
    lean: 6,
    head: -2,
    headMove: [0, 0.6],
    nearFoot: [2.8, 0, 0],
    farFoot: [-3.2, 0, 0],
    nearHand: [9, 3.8],
    farHand: [-2, 8],
    pole: { angle: 2, grip: 16, length: 37.5 },
    scarf: [-166, 9, 1.4],
    coat: [0, -0.4],
    eye: 'shut',
    drops: [
      [12, -8, 1.4],
      [-10, -6, 1.4],
    ],
  },
];

const doze: readonly Change[] = frames(6, (p, i) => {
  const nod = [0.3, 0.55, 0.8, 1, 0.9, 0.6][i]!;
  return {
    hip: [-0.4 + nod * 0.8, -13.2 + nod * 0.9],
    lean: 3 + nod * 4,
    head: nod * 10,
    headMove: [nod * 0.2, 0.4 + nod * 1.5],
    hat: [nod * 0.3, -nod * 0.1, nod * 2],
    nearHand: [9.3 - nod * 0.5, 2.6],
    farHand: [7.6 - nod * 0.4, 5.2],
    pole: { angle: 1, grip: 17.4 - nod * 0.7, length: 39.5 },
    scarf: [-152, 9, p * 2 * Math.PI],
    coat: [0, nod * 0.5],
    eye: 'shut',
    mouth: i === 3,
    flame: i % 3 === 1 ? 0.2 : 0,
  };
});

/** The clips with their frames, in the order in which they stand on the sheet. */
export const clips: Readonly<Record<string, readonly Change[]>> = {
  stand,
  walk,
  run,
  takeoff,
  rise,
  fallStart,
  fall,
  land,
  swing1,
  swing2,
  splashed,
  doze,
  swing3,
  skid,
  knocked,
  getUp,
  dash,
  flip,
  bump,
  propped,
  climb,
};
