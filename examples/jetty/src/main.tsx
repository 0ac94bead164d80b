import { Controls, crispCanvas, followEdits, openCharacter } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import { mountOverlay } from '@dot-hop/browser/overlay';
import type { Overlay, OverlaySetup } from '@dot-hop/browser/overlay';
import { fitting } from '../../common/fitting.js';
import { runPage } from '../../common/run-page.js';
import type { MountCanvas } from '../../common/parts.js';
import { Page } from './panel/Page.js';
import { Game, bindings, regions } from './scene/game.js';
import { physicsReady } from './scene/physics.js';
import { physicsFrom } from './scene/physics-engine.js';
import { Stage } from './scene/stage.js';
import { Waiting } from './panel/Waiting.js';
import { wick } from './scene/wick.js';
import { below, view } from './scene/world.js';
import './style.css';

runPage('Fetching Wick', async ({ progress, show }) => {
  const character = await openCharacter(wick, progress);
  const stage = new Stage(character);
  show((told) => <Waiting mount={stage.mount} told={told} />);
  try {
    await physicsReady(
      await physicsFrom((done, all) => progress(done, all, 'Laying the planks of the jetty')),
    );
  } finally {
    stage.end();
  }
  const controls = new Controls(bindings);
  const game = new Game(character, controls);
  let context: CanvasRenderingContext2D | undefined;
  const fit = fitting((canvas, room) => {
    ({ context } = crispCanvas(canvas, view.width, view.height, room));
  }, below);
  const mount: MountCanvas = (canvas) => {
    fit(canvas);
    if (canvas !== null) controls.touchOn(canvas, regions);
  };
  let loop: Loop | undefined;
  let overlay: Overlay | undefined;
  /** The overlay comes and goes; what it needs it is told here, and nowhere else does the game know of it. */
  const look = (setup?: OverlaySetup): void => {
    overlay?.destroy();
    overlay =
      overlay === undefined && loop !== undefined
        ? mountOverlay({
            performer: game.performer,
            images: game.character.images,
            loop,
            document: 'wick.dothop.yaml',
            setup,
          })
        : undefined;
  };
  followEdits(wick, (next) => {
    const setup = overlay?.setup;
    if (setup !== undefined) look();
    game.replace(next);
    if (setup !== undefined) look(setup);
  });
  return {
    started: (running) => {
      loop = running;
      // For the page's own tests, and for whoever opens the browser's console.
      Object.assign(window, { jetty: { game, loop, controls } });
    },
    step: (ms) => game.step(ms),
    draw: (between) => {
      if (context !== undefined) game.draw(context, between);
    },
    page: (pause) => (
      <Page game={game} mount={mount} look={() => look()} isLooking={overlay !== undefined} pause={pause} />
    ),
  };
});
