import type { Controller, DirectionDrawing, Pose } from 'dot-hop';
import type { TrailPoint } from 'dot-hop/rehearsal';
import { dialOf } from 'dot-hop/view';
import type { DialSector } from 'dot-hop/view';
import type { Image } from '../images.js';
import { Canvas, svgLine } from './canvas.js';
import { svgText, textWidth } from './letters.js';
import { reachOf } from './motion.js';
import { markColour, theme } from './theme.js';

/** What a picture of a compass shows besides the compass. */
export interface DialParts {
  readonly title: string;
  /** What is shown in each direction of the compass. */
  readonly drawings: readonly DirectionDrawing[];
  /** What is drawn for each. */
  readonly poses: readonly Pose[];
  readonly trail?: { readonly name: string; readonly points: readonly TrailPoint[] } | undefined;
}

const margin = 28;
const heading = 64;
const legendWidth = 270;
const radius = 190;
/** Where the vectors of the trail end: the longest lies on this circle. */
const trailRadius = radius - 14;

interface Spot {
  readonly x: number;
  readonly y: number;
}

const at = ({ x, y }: Spot, degrees: number, far: number): Spot => {
  const turn = (degrees * Math.PI) / 180;
  return { x: x + Math.cos(turn) * far, y: y + Math.sin(turn) * far };
};
const pair = ({ x, y }: Spot): string => `${x.toFixed(2)} ${y.toFixed(2)}`;

/** A slice of a ring as the text of an SVG path; `near` 0 gives a slice of the disc. */
function slice(centre: Spot, near: number, far: number, from: number, to: number): string {
  const large = to - from > 180 ? 1 : 0;
  const outer = `M ${pair(at(centre, from, far))} A ${far} ${far} 0 ${large} 1 ${pair(at(centre, to, far))}`;
  const inner =
    near === 0
      ? `L ${pair(centre)}`
      : `L ${pair(at(centre, to, near))} A ${near} ${near} 0 ${large} 0 ${pair(at(centre, from, near))}`;
  return `${outer} ${inner} Z`;
}

/** The compass of a character as a dial: sectors, dead zone, what sticks, and the cells around it. */
export function dialPicture(
  controller: Controller,
  images: ReadonlyMap<string, Image>,
  { title, drawings, poses, trail }: DialParts,
): Promise<Buffer> {
  const sectors = dialOf(controller.compass);
  const reach = reachOf(poses);
  const [width, height] = [reach.left + reach.right, reach.top + reach.bottom];
  const scale = Math.max(1, Math.min(3, Math.floor(150 / Math.max(width, height))));
  const box = { width: width * scale + 16, height: height * scale + 46 };
  // Far enough out that neighbours do not touch.
  const step = (2 * Math.PI) / sectors.length;
  const far = Math.max(
    radius + 22 + Math.hypot(box.width, box.height) / 2,
    sectors.length < 3 ? 0 : (Math.max(box.width, box.height) * 1.04) / (2 * Math.sin(step / 2)),
  );
  const room = { x: far + box.width / 2 + margin, y: far + box.height / 2 + margin };
  const canvas = new Canvas(
    Math.ceil(room.x * 2 + legendWidth),
    Math.ceil(Math.max(room.y * 2 + heading, 560)),
  );
  const centre = { x: room.x, y: heading + (canvas.height - heading) / 2 };
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  canvas.draw(svgText(title, margin, 40, { size: 18, bold: true, colour: theme.text }));
  drawSectors(canvas, centre, sectors, controller, trail);
  sectors.forEach((sector, i) =>
    drawCell(canvas, images, controller, sector, {
      drawing: drawings[i]!,
      pose: poses[i]!,
      place: at(centre, sector.degrees, far),
      box,
      ground: reach.top * scale,
      middle: (reach.left - width / 2) * scale,
      scale,
      colour: markColour(i),
    }),
  );
  if (trail !== undefined) drawTrail(canvas, centre, trail.points, controller);
  drawLegend(canvas, canvas.width - legendWidth, controller, drawings, trail?.name);
  return canvas.png();
}

/** How many pixels of the dial a length of the vector takes. */
function unitOf({ compass }: Controller, trail: DialParts['trail']): number {
  const longest = Math.max(0, ...(trail?.points ?? []).map(({ x, y }) => Math.hypot(x, y)));
  if (longest > 0) return trailRadius / Math.max(longest, compass.deadZone * 1.5);
  return compass.deadZone > 0 ? 46 / compass.deadZone : 1;
}

function drawSectors(
  canvas: Canvas,
  centre: Spot,
  sectors: readonly DialSector[],
  controller: Controller,
  trail: DialParts['trail'],
): void {
  const dead = controller.compass.deadZone * unitOf(controller, trail);
  sectors.forEach(({ from, to, degrees }, i) => {
    const path = slice(centre, 0, radius, from, to);
    canvas.draw(
      `<path d="${path}" fill="${markColour(i)}" fill-opacity="0.3" stroke="${theme.ground}" stroke-width="2"/>`,
      `<path d="${slice(centre, radius - 7, radius, from, to)}" fill="${markColour(i)}"/>`,
    );
    const tip = at(centre, degrees, radius + 14);
    const [left, right] = [at(centre, degrees - 2.2, radius + 3), at(centre, degrees + 2.2, radius + 3)];
    canvas.draw(`<path d="M ${pair(tip)} L ${pair(left)} L ${pair(right)} Z" fill="${markColour(i)}"/>`);
  });
  for (const { to, keepsTo, from, keepsFrom } of sectors) {
    // What sticks lies on both sides of a border: each half is what one of the two keeps beyond it.
    for (const [begin, end] of [
      [to, keepsTo],
      [keepsFrom > from ? keepsFrom - 360 : keepsFrom, from],
    ] as const)
      if (end - begin > 0.01)
        canvas.draw(
          `<path d="${slice(centre, dead, radius - 7, begin, end)}" fill="${theme.text}" fill-opacity="0.13"/>`,
        );
    const [near, out] = [at(centre, to, dead), at(centre, to, radius)];
    canvas.draw(svgLine(near.x, near.y, out.x, out.y, theme.ground, 'stroke-width="2"'));
  }
  if (dead > 0)
    canvas.draw(
      `<circle cx="${centre.x}" cy="${centre.y}" r="${dead}" fill="${theme.ground}" fill-opacity="0.85" stroke="${theme.dim}" stroke-width="1.5" stroke-dasharray="4 4"/>`,
    );
  canvas.draw(`<circle cx="${centre.x}" cy="${centre.y}" r="2.5" fill="${theme.text}"/>`);
}

interface CellParts {
  readonly drawing: DirectionDrawing;
  readonly pose: Pose;
  readonly place: Spot;
  readonly box: { readonly width: number; readonly height: number };
  /** From the upper edge of the drawing to where the pivot stands, and from its middle; in pixels of the picture. */
  readonly ground: number;
  readonly middle: number;
  readonly scale: number;
  readonly colour: string;
}

/** What is drawn for a drawing, in words. */
function drawnAs({ mirrored, standsIn, drawnFor }: DirectionDrawing, { compass }: Controller): string {
  const from = compass.names[drawnFor]!;
  if (standsIn) return `stands in: ${from}`;
  return mirrored ? `mirrors ${from}` : 'drawn';
}

function drawCell(
  canvas: Canvas,
  images: ReadonlyMap<string, Image>,
  controller: Controller,
  { direction }: DialSector,
  { drawing, pose, place, box, ground, middle, scale, colour }: CellParts,
): void {
  const [left, top] = [Math.round(place.x - box.width / 2), Math.round(place.y - box.height / 2)];
  const stage = box.height - 38;
  canvas.fill(left, top, box.width, stage, theme.stage);
  canvas.pose(images, pose, Math.round(place.x + middle), top + 4 + ground, scale);
  const dashes = drawing.mirrored
    ? 'stroke-dasharray="6 4"'
    : drawing.standsIn
      ? 'stroke-dasharray="2 4"'
      : '';
  canvas.draw(
    `<rect x="${left + 1}" y="${top + 1}" width="${box.width - 2}" height="${stage - 2}" fill="none" stroke="${colour}" stroke-width="2" ${dashes}/>`,
    svgText(direction, place.x, top + stage + 16, { colour: theme.text, bold: true, align: 'middle' }),
    svgText(drawnAs(drawing, controller), place.x, top + stage + 32, {
      colour: drawing.standsIn ? theme.lamp : theme.dim,
      size: 12,
      align: 'middle',
    }),
  );
}

/** The tips of the vectors in turn, joined; each in the colour of the direction that was faced then. */
function drawTrail(
  canvas: Canvas,
  centre: Spot,
  points: readonly TrailPoint[],
  controller: Controller,
): void {
  const unit = unitOf(controller, { name: '', points });
  const spots = points.map(({ x, y }) => ({ x: centre.x + x * unit, y: centre.y + y * unit }));
  canvas.draw(
    `<polyline points="${spots.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')}" fill="none" stroke="${theme.text}" stroke-width="1.5" stroke-opacity="0.55"/>`,
  );
  // A vector that stays while the character turns has several directions: the last shows, a ring for each before it.
  const rings = new Map<string, number>();
  spots.forEach((spot, i) => {
    const key = pair(spot);
    const ring = rings.get(key) ?? 0;
    rings.set(key, ring + 1);
    const colour = markColour(controller.compass.names.indexOf(points[i]!.direction));
    const shape =
      ring === 0
        ? `r="5.5" fill="${colour}" stroke="${theme.ground}" stroke-width="1.5"`
        : `r="${5.5 + ring * 3.5}" fill="none" stroke="${colour}" stroke-width="2.2"`;
    canvas.draw(`<circle cx="${spot.x.toFixed(1)}" cy="${spot.y.toFixed(1)}" ${shape}/>`);
  });
}

function drawLegend(
  canvas: Canvas,
  left: number,
  { compass }: Controller,
  drawings: readonly DirectionDrawing[],
  trail: string | undefined,
): void {
  const counts = {
    drawn: drawings.filter(({ mirrored, standsIn }) => !mirrored && !standsIn).length,
    mirrored: drawings.filter(({ mirrored, standsIn }) => mirrored && !standsIn).length,
    standing: drawings.filter(({ standsIn }) => standsIn).length,
  };
  const { deadZone, stick, through } = compass;
  const lines: [string, string][] = [
    [`${drawings.length} directions`, `${counts.drawn} drawn, ${counts.mirrored} mirrored`],
    ...(counts.standing > 0
      ? [[`${counts.standing} without a drawing`, 'the nearest stands in'] as [string, string]]
      : []),
    [`dead zone ${deadZone}`, deadZone > 0 ? 'shorter: keeps facing' : 'none'],
    [`sticks ${stick} degrees`, stick > 0 ? 'pale: past the border, no turn yet' : 'turns on the border'],
    [
      through > 0 ? `through ${through / 1000} ms` : 'turns at once',
      through > 0 ? 'each direction shows that long' : 'to any direction',
    ],
  ];
  if (trail !== undefined)
    lines.push(
      [trail, 'tips of the vectors in turn'],
      ['', 'dot: colour of what it faced'],
      ['', 'rings: what it turned to next'],
    );
  let y = 36;
  for (const [what, means] of lines) {
    if (what !== '') {
      const size = textWidth(what, { size: 13, bold: true }) > legendWidth - margin ? 11 : 13;
      canvas.draw(svgText(what, left, (y += 12), { colour: theme.text, bold: true, size }));
      y += 18;
    }
    canvas.draw(svgText(means, left, y, { colour: theme.dim, size: 12 }));
    y += 19;
  }
}
