import { Controls } from '@dot-hop/browser';
import type { ButtonName } from 'dot-hop/rehearsal';
import type { Trial } from './trial.js';

/** How far a stick must be pushed to count as a button. */
const pushed = 0.35;

/** Which buttons of a standard gamepad press pulses, in the order of the document: those beside the one for jump, then the shoulders. */
const pulseButtons = [2, 1, 3, 4, 5, 6, 7];

/** A gamepad that leads a trial: stick or cross for the ways, the lower button for jump, the others for pulses. */
export class Pad {
  private readonly controls: Controls;
  private readonly held = new Set<string>();

  /** @param pulses those that no button of the body brings about */
  constructor(private readonly pulses: readonly string[]) {
    const bound = pulses.flatMap((name, i) =>
      pulseButtons[i] === undefined ? [] : [[`pulse ${name}`, { buttons: [pulseButtons[i]] }]],
    );
    // Keys are for the stage, which has the focus or has it not: only the pad is read here.
    this.controls = new Controls(
      {
        along: { less: { buttons: [14] }, more: { buttons: [15], axis: 0 } },
        across: { less: { buttons: [12] }, more: { buttons: [13], axis: 1 } },
        jump: { buttons: [0] },
        ...(Object.fromEntries(bound) as Record<string, { buttons: number[] }>),
      },
      new EventTarget(),
    );
  }

  /** Does to a trial what was done since the last time. */
  lead(trial: Trial): void {
    const { controls } = this;
    const [along, across] = [controls.numberOf('along'), controls.numberOf('across')];
    const buttons: Readonly<Record<ButtonName, boolean>> = {
      left: along < -pushed,
      right: along > pushed,
      up: across < -pushed,
      down: across > pushed,
      jump: controls.isHeld('jump'),
    };
    for (const [name, isDown] of Object.entries(buttons) as [ButtonName, boolean][]) {
      if (!this.changes(name, isDown)) continue;
      if (isDown) trial.press(name);
      else trial.release(name);
    }
    for (const name of this.pulses) {
      const isDown = controls.isHeld(`pulse ${name}`);
      if (this.changes(`pulse ${name}`, isDown) && isDown) trial.performer.pulse(name);
    }
  }

  destroy(): void {
    this.controls.destroy();
  }

  /** Whether something went down or up: what a key holds meanwhile is not let go by a pad that lies still. */
  private changes(name: string, isDown: boolean): boolean {
    if (this.held.has(name) === isDown) return false;
    if (isDown) this.held.add(name);
    else this.held.delete(name);
    return true;
  }
}
