// A person of the quay, seen from above at an angle: joints in the body's own space (forward, left, up, in pixels), turned
// to a direction, flattened onto the picture, and drawn from the farthest part to the nearest.
import { ellipse, limb } from './brush.js';
import type { Brush, Pen, Place, Ramp, Shape } from './brush.js';

/** How much of a height and of a depth on the ground shows in the picture. */
const height = 0.9;
const depth = 0.5;

/** A place of the body in the picture, and how near it is: larger is nearer. */
export interface Seen extends Place {
  readonly near: number;
}

/** Turns a place of the body, in pixels forward, to the left and up, into one of the picture. */
export type Placing = (forward: number, left: number, up: number) => Seen;

interface Hand {
  readonly forward: number;
  readonly aside?: number;
  readonly up: number;
  readonly isRaised?: boolean;
}

interface Foot {
  readonly forward: number;
  readonly up: number;
}

/** How a person holds itself, in pixels. */
export interface Pose {
  readonly left: Foot;
  readonly right: Foot;
  readonly rise: number;
  readonly sway: number;
  readonly leftHand: Hand;
  readonly rightHand: Hand;
  /** How far clothes are left behind. */
  readonly drag: number;
  readonly blink: boolean;
  readonly nod: number;
}

/** How long the steps of a person are, how far its hands swing, and how much it bounces, in pixels. */
interface Gait {
  readonly step: number;
  readonly swing: number;
  readonly bounce: number;
}

/** What is at hand where a head is drawn. */
export interface HeadContext {
  readonly brush: Pen;
  readonly head: Place;
  /** Counted from the middle of the head. */
  readonly at: Placing;
  readonly direction: Direction;
  readonly pose: Pose;
  readonly line: string;
}

/** What is at hand where a body is drawn. */
export interface BodyContext {
  readonly brush: Pen;
  readonly place: Placing;
  readonly direction: Direction;
}

/** Who somebody is: colours, sizes in pixels, and what is worn. */
export interface Person {
  readonly line: string;
  readonly eye: string;
  readonly skin: Ramp;
  readonly cheek?: string;
  readonly hair: Ramp;
  readonly beard?: Ramp | undefined;
  readonly shoe: Ramp;
  readonly sleeve: Ramp;
  /** How large; 1 is grown up. */
  readonly size?: number;
  /** How much lower the face lies than on others. */
  readonly faceDown?: number;
  readonly gait: Gait;
  readonly legs: { readonly spread?: number; readonly cloth?: Ramp; readonly sock?: Ramp };
  readonly dress: {
    readonly cloth: Ramp;
    readonly top: number;
    readonly wide: number;
    readonly hem: number;
    readonly bands?: readonly (readonly [up: number, wide: number, ramp: Ramp])[];
  };
  /** What lies on the coat. */
  readonly front?: (context: BodyContext) => void;
  /** What is held in a hand: 1 is the left one. */
  readonly holds?: {
    readonly side: number;
    readonly hand: readonly [forward: number, aside: number, up: number];
    readonly draw: (context: { readonly brush: Pen; readonly palm: Place }) => void;
  };
  /** Hair that lies over the head, and behind it. */
  readonly locks?: (context: HeadContext) => void;
  readonly behindHead?: (context: HeadContext) => void;
  readonly wears?: { readonly over: (context: HeadContext) => void };
}

/** The five directions that are drawn, in degrees clockwise from east. */
export const directions = { south: 90, southeast: 45, east: 0, northeast: -45, north: -90 };

/** One of them. */
export type Direction = keyof typeof directions;

/** All of them, in the order of the rows of a sheet. */
export const directionNames = Object.keys(directions) as Direction[];

/** Turns the space of a body to a direction: what lies forward, to the left and up, to a place of the picture. */
export function turned(degrees: number): Placing {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return (forward, left, up) => {
    const east = forward * cos + left * sin;
    const south = forward * sin - left * cos;
    return { x: east, y: south * depth - up * height, near: south };
  };
}

/** A coat or skirt: from one round edge to a wider one, seen from above. */
function bell(top: Place, topRadius: number, hem: Place, hemRadius: number): Shape {
  return (x, y) => {
    const t = Math.max(0, Math.min(1, (y - top.y) / (hem.y - top.y || 1)));
    const middle = top.x + (hem.x - top.x) * t;
    // Narrow at the shoulders, then falling outwards.
    const half = topRadius + (hemRadius - topRadius) * t ** 1.25;
    const across = (x - middle) / half;
    // The hem is a circle on the ground.
    const below = (y - hem.y) / (hemRadius * depth);
    const above = (top.y - y) / (topRadius * depth);
    const inside =
      Math.abs(across) <= 1 &&
      (below <= 0 || across * across + below * below <= 1) &&
      (above <= 0 || across * across + above * above <= 1);
    return { depth: inside ? 1 : -1, nx: across * 0.95, ny: -0.25 + t * 0.35 };
  };
}

/** The steps of a walk: 0 and 4 are the contacts, 2 and 6 the passings. */
function walking(i: number, { step, swing, bounce }: Gait): Pose {
  const phase = (i / 8) * 2 * Math.PI;
  const foot = (at: number): Foot => ({
    forward: step * Math.cos(at),
    // A foot that comes forward is lifted; it lands on its heel.
    up: Math.max(0, -Math.sin(at)) * 2.6,
  });
  return {
    left: foot(phase),
    right: foot(phase + Math.PI),
    // Lowest when both feet are far apart, highest when one passes the other.
    rise: bounce * (Math.abs(Math.sin(phase)) - 0.6),
    sway: Math.sin(phase) * 0.55,
    leftHand: { forward: -swing * Math.cos(phase), up: Math.abs(Math.cos(phase)) * 0.8 },
    rightHand: { forward: swing * Math.cos(phase), up: Math.abs(Math.cos(phase)) * 0.8 },
    drag: -1.1 + Math.cos(2 * phase) * 0.5,
    blink: false,
    nod: Math.cos(2 * phase + 0.7) * 0.3,
  };
}

/** Breathing, with a blink. */
function standing(i: number): Pose {
  const breath = [0, 0.5, 0.9, 0.4][i]!;
  return {
    left: { forward: 0.4, up: 0 },
    right: { forward: -0.4, up: 0 },
    rise: breath * 0.55 - 0.4,
    sway: 0,
    leftHand: { forward: 0.6, up: breath * 0.5 },
    rightHand: { forward: 0.2, up: breath * 0.5 },
    drag: 0,
    blink: i === 3,
    nod: breath * 0.3,
  };
}

/** A hand goes up, and swings from side to side: on its way, out, and in. It is held where the head does not hide it. */
const raised: readonly Hand[] = [
  { forward: 3.6, aside: 2.2, up: 8 },
  { forward: 4.4, aside: 4.8, up: 16.4 },
  { forward: 3, aside: 1.2, up: 17 },
];
const raisedBeside: Partial<Record<Direction, readonly Hand[]>> = {
  east: [
    { forward: 6.4, aside: 0, up: 5 },
    { forward: 8.6, aside: 0, up: 11 },
    { forward: 7.4, aside: 0, up: 13.4 },
  ],
  northeast: [
    { forward: 0, aside: 4, up: 8 },
    { forward: 0, aside: 7.4, up: 14.6 },
    { forward: 0, aside: 5.6, up: 16.4 },
  ],
};
function waving(i: number, direction: Direction): Pose {
  return {
    ...standing(1),
    rise: [-0.3, 0.1, 0.3][i]!,
    sway: [0, -0.25, 0.1][i]!,
    leftHand: { ...(raisedBeside[direction] ?? raised)[i]!, isRaised: true },
    nod: [0, 0.3, 0.5][i]!,
  };
}

/** How much of the space between the feet shows. */
const beside: Partial<Record<Direction, number>> = { east: 0.45, southeast: 0.75, northeast: 0.75 };

/** What people do, in the columns of their sheets: all stand and walk, and who has a wardrobe waves, too. */
export const columns = 12;
export const columnsWithWaving = 15;
function poseOf(column: number, gait: Gait, direction: Direction): Pose {
  if (column < 4) return standing(column);
  return column < 12 ? walking(column - 4, gait) : waving(column - 12, direction);
}

/** A group of parts that is drawn alone, for a wardrobe. */
export type PartGroup = 'legs' | 'coat' | 'head' | 'hair' | 'hat';

/**
 * Draws one cell.
 *
 * @param direction a name of {@link directions}
 * @param person who it is: colours, sizes, and what is worn
 * @param only a group of parts to draw alone: `legs`, `coat` (with arms and hands), `head`, `hair` or `hat`
 */
export function drawPerson(
  brush: Brush,
  person: Person,
  direction: Direction,
  column: number,
  only?: PartGroup,
): void {
  const { line, size = 1, gait, dress, skin, sleeve, shoe, legs } = person;
  const at = turned(directions[direction]);
  const pose = poseOf(column, gait, direction);
  const place: Placing = (forward, left, up) =>
    at(forward * size, (left + pose.sway) * size, (up + pose.rise) * size);
  const parts: { readonly near: number; readonly draw: () => void }[] = [];
  const part = (near: number, draw: () => void, group?: PartGroup): void => {
    if (only === undefined || only === group) parts.push({ near, draw });
  };

  for (const [side, foot] of [
    [1, pose.left],
    [-1, pose.right],
  ] as const) {
    // Seen from the side the far foot stands higher in the picture: a little of that is enough.
    const spread = (legs.spread ?? 2.1) * (beside[direction] ?? 1);
    const toe = at((foot.forward + 1.7) * size, side * spread * size, (foot.up + 0.9) * size);
    const heel = at((foot.forward - 0.8) * size, side * spread * size, (foot.up + 1.1) * size);
    const hip = place(0, side * spread * 0.8, 9);
    part(
      heel.near - 4,
      () => {
        if (legs.cloth !== undefined) brush.fill(limb(hip, 2.5 * size, heel, 1.7 * size), legs.cloth, line);
        if (legs.sock !== undefined)
          brush.fill(
            limb({ x: (hip.x + heel.x) / 2, y: (hip.y + heel.y) / 2 }, 1.5, heel, 1.4),
            legs.sock,
            line,
          );
        brush.fill(limb(heel, 1.75 * size, toe, 1.6 * size), shoe, line);
      },
      'legs',
    );
  }

  const shoulders = place(0.2, 0, 17);
  const hem = at(pose.drag * 0.6 * size, pose.sway * 0.4 * size, dress.hem * size + pose.rise * 0.5);
  part(
    0,
    () => {
      brush.fill(bell(shoulders, dress.top * size, hem, dress.wide * size), dress.cloth, line);
      for (const [up, wide, ramp] of dress.bands ?? [])
        drawBand(brush, place(pose.drag * 0.3, 0, up), wide * size, ramp);
      person.front?.({ brush, place, direction });
    },
    'coat',
  );

  for (const [side, hand] of [
    [1, pose.leftHand],
    [-1, pose.rightHand],
  ] as const) {
    const holds = person.holds?.side === side ? person.holds : undefined;
    const reach = holds?.hand ?? ([hand.forward, hand.aside ?? 0, 9.2 + hand.up] as const);
    const shoulder = place(0, side * (dress.top + 0.5), 16.2);
    const palm = place(reach[0], side * (dress.top + 1.9 + reach[1]), reach[2]);
    const elbow =
      hand.isRaised && !holds
        ? place(reach[0] * 0.6, side * (dress.top + 2.4 + reach[1] * 0.6), 11.6 + hand.up * 0.3)
        : place(reach[0] * 0.25 - 0.7, side * (dress.top + 2.2), 12.6);
    part(
      (shoulder.near + palm.near * 2) / 3 + 0.1,
      () => {
        brush.fill(limb(shoulder, 2.1 * size, elbow, 1.8 * size), sleeve, line);
        brush.fill(limb(elbow, 1.8 * size, palm, 1.5 * size), sleeve, undefined);
        brush.fill(ellipse(palm, 1.55 * size, 1.5 * size), skin, undefined, 0.1);
        holds?.draw({ brush, palm });
      },
      'coat',
    );
  }

  const head = place(0.5, 0, 23.4 + pose.nod);
  if (only === undefined) part(50, () => drawHead(brush, person, head, at, direction, pose));
  if (only !== undefined) part(50, () => drawBareHead(brush, person, head, direction, pose), 'head');
  if (only !== undefined) part(50, () => drawHair(brush, person, head, at, direction, pose), 'hair');
  if (only !== undefined)
    part(50, () => person.wears?.over(headContext(brush, person, head, at, direction, pose)), 'hat');
  parts.sort((a, b) => a.near - b.near);
  for (const { draw } of parts) draw();
}

/** A stripe around a coat or skirt: the half of the circle that is seen. */
function drawBand(brush: Pen, middle: Place, radius: number, ramp: Ramp): void {
  for (let x = -radius + 0.5; x <= radius - 0.5; x++) {
    const shade = x < -radius * 0.45 ? 0 : x < radius * 0.4 ? 1 : 2;
    brush.dot(middle.x + x, middle.y + depth * Math.sqrt(radius * radius - x * x), ramp[shade]);
  }
}

/** Where the face lies on the head and how wide it shows, and where the eyes are. */
interface Face {
  readonly x: number;
  readonly y: number;
  readonly rx: number;
  readonly ry: number;
  readonly eyes: readonly number[];
  readonly nose?: number;
}
const faces: Readonly<Record<Direction, Face | undefined>> = {
  south: { x: 0, y: 0.9, rx: 4.1, ry: 3.7, eyes: [-1.9, 1.9] },
  southeast: { x: 1.5, y: 0.8, rx: 3.6, ry: 3.7, eyes: [0.2, 3.5] },
  east: { x: 2.5, y: 0.5, rx: 2.7, ry: 3.7, eyes: [3.6], nose: 5.2 },
  northeast: { x: 4, y: 0.1, rx: 1.2, ry: 2.7, eyes: [], nose: 5 },
  north: undefined,
};

const headContext = (
  brush: Pen,
  { line }: Person,
  head: Seen,
  at: Placing,
  direction: Direction,
  pose: Pose,
): HeadContext => ({
  brush,
  head,
  at: (f, l, u) => offset(head, at(f, l, u)),
  direction,
  pose,
  line,
});

function drawHead(
  brush: Pen,
  person: Person,
  head: Seen,
  at: Placing,
  direction: Direction,
  pose: Pose,
): void {
  const { line, hair, wears } = person;
  const context = headContext(brush, person, head, at, direction, pose);
  brush.fill(ellipse(head, 5.1, 4.9), hair, line);
  person.locks?.(context);
  drawFace(brush, person, head, direction, pose);
  wears?.over(context);
}

/** The head for whom hair and hats are layers of their own. */
function drawBareHead(brush: Pen, person: Person, head: Place, direction: Direction, pose: Pose): void {
  brush.fill(ellipse(head, 4.9, 4.7), person.skin, person.line, 0.1);
  drawFace(brush, person, head, direction, pose);
}

/** Hair alone: the face is left out. */
function drawHair(
  brush: Brush,
  person: Person,
  head: Seen,
  at: Placing,
  direction: Direction,
  pose: Pose,
): void {
  const context = headContext(brush, person, head, at, direction, pose);
  person.behindHead?.(context);
  brush.fill(ellipse(head, 5.2, 5), person.hair, person.line);
  const face = faces[direction];
  if (face !== undefined) brush.erase(ellipse({ x: head.x + face.x, y: head.y + face.y }, face.rx, face.ry));
  person.locks?.(context);
}

function drawFace(brush: Pen, person: Person, head: Place, direction: Direction, pose: Pose): void {
  const { skin, beard } = person;
  const face = faces[direction];
  if (face !== undefined) {
    const { x, rx, eyes, nose } = face;
    const y = face.y + (person.faceDown ?? 0);
    const ry = face.ry - (person.faceDown ?? 0);
    if (nose !== undefined)
      brush.fill(ellipse({ x: head.x + nose, y: head.y + 1.5 }, 1.05, 1), skin, undefined, 0.1);
    brush.fill(ellipse({ x: head.x + x, y: head.y + y }, rx, ry), skin, undefined, 0.28);
    if (beard !== undefined) {
      const chin = { x: head.x + x * 1.05, y: head.y + 4.1 };
      if (direction !== 'northeast') brush.fill(ellipse(chin, rx * 0.95, 2.4), beard, undefined, 0.2);
    }
    for (const eye of eyes) {
      if (pose.blink) brush.dot(head.x + eye, head.y + 1.4, skin[0]);
      else {
        brush.dot(head.x + eye, head.y + 0.4, person.eye);
        brush.dot(head.x + eye, head.y + 1.4, person.eye);
      }
    }
    if (beard === undefined && direction === 'south') {
      brush.dot(head.x - 3, head.y + 2.6, person.cheek);
      brush.dot(head.x + 3, head.y + 2.6, person.cheek);
    }
    if (beard === undefined && direction === 'southeast') brush.dot(head.x + 1, head.y + 2.7, person.cheek);
    if (beard === undefined && direction === 'east') brush.dot(head.x + 2.2, head.y + 2.6, person.cheek);
  }
}

const offset = (from: Place, to: Seen): Seen => ({ x: from.x + to.x, y: from.y + to.y, near: to.near });

/** Where the right hand is in a cell, in pixels from the pivot. */
export function palmOf(person: Person, direction: Direction, column: number): Place {
  const { size = 1, gait, dress } = person;
  const at = turned(directions[direction]);
  const pose = poseOf(column, gait, direction);
  const { forward, up } = pose.rightHand;
  return at(forward * size, (-(dress.top + 1.9) + pose.sway) * size, (9.2 + up + pose.rise) * size);
}
