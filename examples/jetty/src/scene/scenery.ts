import { Backdrop } from './backdrop.js';
import { box } from '../../../common/brush.js';
import type { Context } from '../../../common/brush.js';
import { paintedWorld } from './dock.js';
import type { Barrel } from './physics.js';
import { Barrels, Fleet, drawGull, drawLantern, drawWaves, paintedGlow } from './things.js';
import type { Gull } from './things.js';
import { lampPosts, worldTop } from './world.js';

/** What of the scene changes. */
export interface SceneState {
  readonly time: number;
  readonly cameraX: number;
  /** 0 on the deck, negative above it. */
  readonly cameraY: number;
  readonly lit: readonly boolean[];
  readonly gulls: readonly Gull[];
  readonly decks: readonly { readonly x: number; readonly y: number }[];
  readonly barrels: readonly Barrel[];
  readonly drops: readonly { readonly x: number; readonly y: number; readonly colour: string }[];
}

/** The harbour at dusk. What stays is painted once; waves, lamps, boats and gulls each time. */
export class Scenery {
  private readonly backdrop = new Backdrop();
  private readonly world = paintedWorld();
  private readonly fleet = new Fleet();
  private readonly barrels = new Barrels();
  private readonly glow = paintedGlow();

  /** What lies behind the performer. */
  drawBehind(context: Context, scene: SceneState): void {
    const { time, cameraX, cameraY, lit, gulls, decks, barrels } = scene;
    this.backdrop.draw(context, time, cameraX, cameraY);
    this.fleet.draw(context, decks, cameraX, cameraY);
    context.drawImage(this.world, -cameraX, worldTop - cameraY);
    lampPosts.forEach(({ x, y }, i) => {
      drawLantern(context, this.glow, x - cameraX + 9, y - 56 - cameraY, lit[i] === true, time);
    });
    for (const gull of gulls) drawGull(context, gull, time, cameraX, cameraY);
    this.barrels.draw(context, barrels, cameraX, cameraY);
  }

  /** What lies before the performer: drops, sparks and the nearest waves. */
  drawBefore(context: Context, { time, cameraX, cameraY, drops }: SceneState): void {
    for (const { x, y, colour } of drops) box(context, colour, x - cameraX, y - cameraY, 2, 2);
    drawWaves(context, time, cameraX, cameraY);
  }
}
