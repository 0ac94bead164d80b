import { Performer } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { readData } from '../../character/reading.js';
import { sizesOf, useWorkbench } from '../../character/store.js';
import { showingOnly } from '../../stage/single.js';

/** The vector that the hand moves, in a character of its own. */
const byHand = 'movedByHand';

/**
 * A character that shows one flipbook and is turned by a vector that a hand moves, with the compass of the document as it is: dead
 * zone, stick, diagonals and all.
 *
 * @returns `undefined` while the document cannot be performed
 */
export function turnedByHand(definition: ControllerDefinition, flipbook: string): Performer | undefined {
  const { compass } = definition;
  if (compass === undefined) return undefined;
  const { drawn } = useWorkbench.getState();
  const single = showingOnly(definition, { kind: 'flipbook', name: flipbook });
  const { controller } = readData(
    {
      ...single,
      compass: { ...compass, by: byHand },
      signals: { ...definition.signals, [byHand]: { vector: [0, 0] } },
    },
    sizesOf(drawn),
  );
  return controller && new Performer(controller);
}

/** Moves its vector there. @param y downwards, as on a screen */
export function moveHand(performer: Performer, x: number, y: number): void {
  const { isUpward } = performer.controller.compass;
  performer.setVector(performer.controller.signal(byHand), x, isUpward ? -y : y);
}
