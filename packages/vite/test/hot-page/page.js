import { drawPose, followEdits, continueAfterEdit, openCharacter, startLoop } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import document_ from './DOCUMENT';

let character = await openCharacter(document_);
let performer = new Performer(character.controller);
followEdits(document_, (next) => {
  character = next;
  performer = continueAfterEdit(performer, next.controller);
});
const context = document.querySelector('canvas').getContext('2d');
startLoop({
  step: (ms) => performer.step(ms),
  draw() {
    context.clearRect(0, 0, 96, 64);
    drawPose(context, character.images, performer.pose, 48, 60);
    const { state, clip, frameIndex, pose } = performer;
    const picture = character.images[pose.cell.image].src;
    document.querySelector('#shows').textContent = [state, clip, frameIndex, picture].join(' ');
  },
});
window.set = (name, value) => performer.set(name, value);
window.begun = Math.random();
