import { Keyboard, crispCanvas, loadCharacter, startLoop } from '@dot-hop/browser';
import { createRoot } from 'react-dom/client';
import documentUrl from '../../../demo/wick.dothop.yaml?url';
import wickUrl from '../../../demo/wick.png?url';
import { Page } from './panel/Page';
import { Game, usedKeys } from './scene/game';
import { view } from './scene/world';
import '../../common/page.css';
import './style.css';

const root = createRoot(document.getElementById('page')!);

/** How often the panel is brought up to date, in milliseconds. The scene is drawn at every frame. */
const panelEvery = 50;

async function begin(): Promise<void> {
  root.render(<p className="notice">Fetching Wick ...</p>);
  const character = await loadCharacter({ document: documentUrl, images: { 'wick.png': wickUrl } });
  const game = new Game(character, new Keyboard(window, usedKeys));
  let context: CanvasRenderingContext2D | undefined;
  const mount = (canvas: HTMLCanvasElement | null): void => {
    if (canvas === null) return;
    const resize = (): void => {
      context = crispCanvas(canvas, view.width, view.height, canvas.closest('.left')!.clientWidth).context;
    };
    resize();
    window.addEventListener('resize', resize);
  };
  let panelDrawn = -Infinity;
  const render = (): void => root.render(<Page game={game} mount={mount} />);
  render();
  startLoop({
    step: (ms) => game.step(ms),
    draw: () => {
      if (context !== undefined) game.draw(context);
      if (performance.now() - panelDrawn < panelEvery) return;
      panelDrawn = performance.now();
      render();
    },
  });
}

begin().catch((error: unknown) => {
  root.render(<pre className="notice">{error instanceof Error ? error.message : String(error)}</pre>);
});
