/** The two functions of a game loop, and its speed. */
export interface LoopParts {
  /** Moves the game on by one fixed step, in milliseconds. */
  readonly step: (ms: number) => void;
  /**
   * Draws the game.
   *
   * @param between how much of the next step has passed already, from 0 to under 1. Draw a moving thing that far between its place before
   *   the latest step and its present place
   */
  readonly draw: (between: number) => void;
  /** From 10 to 1000; default 120. */
  readonly stepsPerSecond?: number;
}

/** After a longer pause, such as that of a tab that slept, only this many milliseconds count. */
const longestPause = 100;

/** A running game loop. For each picture of the display it makes as many fixed steps as fit, then draws once. */
export class Loop {
  /** How fast time passes: 1 is normal, 0.25 is slow motion, 0 stands still. */
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

  /** Makes one step, whatever the pace. Use it to look at a game that stands still. */
  stepOnce(): void {
    this.parts.step(this.length);
  }

  /** Ends the loop. If you call it inside a step, the loop makes no further step of this picture and draws nothing. */
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

/** Runs a game until you call `stop()` of the result. */
export function startLoop(parts: LoopParts): Loop {
  return new Loop(parts);
}
