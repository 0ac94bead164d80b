import { Controls } from '@dot-hop/browser';
import type { Binding } from '@dot-hop/browser';
import type { ButtonName } from 'dot-hop/rehearsal';
import type { Target } from '../../character/controls.js';
import { turn } from './turn.js';
import type { Trial } from './trial.js';

/** How far a stick must be pushed to count as a button. */
const pushed = 0.35;

/** The button of a binding alone. Keys are for the stage, which has the focus or has it not. */
const ofPad = (binding: Binding | undefined): Binding => ({ buttons: binding?.buttons ?? [] });

/** A gamepad that leads a trial: a stick for the ways, and buttons for what they are bound to. */
export class Pad {
  private readonly controls: Controls;
  private readonly held = new Set<string>();

  constructor(
    private readonly targets: readonly Target[],
    bound: Readonly<Record<string, Binding>>,
  ) {
    const { left, right, up, down } = bound;
    const others = targets
      .filter(({ name, kind }) => kind !== 'button' || name === 'jump')
      .map(({ name }) => [`press ${name}`, ofPad(bound[name])]);
    this.controls = new Controls(
      {
        along: { less: ofPad(left), more: { ...ofPad(right), axis: 0 } },
        across: { less: ofPad(up), more: { ...ofPad(down), axis: 1 } },
        ...(Object.fromEntries(others) as Record<string, Binding>),
      },
      new EventTarget(),
    );
  }

  /** Does to a trial what was done since the last time. */
  lead(trial: Trial): void {
    const { controls } = this;
    const [along, across] = [controls.numberOf('along'), controls.numberOf('across')];
    const ways: Readonly<Partial<Record<ButtonName, boolean>>> = {
      left: along < -pushed,
      right: along > pushed,
      up: across < -pushed,
      down: across > pushed,
    };
    for (const target of this.targets) {
      const isDown = ways[target.name as ButtonName] ?? controls.isHeld(`press ${target.name}`);
      if (this.changes(target.name, isDown)) turn(trial, target, isDown);
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
