/** What a game does with time. */
export interface LoopParts {
  /** Moves the game on by one fixed step, in milliseconds. */
  readonly step: (ms: number) => void;
  /**
   * Draws it.
   *
   * @param between how much of the next step has passed already, from 0 to under 1. Draw a moving thing that far on its way from its
   *   place before the latest step to its present place
   */
  readonly draw: (between: number) => void;
  /** From 10 to 1000; 120 by default. */
  readonly stepsPerSecond?: number;
}

/** After a longer pause, such as that of a tab that slept, only this many milliseconds count. */
const longestPause = 100;

/** A running game: for each picture of the display as many steps of a fixed length as fit, then one drawing. */
export class Loop {
  /** How fast time goes: 1 as it is, 0.25 in slow motion, 0 not at all. */
  pace = 1;
  private before = performance.now();
  private owed = 0;
  private isOn = true;
  private frame: number;
  private readonly length: number;

  /** @throws {RangeError} for a number of steps out of range */
  constructor(private readonly parts: LoopParts) {
    const { stepsPerSecond = 120 } = parts;
    if (!(stepsPerSecond >= 10 && stepsPerSecond <= 1000))
      throw new RangeError(`stepsPerSecond is from 10 to 1000, not ${stepsPerSecond}`);
    this.length = 1000 / stepsPerSecond;
    this.frame = requestAnimationFrame((now) => this.tick(now));
  }

  /** Makes one step whatever the pace, for looking at a game that stands still. */
  stepOnce(): void {
    this.parts.step(this.length);
  }

  /** Ends it; called inside a step, no further step of this frame is made, and nothing is drawn. */
  stop(): void {
    this.isOn = false;
    cancelAnimationFrame(this.frame);
  }

  private tick(now: number): void {
    this.frame = requestAnimationFrame((next) => this.tick(next));
    this.owed += Math.min(longestPause, Math.max(0, now - this.before)) * Math.max(0, this.pace);
    this.before = now;
    while (this.isOn && this.owed >= this.length) {
      // Counted before it is made: a step that throws is not made again and again to catch up.
      this.owed -= this.length;
      try {
        this.parts.step(this.length);
      } catch (error) {
        this.owed = 0;
        throw error;
      }
    }
    if (this.isOn) this.parts.draw(this.owed / this.length);
  }
}

/** Runs a game until its `stop()` is called. */
export function startLoop(parts: LoopParts): Loop {
  return new Loop(parts);
}
