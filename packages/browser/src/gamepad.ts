/** How far the stick must be pushed to count, of 1: sticks at rest are seldom quite at 0. */
const restZone = 0.2;

/** The buttons of the standard mapping that point up, down, left and right. (W3C Gamepad, "standard gamepad") */
const pointing = { up: 12, down: 13, left: 14, right: 15 } as const;

/**
 * The left stick, or the pointing buttons, of the first gamepad with the standard mapping.
 *
 * @param out is filled and returned: right and down positive, at most 1 long; `[0, 0]` at rest and without a gamepad
 */
export function readStick(out: [number, number]): [number, number] {
  const pad = navigator.getGamepads().find((one) => one?.connected === true && one.mapping === 'standard');
  out[0] = out[1] = 0;
  if (pad === null || pad === undefined) return out;
  const isDown = (button: number): boolean => pad.buttons[button]?.pressed === true;
  const [x = 0, y = 0] = pad.axes;
  const pushed = Math.hypot(x, y) > restZone;
  out[0] = pushed ? x : Number(isDown(pointing.right)) - Number(isDown(pointing.left));
  out[1] = pushed ? y : Number(isDown(pointing.down)) - Number(isDown(pointing.up));
  const long = Math.hypot(out[0], out[1]);
  if (long > 1) {
    out[0] /= long;
    out[1] /= long;
  }
  return out;
}
