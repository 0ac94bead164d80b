import {
  Controls,
  drawPose,
  followCompiled,
  continueAfterEdit,
  loadCompiledCharacter,
  openCompiled,
  startLoop,
} from '@dot-hop/browser';
import { mountOverlay } from '@dot-hop/browser/overlay';
import { Player } from 'dot-hop/play';
import keeper from './keeper.dothop.yaml';

let character = await openCompiled(keeper);
let player = new Player(character.controller);
followCompiled(keeper, (next) => {
  character = next;
  player = continueAfterEdit(player, next.controller);
});
const controls = new Controls({ vx: { less: { keys: ['KeyA'] }, more: { keys: ['KeyD'] }, full: 30 } });
const context = document.querySelector('canvas').getContext('2d');
startLoop({
  step(ms) {
    controls.feed(player);
    player.step(ms);
  },
  draw() {
    context.clearRect(0, 0, 96, 64);
    drawPose(context, character.images, player.pose, 48, 60);
    document.querySelector('#shows').textContent = [player.state, player.clip, player.frameIndex].join(' ');
  },
});
Object.assign(window, {
  lookCloser: () => mountOverlay({ performer: player, images: character.images }),
  /** The packed one, fetched with its image: what it shows after walking for a while. */
  packed: async () => {
    const files = [];
    const { controller, images } = await loadCompiledCharacter({ document: 'game.json' }, (...told) =>
      files.push(told),
    );
    const other = new Player(controller);
    other.set('vx', 30);
    other.step(100);
    return { state: other.state, images: Object.keys(images), files: files.at(-1) };
  },
});
