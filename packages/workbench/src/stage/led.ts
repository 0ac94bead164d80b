import { Performer } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { continueAfterEdit } from '@dot-hop/browser';
import { FeedingBody } from 'dot-hop/rehearsal';
import type { BodyDefinition, ButtonName } from 'dot-hop/rehearsal';

/** A character with a body that buttons move. A step does things in the order in which a rehearsal does them. */
export class LedCharacter {
  performer: Performer;
  /** Whether the body sets signals just now, and not somebody by hand. */
  isFeeding = false;
  private body: FeedingBody | undefined;
  private readonly held = new Set<ButtonName>();
  /** Buttons that went down or up since the last step. */
  private pending: { readonly button: ButtonName; readonly isDown: boolean }[] = [];
  private hasBegun = false;
  /** Whether the latest step told the cue at which the body leaves the ground. */
  private leaps = false;

  /**
   * @param definition its body; without one nothing but hands sets signals
   * @param noted is told of each button when a step hears of it
   */
  constructor(
    controller: Controller,
    private readonly definition: BodyDefinition | undefined,
    private readonly noted: (button: ButtonName, isDown: boolean) => void = () => undefined,
  ) {
    this.body = this.bodyFor(controller);
    // As in a rehearsal: what the body tells at first is so from the beginning, and has not just become so.
    this.performer = new Performer(controller, Object.fromEntries(this.body?.changes() ?? []));
  }

  private bodyFor(controller: Controller): FeedingBody | undefined {
    return this.definition && new FeedingBody(controller, this.definition);
  }

  /** Where it is, in pixels, y downwards. */
  get place(): { readonly x: number; readonly y: number } {
    return { x: this.body?.x ?? 0, y: this.body?.y ?? 0 };
  }

  press(button: ButtonName): void {
    if (this.held.has(button)) return;
    this.held.add(button);
    this.pending.push({ button, isDown: true });
  }

  release(button: ButtonName): void {
    if (this.held.delete(button)) this.pending.push({ button, isDown: false });
  }

  /** Goes on with an edited character, in the same state, at the same phase and place. */
  exchange(controller: Controller): void {
    this.performer = continueAfterEdit(this.performer, controller);
    const before = this.body;
    this.body = this.bodyFor(controller);
    if (before === undefined || this.body === undefined) return;
    [this.body.x, this.body.y, this.body.vx, this.body.vy] = [before.x, before.y, before.vx, before.vy];
    this.body.grounded = before.grounded;
    for (const button of before.held) this.body.held.add(button);
  }

  /** The body moves, buttons go down and up, signals are fed, time passes. */
  step(ms: number): void {
    const { body, performer } = this;
    if (this.leaps) body?.leap();
    body?.advance(this.hasBegun ? ms : 0);
    this.hasBegun = true;
    for (const { button, isDown } of this.pending) this.turn(button, isDown);
    this.pending = [];
    this.feed();
    this.isFeeding = true;
    performer.step(ms);
    this.isFeeding = false;
    this.leaps =
      body?.leapAt !== undefined &&
      [...performer.reports].some(
        ({ kind, name, from }) => kind === 'cue' && (name === body.leapAt || from === body.leapAt),
      );
  }

  private turn(button: ButtonName, isDown: boolean): void {
    const { body } = this;
    if (body === undefined) return;
    this.noted(button, isDown);
    if (!isDown) {
      body.release(button);
      return;
    }
    body.press(button);
    this.isFeeding = true;
    for (const pulse of body.pulsesOf(button)) this.performer.pulse(pulse);
    this.isFeeding = false;
  }

  private feed(): void {
    this.isFeeding = true;
    for (const [signal, value] of this.body?.changes() ?? []) this.performer.set(signal, value);
    this.isFeeding = false;
  }
}
