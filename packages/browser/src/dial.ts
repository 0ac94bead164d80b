import type { Compass } from 'dot-hop';
import type { Player } from 'dot-hop/play';
import { dialOf } from 'dot-hop/view';

/** The colours of a dial. */
export interface DialColours {
  readonly sector: string;
  readonly border: string;
  readonly sticks: string;
  /** The direction that shows. */
  readonly facing: string;
  readonly arrow: string;
  /** The direction to which the character is turning, if turning takes time. */
  readonly goal: string;
}

const dusk: DialColours = {
  sector: '#37304f',
  border: '#1d1930',
  sticks: 'rgba(240, 230, 218, 0.16)',
  facing: '#ffc95c',
  arrow: '#fff6e6',
  goal: '#7fa8e0',
};

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/**
 * Draws the compass of a character with its present vector: sectors, the strips where a direction is kept, the dead zone, and the direction
 * that shows.
 *
 * @param x where its middle is drawn, in pixels of the context
 * @param longest the length of a vector that reaches the edge; longer vectors end there too
 */
export function drawDial(
  context: CanvasRenderingContext2D,
  performer: Player,
  x: number,
  y: number,
  radius: number,
  longest: number,
  colours: DialColours = dusk,
): void {
  const { compass } = performer.controller;
  const dead = (radius * Math.min(longest, compass.deadZone)) / longest;
  context.save();
  context.translate(x, y);
  for (const { direction, from, to } of dialOf(compass)) {
    const isFaced = direction === performer.facing;
    context.globalAlpha = isFaced ? 0.85 : 1;
    context.fillStyle = isFaced ? colours.facing : colours.sector;
    wedge(context, 0, radius, from, to);
    if (direction !== performer.pointsTo || isFaced) continue;
    context.fillStyle = colours.goal;
    wedge(context, radius * 0.9, radius, from, to);
  }
  context.globalAlpha = 1;
  drawBorders(context, compass, dead, radius, colours);
  context.fillStyle = colours.border;
  context.beginPath();
  context.arc(0, 0, Math.max(2, dead), 0, 2 * Math.PI);
  context.fill();
  drawArrow(context, performer.vector, radius / longest, radius, colours);
  context.restore();
}

function wedge(context: CanvasRenderingContext2D, near: number, far: number, from: number, to: number): void {
  context.beginPath();
  context.arc(0, 0, far, radians(from), radians(to));
  context.arc(0, 0, near, radians(to), radians(from), true);
  context.fill();
}

function drawBorders(
  context: CanvasRenderingContext2D,
  compass: Compass,
  dead: number,
  radius: number,
  { border, sticks }: DialColours,
): void {
  context.strokeStyle = border;
  context.lineWidth = Math.max(1, radius / 60);
  for (const { from, to, keepsFrom, keepsTo } of dialOf(compass)) {
    context.fillStyle = sticks;
    if (keepsTo - to > 0.01) wedge(context, dead, radius, to, keepsTo);
    const begin = keepsFrom > from ? keepsFrom - 360 : keepsFrom;
    if (from - begin > 0.01) wedge(context, dead, radius, begin, from);
    context.beginPath();
    context.moveTo(Math.cos(radians(to)) * dead, Math.sin(radians(to)) * dead);
    context.lineTo(Math.cos(radians(to)) * radius, Math.sin(radians(to)) * radius);
    context.stroke();
  }
}

function drawArrow(
  context: CanvasRenderingContext2D,
  [x, y]: readonly [number, number],
  unit: number,
  radius: number,
  { arrow, border }: DialColours,
): void {
  const long = Math.hypot(x, y) * unit;
  if (long < 1) return;
  const end = Math.min(long, radius);
  const head = Math.min(end, radius / 9);
  context.rotate(Math.atan2(y, x));
  for (const [colour, width] of [
    [border, radius / 12],
    [arrow, radius / 28],
  ] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width;
    context.lineCap = context.lineJoin = 'round';
    context.beginPath();
    context.moveTo(0, 0);
    context.lineTo(end, 0);
    context.moveTo(end - head, -head * 0.7);
    context.lineTo(end, 0);
    context.lineTo(end - head, head * 0.7);
    context.stroke();
  }
}
