import { Controls, loadCharacter } from '@dot-hop/browser';
import wickUrl from '../../../demo/wick.dothop.yaml?url';
import { redrawDial } from '../../common/dial.js';
import { fitting } from '../../common/fitting.js';
import { runPage } from '../../common/run-page.js';
import { loadTownsfolk } from '../../common/townsfolk.js';
import { Page } from './panel/Page.js';
import { Game, bindings } from './scene/game.js';
import '../../common/controls.css';
import './style.css';

/** The addresses of Wick's drawings, by the names that his document has for them. */
const wickImages = Object.fromEntries(
  Object.entries(
    import.meta.glob<string>('../../../demo/{wick*,gear/*}.png', {
      eager: true,
      query: '?url',
      import: 'default',
    }),
  ).map(([file, address]) => [file.replace('../../../demo/', ''), address]),
);

/** Height of the scene for its width. */
const shape = 0.76;

runPage('Fetching the townsfolk', async ({ progress }) => {
  const [folk, wick] = await Promise.all([
    loadTownsfolk(progress),
    loadCharacter({ document: wickUrl, images: wickImages }),
  ]);
  const game = new Game(folk, wick, new Controls(bindings));
  let dial: CanvasRenderingContext2D | null = null;
  const mount = fitting((canvas, { width, height }) =>
    game.mount(canvas, width, Math.min(height, width * shape)),
  );
  const mountDial = (canvas: HTMLCanvasElement | null): void => {
    dial = canvas?.getContext('2d') ?? null;
  };
  return {
    step: (ms) => game.step(ms),
    draw: () => {
      game.draw();
      if (dial !== null) redrawDial(dial, game.selected.performer, 1.1);
    },
    page: (pause) => <Page game={game} mount={mount} mountDial={mountDial} pause={pause} />,
  };
});
