import { startLoop } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import { memo, useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { createRoot } from 'react-dom/client';
import type { Root } from 'react-dom/client';
import './page.css';

/** Is given a canvas once it is there, and `null` when it goes. */
export type MountCanvas = (canvas: HTMLCanvasElement | null) => void;

interface CanvasProps {
  readonly mount: MountCanvas;
  /** What it shows, for those who do not see it. */
  readonly label: string;
  /** What lies over it; it does not change. */
  readonly children?: ReactNode;
}

/** Tells while the graphics card is away, and nothing else. */
function watchCard(canvas: HTMLCanvasElement): void {
  const lost = canvas.parentElement!.querySelector<HTMLElement>('.lost')!;
  canvas.addEventListener('webglcontextlost', () => {
    lost.hidden = false;
    lost.textContent = 'The graphics card has been taken away. The picture comes back with it.';
  });
  canvas.addEventListener('webglcontextrestored', () => {
    lost.hidden = true;
    lost.textContent = '';
  });
}

/** The canvas of the scene; drawn by the game, never anew by the panel. */
export const Scene = memo(
  function Scene({ mount, label, children }: CanvasProps) {
    return (
      <div className="scene">
        <canvas
          ref={(canvas) => {
            mount(canvas);
            if (canvas !== null) watchCard(canvas);
          }}
          role="img"
          aria-label={label}
        />
        {children}
        <p className="lost" role="alert" hidden />
      </div>
    );
  },
  () => true,
);

/** The canvas of a compass. */
export const Dial = memo(
  function Dial({ mount, label }: CanvasProps) {
    return <canvas ref={mount} width={560} height={440} role="img" aria-label={label} />;
  },
  () => true,
);

interface SliderProps {
  readonly label: string;
  /** The value in words. */
  readonly says: string;
  readonly value: number;
  readonly most: number;
  readonly step?: number | 'any';
  readonly change: (value: number) => void;
  readonly id?: string;
}

/**
 * A slider with its value. It keeps what was slid to until the page says otherwise: the page is drawn some time later, and until then
 * the slider would jump back, and tell of that as if a hand had done it.
 */
export function Slider({ label, says, value, most, step = 1, change, id }: SliderProps) {
  const [held, hold] = useState(value);
  useEffect(() => hold(value), [value]);
  return (
    <label className="row">
      {label}
      <input
        type="range"
        min={0}
        max={most}
        step={step}
        value={held}
        aria-valuetext={says}
        data-testid={id}
        onChange={(event) => {
          const to = Number(event.target.value);
          hold(to);
          change(to);
        }}
      />
      <output aria-live="off" data-testid={id && `${id}-says`}>
        {says}
      </output>
    </label>
  );
}

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

/** The room that a scene may take on the page, in CSS pixels. */
export interface Room {
  readonly width: number;
  readonly height: number;
}

/**
 * Sizes a canvas for the room that there is for it, now and whenever the window changes.
 *
 * @param below which part of the window stays free below it, for what the page tells there
 */
export function fitting(fit: (canvas: HTMLCanvasElement, room: Room) => void, below = 0.02): MountCanvas {
  return (canvas) => {
    if (canvas === null) return;
    const resize = (): void => {
      const main = canvas.closest('main')!;
      const { paddingLeft, paddingRight, columnGap } = getComputedStyle(main);
      const aside = main.querySelector('aside')!.getBoundingClientRect();
      // The panel lies beside the scene, or below it.
      const besides = aside.width < main.clientWidth / 2 ? aside.width + parseFloat(columnGap) : 0;
      const width = main.clientWidth - parseFloat(paddingLeft) - parseFloat(paddingRight) - besides;
      const top = canvas.getBoundingClientRect().top + window.scrollY;
      fit(canvas, { width, height: Math.max(120, window.innerHeight * (1 - below) - top) });
      // What lies below it is as wide as the scene.
      main.style.setProperty('--scene', canvas.style.width);
    };
    resize();
    window.addEventListener('resize', resize);
  };
}
