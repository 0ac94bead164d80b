/** How much is shown on either side of where two things part. */
const around = 160;

/**
 * Compares what two ways of working tell. It is called for every scene of thousands of stories, with lists that can be long: a
 * comparison that draws up all differences took hours when one of them was found.
 */
export function agree(found: unknown, expected: unknown): void {
  const [one, other] = [JSON.stringify(found), JSON.stringify(expected)];
  if (one === other) return;
  let at = 0;
  while (one[at] === other[at]) at++;
  const shown = (text: string): string => text.slice(Math.max(0, at - around), at + around);
  throw new Error(
    `They part at letter ${at} of their JSON.\nFound:    …${shown(one)}…\nExpected: …${shown(other)}…`,
  );
}
