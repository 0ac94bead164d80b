import { startLoop } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import type { ReactNode } from 'react';
import { createRoot } from 'react-dom/client';
import type { Root } from 'react-dom/client';
import './page.css';

/** How often the panel is brought up to date, in milliseconds. The scene is drawn at every frame. */
const panelEvery = 50;

/** What a page does once its characters are there. */
export interface Running {
  readonly step: (ms: number) => void;
  /** @param between how far the next step has come, from 0 to under 1 */
  readonly draw: (between: number) => void;
  /** 120 by default. */
  readonly stepsPerSecond?: number;
  /** Is told once it runs. */
  readonly started?: (loop: Loop) => void;
  /** The page around the scene, as things stand; it has a place for the button that pauses. */
  readonly page: (pause: ReactNode) => ReactNode;
}

/** Is told how far a page is that is still fetching something, and what that is, by default what it began with. */
export type Telling = (done: number, all: number, what?: string) => void;

/** What a page can do while it is still fetching. */
export interface Waiting {
  readonly progress: Telling;
  /** Shows a page around what it tells. */
  readonly show: (page: (told: ReactNode) => ReactNode) => void;
}

/** Fetches what a page needs and says how far it is, then runs it; what goes wrong is told on the page, with a button to try again. */
export function runPage(fetching: string, begin: (waiting: Waiting) => Promise<Running>): void {
  let isOver = false;
  let running: Loop | undefined;
  const fail = (error: unknown): void => {
    isOver = true;
    running?.stop();
    root.render(
      <div className="notice" role="alert">
        <pre>{error instanceof Error ? error.message : String(error)}</pre>
        <button type="button" className="plain" onClick={() => location.reload()}>
          try again
        </button>
      </div>,
    );
  };
  // What goes wrong in a picture of the page ends it; React then takes it away, and this stands in its place.
  const root = createRoot(document.getElementById('page')!, { onUncaughtError: fail });
  let around = (notice: ReactNode): ReactNode => notice;
  let told: readonly [number, number, string] = [0, 1, fetching];
  // Other files may still come when one has failed.
  const say = (): void => {
    const [done, all, what] = told;
    if (isOver) return;
    root.render(
      around(
        <p className="notice" role="status">
          {what} <progress value={all > 0 ? done : undefined} max={all > 0 ? all : 1} aria-label={what} />
        </p>,
      ),
    );
  };
  const progress: Telling = (done, all, what = fetching) => {
    told = [done, all, what];
    say();
  };
  say();
  const show: Waiting['show'] = (page) => {
    around = page;
    say();
  };
  begin({ progress, show }).then((page) => {
    if (!isOver) running = run(root, page);
  }, fail);
}

/** Whether the system asks for little motion: a page then waits until it is told to begin. */
const wantsRest = (): boolean => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

function run(root: Root, { step, draw, page, started, stepsPerSecond = 120 }: Running): Loop {
  let panelDrawn = -Infinity;
  const render = (): void => {
    panelDrawn = performance.now();
    const isPaused = loop.pace === 0;
    const pause = (): void => {
      loop.pace = isPaused ? 1 : 0;
      render();
    };
    root.render(
      page(
        <button type="button" className="plain" aria-pressed={isPaused} onClick={pause}>
          {isPaused ? 'go on' : 'pause'}
        </button>,
      ),
    );
  };
  const loop = startLoop({
    step,
    stepsPerSecond,
    draw: (between) => {
      draw(between);
      if (performance.now() - panelDrawn >= panelEvery) render();
    },
  });
  if (wantsRest()) loop.pace = 0;
  render();
  started?.(loop);
  // Whoever picks with a mouse goes on with the game's keys; who picks with keys goes on there.
  let isByPointer = false;
  document.addEventListener('pointerdown', () => (isByPointer = true));
  document.addEventListener('keydown', () => (isByPointer = false));
  document.addEventListener('change', ({ target }) => {
    if (isByPointer && target instanceof HTMLSelectElement) target.blur();
  });
  // A button that was clicked would take the next press of the space bar, which is meant for the game.
  document.addEventListener('click', ({ detail, target }) => {
    if (detail > 0 && target instanceof HTMLElement) target.closest('button')?.blur();
  });
  return loop;
}
