// The head of a person: whole, or bare and hair apart for whom these are layers of their own.
import { ellipse } from './brush.js';
import type { Direction } from './from-above.js';
import type { HeadContext, Person } from './person-definition.js';

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

/** A head with its hair, and what is worn on it. */
export function drawHead(person: Person, context: HeadContext): void {
  const { brush, head, line } = context;
  brush.fill(ellipse(head, 5.1, 4.9), person.hair, line);
  person.locks?.(context);
  drawFace(person, context);
  person.wears?.over(context);
}

/** The head for whom hair and hats are layers of their own. */
export function drawBareHead(person: Person, context: HeadContext): void {
  const { brush, head, line } = context;
  brush.fill(ellipse(head, 4.9, 4.7), person.skin, line, 0.1);
  drawFace(person, context);
}

/** Hair alone: the face is left out. */
export function drawHair(person: Person, context: HeadContext): void {
  const { brush, head, direction, line } = context;
  person.behindHead?.(context);
  brush.fill(ellipse(head, 5.2, 5), person.hair, line);
  const face = faces[direction];
  if (face !== undefined) brush.erase(ellipse({ x: head.x + face.x, y: head.y + face.y }, face.rx, face.ry));
  person.locks?.(context);
}

function drawFace(person: Person, { brush, head, direction, pose }: HeadContext): void {
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
