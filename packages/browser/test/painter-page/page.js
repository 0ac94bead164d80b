import { Painter, drawMarks, drawPose, dyeImages, openCharacter } from '@dot-hop/browser';
import { poseOf } from 'dot-hop';
import { Troupe } from 'dot-hop/troupe';
import { randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import folk from './folk.dothop.yaml';
import keeper from './keeper.dothop.yaml';
import pim from './pim.dothop.yaml';

const files = [];
const people = await Promise.all(
  [keeper, pim].map((one) => openCharacter(one, (...told) => files.push(told))),
);
const images = Object.assign({}, ...people.map((one) => one.images));
const frames = people.map(({ controller }) => [...controller.clips.values()].flatMap((clip) => clip.frames));
const context = document.querySelector('#drawn').getContext('2d', { willReadFrequently: true });
const canvas = document.querySelector('#painted');
const painter = new Painter(canvas, images);

/** People in all kinds of clothes, each in some picture of hers. */
const { controller, images: clothes } = await openCharacter(folk);
const dressed = Array.from({ length: 30 }, (_, seed) => {
  const outfit = wardrobeOf(controller).outfit(randomOutfit(wardrobeOf(controller), seed));
  dyeImages(clothes, outfit);
  const timelines = controller.states.flatMap(({ flipbooks }) => flipbooks[0]);
  const timeline = timelines[(seed * 5) % timelines.length];
  return outfit.poseAt(controller, timeline, seed % timeline.poses.length);
});
Object.assign(images, clothes);

/** The same crowd drawn by both, and how many pixels differ. */
function compare(count, offset, worn = false) {
  context.clearRect(0, 0, 320, 200);
  painter.begin({ x: offset, y: 3, width: 320, height: 200 });
  for (let i = 0; i < count; i++) {
    const of = frames[i < count / 2 ? 0 : 1];
    const pose = worn ? dressed[i % dressed.length] : poseOf(of[(i * 7) % of.length], i % 3 === 0);
    const [x, y] = [((i * 83) % 380) - 20.4, ((i * 37) % 240) + 0.3];
    drawPose(context, images, pose, Math.round(x) - offset, Math.round(y) - 3);
    painter.paint(pose, Math.round(x), Math.round(y));
  }
  painter.end();
  return differing();
}
/** How many pixels the canvas and the painter have otherwise. */
function differing() {
  const copy = new OffscreenCanvas(320, 200).getContext('2d');
  copy.drawImage(canvas, 0, 0);
  const [a, b] = [context, copy].map((one) => one.getImageData(0, 0, 320, 200).data);
  let differ = 0;
  let drawn = 0;
  for (let i = 0; i < a.length; i += 4) {
    if (a[i + 3] > 0) drawn++;
    if ([0, 1, 2, 3].some((k) => a[i + k] !== b[i + k])) differ++;
  }
  return { differ, drawn, calls: painter.calls };
}
/** Rectangles of an image painted as they are, drawn by the canvas and painted by the painter. */
function stamped() {
  context.clearRect(0, 0, 320, 200);
  painter.begin({ x: 0, y: 0, width: 320, height: 200 });
  const [image] = Object.values(images);
  for (let i = 0; i < 30; i++) {
    const [left, top, x, y] = [(i * 7) % 20, (i * 5) % 14, (i * 31) % 300, (i * 17) % 180];
    context.drawImage(image, left, top, 24, 30, x, y, 24, 30);
    painter.stamp(image, left, top, 24, 30, x + 0.3, y - 0.2);
  }
  painter.end();
  return differing();
}
/** A troupe of which each third member is gone, painted from its numbers and drawn pose by pose. */
function membersPainted() {
  const { controller, images: own } = people[1];
  const troupe = new Troupe(controller, 90);
  troupe.setEach(
    controller.signal('vx'),
    Float32Array.from({ length: 90 }, (_, i) => ((i % 7) - 3) * 12),
  );
  troupe.setEach(
    controller.signal('vy'),
    Float32Array.from({ length: 90 }, (_, i) => ((i % 5) - 2) * 12),
  );
  for (let i = 0; i < 90; i += 3) troupe.remove(i);
  for (let i = 0; i < 40; i++) troupe.step(23);
  const drawn = { cell: new Int32Array(90), image: new Uint16Array(90), mirrored: new Uint8Array(90) };
  troupe.draw(drawn);
  const x = Float32Array.from({ length: 90 }, (_, i) => (i * 53) % 320);
  const y = Float32Array.from({ length: 90 }, (_, i) => 20 + ((i * 29) % 180));
  context.clearRect(0, 0, 320, 200);
  painter.begin({ x: 0, y: 0, width: 320, height: 200 });
  for (let i = 0; i < 90; i++) if (i % 3 > 0) drawPose(context, own, troupe.pose(i), x[i], y[i]);
  painter.paintMembers(troupe, drawn, x, y);
  painter.end();
  return { ...differing(), shown: new Set(drawn.cell).size };
}
/** What marks are drawn, by the colour at a place. */
function marks() {
  context.clearRect(0, 0, 320, 200);
  const pose = {
    ...poseOf(frames[0][0], false),
    boxes: { body: { x: -10, y: -30, width: 20, height: 30 } },
    points: { hand: { x: 5, y: -12 } },
  };
  drawMarks(context, pose, 100, 100);
  const at = (x, y) => [...context.getImageData(x, y, 1, 1).data];
  return {
    corner: at(90, 70),
    inside: at(95, 80),
    edge: at(109, 99),
    hand: at(105, 88),
    pivot: at(100, 100),
  };
}
Object.assign(window, {
  compare,
  stamped,
  membersPainted,
  marks,
  painter,
  files,
  lose: () => canvas.getContext('webgl2').getExtension('WEBGL_lose_context'),
});
