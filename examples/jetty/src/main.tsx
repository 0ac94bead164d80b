import { Keyboard, crispCanvas, loadCharacter } from '@dot-hop/browser';
import documentUrl from '../../../demo/wick.dothop.yaml?url';
import wickUrl from '../../../demo/wick.png?url';
import { fitting, runPage } from '../../common/parts';
import { Page } from './panel/Page';
import { Game, usedKeys } from './scene/game';
import { view } from './scene/world';
import './style.css';

runPage('Fetching Wick ...', async () => {
  const character = await loadCharacter({ document: documentUrl, images: { 'wick.png': wickUrl } });
  const game = new Game(character, new Keyboard(window, usedKeys));
  let context: CanvasRenderingContext2D | undefined;
  const mount = fitting((canvas, room) => {
    ({ context } = crispCanvas(canvas, view.width, view.height, room));
  });
  return {
    step: (ms) => game.step(ms),
    draw: () => {
      if (context !== undefined) game.draw(context);
    },
    page: () => <Page game={game} mount={mount} />,
  };
});
