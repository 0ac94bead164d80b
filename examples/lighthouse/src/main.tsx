import { Keyboard, drawDial, loadCharacter, startLoop } from '@dot-hop/browser';
import { createRoot } from 'react-dom/client';
import wickUrl from '../../../demo/wick.dothop.yaml?url';
import wickImage from '../../../demo/wick.png?url';
import { loadTownsfolk } from '../../common/townsfolk';
import { Page } from './panel/Page';
import { Game, usedKeys } from './scene/game';
import '../../common/page.css';
import '../../common/controls.css';
import './style.css';

const root = createRoot(document.getElementById('page')!);

/** How often the panel is brought up to date, in milliseconds. The scene is drawn at every frame. */
const panelEvery = 50;

/** Height of the scene for its width. */
const shape = 0.76;

async function begin(): Promise<void> {
  root.render(<p className="notice">Fetching the townsfolk ...</p>);
  const [folk, wick] = await Promise.all([
    loadTownsfolk(),
    loadCharacter({ document: wickUrl, images: { 'wick.png': wickImage } }),
  ]);
  const game = new Game(folk, wick, new Keyboard(window, usedKeys));
  let dial: CanvasRenderingContext2D | undefined;
  const mount = (canvas: HTMLCanvasElement | null): void => {
    if (canvas === null) return;
    const resize = (): void => {
      const width = canvas.closest('.left')!.clientWidth;
      game.mount(canvas, width, Math.round(width * shape));
    };
    resize();
    window.addEventListener('resize', resize);
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
      game.draw();
      if (dial !== undefined) {
        dial.clearRect(0, 0, dial.canvas.width, dial.canvas.height);
        drawDial(dial, game.selected.performer, dial.canvas.width / 2, dial.canvas.height / 2, 200, 1.1);
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
