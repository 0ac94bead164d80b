import { Controls, Pointer, crispCanvas, drawPose, openCharacter } from '@dot-hop/browser';
import folkDocument from '../../../demo/townsfolk/folk.dothop.yaml';
import { redrawDial } from '../../common/dial.js';
import { bindings } from '../../common/bindings.js';
import { fitting } from '../../common/fitting.js';
import { runPage } from '../../common/run-page.js';
import { loadTownsfolk } from '../../common/townsfolk.js';
import { Page } from './panel/Page.js';
import { Game } from './scene/game.js';
import { view } from './scene/square.js';
import '../../common/controls.css';
import './style.css';

/** The room that each picture has in the dressing corner. */
const cornerCell = { width: 40, height: 46 };

/** The speed whose arrow reaches the edge of the dial, in pixels a second. */
const dialSpeed = 48;

runPage('Fetching the townsfolk', async ({ progress }) => {
  const [named, folk] = await Promise.all([loadTownsfolk(progress), openCharacter(folkDocument)]);
  let corner: CanvasRenderingContext2D | undefined;
  let context: CanvasRenderingContext2D | undefined;
  let dial: CanvasRenderingContext2D | null = null;
  let pointer: Pointer | undefined;
  const game = new Game(named, folk, new Controls(bindings), () => pointer);
  const mount = fitting((canvas, room) => {
    ({ context } = crispCanvas(canvas, view.width, view.height, room));
    pointer ??= new Pointer(canvas, view.width, view.height);
  });
  const mountDial = (canvas: HTMLCanvasElement | null): void => {
    dial = canvas?.getContext('2d') ?? null;
  };
  const mountCorner = (canvas: HTMLCanvasElement | null): void => {
    corner =
      canvas === null
        ? undefined
        : crispCanvas(canvas, cornerCell.width * 4, cornerCell.height * 4, 330).context;
  };
  /** Walking above, standing below, each in every direction. */
  const drawCorner = (context: CanvasRenderingContext2D): void => {
    context.clearRect(0, 0, context.canvas.width, context.canvas.height);
    game.mannequins.performers.forEach(({ pose }, i) => {
      const [x, y] = [(i % 4) * cornerCell.width, Math.floor(i / 4) * cornerCell.height];
      drawPose(context, folk.images, pose, x + cornerCell.width / 2, y + cornerCell.height - 5);
    });
  };
  return {
    started: (loop) => {
      // For the page's own tests, and for whoever opens the browser's console.
      Object.assign(window, { market: { game, loop } });
    },
    step: (ms) => game.step(ms),
    draw: () => {
      if (context !== undefined) game.draw(context);
      if (corner?.canvas.isConnected === true) drawCorner(corner);
      if (dial !== null) redrawDial(dial, game.led.performer, dialSpeed);
    },
    page: (pause) => (
      <Page game={game} mount={mount} mountDial={mountDial} mountCorner={mountCorner} pause={pause} />
    ),
  };
});
