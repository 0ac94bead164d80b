import { Keyboard, Pointer, crispCanvas, drawDial, startLoop } from '@dot-hop/browser';
import { createRoot } from 'react-dom/client';
import { loadTownsfolk } from '../../common/townsfolk';
import { Page } from './panel/Page';
import { Game, usedKeys } from './scene/game';
import { view } from './scene/square';
import '../../common/page.css';
import '../../common/controls.css';
import './style.css';

const root = createRoot(document.getElementById('page')!);

/** How often the panel is brought up to date, in milliseconds. The scene is drawn at every frame. */
const panelEvery = 50;

/** The speed whose arrow reaches the edge of the dial, in pixels a second. */
const dialSpeed = 48;

async function begin(): Promise<void> {
  root.render(<p className="notice">Fetching the townsfolk ...</p>);
  const folk = await loadTownsfolk();
  let context: CanvasRenderingContext2D | undefined;
  let dial: CanvasRenderingContext2D | undefined;
  let pointer: Pointer | undefined;
  const game = new Game(folk, new Keyboard(window, usedKeys), () => pointer);
  const mount = (canvas: HTMLCanvasElement | null): void => {
    if (canvas === null) return;
    const resize = (): void => {
      context = crispCanvas(canvas, view.width, view.height, canvas.closest('.left')!.clientWidth).context;
    };
    resize();
    window.addEventListener('resize', resize);
    pointer = new Pointer(canvas, view.width, view.height);
  };
  const mountDial = (canvas: HTMLCanvasElement | null): void => {
    dial = canvas?.getContext('2d') ?? undefined;
  };
  let panelDrawn = -Infinity;
  const render = (): void => root.render(<Page game={game} mount={mount} mountDial={mountDial} />);
  render();
  startLoop({
    step: (ms) => game.step(ms),
    draw: () => {
      if (context !== undefined) game.draw(context);
      if (dial !== undefined) {
        dial.clearRect(0, 0, dial.canvas.width, dial.canvas.height);
        drawDial(dial, game.led.performer, dial.canvas.width / 2, dial.canvas.height / 2, 200, dialSpeed);
      }
      if (performance.now() - panelDrawn < panelEvery) return;
      panelDrawn = performance.now();
      render();
    },
  });
}

begin().catch((error: unknown) => {
  root.render(<pre className="notice">{error instanceof Error ? error.message : String(error)}</pre>);
});
