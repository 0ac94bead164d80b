import { useEffect, useRef } from 'react';

/**
 * Keys that count from the moment they go down until they go up, wherever the focus is by then. So a click on "stop time"
 * does not release the key that the other hand holds. When the window loses the focus all keys are released, because the
 * browser does not report key events to it any more.
 *
 * @param turn called with the code of each key that goes down or up; for one that goes down, returns whether the key has a meaning
 * @returns the handler of `keydown` for the element that has the focus
 */
export function useHeldKeys(
  turn: (code: string, isDown: boolean) => boolean,
): (event: React.KeyboardEvent) => void {
  const held = useRef(new Set<string>());
  const latest = useRef(turn);
  useEffect(() => {
    latest.current = turn;
  }, [turn]);
  useEffect(() => {
    const keys = held.current;
    const stop = new AbortController();
    const up = (code: string): void => {
      if (keys.delete(code)) latest.current(code, false);
    };
    const allUp = (): void => {
      for (const code of [...keys]) up(code);
    };
    // Captured, so that no widget can stop the event before it arrives here.
    const early = { signal: stop.signal, capture: true };
    window.addEventListener('keyup', ({ code }) => up(code), early);
    // A capturing listener is also called when an element of the page loses the focus.
    window.addEventListener('blur', ({ target }) => target === window && allUp(), early);
    document.addEventListener('visibilitychange', () => document.hidden && allUp(), early);
    return () => {
      stop.abort();
      allUp();
    };
  }, []);
  return (event) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    if (!held.current.has(event.code) && !latest.current(event.code, true)) return;
    held.current.add(event.code);
    event.preventDefault();
  };
}
