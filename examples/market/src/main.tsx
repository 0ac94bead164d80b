import { Controls, Pointer, crispCanvas } from '@dot-hop/browser';
import { redrawDial } from '../../common/dial';
import { fitting, runPage } from '../../common/parts';
import { loadTownsfolk } from '../../common/townsfolk';
import { Page } from './panel/Page';
import { Game, bindings } from './scene/game';
import { view } from './scene/square';
import '../../common/controls.css';
import './style.css';

/** The speed whose arrow reaches the edge of the dial, in pixels a second. */
const dialSpeed = 48;

runPage('Fetching the townsfolk', async (progress) => {
  const folk = await loadTownsfolk(progress);
  let context: CanvasRenderingContext2D | undefined;
  let dial: CanvasRenderingContext2D | null = null;
  let pointer: Pointer | undefined;
  const game = new Game(folk, new Controls(bindings), () => pointer);
  const mount = fitting((canvas, room) => {
    ({ context } = crispCanvas(canvas, view.width, view.height, room));
    pointer ??= new Pointer(canvas, view.width, view.height);
  });
  const mountDial = (canvas: HTMLCanvasElement | null): void => {
    dial = canvas?.getContext('2d') ?? null;
  };
  return {
    step: (ms) => game.step(ms),
    draw: () => {
      if (context !== undefined) game.draw(context);
      if (dial !== null) redrawDial(dial, game.led.performer, dialSpeed);
    },
    page: () => <Page game={game} mount={mount} mountDial={mountDial} />,
  };
});
