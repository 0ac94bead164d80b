import { crispCanvas, drawPose, startLoop } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import { fitting } from '../../../common/fitting.js';
import type { MountCanvas } from '../../../common/parts.js';
import { Scenery } from './scenery.js';
import { newGulls } from './things.js';
import type { Wick, WickPerformer } from './wick.js';
import { barrels, below, boatAt, boats, deckTop, lampPosts, start, view } from './world.js';

/** The scene without a body or a physics: Wick stands where the game will begin, and breathes. */
export class Stage {
  private readonly scenery = new Scenery();
  private readonly performer: WickPerformer;
  private readonly loop: Loop;
  private context: CanvasRenderingContext2D | undefined;
  private time = 0;
  private readonly still = {
    cameraX: 0,
    cameraY: 0,
    lit: lampPosts.map((_, i) => i === 0),
    gulls: newGulls(),
    barrels: barrels.map((barrel) => ({ ...barrel, turn: 0 })),
    drops: [],
  };

  constructor(private readonly character: Wick) {
    this.performer = new Performer(character.controller);
    this.loop = startLoop({
      step: (ms) => {
        this.time += ms;
        this.performer.step(ms);
      },
      draw: () => this.draw(),
    });
  }

  readonly mount: MountCanvas = fitting((canvas, room) => {
    ({ context: this.context } = crispCanvas(canvas, view.width, view.height, room));
  }, below);

  end(): void {
    this.loop.stop();
  }

  private draw(): void {
    const { context, scenery, time, still } = this;
    if (context === undefined) return;
    const scene = { ...still, time, decks: boats.map((boat) => boatAt(boat, time)) };
    scenery.drawBehind(context, scene);
    drawPose(context, this.character.images, this.performer.pose, start.x, deckTop);
    scenery.drawBefore(context, scene);
  }
}
