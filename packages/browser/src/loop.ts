/** What a game does with time. */
export interface LoopParts {
  /** Moves the game on by one fixed step, in milliseconds. */
  readonly step: (ms: number) => void;
  /** Draws it as it is now. */
  readonly draw: () => void;
}

/** One step, in milliseconds: a 120th of a second. */
const fixedStep = 1000 / 120;

/** A longer pause (a tab that slept) counts as this much, in milliseconds. */
const longestPause = 100;

/**
 * Runs a game: steps of a fixed length, as many as the display's time asks for, then one drawing.
 *
 * @returns stops it
 */
export function startLoop({ step, draw }: LoopParts): () => void {
  let before = performance.now();
  let owed = 0;
  let frame = requestAnimationFrame(function tick(now: number) {
    frame = requestAnimationFrame(tick);
    owed += Math.min(longestPause, Math.max(0, now - before));
    before = now;
    for (; owed >= fixedStep; owed -= fixedStep) step(fixedStep);
    draw();
  });
  return () => cancelAnimationFrame(frame);
}
