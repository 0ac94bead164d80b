import type { Controller, Outfit, Pose } from 'dot-hop';
import type { Image } from '../images.js';
import { Canvas } from './canvas.js';
import { svgText } from './letters.js';
import { theme } from './theme.js';

const stone = ['#746c94', '#6f678e', '#7a7299', '#6b648a'];

/** The same number for the same index, from 0 to under 1. */
const chance = (index: number): number => {
  const value = Math.sin(index * 127.1 + 3.7) * 43_758.545_3;
  return value - Math.floor(value);
};

/** Cobbles, in courses. */
function pave(canvas: Canvas): void {
  canvas.fill(0, 0, canvas.width, canvas.height, '#665e84');
  for (let y = 0, row = 0; y < canvas.height; y += 12, row++)
    for (let x = row % 2 ? -11 : 0; x < canvas.width; x += 22) {
      const tone = stone[Math.floor(chance(x * 7 + row * 131) * stone.length)]!;
      canvas.fill(x + 1, y + 1, 20, 10, tone);
    }
}

/** Somebody in the middle of something: a posture, a direction and a frame by chance. */
function anyPose(controller: Controller, outfit: Outfit, i: number): Pose {
  const pick = <T>(some: readonly T[], salt: number): T =>
    some[Math.floor(chance(i * 7 + salt) * some.length)]!;
  const state = pick(
    controller.states.filter(({ kind }) => kind !== 'act'),
    1,
  );
  const timeline = pick(state.flipbooks[0]!, 2);
  return outfit.poseAt(controller, timeline, Math.floor(chance(i * 7 + 3) * timeline.poses.length));
}

/** Many people on a square, no two alike. */
export async function crowdPicture(
  controller: Controller,
  images: ReadonlyMap<string, Image>,
  outfits: readonly Outfit[],
  scale: number,
): Promise<Buffer> {
  const [cell] = [...controller.clips.values()][0]!.frames;
  const { frameWidth, frameHeight } = cell!;
  const across = Math.max(1, Math.ceil(Math.sqrt(outfits.length * 1.6)));
  const down = Math.ceil(outfits.length / across);
  const step = { x: Math.round(frameWidth * scale * 1.02), y: Math.round(frameHeight * scale * 0.98) };
  const canvas = new Canvas(
    Math.round(across * step.x + frameWidth * scale * 0.4),
    Math.round(down * step.y + frameHeight * scale * 0.35),
  );
  pave(canvas);
  outfits.forEach((outfit, i) => {
    const row = Math.floor(i / across);
    const stray = (chance(i * 17) - 0.5) * step.x * 0.35 + (row % 2 ? step.x * 0.2 : 0);
    const x = Math.round((i % across) * step.x + step.x * 0.6 + stray);
    const y = Math.round(row * step.y + frameHeight * scale * 0.98 + (chance(i * 23) - 0.5) * step.y * 0.2);
    canvas.pose(images, anyPose(controller, outfit, i), x, y, scale);
  });
  return canvas.png();
}

/** As wide as a picture of one person becomes, in pixels, before its frames go on in the next line. */
const mostAcross = 2600;

/** The pictures of all that states show in a direction, each once however many states show it. */
function seenIn(controller: Controller, outfit: Outfit, direction: number): Pose[] {
  const seen = new Map<string, Pose>();
  for (const { flipbooks } of controller.states)
    for (const flipbook of flipbooks)
      flipbook[direction]!.poses.forEach((_, i) => {
        const pose = outfit.poseAt(controller, flipbook[direction]!, i);
        const drawn = pose.layers.map(({ cell, x, y, dye }) => [cell.image, cell.index, x, y, dye]);
        seen.set(JSON.stringify(drawn), pose);
      });
  return [...seen.values()];
}

/** One person: every direction, and in each every frame of the clips that its states show. */
export async function outfitPicture(
  controller: Controller,
  images: ReadonlyMap<string, Image>,
  outfit: Outfit,
  scale: number,
): Promise<Buffer> {
  const { frameWidth, frameHeight, pivotX, pivotY } = controller.clips.values().next().value!.frames[0]!;
  const [wide, high, left, head] = [frameWidth * scale, frameHeight * scale, 110, 58];
  const shownIn = controller.compass.names.map((_, direction) => seenIn(controller, outfit, direction));
  const most = Math.max(...shownIn.map((poses) => poses.length));
  const lines = Math.ceil(most / Math.max(1, Math.floor((mostAcross - left) / wide)));
  const across = Math.ceil(most / lines);
  const block = lines * high;
  const canvas = new Canvas(left + across * wide + 12, head + shownIn.length * block + 12);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  const worn = Object.entries(outfit.pieces).filter(([, piece]) => piece !== 'none');
  const told = [...worn, ...Object.entries(outfit.colours)].map(([name, one]) => `${name}: ${one}`);
  const half = Math.ceil(told.length / 2);
  [told.slice(0, half), told.slice(half)].forEach((line, i) =>
    canvas.draw(
      svgText(line.join('   '), 14, 22 + i * 20, { colour: i === 0 ? theme.text : theme.dim, size: 13 }),
    ),
  );
  shownIn.forEach((poses, direction) => {
    const top = head + direction * block;
    canvas.fill(left, top + 1, across * wide, block - 2, theme.stage);
    const name = controller.compass.names[direction]!;
    canvas.draw(svgText(name, 14, top + block / 2 + 4, { colour: theme.text, size: 13 }));
    poses.forEach((pose, i) => {
      const x = left + (i % across) * wide + pivotX * scale;
      canvas.pose(images, pose, x, top + Math.floor(i / across) * high + pivotY * scale, scale);
    });
  });
  return canvas.png();
}
