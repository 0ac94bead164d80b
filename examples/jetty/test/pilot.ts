import type { Page } from 'playwright-core';
import type { Loop } from '@dot-hop/browser';
import type { Performer } from 'dot-hop';

/** What a pilot sees of the page's game. */
export interface Game {
  readonly performer: Performer;
  readonly body: {
    readonly x: number;
    readonly y: number;
    readonly vx: number;
    readonly vy: number;
    readonly grounded: boolean;
    place(x: number, y: number): void;
  };
  readonly physics: { readonly decks: readonly { readonly x: number }[] };
  readonly lit: readonly boolean[];
}

/** What one deed of a pilot led to. */
export interface Flown {
  /** The states passed, from the one before the deed on. */
  readonly states: readonly string[];
  /** The cells that were drawn, without those drawn twice in a row. */
  readonly cells: readonly number[];
  readonly x: number;
  readonly y: number;
  readonly lit: number;
}

declare global {
  interface Window {
    jetty: { readonly game: Game; readonly loop: Loop };
    pilot: Pilot;
  }
}

/** Hands for a game that stands still between its deeds: keys are pressed for real, steps are made one by one. */
export interface Pilot {
  hold(...codes: string[]): void;
  tap(code: string): void;
  until(test: (game: Game) => boolean, most?: number): void;
  /** Until he has leapt. On a boat that sinks away below him he is without ground for a step now and then. */
  untilAloft(): void;
  flown(): Flown;
}

/** Lets a page that is yet to be opened begin with its game's time stopped, so that every flight is the same. */
export async function holdTime(page: Page): Promise<void> {
  await page.addInitScript(() => {
    Object.defineProperty(window, 'jetty', {
      configurable: true,
      set: (jetty: Window['jetty']) => {
        jetty.loop.pace = 0;
        Object.defineProperty(window, 'jetty', { value: jetty });
      },
    });
  });
}

/** Gives an open page whose time is held a pilot. */
export async function takeOver(page: Page): Promise<void> {
  await page.evaluate(() => {
    const { game, loop } = window.jetty;
    const held = new Set<string>();
    const key = (type: string, code: string): boolean =>
      window.dispatchEvent(new KeyboardEvent(type, { code, bubbles: true }));
    let states = [game.performer.state];
    let cells: number[] = [];
    const step = (): void => {
      loop.stepOnce();
      const { state, pose } = game.performer;
      if (states.at(-1) !== state) states.push(state);
      if (cells.at(-1) !== pose.cell.index) cells.push(pose.cell.index);
    };
    window.pilot = {
      hold: (...codes) => {
        for (const code of held) if (!codes.includes(code)) key('keyup', code);
        for (const code of codes) if (!held.has(code)) key('keydown', code);
        held.clear();
        for (const code of codes) held.add(code);
      },
      tap: (code) => {
        key('keydown', code);
        step();
        key('keyup', code);
      },
      until: (test, most = 900) => {
        for (let i = 0; !test(game); i++) {
          if (i === most)
            throw new Error(`stuck at ${game.body.x}, ${game.body.y} in ${states.slice(-5).join(' ')}`);
          step();
        }
      },
      untilAloft: () => window.pilot.until(({ body }) => body.vy < -100),
      flown: () => {
        const { x, y } = game.body;
        const told = { states, cells, x, y, lit: game.lit.filter(Boolean).length };
        states = [game.performer.state];
        cells = [];
        return told;
      },
    };
  });
}
