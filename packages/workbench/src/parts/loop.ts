import { useEffect, useRef } from 'react';

/**
 * Calls back in every picture with the milliseconds since the last one, while the component is there.
 *
 * @param isOn false to wait; what cannot be seen needs no picture
 */
export function useEachPicture(draw: (ms: number) => void, isOn = true): void {
  const latest = useRef(draw);
  useEffect(() => {
    latest.current = draw;
  });
  useEffect(() => {
    if (!isOn) return undefined;
    let before = performance.now();
    let frame = requestAnimationFrame(function tick(now) {
      frame = requestAnimationFrame(tick);
      // A tab that slept goes on where it was.
      latest.current(Math.min(100, Math.max(0, now - before)));
      before = now;
    });
    return () => cancelAnimationFrame(frame);
  }, [isOn]);
}

const lessMotion = matchMedia('(prefers-reduced-motion: reduce)');

/** Whether the person has asked for less motion. */
export const wantsStill = (): boolean => lessMotion.matches;
