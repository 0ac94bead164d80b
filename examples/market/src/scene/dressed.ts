import { dyeImages } from '@dot-hop/browser';
import type { LoadedCharacter } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import type { OutfitDefinition } from 'dot-hop';
import { randomCrowd, randomOutfit, wardrobeOf } from 'dot-hop/wardrobe';
import type { Walker } from './walker.js';

/** In how many choices any two of the crowd differ at least. */
const differ = 3;

/** Puts an outfit on somebody, in the colours that it needs. */
export function dress(
  { performer, character }: Pick<Walker, 'performer' | 'character'>,
  definition: OutfitDefinition,
): void {
  const outfit = wardrobeOf(performer.controller)!.outfit(definition);
  dyeImages(character.images, outfit);
  performer.wear(outfit);
}

/** How long a crowd is dressed for one picture, in milliseconds. */
const dressingTime = 5;

/** Dresses a crowd by chance, no two alike: some for each picture, so that everybody goes on walking meanwhile. */
export class Dressing {
  private readonly waiting: (readonly [Walker, OutfitDefinition])[];

  constructor(crowd: readonly Walker[], seed: number) {
    const [first] = crowd;
    const outfits = randomCrowd(wardrobeOf(first!.performer.controller)!, seed, crowd.length, { differ });
    this.waiting = crowd.map((walker, i) => [walker, outfits[i]!]);
  }

  /** Whether all of them are dressed. */
  get isOver(): boolean {
    return this.waiting.length === 0;
  }

  goOn(): void {
    const begun = performance.now();
    while (!this.isOver && performance.now() - begun < dressingTime) dress(...this.waiting.shift()!);
  }
}

/** Walking and standing, in every direction at once: what the dressing corner shows. */
export class Mannequins {
  readonly performers: Performer[];

  constructor(readonly character: LoadedCharacter) {
    const { controller } = character;
    const { degrees, deadZone } = controller.compass;
    this.performers = [true, false].flatMap((walks) =>
      degrees.map((angle) => {
        const performer = new Performer(controller);
        const turn = (angle * Math.PI) / 180;
        const speed = deadZone + 14;
        // Half way round takes its time: it shows what lies in between.
        for (let i = 0; i < 20; i++) {
          performer.set('vx', Math.cos(turn) * speed);
          performer.set('vy', Math.sin(turn) * speed);
          performer.step(50);
        }
        if (!walks) for (const name of ['vx', 'vy']) performer.set(name, 0);
        return performer;
      }),
    );
  }

  wear(definition: OutfitDefinition): void {
    for (const performer of this.performers) dress({ performer, character: this.character }, definition);
  }

  step(ms: number): void {
    for (const performer of this.performers) performer.step(ms);
  }
}

/** What somebody of a body may wear. */
export function anyOutfit({ controller }: LoadedCharacter, seed: number | string): OutfitDefinition {
  return randomOutfit(wardrobeOf(controller)!, seed);
}
