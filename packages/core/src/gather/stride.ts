/**
 * Measures from the feet how far the body travels in one pass. While a foot stands, the body passes over it, so in the drawings the foot
 * slides back by the same distance. Where it jumps forward, the other foot has taken over; there the mean of the other distances is used.
 *
 * @param feet where the feet touch the ground in each frame, in pixels from the pivot, to the right positive; the character faces to the
 *   right
 * @returns whole pixels; `undefined` if no foot slides back
 */
export function strideOf(feet: readonly number[]): number | undefined {
  const slides = feet.map((at, i) => at - feet[(i + 1) % feet.length]!);
  const back = slides.filter((by) => by > 0);
  if (back.length === 0) return undefined;
  const mean = back.reduce((sum, by) => sum + by, 0) / back.length;
  return Math.max(1, Math.round(mean * feet.length));
}
