import { memo, useEffect, useState } from 'react';
import type { ReactNode } from 'react';

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

/** The canvas of the scene; drawn by the game, never redrawn by the panel. */
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
