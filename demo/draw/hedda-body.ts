// The fishwife's body: joints from a pose, then shapes from the joints, back to front. Lengths are pixels; x is forward,
// y is down, the origin is the ground under the hip of the standing figure.
import { along, joint, mix, point } from './bones.js';
import type { XY } from './bones.js';
import { ellipse, limb, polygon, ribbon, turned } from './brush.js';
import type { Pen, Place } from './brush.js';

export const palette = {
  line: '#1c1830',
  skin: ['#a85f52', '#e0a074', '#f7cfa0'],
  skinBack: ['#8f4d49', '#c98763', '#e0a074'],
  hair: ['#3a2530', '#5c3a3c', '#85584a'],
  kerchief: ['#2f4a86', '#4f78b8', '#8fb6e0'],
  shawl: ['#a8662a', '#dc9a38', '#f6cb68'],
  sleeve: ['#8f84a6', '#cfc6d2', '#f2ead9'],
  sleeveBack: ['#6d6388', '#a79db4', '#cfc6d2'],
  skirt: ['#5e2038', '#8f3346', '#bd5252'],
  fold: ['#47182f', '#5e2038', '#8f3346'],
  apron: ['#8d93ae', '#cdd2d8', '#f4f0e2'],
  boot: ['#4a2830', '#784238', '#a96a48'],
  wicker: ['#6d4a2e', '#a8783f', '#dcae62'],
  fish: ['#3f6f8e', '#7fb3c4', '#d8eee8'],
  eye: '#241a33',
  cheek: '#d98268',
};

const upperArm = 4.8;
const foreArm = 4.8;
const torso = 8.6;

/** Where a foot is, and how it is tipped, in degrees. */
type Foot = readonly [x: number, y: number, tip?: number];

/** How she holds herself. Places are pixels from the ground under her hip; those of hands count from their shoulders. */
export interface Pose {
  readonly hip: XY;
  /** Degrees forward, of the body and of the head. */
  readonly lean: number;
  readonly head: number;
  readonly headMove: XY;
  readonly nearFoot: Foot;
  readonly farFoot: Foot;
  readonly nearHand: XY;
  readonly farHand: XY;
  /** 1 bends forward, -1 backward. */
  readonly nearElbow: number;
  readonly farElbow: number;
  /** How far the hem is left behind, and how wide it opens. */
  readonly hem: readonly [behind: number, wide: number];
  /** Over 0 she sits. */
  readonly seat?: number;
  /** How the ends of her kerchief fall, and how long they are. */
  readonly tails: readonly [fall: number, long: number];
  readonly eye: 'open' | 'shut' | 'wide';
  readonly mouth: boolean;
  /** The basket: on her head, in her hands (a place from the neck), or nowhere; and how it tips. */
  readonly basket?: 'head' | XY;
  readonly tip?: number;
  /** In which hand a fish is; held out is the near one. */
  readonly fish?: 'near' | 'far' | 'held';
  /** Fish on the ground: where, and how they lie. */
  readonly loose?: readonly (readonly [x: number, y: number, degrees: number])[];
  /** She is turned as a whole. */
  readonly turn?: { readonly degrees: number; readonly about: XY };
}

/** What of a pose is not as she stands. */
export type Change = Partial<Pose>;

/** A standing figure; a pose says only what differs. */
export const standing: Pose = {
  hip: [0, -13],
  lean: 2,
  head: 0,
  headMove: [0, 0],
  nearFoot: [-1.6, 0],
  farFoot: [2.6, 0],
  nearHand: [3.4, 6.8],
  farHand: [4.6, 6],
  nearElbow: -1,
  farElbow: -1,
  hem: [0, 0],
  tails: [-128, 5],
  eye: 'open',
  mouth: false,
};

/** The parts that a pose is drawn in, back to front. */
export const parts = ['legs', 'upper'] as const;

/** One of them. */
export type Part = (typeof parts)[number];

function boot(brush: Pen, [x, y, tip = 0]: Foot): void {
  const heel = point(x, y - 1.9);
  const toe = along(heel, 90 + tip, 3.2);
  brush.fill(limb(point(heel.x, heel.y - 3), 1.7, heel, 1.7), palette.boot, palette.line);
  brush.fill(limb(point(heel.x, heel.y + 0.3), 1.7, point(toe.x, toe.y + 0.6), 1.3), palette.boot, undefined);
}

function skirt(
  brush: Pen,
  hip: Place,
  { lean, hem: [behind, wide], nearFoot, farFoot, seat = 0 }: Pose,
): void {
  const spread = Math.abs(nearFoot[0] - farFoot[0]);
  const middle = (nearFoot[0] + farFoot[0]) / 2 + behind;
  const half = 5.9 + spread * 0.16 + wide;
  const low = -3.3;
  if (seat > 0) {
    // Sitting, the cloth lies over the legs.
    const feet = point((nearFoot[0] + farFoot[0]) / 2 - 2.6, -3.4 + Math.min(nearFoot[1], 0) * 0.7);
    brush.fill(
      limb(point(hip.x, hip.y + 0.6), 4.1, feet, 3.1 + wide * 0.4),
      palette.skirt,
      palette.line,
      0.05,
    );
    brush.fill(
      limb(point(hip.x + 2.4, hip.y - 0.6), 2.3, point(feet.x, feet.y - 0.9), 1.8),
      palette.apron,
      undefined,
      0.05,
    );
    brush.fill(
      limb(point(hip.x - 1, hip.y + 2.6), 0.5, point(feet.x - 1, feet.y + 2), 0.6),
      palette.fold,
      undefined,
      -0.2,
    );
    return;
  }
  const waist = (across: number): Place => along(point(hip.x, hip.y - 1.4), lean + 90, across);
  const knee = (across: number): Place => point(hip.x * 0.5 + middle * 0.5 + across, (hip.y + low) / 2);
  const hem = (across: number): Place => point(middle + across * half, low + Math.abs(across) * 0.2);
  const shape = [waist(-3.3), waist(3.1), knee(5.4 + wide * 0.4), hem(1), hem(-1), knee(-5.5 - wide * 0.5)];
  brush.fill(polygon(shape), palette.skirt, palette.line, 0.05);
  brush.fill(ellipse(point(hip.x - 0.6, hip.y + 0.6), 4.5, 3.4), palette.skirt, undefined, 0.05);
  // Folds fall from the waist to the hem.
  for (const across of [-0.62, -0.18])
    brush.fill(limb(knee(across * 5.5), 0.35, hem(across), 0.75), palette.fold, undefined, -0.2);
  const apron = [waist(0.2), waist(3.5), knee(5.8 + wide * 0.4), hem(0.98), hem(0.3), knee(1.2)];
  const raised = apron.map(({ x, y }) => point(x, Math.min(y, low - 1.7)));
  brush.fill(polygon(raised), palette.apron, palette.line, 0.05);
  brush.fill(limb(waist(-3.2), 0.7, waist(3.5), 0.7), palette.apron, undefined, -0.4);
}

/** @returns where the hand is */
function arm(brush: Pen, shoulder: Place, [x, y]: XY, bend: number, far: boolean): Place {
  const hand = point(shoulder.x + x, shoulder.y + y);
  const { middle, end } = joint(shoulder, hand, upperArm, foreArm, bend);
  const sleeve = far ? palette.sleeveBack : palette.sleeve;
  const skin = far ? palette.skinBack : palette.skin;
  brush.fill(limb(shoulder, 2.1, middle, 2.1), sleeve, palette.line);
  // Rolled up to the elbow: forearms that carry.
  brush.fill(limb(middle, 1.5, end, 1.35), skin, palette.line);
  brush.fill(limb(middle, 2.2, mix(middle, end, 0.22), 2), sleeve, undefined, -0.1);
  brush.fill(ellipse(end, 1.6, 1.6), skin, undefined, 0.1);
  return end;
}

/** A fish, by its middle, how it lies, and how long it is. */
function drawFish(brush: Pen, middle: Place, degrees: number, long = 6.4, wide = 1.7): void {
  const nose = along(middle, degrees, long / 2);
  const tail = along(middle, degrees + 180, long / 2);
  brush.fill(
    polygon([tail, along(tail, degrees + 150, 2.6), along(tail, degrees + 210, 2.6)]),
    palette.fish,
    undefined,
    -0.1,
  );
  brush.fill(ellipse(middle, wide, long / 2, degrees), palette.fish, undefined, 0.15);
  const eye = along(nose, degrees + 180, 1.3);
  brush.dot(eye.x, eye.y, palette.eye);
}

/** A flat basket full of fish. */
function drawBasket(brush: Pen, at: Place, tilt = 0): void {
  const side = (across: number, up: number): Place => along(along(at, tilt + 90, across), tilt, up);
  drawFish(brush, side(-3.8, 3.4), tilt - 58, 7.4, 2);
  drawFish(brush, side(4, 3.4), tilt + 54, 7.4, 2);
  drawFish(brush, side(0.2, 4.6), tilt - 84, 8.4, 2.2);
  brush.fill(limb(side(-5.8, 0), 2, side(5.8, 0), 2), palette.wicker, palette.line, -0.05);
  brush.fill(limb(side(-7.4, 1.7), 0.95, side(7.4, 1.7), 0.95), palette.wicker, palette.line, 0.4);
  for (const across of [-5, -2.5, 0, 2.5, 5]) {
    const weave = side(across, -0.4);
    brush.dot(weave.x, weave.y, palette.wicker[0]);
  }
}

/** @returns where something is on her head: pixels forward and down from its middle */
function drawHead(brush: Pen, neck: Place, pose: Pose): (forward: number, down: number) => Place {
  const tilt = pose.lean * 0.35 + pose.head;
  const above = along(neck, tilt, 5.4);
  const centre = point(above.x + pose.headMove[0] + 0.5, above.y + pose.headMove[1]);
  const at = (forward: number, down: number): Place =>
    along(along(centre, tilt + 90, forward), tilt + 180, down);
  const [fall, long] = pose.tails;
  // The knot of the kerchief at the neck, and its two ends.
  const knot = at(-4.2, 2.6);
  brush.fill(
    ribbon([knot, along(knot, fall, long * 0.6), along(knot, fall - 14, long)], 0.9, 1.2),
    palette.kerchief,
    palette.line,
    -0.2,
  );
  brush.fill(ribbon([knot, along(knot, fall - 40, long * 0.7)], 0.9, 1.1), palette.kerchief, undefined, -0.3);
  brush.fill(ellipse(at(-0.9, -0.1), 5.2, 5.1, tilt), palette.kerchief, palette.line, 0.05);
  brush.fill(ellipse(at(1.6, 1.3), 4, 4, tilt), palette.skin, undefined, 0.3);
  brush.fill(ellipse(at(5.1, 1.7), 1.1, 1, tilt), palette.skin, undefined, 0.2);
  // A strand of hair under the cloth, and the cloth's edge.
  brush.fill(limb(at(1.2, -2.2), 0.8, at(4.4, -1.3), 0.7), palette.hair, undefined, -0.1);
  brush.fill(limb(at(-1.9, 3.6), 1, at(-1.6, -1.4), 1.1), palette.kerchief, undefined, -0.45);
  const eye = at(3.2, 0.7);
  if (pose.eye === 'open') {
    brush.dot(eye.x, eye.y, palette.eye);
    brush.dot(eye.x, eye.y + 1, palette.eye);
  } else if (pose.eye === 'wide')
    for (const [dx, dy] of [
      [0, -1],
      [0, 0],
      [0, 1],
      [-1, 0],
    ] as const)
      brush.dot(eye.x + dx, eye.y + dy, palette.eye);
  else for (const dx of [0, -1, 1]) brush.dot(eye.x + dx, eye.y + 0.8, palette.skin[0]);
  const cheek = at(1.9, 3);
  brush.dot(cheek.x, cheek.y, palette.cheek);
  brush.dot(cheek.x + 1, cheek.y, palette.cheek);
  if (pose.mouth) {
    const mouth = at(4, 3.4);
    brush.dot(mouth.x, mouth.y, palette.hair[0]);
    brush.dot(mouth.x, mouth.y + 1, palette.hair[0]);
    brush.dot(mouth.x - 1, mouth.y + 0.5, palette.hair[0]);
  }
  return at;
}

/** Draws one pose, each part on a grid of its own. */
export function drawHedda(grids: Readonly<Record<Part, Pen>>, change: Change): void {
  const pose = { ...standing, ...change };
  const pen = (part: Part): Pen => (pose.turn ? turned(grids[part], pose.turn) : grids[part]);
  const [legs, upper] = [pen('legs'), pen('upper')];
  const hip = point(...pose.hip);
  const neck = along(hip, pose.lean, torso);
  const shoulder = along(neck, pose.lean + 180, 1.7);
  const far = point(shoulder.x + 1.3, shoulder.y);
  const near = point(shoulder.x - 1, shoulder.y + 0.3);
  boot(legs, pose.farFoot);
  boot(legs, pose.nearFoot);
  skirt(legs, hip, pose);
  const farHand = arm(upper, far, pose.farHand, pose.farElbow, true);
  const side = pose.lean + 90;
  upper.fill(
    polygon([
      along(neck, side, -3.4),
      along(neck, side, 3.2),
      along(mix(neck, hip, 0.9), side, 3.2),
      along(mix(neck, hip, 0.9), side, -3.2),
    ]),
    palette.sleeve,
    palette.line,
    -0.1,
  );
  // The shawl, crossed over the chest.
  upper.fill(
    polygon([
      along(neck, side, -4.3),
      along(neck, side, 3.6),
      along(mix(neck, hip, 0.62), side, 3.9),
      along(mix(neck, hip, 0.82), side, 0.6),
      along(mix(neck, hip, 0.66), side, -4.6),
    ]),
    palette.shawl,
    palette.line,
    0.05,
  );
  upper.fill(ellipse(along(neck, pose.lean + 180, 1), 4.5, 2.7, pose.lean), palette.shawl, undefined, 0.15);
  const at = drawHead(upper, neck, pose);
  if (pose.basket === 'head')
    drawBasket(upper, at(-0.4, -6.2), pose.lean * 0.35 + pose.head * 0.5 + (pose.tip ?? 0));
  else if (pose.basket !== undefined)
    drawBasket(upper, point(neck.x + pose.basket[0], neck.y + pose.basket[1]), pose.tip ?? 0);
  if (pose.fish === 'far') drawFish(upper, along(farHand, 180, 2), 170, 6.4);
  const hand = arm(upper, near, pose.nearHand, pose.nearElbow, false);
  if (pose.fish === 'near') drawFish(upper, along(hand, 180, 2.2), 176, 6.4);
  if (pose.fish === 'held') drawFish(upper, along(hand, 90, 2.6), 84, 6.8);
  for (const [x, y, degrees] of pose.loose ?? []) drawFish(legs, point(x, y), degrees, 6);
}
