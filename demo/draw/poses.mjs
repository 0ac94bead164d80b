// Wick's poses, clip by clip, in the order of the sheet.
import { bump, dash, flip } from './air.mjs';
import { getUp, knocked, skid, swing3 } from './blows.mjs';

const wave = (p, shift = 0) => Math.sin((p + shift) * 2 * Math.PI);
const lerp = (a, b, t) => a + (b - a) * t;

/** Where a foot is in a cycle: on the ground from `reach` to `-reach` while `stance` lasts, else swinging forward. */
function step(p, { reach, stance, lift, heel, toe }) {
  const q = ((p % 1) + 1) % 1;
  if (q < stance) {
    const t = q / stance;
    const tip = t < 0.18 ? lerp(heel, 0, t / 0.18) : t > 0.7 ? lerp(0, toe, (t - 0.7) / 0.3) : 0;
    // On its toes the heel, and with it the ankle, is lifted; on its heel the toes are.
    return [lerp(reach, -reach, t), tip > 0 ? -tip * 0.035 : tip * 0.03, tip];
  }
  const t = (q - stance) / (1 - stance);
  const ease = t * t * (3 - 2 * t);
  return [
    lerp(-reach, reach, ease),
    -lift * Math.sin(Math.PI * t) ** 0.9 - (1 - t) * toe * 0.035,
    lerp(toe, heel, ease),
  ];
}

const frames = (count, pose) => Array.from({ length: count }, (_, i) => pose(i / count, i));

const stand = frames(8, (p, i) => {
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
const walk = frames(8, (p) => ({
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
const run = frames(8, (p) => ({
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

const takeoff = [
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

const rising = (flutter) => ({
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
const rise = [rising(0), rising(1)];

const fallStart = [
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

const falling = (flutter) => ({
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
const fall = [falling(0), falling(1)];

const land = [
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

// Swing one comes down from behind the head; swing two comes back up from below. Ready, wind up, strike, strike,
// follow through, recover.
const swing1 = [
  {
    hip: [-1, -13],
    lean: -5,
    nearFoot: [3.2, 0, 0],
    farFoot: [-3.6, 0, 0],
    nearHand: [1, -2.4],
    farHand: [3.4, 0.4],
    pole: { angle: -52, grip: 9, length: 31 },
    scarf: [-140, 9, 0.4],
    coat: [0, 0.8],
  },
  {
    hip: [-2.4, -12.2],
    lean: -14,
    head: 8,
    nearFoot: [4, 0, -10],
    farFoot: [-4.6, 0, 0],
    nearHand: [-2.4, -5.4],
    farHand: [2.2, -5.4],
    nearElbow: 1,
    pole: { angle: -88, grip: 7, length: 27 },
    scarf: [-132, 9, 0.8],
    coat: [0.4, 1.2],
  },
  {
    hip: [2.6, -12.2],
    lean: 17,
    head: -8,
    nearFoot: [7.4, 0, 0],
    farFoot: [-5.4, 0, 20],
    nearHand: [7, -2],
    farHand: [6.4, 1.6],
    pole: { angle: 42, grip: 7, length: 26 },
    sweep: { centre: [5, -20], radius: 23, thick: 9, from: -70, to: 46 },
    scarf: [-100, 11, 0.2],
    coat: [-2.4, 1.6],
    mouth: true,
  },
  {
    hip: [3.6, -11.4],
    lean: 24,
    head: -10,
    nearFoot: [7.8, 0, 0],
    farFoot: [-5.6, 0, 30],
    nearHand: [7.4, 4],
    farHand: [5.4, 5.4],
    pole: { angle: 98, grip: 7, length: 19 },
    sweep: { centre: [3.5, -19], radius: 22, thick: 9.5, from: 8, to: 102 },
    scarf: [-84, 11.5, 0],
    coat: [-3, 1.6],
    mouth: true,
  },
  {
    hip: [3.2, -11.6],
    lean: 20,
    head: -6,
    nearFoot: [7.6, 0, 0],
    farFoot: [-5.2, 0, 20],
    nearHand: [6.6, 6],
    farHand: [4.4, 7],
    pole: { angle: 108, grip: 9, length: 24 },
    scarf: [-110, 10, 0.6],
    coat: [-1.2, 1.6],
  },
  {
    hip: [1.4, -12.6],
    lean: 10,
    nearFoot: [5, 0, 0],
    farFoot: [-3.8, 0, 0],
    nearHand: [6.4, 5.6],
    farHand: [0.6, 8],
    pole: { angle: 54, grip: 12, length: 32 },
    scarf: [-134, 9, 1],
    coat: [-0.4, 1],
  },
];

const swing2 = [
  {
    hip: [0.2, -12],
    lean: 14,
    head: -4,
    nearFoot: [5, 0, 0],
    farFoot: [-3.8, 0, 0],
    nearHand: [2.4, 7.2],
    farHand: [-0.4, 7],
    pole: { angle: 104, grip: 9, length: 27 },
    scarf: [-134, 9, 0.2],
    coat: [-0.2, 1.4],
  },
  {
    hip: [-2, -10.8],
    lean: 17,
    head: -4,
    headMove: [0.2, 0.6],
    nearFoot: [4.6, 0, 0],
    farFoot: [-4.8, 0, 8],
    nearHand: [-5.6, 5.6],
    farHand: [-3.6, 6.6],
    pole: { angle: 244, grip: 6, length: 24 },
    scarf: [-134, 9, 0.6],
    coat: [0.4, 1.8],
  },
  {
    hip: [2.4, -12.6],
    lean: 7,
    head: -8,
    nearFoot: [7, 0, 0],
    farFoot: [-5.4, 0, 24],
    nearHand: [7.4, 4],
    farHand: [5.4, 5.2],
    pole: { angle: 88, grip: 7, length: 22 },
    sweep: { centre: [4, -17], radius: 22, thick: 8.5, from: 132, to: 82 },
    scarf: [-100, 11, 0.2],
    coat: [-2.4, 1.4],
    mouth: true,
  },
  {
    hip: [3.2, -14],
    lean: -4,
    head: -12,
    nearFoot: [7, 0, 0],
    farFoot: [-4.6, -0.8, 48],
    nearHand: [7, -4.4],
    farHand: [5.4, -1.4],
    pole: { angle: 16, grip: 7, length: 24 },
    sweep: { centre: [4, -18], radius: 23, thick: 9.5, from: 116, to: 14 },
    scarf: [-124, 11.5, 0],
    coat: [-2.2, 0.6],
    mouth: true,
  },
  {
    hip: [2.2, -13.8],
    lean: -8,
    head: -8,
    nearFoot: [6.2, 0, 0],
    farFoot: [-4, 0, 20],
    nearHand: [4.4, -6.4],
    farHand: [4, -3],
    pole: { angle: -44, grip: 7, length: 26, behind: true },
    scarf: [-146, 10, 0.6],
    coat: [-0.4, 0.6],
  },
  {
    hip: [0.8, -13.4],
    lean: 0,
    nearFoot: [3.6, 0, 0],
    farFoot: [-3, 0, 0],
    nearHand: [8.6, 1.8],
    farHand: [-1, 7.6],
    pole: { angle: -8, grip: 14, length: 36 },
    scarf: [-140, 9, 1],
    coat: [0, 0.6],
  },
];

const splashed = [
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

const doze = frames(6, (p, i) => {
  const nod = [0.3, 0.55, 0.8, 1, 0.9, 0.6][i];
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
export const clips = {
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
};
