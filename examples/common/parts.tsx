import { startLoop } from '@dot-hop/browser';
import type { Loop, Progress } from '@dot-hop/browser';
import { memo, useEffect, useState } from 'react';
import type { ReactNode } from 'react';
import { createRoot } from 'react-dom/client';
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

/** The canvas of the scene; drawn by the game, never anew by the panel. */
export const Scene = memo(
  function Scene({ mount, label, children }: CanvasProps) {
    return (
      <div className="scene">
        <canvas ref={mount} aria-label={label} />
        {children}
      </div>
    );
  },
  () => true,
);

/** The canvas of a compass. */
export const Dial = memo(
  function Dial({ mount, label }: CanvasProps) {
    return <canvas ref={mount} width={560} height={440} aria-label={label} />;
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
      <output data-testid={id && `${id}-says`}>{says}</output>
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
  /** The page around the scene, as things stand. */
  readonly page: () => ReactNode;
}

/** Fetches what a page needs and says how far it is, then runs it; what goes wrong is told on the page. */
export function runPage(fetching: string, begin: (progress: Progress) => Promise<Running>): void {
  const root = createRoot(document.getElementById('page')!);
  let isOver = false;
  // Other files may still come when one has failed.
  const say = (done: number, all: number): void => {
    if (isOver) return;
    root.render(
      <p className="notice">
        {fetching} ... <progress value={done} max={all} aria-label={`${done} of ${all} files`} />
      </p>,
    );
  };
  say(0, 1);
  begin(say).then(
    ({ step, draw, page, started, stepsPerSecond = 120 }) => {
      let panelDrawn = performance.now();
      root.render(page());
      const loop = startLoop({
        step,
        stepsPerSecond,
        draw: (between) => {
          draw(between);
          if (performance.now() - panelDrawn < panelEvery) return;
          panelDrawn = performance.now();
          root.render(page());
        },
      });
      started?.(loop);
    },
    (error: unknown) => {
      isOver = true;
      root.render(<pre className="notice">{error instanceof Error ? error.message : String(error)}</pre>);
    },
  );
}

/** Sizes a canvas for the width that there is for it, now and whenever the window changes. */
export function fitting(fit: (canvas: HTMLCanvasElement, room: number) => void): MountCanvas {
  return (canvas) => {
    if (canvas === null) return;
    const resize = (): void => fit(canvas, canvas.closest('.left')!.clientWidth);
    resize();
    window.addEventListener('resize', resize);
  };
}
