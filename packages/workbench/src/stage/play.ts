import { Performer, poseOf } from 'dot-hop';
import type { Clip, Controller, Pose } from 'dot-hop';
import { showingAt } from 'dot-hop/explain';
import { goOn } from '@dot-hop/browser';
import { FeedingBody } from 'dot-hop/rehearsal';
import type { ButtonName } from 'dot-hop/rehearsal';

/** How a body moves while one tries: by running and jumping, seen from above, or not at all. */
export type BodyKind = 'platformer' | 'walker' | 'none';

/** Something that plays on the stage: moved on by time, asked for what it shows. */
export interface Play {
  step(ms: number): void;
  readonly pose: Pose | undefined;
  /** How far the ground has passed, in pixels. */
  readonly ground: readonly [number, number];
  /** What it is, in words. */
  readonly says: string;
}

/** What is played once waits so long at its end, in milliseconds. */
const pause = 500;

/** A clip by itself, over and over; one that is played once waits a moment at its end. */
export class ClipPlay implements Play {
  /** Where it is, in milliseconds. */
  time = 0;

  constructor(private clip: Clip) {}

  /** Goes on with an edited clip at the same phase. */
  exchange(clip: Clip): void {
    const before = this.lasts;
    this.clip = clip;
    this.time = before > 0 ? (this.time / before) * this.lasts : 0;
  }

  get lasts(): number {
    return this.clip.ends[this.clip.ends.length - 1]! / 1000;
  }

  /** The showing that is on now. */
  get showing(): number {
    return showingAt(this.clip, Math.min(this.time, this.lasts - 0.001));
  }

  step(ms: number): void {
    const whole = this.lasts + (this.clip.loopFrom < 0 ? pause : 0);
    this.time = (this.time + ms) % whole;
  }

  get pose(): Pose {
    return poseOf(this.clip.cells[this.showing]!, false);
  }

  get ground(): readonly [number, number] {
    return [((this.clip.stride ?? 0) * this.time) / this.lasts, 0];
  }

  get says(): string {
    return this.clip.name;
  }
}

/** The whole character, with a body that keys move. */
export class CharacterPlay implements Play {
  performer: Performer;
  private body: FeedingBody | undefined;
  private readonly held = new Set<ButtonName>();
  /** How long what is played once has been at its end, in milliseconds. */
  private waited = 0;

  /** @param repeats a state that is the only one, and is begun anew when its clip has ended */
  constructor(
    private controller: Controller,
    private readonly kind: BodyKind,
    readonly repeats?: string,
  ) {
    this.performer = new Performer(controller);
    this.body = this.bodyFor(controller);
  }

  private bodyFor(controller: Controller): FeedingBody | undefined {
    if (this.kind === 'none') return undefined;
    const moving = { speed: 120 };
    return new FeedingBody(
      controller,
      this.kind === 'platformer' ? { platformer: moving } : { walker: moving },
    );
  }

  /** Goes on with an edited character in the same state, at the same phase. */
  exchange(controller: Controller): void {
    this.controller = controller;
    this.performer = goOn(this.performer, controller);
    const before = this.body;
    this.body = this.bodyFor(controller);
    if (before !== undefined && this.body !== undefined) {
      [this.body.x, this.body.y, this.body.vx, this.body.vy] = [before.x, before.y, before.vx, before.vy];
      this.body.grounded = before.grounded;
    }
  }

  press(button: ButtonName): void {
    if (this.held.has(button)) return;
    this.held.add(button);
    this.body?.press(button);
    for (const pulse of this.body?.pulsesOf(button) ?? []) this.performer.pulse(pulse);
  }

  release(button: ButtonName): void {
    this.held.delete(button);
    this.body?.release(button);
  }

  /** Presses a pulse by its name. */
  pulse(name: string): void {
    this.performer.pulse(name);
  }

  step(ms: number): void {
    const { body, performer } = this;
    if (body !== undefined) {
      body.advance(ms);
      for (const [signal, value] of body.changes()) performer.set(signal, value);
    }
    performer.step(ms);
    if (this.repeats === undefined || performer.phase < 1) {
      this.waited = 0;
      return;
    }
    this.waited += ms;
    if (this.waited > pause) performer.cut(this.repeats);
  }

  get pose(): Pose {
    return this.performer.pose;
  }

  get ground(): readonly [number, number] {
    return [this.body?.x ?? 0, this.body?.y ?? 0];
  }

  get says(): string {
    return this.controller.tracks.map(({ name }) => this.performer.showing(name).state).join(' · ');
  }
}
