import { Performer } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { goOn } from '@dot-hop/browser';
import { FeedingBody } from 'dot-hop/rehearsal';
import type { BodyDefinition, ButtonName, RehearsalScript, ScriptLine } from 'dot-hop/rehearsal';
import type { BodyKind } from '../../stage/play.js';

/** Steps a second: each is a whole number of milliseconds, so that what is tried passes the same in a rehearsal. */
export const stepsPerSecond = 125;

/** So many places are remembered, to show where it was: those of the last ten seconds. */
const mostPlaces = 10 * stepsPerSecond;

/** What it is tried with. */
export interface TrialSetup {
  readonly kind: BodyKind;
  /** The cue at which it leaves the ground; empty for the press itself. */
  readonly leapAt: string;
}

/**
 * A character that is tried: it has a body that buttons move, and everything that is done to it is written down, so that it can
 * become a rehearsal that passes the same.
 */
export class Trial {
  performer: Performer;
  private body: FeedingBody | undefined;
  private script: ScriptLine[] = [];
  private readonly held = new Set<ButtonName>();
  /** Buttons that went down or up since the last step. */
  private pending: { readonly button: ButtonName; readonly isDown: boolean }[] = [];
  /** Whether it is the body that sets now, and not a hand. */
  private isFeeding = false;
  private places: { readonly at: number; readonly x: number; readonly y: number }[] = [];
  private steps = 0;
  private heard = 0;
  private endWatch: () => void;

  constructor(
    private controller: Controller,
    readonly setup: TrialSetup,
  ) {
    this.performer = new Performer(controller);
    this.body = this.newBody();
    this.feed();
    this.endWatch = this.watch();
  }

  private get definition(): BodyDefinition | undefined {
    const { kind, leapAt } = this.setup;
    if (kind === 'none') return undefined;
    if (kind === 'walker') return { walker: { speed: 60 } };
    return { platformer: { speed: 120, ...(leapAt === '' ? {} : { leapAt }) } };
  }

  private newBody(): FeedingBody | undefined {
    const { definition } = this;
    return definition && new FeedingBody(this.controller, definition);
  }

  /** Writes down what is told by hand. */
  private watch(): () => void {
    return this.performer.observe({
      input: (input) => {
        if (this.isFeeding) return;
        if (input.kind === 'set') {
          const value = input.value;
          this.note({ set: { [input.name]: value } });
        } else this.note({ [input.kind]: input.name });
      },
    });
  }

  private note(line: Omit<ScriptLine, 'at'>): void {
    this.script.push({ at: this.time, ...line });
  }

  /** How long it is tried, in milliseconds. */
  get time(): number {
    return (this.steps * 1000) / stepsPerSecond;
  }

  press(button: ButtonName): void {
    if (this.held.has(button)) return;
    this.held.add(button);
    this.pending.push({ button, isDown: true });
  }

  release(button: ButtonName): void {
    if (this.held.delete(button)) this.pending.push({ button, isDown: false });
  }

  letGoOfAll(): void {
    for (const button of [...this.held]) this.release(button);
  }

  /** One step, in the order in which a rehearsal does things: the body moves, buttons go down and up, signals are fed, time passes. */
  step(ms: number): void {
    const { body, performer } = this;
    if (body !== undefined) {
      if (this.heard > 0) body.leap();
      body.advance(this.steps > 0 ? ms : 0);
    }
    this.heard = 0;
    for (const { button, isDown } of this.pending) this.turn(button, isDown);
    this.pending = [];
    this.feed();
    this.isFeeding = true;
    const count = performer.step(ms);
    this.isFeeding = false;
    for (let i = 0; i < count; i++)
      if (performer.reports.kind(i) === 'cue' && performer.reports.name(i) === body?.leapAt) this.heard++;
    this.steps++;
    this.places.push({ at: performer.time, x: body?.x ?? 0, y: body?.y ?? 0 });
    if (this.places.length > 2 * mostPlaces) this.places = this.places.slice(-mostPlaces);
  }

  private turn(button: ButtonName, isDown: boolean): void {
    const { body } = this;
    if (body === undefined) return;
    this.note(isDown ? { press: button } : { release: button });
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

  /** Where it was at an instant of the performer, in pixels, y downwards. */
  placeAt(time: number): { readonly x: number; readonly y: number } {
    return this.places.findLast(({ at }) => at <= time) ?? { x: 0, y: 0 };
  }

  /** Goes on with an edited character, in the same state. What was done so far was done to another one. */
  exchange(controller: Controller): void {
    this.controller = controller;
    this.endWatch();
    this.performer = goOn(this.performer, controller);
    this.endWatch = this.watch();
    const before = this.body;
    this.body = this.newBody();
    if (before === undefined || this.body === undefined) return;
    [this.body.x, this.body.y, this.body.vx, this.body.vy] = [before.x, before.y, before.vx, before.vy];
    this.body.grounded = before.grounded;
    for (const button of this.held) this.body.press(button);
  }

  /** What was done since it began, as a rehearsal. @param lasts up to when, in milliseconds */
  rehearsal(lasts: number): RehearsalScript {
    const { definition } = this;
    return {
      lasts,
      ...(definition && { body: definition }),
      steps: { perSecond: stepsPerSecond },
      script: this.script.filter(({ at }) => at! <= lasts),
    };
  }
}
