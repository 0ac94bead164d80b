import type { MountCanvas } from './parts.js';

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
