import type { Condition } from '../signal/condition.js';
import type { Axis, Slot } from './state.js';
import type { StateDefinition } from './definition.js';
import type { StateFlipbook } from './timelines.js';
import { inPlaceOf } from './variants.js';
import type { Variants } from './variants.js';

/** The clips or flipbooks of a state: its only one, those to pick from, or its gaits from the slowest. */
export const showsOf = ({ shows, gaits }: Pick<StateDefinition, 'shows' | 'gaits'>): readonly string[] =>
  typeof shows === 'string' ? [shows] : (shows?.any ?? gaits?.shows ?? []);

/** The flipbooks of a state, and what picks one of those that are in place of one another. */
export class FlipbookSlots {
  readonly flipbooks: StateFlipbook[] = [];
  readonly slots: Slot[] = [];
  readonly slotOf: number[] = [];

  constructor(private readonly variants: readonly Variants[]) {}

  /**
   * Adds flipbooks of which one shows, and what variants put in their place.
   *
   * @param gaits of several, what picks one
   * @param pick the number of the variety that picks one instead
   * @returns all that were added
   */
  add(
    own: readonly StateFlipbook[],
    flipbookNamed: (name: string) => StateFlipbook,
    gaits: readonly Condition[] = [],
    pick = -1,
  ): readonly StateFlipbook[] {
    const first = this.flipbooks.length;
    const axes: Axis[] =
      gaits.length === 0 && pick < 0 ? [] : [{ conditions: gaits, isRising: pick < 0, step: 1, pick }];
    const { names, by } = inPlaceOf(
      own.map(({ name }) => name),
      this.variants,
    );
    let step = own.length;
    for (const { options } of by) {
      axes.push({ conditions: options.map(({ condition }) => condition), isRising: false, step, pick: -1 });
      step *= options.length + 1;
    }
    const flipbooks = names.map((name, i) => own[i] ?? flipbookNamed(name));
    for (const flipbook of flipbooks) {
      this.flipbooks.push(flipbook);
      this.slotOf.push(this.slots.length);
    }
    this.slots.push({ first, axes });
    return flipbooks;
  }
}
