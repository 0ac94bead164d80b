import type { ButtonName } from 'dot-hop/rehearsal';
import type { Target } from '../../character/controls.js';
import type { Trial } from './trial.js';

/** Turns a target on or off: a button of the body is held, a flag is on meanwhile, a pulse is pressed. */
export function turn(trial: Trial, { name, kind }: Target, isDown: boolean): void {
  if (kind === 'pulse') {
    if (isDown) trial.performer.pulse(name);
  } else if (kind === 'flag') trial.hold(name, isDown);
  else if (isDown) trial.press(name as ButtonName);
  else trial.release(name as ButtonName);
}
