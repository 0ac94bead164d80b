// A person of the quay, seen from above at an angle: joints in the body's own space (forward, left, up, in pixels), turned
// to a direction, flattened onto the picture, and drawn from the farthest part to the nearest.
import { ellipse, limb } from './brush.js';
import type { Brush, Pen, Place, Ramp, Shape } from './brush.js';
import { depth, directions, turned } from './from-above.js';
import type { Direction, Placing } from './from-above.js';
import { drawBareHead, drawHair, drawHead } from './head.js';
import type { Foot, Gait, Hand, HeadContext, Person, Pose } from './person-definition.js';

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
  const fromHead: Placing = (forward, left, up) => {
    const to = at(forward, left, up);
    return { x: head.x + to.x, y: head.y + to.y, near: to.near };
  };
  const context: HeadContext = { brush, head, at: fromHead, direction, pose, line };
  if (only === undefined) part(50, () => drawHead(person, context));
  else {
    part(50, () => drawBareHead(person, context), 'head');
    part(50, () => drawHair(person, context), 'hair');
    part(50, () => person.wears?.over(context), 'hat');
  }
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

/** Where the right hand is in a cell, in pixels from the pivot. */
export function palmOf(person: Person, direction: Direction, column: number): Place {
  const { size = 1, gait, dress } = person;
  const at = turned(directions[direction]);
  const pose = poseOf(column, gait, direction);
  const { forward, up } = pose.rightHand;
  return at(forward * size, (-(dress.top + 1.9) + pose.sway) * size, (9.2 + up + pose.rise) * size);
}
