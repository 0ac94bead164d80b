import type { Pose } from 'dot-hop';
import type { Character } from '../src/character.js';
import { Canvas } from '../src/picture/canvas.js';

/** What a pose looks like around its pivot. */
export function drawn({ images }: Pick<Character, 'images'>, pose: Pose): string {
  const canvas = new Canvas(160, 160);
  canvas.pose(images, pose, 80, 110, 1);
  return Buffer.from(canvas.pixels).toString('latin1');
}
