import { dyeImages } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import type { Overlay } from '@dot-hop/browser/overlay';
import type { Folk } from './folk.js';
import type { Game } from './game.js';

/** A closer look at whoever is led: the overlay of one member of the troupe. */
export class Closer {
  private overlay: Overlay | undefined;
  /** Of whom it is; -1 for nobody. */
  private of = -1;

  constructor(
    private readonly game: Game,
    private readonly folk: Folk,
    private readonly loop: Loop,
  ) {}

  get isOpen(): boolean {
    return this.of >= 0;
  }

  /** Opens it for the one that is led, or closes it. */
  async toggle(): Promise<void> {
    if (this.isOpen) this.close();
    else await this.open(this.game.crowd.led);
  }

  /** Closes it when that one is led no more. */
  follow(): void {
    if (this.isOpen && this.of !== this.game.crowd.led) this.close();
  }

  private async open(one: number): Promise<void> {
    this.of = one;
    // Most visits need none of it.
    const { mountOverlay } = await import('@dot-hop/browser/overlay');
    if (this.of !== one) return;
    const { game, folk, loop } = this;
    const performer = game.crowd.troupe.member(one);
    const outfit = game.looks.outfitOf(game.crowd.look[one]!);
    performer.wear(outfit);
    const images = { ...folk.images };
    dyeImages(images, outfit);
    this.overlay = mountOverlay({ performer, images, loop, document: 'folk.dothop.yaml' });
  }

  private close(): void {
    this.overlay?.destroy();
    this.overlay = undefined;
    this.of = -1;
  }
}
