import { Controls, openCharacter } from '@dot-hop/browser';
import folkDocument from '../../../demo/townsfolk/folk.dothop.yaml';
import { bindings } from '../../common/bindings.js';
import { runPage } from '../../common/run-page.js';
import { Page } from './panel/Page.js';
import { Closer } from './scene/closer.js';
import { Game, firstPeople } from './scene/game.js';
import { followHands } from './scene/hands.js';
import '../../common/controls.css';
import './style.css';

/** How many people the address asks for: `?people=5000`. */
const asked = Number(new URLSearchParams(location.search).get('people') ?? firstPeople);

runPage('Dressing the people of the quay', async ({ progress }) => {
  const folk = await openCharacter(folkDocument);
  const count = asked >= 100 && asked <= 50_000 ? Math.round(asked) : firstPeople;
  const game = await Game.open(folk, new Controls(bindings), count, progress);
  let scene: HTMLCanvasElement | null = null;
  let light: HTMLCanvasElement | null = null;
  let closer: Closer | undefined;
  const fit = (): void => {
    if (scene === null) return;
    const ratio = window.devicePixelRatio;
    const width = Math.floor(scene.closest('.left')!.clientWidth * ratio);
    const height = Math.floor(Math.max(320, window.innerHeight - 225) * ratio);
    scene.style.width = `${width / ratio}px`;
    scene.style.height = `${height / ratio}px`;
    game.resize(width, height);
  };
  /** Both canvases are there at the same time. */
  const begin = (): void => {
    if (scene === null || light === null) return;
    game.mount(scene, light);
    followHands(scene, game);
    fit();
    window.addEventListener('resize', fit);
  };
  return {
    stepsPerSecond: 60,
    started: (loop) => {
      closer = new Closer(game, folk, loop);
      // For the page's own tests, and for whoever opens the browser's console.
      Object.assign(window, { lanterns: { game, loop } });
    },
    step: (ms) => game.step(ms),
    draw: () => {
      game.draw();
      closer?.follow();
    },
    page: (pause) => (
      <Page
        pause={pause}
        game={game}
        isCloser={closer?.isOpen === true}
        lookCloser={() => void closer?.toggle()}
        mount={(canvas) => {
          scene = canvas;
          begin();
        }}
        mountLight={mountLight}
        mountOverview={mountOverview}
      />
    ),
  };

  function mountLight(canvas: HTMLCanvasElement | null): void {
    light = canvas;
    begin();
  }
  function mountOverview(canvas: HTMLCanvasElement | null): void {
    if (canvas === null) return;
    game.mountOverview(canvas);
    canvas.addEventListener('pointerdown', (event) => {
      const { left, top, width, height } = canvas.getBoundingClientRect();
      game.crowd.lead(-1);
      game.lookAtPart((event.clientX - left) / width, (event.clientY - top) / height);
    });
  }
});
