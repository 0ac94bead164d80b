import type { LoadedCharacter } from '@dot-hop/browser';
import { compileController } from 'dot-hop';
import type { Controller, Names } from 'dot-hop';

/** The name of the signal that tells a character from which side it is seen. */
export const seenSignal = 'seen';

/**
 * Makes a character whose direction follows from the side that a camera sees, instead of from the way it moves on a flat level. It gets a
 * vector signal `seen`, which an {@link Upright} sets. Everything else stays the same, its speed too. So somebody who stands still is seen
 * from another side when the camera goes round.
 *
 * @throws {TypeError} when the character has no compass, or has a signal `seen` already
 */
export function seenByCamera<N extends Names>({
  controller,
  ...rest
}: LoadedCharacter<N>): LoadedCharacter<N> {
  const { definition } = controller;
  if (definition.compass === undefined)
    throw new TypeError(
      'a character that a camera sees from all sides needs a compass; this document has none',
    );
  if (definition.signals?.[seenSignal] !== undefined)
    throw new TypeError(
      'the document has a signal "seen" already; it is set for each camera, so give yours another name',
    );
  const signals = { ...definition.signals, [seenSignal]: { vector: [0, 1] as const } };
  // The vector is 1 long: below a fifth of that nothing is told about where the body faces.
  const compass = { ...definition.compass, by: seenSignal, deadZone: 0.2 };
  const changed: Controller = compileController({ ...definition, signals, compass }, { images: rest.images });
  return { ...rest, controller: changed as Controller<N> };
}
