// Wick's body: joints from a pose, then shapes from the joints, back to front. Lengths are pixels; x is forward,
// y is down, the origin is the ground under the hip of the standing figure.
import { along, joint, mix, point } from './bones.js';
import type { XY } from './bones.js';
import { crescent, ellipse, limb, polygon, ribbon, turned } from './brush.js';
import type { Pen, Place } from './brush.js';

export const palette = {
  line: '#1c1830',
  skin: ['#a85f52', '#e0a074', '#f7cfa0'],
  hair: ['#5c2a2c', '#8a4432', '#b8673a'],
  coat: ['#1d3b53', '#2b6170', '#4b958a'],
  coatBack: ['#152a40', '#1d3b53', '#2b6170'],
  trousers: ['#332b4d', '#4b4169', '#6a5f8a'],
  trousersBack: ['#28213d', '#332b4d', '#4b4169'],
  boot: ['#4a2830', '#784238', '#a96a48'],
  bootBack: ['#3a1f2a', '#4a2830', '#784238'],
  scarf: ['#b4522e', '#e88f35', '#f8c75c'],
  hat: ['#2e2348', '#49366a', '#6d5490'],
  band: ['#b4522e', '#b4522e', '#e88f35'],
  wood: ['#5c3a2e', '#8f5f3c', '#bd8a52'],
  brass: ['#b87a35', '#f0b850', '#ffe9a8'],
  flame: ['#f08438', '#ffc95c', '#fff6cf'],
  water: ['#3f7fae', '#7cc3dc', '#d8f4f4'],
  sweep: ['#e2873c', '#fbd16e', '#fffae0'],
  dust: ['#8f84a6', '#b7abc0', '#ddd3da'],
  oil: ['#8a6a1f', '#d9a531', '#f7d860'],
  oilBack: ['#5f4a22', '#8a6a1f', '#d9a531'],
  bag: ['#4c2a3a', '#7d4a48', '#b07a5c'],
  eye: '#241a33',
};

const thigh = 7;
const shin = 7;
const upperArm = 5;
const foreArm = 5;
const torso = 9;

/** Where a foot is, and how it is tipped, in degrees. */
type Foot = readonly [x: number, y: number, tip: number];
/** Where a drop, star or puff is, and its size or tone. */
type Spot = readonly [x: number, y: number, size: number];

interface Pole {
  readonly angle: number;
  /** How far from its foot the hand is. */
  readonly grip: number;
  readonly length?: number;
  /** Whether it is behind the body. */
  readonly behind?: boolean;
}

/** How he holds himself. Places are pixels from the ground under his hip; those of hands count from their shoulders. */
export interface Pose {
  readonly hip: XY;
  /** Degrees forward, of the body and of the head. */
  readonly lean: number;
  readonly head: number;
  readonly headMove: XY;
  readonly hat: readonly [x: number, y: number, turn: number];
  readonly nearFoot: Foot;
  readonly farFoot: Foot;
  readonly nearHand: XY;
  readonly farHand: XY;
  /** 1 bends forward, -1 backward. */
  readonly nearElbow: number;
  readonly farElbow: number;
  readonly nearKnee?: number;
  readonly farKnee?: number;
  readonly pole: Pole;
  readonly scarf: readonly [angle: number, length: number, wave: number];
  readonly coat: readonly [tail: number, flare: number];
  readonly eye: 'open' | 'shut' | 'wide';
  readonly mouth: boolean;
  /** How much brighter the flame is. */
  readonly flame: number;
  /** He is turned as a whole. */
  readonly turn?: { readonly degrees: number; readonly about: XY };
  /** What the pole leaves in the air. */
  readonly sweep?: {
    readonly centre: XY;
    readonly radius: number;
    readonly thick: number;
    readonly from: number;
    readonly to: number;
  };
  readonly streaks?: readonly Spot[];
  readonly drops?: readonly Spot[];
  readonly stars?: readonly Spot[];
  readonly puffs?: readonly Spot[];
}

/** What of a pose is not as he stands. */
export type Change = Partial<Pose>;

/** A piece of his gear. */
export type Gear = 'oilskin' | 'rain-hat' | 'satchel';

/** A standing figure; a pose says only what differs. */
export const standing: Pose = {
  hip: [0, -13.6],
  lean: 3,
  head: 0,
  headMove: [0, 0],
  hat: [0, 0, 0],
  nearFoot: [-1.8, 0, 0],
  farFoot: [3.4, 0, 0],
  nearHand: [9, 3.4],
  farHand: [-2.5, 8.5],
  nearElbow: -1,
  farElbow: -1,
  pole: { angle: 2, grip: 16.4, length: 39 },
  scarf: [-146, 9, 0],
  coat: [0, 0],
  eye: 'open',
  mouth: false,
  flame: 0,
};

function leg(brush: Pen, hip: Place, [x, y, tip]: Foot, knee: number, far: boolean): void {
  const ankle = point(x, y - 2.4);
  const { middle, end } = joint(hip, ankle, thigh, shin, knee);
  const cloth = far ? palette.trousersBack : palette.trousers;
  const leather = far ? palette.bootBack : palette.boot;
  const toe = along(end, 90 + tip, 3.1);
  const sole = (p: Place, down: number): Place =>
    point(p.x - Math.sin((tip * Math.PI) / 180) * down, p.y + Math.cos((tip * Math.PI) / 180) * down);
  brush.fill(limb(hip, 2.7, middle, 2.2), cloth, palette.line);
  brush.fill(limb(middle, 2.1, end, 1.8), cloth, undefined);
  brush.fill(limb(mix(middle, end, 0.5), 2.25, end, 2.1), leather, undefined);
  brush.fill(limb(sole(end, 0.6), 1.95, sole(toe, 0.95), 1.45), leather, undefined);
}

function arm(brush: Pen, shoulder: Place, [x, y]: XY, elbow: number, far: boolean, isOiled: boolean): void {
  const hand = point(shoulder.x + x, shoulder.y + y);
  const { middle, end } = joint(shoulder, hand, upperArm, foreArm, elbow);
  const cloth = isOiled ? (far ? palette.oilBack : palette.oil) : far ? palette.coatBack : palette.coat;
  const more = isOiled ? 0.5 : 0;
  brush.fill(limb(shoulder, 2.2 + more, middle, 2 + more), cloth, palette.line);
  brush.fill(limb(middle, 2 + more, mix(middle, end, 0.8), 1.9 + more), cloth, undefined);
  // The cuff; an oilskin has none and is wide there.
  const cuff = isOiled ? cloth : far ? palette.hat : palette.scarf;
  brush.fill(
    limb(mix(middle, end, 0.72), 2.15 + more, mix(middle, end, 0.8), 2.15 + more),
    cuff,
    undefined,
    isOiled ? -0.5 : -0.2,
  );
  brush.fill(ellipse(end, 1.75, 1.75), palette.skin, undefined);
}

function drawPole(brush: Pen, hand: Place, { angle, grip, length = 30 }: Pole, flicker: number): void {
  const foot = along(hand, angle + 180, grip);
  const top = along(foot, angle, length);
  brush.fill(limb(foot, 0.62, top, 0.62), palette.wood, palette.line);
  brush.fill(limb(along(foot, angle, length - 2.6), 1, top, 1), palette.brass, palette.line);
  // The hook with its little lamp; the lamp hangs whatever the pole does.
  const hook = along(top, angle + 62, 2.2);
  brush.fill(limb(top, 0.75, hook, 0.75), palette.brass, palette.line);
  const lamp = point(hook.x + 0.3, hook.y + 2.3);
  brush.fill(ellipse(lamp, 2.05, 2.35), palette.flame, palette.line, 0.25 + flicker);
  brush.dot(lamp.x, lamp.y - 2.4, palette.brass[0]);
}

function scarfTail(brush: Pen, neck: Place, [angle, length, wave]: Pose['scarf']): void {
  const points = [neck];
  const steps = 5;
  for (let i = 1; i <= steps; i++)
    points.push(along(points[i - 1]!, angle + Math.sin(i * 1.3 + wave) * 26, length / steps));
  brush.fill(ribbon(points, 1, 1.55), palette.scarf, palette.line, -0.12);
  const end = points[steps]!;
  brush.dot(end.x, end.y, palette.scarf[0]);
}

function coatBody(brush: Pen, hip: Place, neck: Place, lean: number, [tail, flare]: Pose['coat']): void {
  const side = lean + 90;
  const shoulder = { back: along(neck, side, -3.5), front: along(neck, side, 3.3) };
  const waist = {
    back: along(mix(neck, hip, 0.62), side, -3.3),
    front: along(mix(neck, hip, 0.62), side, 3.5),
  };
  const hemBack = point(hip.x - 4 - flare + tail * 0.55, hip.y + 3.3 - Math.abs(tail) * 0.12);
  const hemFront = point(hip.x + 3.9 + flare * 0.4 + tail * 0.15, hip.y + 2.3);
  brush.fill(
    polygon([shoulder.back, shoulder.front, waist.front, hemFront, hemBack, waist.back]),
    palette.coat,
    palette.line,
    0.06,
  );
  brush.fill(ellipse(mix(neck, hip, 0.12), 3.9, 2.9, lean), palette.coat, undefined, 0.1);
  // Belt and a row of buttons.
  const belt = mix(neck, hip, 0.82);
  brush.fill(
    limb(along(belt, side, -3.2), 0.62, along(belt, side, 3.2), 0.62),
    palette.wood,
    undefined,
    -0.1,
  );
  brush.dot(along(belt, side, 2.4).x, along(belt, side, 2.4).y, palette.brass[2]);
}

/** A coat of oiled cloth over the other one: wider, longer, with clasps down the front. */
function oilskin(brush: Pen, hip: Place, neck: Place, lean: number, [tail, flare]: Pose['coat']): void {
  const side = lean + 90;
  const at = (down: number, across: number): Place => along(mix(neck, hip, down), side, across);
  const hemBack = point(hip.x - 5.6 - flare + tail * 0.6, hip.y + 5.4 - Math.abs(tail) * 0.12);
  const hemFront = point(hip.x + 5.2 + flare * 0.4 + tail * 0.15, hip.y + 4.4);
  brush.fill(
    polygon([at(0, -4.2), at(0, 4), at(0.62, 4.3), hemFront, hemBack, at(0.62, -4.1)]),
    palette.oil,
    palette.line,
    0.06,
  );
  brush.fill(ellipse(at(0.12, 0), 4.5, 3.4, lean), palette.oil, undefined, 0.1);
  const hem = mix(hemBack, hemFront, 0.5);
  brush.fill(limb(mix(hemBack, hem, 0.2), 0.6, mix(hemFront, hem, 0.2), 0.6), palette.oil, undefined, -0.8);
  for (const down of [0.35, 0.7, 1.05]) {
    const clasp = at(down, 2.1);
    brush.dot(clasp.x, clasp.y, palette.line);
  }
}

/** A bag at the hip, with its strap over the far shoulder. */
function satchel(brush: Pen, hip: Place, neck: Place, lean: number): void {
  const side = lean + 90;
  const at = (down: number, across: number): Place => along(mix(neck, hip, down), side, across);
  brush.fill(limb(at(0.08, 2.6), 0.7, at(0.95, -2.8), 0.7), palette.bag, palette.line, -0.2);
  const [left, right, top, low] = [-6.6, 0.6, 0.82, 1.5] as const;
  brush.fill(
    polygon([at(top, left), at(top, right), at(low, right - 0.4), at(low, left + 0.4)]),
    palette.bag,
    palette.line,
    0.1,
  );
  brush.fill(
    polygon([at(top - 0.02, left), at(top - 0.02, right), at(1.14, right), at(1.14, left)]),
    palette.bag,
    undefined,
    0.55,
  );
  const lock = at(1.16, (left + right) / 2);
  brush.dot(lock.x, lock.y, palette.brass[2]);
}

/** The tall hat under a cover of oiled cloth, with a brim that sheds the rain behind. */
function rainHat(brush: Pen, across: (d: number, down?: number) => Place, up: (far: number) => Place): void {
  brush.fill(limb(up(1.1), 4.5, up(4.9), 4), palette.oil, palette.line, 0.05);
  brush.fill(limb(across(-7.6, 1.3), 1, across(-3, -0.1), 1.1), palette.oil, palette.line, -0.35);
  brush.fill(limb(across(-4, 0), 1.1, across(7.2, 0.2), 0.95), palette.oil, undefined, -0.3);
  brush.fill(limb(across(-3.6, -1.5), 0.5, across(3.9, -1.5), 0.5), palette.oil, undefined, -0.9);
}

function head(brush: Pen, neck: Place, pose: Pose, isRaining: boolean): void {
  const tilt = pose.lean * 0.35 + pose.head;
  const above = along(neck, tilt, 5.7);
  const centre = point(above.x + pose.headMove[0] + 0.5, above.y + pose.headMove[1]);
  const at = (forward: number, down: number): Place => {
    const p = along(centre, tilt + 90, forward);
    return along(p, tilt + 180, down);
  };
  brush.fill(ellipse(at(-1.4, 0.2), 5.1, 5.1, tilt), palette.hair, palette.line);
  brush.fill(ellipse(at(0.7, 1), 4.8, 4.5, tilt), palette.skin, undefined, 0.3);
  brush.fill(ellipse(at(5.2, 1.7), 1.2, 1.05, tilt), palette.skin, undefined, 0.2);
  brush.fill(ellipse(at(-2.6, 0.9), 2.1, 3, tilt), palette.hair, undefined);
  brush.fill(ellipse(at(-0.9, 1.7), 1.1, 1.3, tilt), palette.skin, undefined, -0.3);
  const eye = at(2.9, 0.4);
  const blink = at(3.6, 0.7);
  if (pose.eye === 'open') {
    brush.dot(eye.x, eye.y, palette.eye);
    brush.dot(eye.x, eye.y + 1, palette.eye);
  } else if (pose.eye === 'wide') {
    for (const [dx, dy] of [
      [0, -1],
      [0, 0],
      [0, 1],
      [-1, 0],
      [-1, 1],
    ] as const)
      brush.dot(eye.x + dx, eye.y + dy, palette.eye);
  } else {
    brush.dot(blink.x, blink.y + 0.6, palette.skin[0]);
    brush.dot(blink.x - 1, blink.y + 0.6, palette.skin[0]);
    brush.dot(blink.x - 2, blink.y + 0.1, palette.skin[0]);
  }
  if (pose.mouth) {
    const mouth = at(3.6, 3.1);
    brush.dot(mouth.x, mouth.y, palette.hair[0]);
    brush.dot(mouth.x, mouth.y + 1, palette.hair[0]);
  }
  const [hx, hy, turn] = pose.hat;
  const brim = at(-0.5 + hx, -3.6 + hy);
  const crown = along(brim, tilt + turn - 6, 4.6);
  brush.fill(limb(along(brim, tilt + turn - 6, 1.1), 3.9, crown, 3.5), palette.hat, palette.line, 0.05);
  brush.fill(
    limb(
      along(along(brim, tilt + turn - 6, 1.3), tilt + turn + 90, -3.2),
      0.8,
      along(along(brim, tilt + turn - 6, 1.3), tilt + turn + 90, 3.3),
      0.8,
    ),
    palette.band,
    undefined,
  );
  const across = (d: number, down = 0): Place =>
    along(along(brim, tilt + turn + 90, d), tilt + turn + 180, down);
  brush.fill(limb(across(-5.8), 0.8, across(6.2), 0.8), palette.hat, undefined, -0.3);
  if (isRaining) rainHat(brush, across, (far) => along(brim, tilt + turn - 6, far));
}

/** Where the upper body of a pose sits on its legs, from the ground under the standing figure. */
export function waistOf(change: Change): Place {
  const { hip, turn } = { ...standing, ...change };
  if (!turn) return point(hip[0], hip[1]);
  const angle = (turn.degrees * Math.PI) / 180;
  const [dx, dy] = [hip[0] - turn.about[0], hip[1] - turn.about[1]];
  return point(
    turn.about[0] + dx * Math.cos(angle) - dy * Math.sin(angle),
    turn.about[1] + dx * Math.sin(angle) + dy * Math.cos(angle),
  );
}

/** The parts that a pose is drawn in, back to front. */
export const parts = ['behind', 'legs', 'upper'] as const;

/** One of them. */
export type Part = (typeof parts)[number];

/** What Wick can wear over his own clothes, and the parts of the drawing that have something of it. */
export const gear: Readonly<Record<Gear, readonly Part[]>> = {
  oilskin: ['behind', 'upper'],
  'rain-hat': ['upper'],
  satchel: ['upper'],
};

/** Draws one pose, each part on a grid of its own. @param worn a piece of his gear */
export function drawWick(grids: Readonly<Record<Part, Pen>>, change: Change, worn?: Gear): void {
  const pose = { ...standing, ...change };
  const pen = (part: Part): Pen => (pose.turn ? turned(grids[part], pose.turn) : grids[part]);
  const [behind, legs, upper] = [pen('behind'), pen('legs'), pen('upper')];
  const hip = point(pose.hip[0], pose.hip[1]);
  const neck = along(hip, pose.lean, torso);
  const shoulder = along(neck, pose.lean + 180, 1.6);
  const farShoulder = point(shoulder.x + 1.2, shoulder.y);
  const nearShoulder = point(shoulder.x - 0.9, shoulder.y + 0.3);
  const hand = point(nearShoulder.x + pose.nearHand[0], nearShoulder.y + pose.nearHand[1]);

  for (const [x, y, long] of pose.streaks ?? [])
    for (let i = 0; i < long; i++)
      behind.dot(x + i, y, palette.dust[i < long / 3 ? 0 : i < long / 1.5 ? 1 : 2]);
  if (pose.sweep) {
    const { centre, radius, thick, from, to } = pose.sweep;
    behind.fill(crescent(point(...centre), radius, thick, from, to), palette.sweep, undefined);
  }
  arm(behind, farShoulder, pose.farHand, pose.farElbow, true, worn === 'oilskin');
  if (pose.pole.behind) drawPole(behind, hand, pose.pole, pose.flame);
  scarfTail(behind, along(neck, pose.lean - 70, 2.6), pose.scarf);
  leg(legs, point(hip.x + 1, hip.y), pose.farFoot, pose.farKnee ?? 1, true);
  leg(legs, point(hip.x - 0.8, hip.y), pose.nearFoot, pose.nearKnee ?? 1, false);
  coatBody(upper, hip, neck, pose.lean, pose.coat);
  if (worn === 'oilskin') oilskin(upper, hip, neck, pose.lean, pose.coat);
  if (worn === 'satchel') satchel(upper, hip, neck, pose.lean);
  head(upper, neck, pose, worn === 'rain-hat');
  upper.fill(ellipse(along(neck, pose.lean, 0.4), 4, 1.75, pose.lean - 4), palette.scarf, palette.line);
  if (!pose.pole.behind) drawPole(upper, hand, pose.pole, pose.flame);
  arm(upper, nearShoulder, pose.nearHand, pose.nearElbow, false, worn === 'oilskin');
  for (const [x, y, size] of pose.drops ?? [])
    upper.fill(ellipse(point(x, y), size, size * 1.15), palette.water, palette.line);
  for (const [x, y, tone] of pose.stars ?? []) {
    const rays: readonly XY[] = [
      [0, -1],
      [-1, 0],
      [1, 0],
      [0, 1],
    ];
    if (tone === 1) for (const [dx, dy] of rays) upper.dot(x + dx, y + dy, palette.flame[1]);
    upper.dot(x, y, palette.flame[2]);
  }
  for (const [x, y, size] of pose.puffs ?? [])
    legs.fill(ellipse(point(x, y), size, size * 0.8), palette.dust, undefined);
}
