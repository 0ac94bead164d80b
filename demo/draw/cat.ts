// Draws the fishwife's cat, seen from above at an angle: each clip in each of five directions is a row of demo/fishwife/cat.png.
import { Brush, ellipse, limb, polygon, ribbon } from './brush.js';
import type { Place } from './brush.js';
import { frames, wave } from './cycle.js';
import { DrawnSheet } from './drawn-sheet.js';
import { directionNames, directions, turned } from './from-above.js';
import type { Direction, Placing, Seen } from './from-above.js';

const cell = { width: 40, height: 40 };
const pivot = { x: 20, y: 29 };
const columns = 8;

const line = '#1c1830';
const fur = ['#a85a2c', '#e0913f', '#f8c877'];
const stripe = ['#7d3d26', '#a85a2c', '#c8743a'];
const pale = ['#cdb69c', '#f2e2c4', '#fff6e2'];
const nose = '#b8566a';
const eye = '#241a33';

/** Pixels forward, to the left, and up. */
type Spot = readonly [forward: number, left: number, up: number];

/** How a cat holds herself. */
interface Pose {
  readonly chest: Spot;
  readonly haunch: Spot;
  readonly head: Spot;
  /** Front left, front right, back left, back right. */
  readonly paws: readonly Spot[];
  /** Where the tail goes: up, aside, and how much it curls. */
  readonly tail: readonly [up: number, aside: number, curl: number];
  readonly eye: 'open' | 'shut';
}

/** What of a pose is not as she stands. */
type Change = Partial<Pose>;

/** How a cat stands; a pose says only what differs. */
const standing: Pose = {
  chest: [4, 0, 6.6],
  haunch: [-4, 0, 6.4],
  head: [7.4, 0, 9.6],
  paws: [
    [4.4, 1.9, 0],
    [4.4, -1.9, 0],
    [-4.4, 2.1, 0],
    [-4.4, -2.1, 0],
  ],
  tail: [7, 0, 0],
  eye: 'open',
};

const sit: readonly Change[] = frames(6, (p, i) => ({
  chest: [2.2, 0, 7.4 + wave(p) * 0.25],
  haunch: [-1.6, 0, 4.2],
  head: [4, 0, 11.8 + wave(p) * 0.3],
  paws: [
    [3.6, 1.4, 0],
    [3.6, -1.4, 0],
    [0.4, 3, 0],
    [0.4, -3, 0],
  ],
  // The tail lies around her, and its end flicks.
  tail: [0.8, 3 + Math.max(0, wave(p, 0.2)) * 2.4, 4],
  eye: i === 4 ? 'shut' : 'open',
}));

const paw = (p: number, reach: number, lift: number): readonly [forward: number, up: number] => {
  const at = p * 2 * Math.PI;
  return [Math.cos(at) * reach, Math.max(0, -Math.sin(at)) * lift];
};
/** A walk of four beats: the paws of one side after each other. */
const walk: readonly Change[] = frames(8, (p) => {
  const beats = [0, 0.5, 0.75, 0.25].map((shift) => paw(p + shift, 2.6, 2.2));
  const bob = Math.cos(p * 4 * Math.PI) * 0.35;
  return {
    chest: [4, wave(p) * 0.3, 6.5 + bob],
    haunch: [-4, -wave(p) * 0.4, 6.4 - bob],
    head: [7.6, wave(p) * 0.2, 9.2 + bob * 0.5],
    paws: standing.paws.map(([f, l], i) => [f + beats[i]![0], l * 0.8, beats[i]![1]] as const),
    tail: [5.4, wave(p) * 2.6, 2],
  };
});

/** She crouches, wriggles, leaps, and holds it down. */
const pounce: readonly Change[] = [
  { chest: [4.4, 0, 4.2], haunch: [-3.6, 0, 5.8], head: [7.8, 0, 5.6], tail: [3, 0, 0] },
  { chest: [4.2, 0, 4], haunch: [-3.4, 0.8, 6.2], head: [7.6, 0, 5.4], tail: [3.4, 3, 0] },
  { chest: [4.2, 0, 4], haunch: [-3.4, -0.8, 6.2], head: [7.6, 0, 5.4], tail: [3.4, -3, 0] },
  {
    chest: [7.4, 0, 12],
    haunch: [-0.6, 0, 9.4],
    head: [11, 0, 13.6],
    paws: [
      [11, 1.7, 8],
      [11, -1.7, 8],
      [-3.6, 1.8, 3.4],
      [-3.6, -1.8, 3.4],
    ],
    tail: [4, 0, 0],
  },
  {
    chest: [9, 0, 6],
    haunch: [2, 0, 8.4],
    head: [12, 0, 6],
    paws: [
      [12.4, 1.9, 0],
      [12.4, -1.9, 0],
      [0.6, 2, 2],
      [0.6, -2, 2],
    ],
    tail: [7.6, 0, 1],
  },
  {
    chest: [8, 0, 5],
    haunch: [1, 0, 5.8],
    head: [11, 0, 6.6],
    paws: [
      [11.6, 1.7, 0],
      [11.6, -1.7, 0],
      [0, 2.2, 0],
      [0, -2.2, 0],
    ],
    tail: [5, 2, 2],
    eye: 'shut',
  },
];

const clips = { sit, walk, pounce };

/** Where the eyes and the nose are on the head, to the right and down. */
interface Face {
  readonly eyes: readonly number[];
  readonly nose: number | undefined;
  readonly muzzle: readonly [x: number, y: number, wide: number] | undefined;
}
const faces: Readonly<Record<Direction, Face>> = {
  south: { eyes: [-1.9, 1.9], nose: 0, muzzle: [0, 1.6, 2.4] },
  southeast: { eyes: [0.1, 3.2], nose: 2.1, muzzle: [1.8, 1.4, 2.1] },
  east: { eyes: [2.2], nose: 4.2, muzzle: [3, 1.1, 1.7] },
  northeast: { eyes: [], nose: undefined, muzzle: undefined },
  north: { eyes: [], nose: undefined, muzzle: undefined },
};

function drawCat(brush: Brush, change: Change, direction: Direction): void {
  const pose = { ...standing, ...change };
  const place = turned(directions[direction]);
  const at = (one: Spot): Seen => place(...one);
  const parts: { readonly near: number; readonly draw: () => void }[] = [];
  const part = (near: number, draw: () => void): void => {
    parts.push({ near, draw });
  };
  const [chest, haunch, head] = [at(pose.chest), at(pose.haunch), at(pose.head)];
  pose.paws.forEach((one, i) => {
    const foot = at([one[0], one[1], one[2] + 1.1]);
    const from = i < 2 ? pose.chest : pose.haunch;
    const top = at([from[0], from[1] + Math.sign(one[1]) * 1.6, from[2] - 1.2]);
    part(foot.near - 3, () => {
      brush.fill(limb(top, 1.7, foot, 1.25), fur, line);
      brush.fill(ellipse(place(one[0] + 0.6, one[1], one[2] + 0.9), 1.35, 1.1), pale, undefined, 0.1);
    });
  });
  const [up, aside, curl] = pose.tail;
  const root = place(pose.haunch[0] - 2.4, 0, pose.haunch[2]);
  const bend = place(pose.haunch[0] - 5.4 + curl * 0.7, aside * 0.5, pose.haunch[2] + up * 0.35 - curl * 0.5);
  const tip = place(
    pose.haunch[0] - 6 + curl * 1.6,
    aside * 1.4,
    Math.max(0.6, pose.haunch[2] + up - curl * 1.5),
  );
  part(tip.near - 2, () => {
    brush.fill(ribbon([root, bend, tip], 1.25, 1.05), fur, line);
    brush.fill(ellipse(tip, 1.2, 1.2), pale, undefined);
  });
  part((chest.near + haunch.near) / 2, () => {
    brush.fill(limb(haunch, 3.5, chest, 3), fur, line);
    for (const t of [0.2, 0.5, 0.8]) {
      const x = haunch.x + (chest.x - haunch.x) * t;
      const y = haunch.y + (chest.y - haunch.y) * t - 1.6;
      brush.fill(limb({ x, y: y - 1 }, 0.55, { x, y: y + 0.6 }, 0.5), stripe, undefined, -0.1);
    }
  });
  part(chest.near + 0.1, () => {
    const bib = place(pose.chest[0] + 2, 0, pose.chest[2] - 0.6);
    if (!direction.startsWith('north')) brush.fill(ellipse(bib, 1.9, 2), pale, undefined, 0.1);
  });
  part(head.near + 1.5, () => drawHead(brush, head, place, direction, pose));
  parts.sort((a, b) => a.near - b.near);
  for (const { draw } of parts) draw();
}

function drawHead(brush: Brush, head: Seen, place: Placing, direction: Direction, pose: Pose): void {
  const by = (f: number, l: number, u: number): Place => {
    const off = place(f, l, u);
    return { x: head.x + off.x, y: head.y + off.y };
  };
  const ear = (side: number): void => {
    const [a, b, c, tip] = [
      by(1.4, side * 1.2, 2.4),
      by(-1.6, side * 2.6, 1.8),
      by(0, side * 3.4, 1.6),
      by(-0.2, side * 2.7, 5.2),
    ];
    brush.fill(polygon([a, c, b, tip]), fur, undefined, 0.05);
    brush.fill(limb(a, 0.8, tip, 0.55), fur, undefined, 0.05);
    brush.fill(limb(b, 0.8, tip, 0.55), fur, undefined, -0.2);
  };
  const back = direction.startsWith('north');
  if (!back) for (const side of [1, -1]) ear(side);
  brush.fill(ellipse(head, 3.9, 3.5), fur, line, 0.1);
  if (back) for (const side of [1, -1]) ear(side);
  for (const x of [-1.3, 0.1, 1.5])
    brush.dot(head.x + x + (directions[direction] === 0 ? -0.6 : 0), head.y - 2.7, stripe[0]);
  const { eyes, nose: snout, muzzle } = faces[direction];
  if (muzzle !== undefined)
    brush.fill(
      ellipse({ x: head.x + muzzle[0], y: head.y + muzzle[1] }, muzzle[2], 1.6),
      pale,
      undefined,
      0.15,
    );
  if (snout !== undefined) brush.dot(head.x + snout, head.y + 0.9, nose);
  for (const x of eyes)
    for (const y of pose.eye === 'open' ? [-0.9, 0.1] : [0.1])
      brush.dot(head.x + x, head.y + y, pose.eye === 'open' ? eye : stripe[0]);
}

const rows = Object.values(clips).flatMap((poses) =>
  directionNames.map((direction) => ({ poses, direction })),
);
const sheet = new DrawnSheet(cell, columns, rows.length);
rows.forEach(({ poses, direction }, row) =>
  poses.forEach((pose, column) => {
    const brush = new Brush(cell.width, cell.height, pivot);
    drawCat(brush, pose, direction);
    brush.cleanUp();
    brush.outline(() => line);
    sheet.put(brush.colours, column, row);
  }),
);
await sheet.write('../fishwife/cat.png');
console.log(`${rows.length} rows drawn to demo/fishwife/cat.png`);
