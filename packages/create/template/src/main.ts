import {
  Controls,
  crispCanvas,
  drawPose,
  followEdits,
  continueAfterEdit,
  openCharacter,
  startLoop,
} from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import keeper from '../character/keeper.dothop.yaml';
import { Body } from './body.js';
import { Quay, view } from './quay.js';

const character = await openCharacter(keeper);
let { images } = character;
/** Decides what shows. The game tells it signals; it tells which drawing is due. */
let performer = new Performer(character.controller);

const body = new Body(view.width / 2, view.height / 2);
const quay = new Quay();
const controls = new Controls({
  along: { less: { keys: ['ArrowLeft', 'KeyA'], axis: 0 }, more: { keys: ['ArrowRight', 'KeyD'], axis: 0 } },
  down: { less: { keys: ['ArrowUp', 'KeyW'], axis: 1 }, more: { keys: ['ArrowDown', 'KeyS'], axis: 1 } },
  slow: { keys: ['ShiftLeft', 'ShiftRight'], buttons: [4] },
});

const canvas = document.querySelector('canvas')!;
const says = document.querySelector('#state')!;
let context: CanvasRenderingContext2D;
const fit = (): void => {
  const room = { width: innerWidth * 0.92, height: innerHeight * 0.8 };
  ({ context } = crispCanvas(canvas, view.width, view.height, room));
};
fit();
addEventListener('resize', fit);

// Save the document, here or in the workbench: the game goes on with it, in the same state.
followEdits(keeper, (next) => {
  performer = continueAfterEdit(performer, next.controller);
  images = next.images;
});

startLoop({
  step(ms) {
    // 1. Your movement, as in any game.
    body.step(ms, controls.numberOf('along'), controls.numberOf('down'), controls.isHeld('slow'));
    // 2. Tell the performer what is so now. It never hears which picture to show.
    performer.set('vx', body.vx);
    performer.set('vy', body.vy);
    performer.step(ms);
    // 3. Hear what the drawings cause: a foot comes down and leaves a mark.
    for (const { kind, name } of performer.reports)
      if (kind === 'cue' && name === 'step') quay.leaveMark(body.x, body.y);
    quay.step(ms);
  },
  draw() {
    quay.draw(context);
    drawPose(context, images, performer.pose, body.x, body.y);
    says.textContent = `${performer.state}, facing ${performer.facing}`;
  },
});
