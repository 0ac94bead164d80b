import type { GroundDefinition, GroundPiece, LevelPiece } from 'dot-hop/rehearsal';

/* The ground that a character is tried on, drawn by hand: a line of level pieces and slopes without a gap, planks over it, water in it. */

export type GroundKind = 'ground' | 'slope' | 'plank' | 'water';

/** A piece as it is drawn: from one place to another, heights upwards, in pixels. */
export interface Stroke {
  readonly kind: GroundKind;
  readonly from: number;
  readonly to: number;
  readonly height: number;
  /** At its right end; of a slope another one. */
  readonly end: number;
}

/** How far ground reaches to both sides, in pixels. */
const far = 10_000;

export const levelGround: GroundDefinition = {};

/** What is narrower was a slip of the hand, in pixels. */
const narrowest = 4;

const heightAt = ([from, to, left, right = left]: GroundPiece, x: number): number =>
  left + ((right - left) * (x - from)) / (to - from);

const piece = (from: number, to: number, left: number, right: number): GroundPiece =>
  left === right ? [from, to, left] : [from, to, left, right];

/** The parts of a piece of ground outside a range. */
function outside(one: GroundPiece, from: number, to: number): GroundPiece[] {
  const [begin, end, left, right = left] = one;
  return [
    ...(begin < from
      ? [piece(begin, Math.min(end, from), left, end <= from ? right : heightAt(one, from))]
      : []),
    ...(end > to ? [piece(Math.max(begin, to), end, begin >= to ? left : heightAt(one, to), right)] : []),
  ];
}

/** Where somebody stands on it at first, in pixels, y downwards. */
export function startOn({ ground = [] }: GroundDefinition): readonly [number, number] {
  const under = ground.filter(([from, to]) => from <= 0 && to >= 0).map((one) => heightAt(one, 0));
  return [0, 0 - Math.max(...under, ...(under.length === 0 ? [0] : []))];
}

/** The ground with a piece more. Ground and slopes take the place of what was there; planks and water come besides. */
export function withStroke(
  ground: GroundDefinition,
  { kind, from, to, height, end }: Stroke,
): GroundDefinition {
  if (to - from < narrowest) return ground;
  if (kind === 'plank') return { ...ground, planks: [...(ground.planks ?? []), [from, to, height]] };
  if (kind === 'water') return { ...ground, water: [...(ground.water ?? []), [from, to, height]] };
  const before = ground.ground ?? [[-far, far, 0]];
  const kept = before.flatMap((one) => outside(one, from, to));
  const next = [...kept, piece(from, to, height, kind === 'slope' ? end : height)].sort(
    (a, b) => a[0] - b[0],
  );
  return { ...ground, ground: joined(next) };
}

/** Pieces at one height that touch are one. */
function joined(pieces: readonly GroundPiece[]): GroundPiece[] {
  const found: GroundPiece[] = [];
  for (const one of pieces) {
    const last = found.at(-1);
    const isOne = last?.length === 3 && one.length === 3 && last[1] === one[0] && last[2] === one[2];
    if (isOne) found.splice(-1, 1, [last[0], one[1], one[2]]);
    else found.push(one);
  }
  return found;
}

const isUnder = ([from, to]: LevelPiece, x: number): boolean => x >= from && x <= to;

/** The ground without what lies at a place: planks and water there, else the piece of ground, which becomes level. */
export function rubbedOut(ground: GroundDefinition, x: number): GroundDefinition {
  const { planks = [], water = [] } = ground;
  if (planks.some((one) => isUnder(one, x)))
    return { ...ground, planks: planks.filter((one) => !isUnder(one, x)) };
  if (water.some((one) => isUnder(one, x)))
    return { ...ground, water: water.filter((one) => !isUnder(one, x)) };
  const found = ground.ground?.find(([from, to]) => x >= from && x <= to);
  if (found === undefined || Math.abs(found[0]) === far || Math.abs(found[1]) === far) return ground;
  return withStroke(ground, { kind: 'ground', from: found[0], to: found[1], height: 0, end: 0 });
}

/** Without what is empty, as a rehearsal writes it. */
export const written = ({ ground, planks = [], water = [] }: GroundDefinition): GroundDefinition => ({
  ...(ground !== undefined && ground.length > 1 && { ground }),
  ...(planks.length > 0 && { planks }),
  ...(water.length > 0 && { water }),
});

/** What has been drawn, as strokes, to be listed: all but the level ground at both ends. */
export const strokesOf = ({ ground = [], planks = [], water = [] }: GroundDefinition): Stroke[] => [
  ...ground
    .filter(([from, to, height]) => !((from === -far || to === far) && height === 0))
    .map(([from, to, height, end = height]): Stroke => ({
      kind: end === height ? 'ground' : 'slope',
      from,
      to,
      height,
      end,
    })),
  ...planks.map(([from, to, height]): Stroke => ({ kind: 'plank', from, to, height, end: height })),
  ...water.map(([from, to, height]): Stroke => ({ kind: 'water', from, to, height, end: height })),
];

/** The ground with one of its listed pieces taken away. */
export function withoutStroke(
  ground: GroundDefinition,
  { kind, from, to, height }: Stroke,
): GroundDefinition {
  const isIt = (one: LevelPiece): boolean => one[0] === from && one[1] === to && one[2] === height;
  if (kind === 'plank') return { ...ground, planks: ground.planks?.filter((one) => !isIt(one)) };
  if (kind === 'water') return { ...ground, water: ground.water?.filter((one) => !isIt(one)) };
  return withStroke(ground, { kind: 'ground', from, to, height: 0, end: 0 });
}

/** Draws it: earth with a plank's edge, water in front of what is under it. */
export function drawGround(
  context: CanvasRenderingContext2D,
  ground: GroundDefinition,
  across: (x: number) => number,
  down: (y: number) => number,
): void {
  const { width, height } = context.canvas;
  const post = 16;
  for (const [from, to, left, right = left] of ground.ground ?? [[-far, far, 0]]) {
    const [x1, x2, y1, y2] = [across(from), across(to), down(-left), down(-right)];
    if (x2 < 0 || x1 > width) continue;
    for (const [colour, off] of [
      ['#6b5349', 0],
      ['#4a3a44', 2],
    ] as const) {
      context.fillStyle = colour;
      context.beginPath();
      context.moveTo(x1, y1 + off);
      context.lineTo(x2, y2 + off);
      context.lineTo(x2, height);
      context.lineTo(x1, height);
      context.fill();
    }
    context.fillStyle = '#362b38';
    const first = Math.ceil(Math.max(from, from + (0 - x1)) / post) * post;
    for (let at = first; at < to && across(at) < width; at += post) {
      const top = down(-heightAt([from, to, left, right], at)) + 2;
      context.fillRect(across(at), top, 1, height - top);
    }
  }
  for (const [from, to, at] of ground.planks ?? []) {
    context.fillStyle = '#362b38';
    context.fillRect(across(from), down(-at), across(to) - across(from), 4);
    context.fillStyle = '#8d6f5a';
    context.fillRect(across(from), down(-at), across(to) - across(from), 2);
  }
  for (const [from, to, at] of ground.water ?? []) {
    context.fillStyle = 'rgba(77, 127, 168, 0.45)';
    context.fillRect(across(from), down(-at), across(to) - across(from), height - down(-at));
    context.fillStyle = '#a9d3ea';
    context.fillRect(across(from), down(-at), across(to) - across(from), 1);
  }
}
