import type { Clip, Controller, Performer } from 'dot-hop';
import { showingAt } from 'dot-hop/explain';
import type { ButtonName } from 'dot-hop/rehearsal';
import type { BodyKind } from './body.js';
import { LedCharacter } from './led.js';

/** Something that plays on the stage: moved on by time. */
export interface Play {
  step(ms: number): void;
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

  get ground(): readonly [number, number] {
    return [((this.clip.stride ?? 0) * this.time) / this.lasts, 0];
  }

  get says(): string {
    return this.clip.name;
  }
}

/** The whole character, with a body that keys move. */
export class CharacterPlay implements Play {
  private readonly led: LedCharacter;
  /** How long what is played once has been at its end, in milliseconds. */
  private waited = 0;

  /** @param repeats a state that is the only one, and is begun again when its clip has ended */
  constructor(
    controller: Controller,
    kind: BodyKind,
    readonly repeats?: string,
  ) {
    const moving = { speed: 120 };
    this.led = new LedCharacter(
      controller,
      { platformer: { platformer: moving }, walker: { walker: moving }, none: undefined }[kind],
    );
  }

  get performer(): Performer {
    return this.led.performer;
  }

  /** Goes on with an edited character in the same state, at the same phase. */
  exchange(controller: Controller): void {
    this.led.exchange(controller);
  }

  press(button: ButtonName): void {
    this.led.press(button);
  }

  release(button: ButtonName): void {
    this.led.release(button);
  }

  /** Presses a pulse by its name. */
  pulse(name: string): void {
    this.performer.pulse(name);
  }

  step(ms: number): void {
    const { led, performer } = this;
    led.step(ms);
    if (this.repeats === undefined || performer.phase < 1) {
      this.waited = 0;
      return;
    }
    this.waited += ms;
    if (this.waited > pause) performer.cut(this.repeats);
  }

  get ground(): readonly [number, number] {
    const { x, y } = this.led.place;
    return [x, y];
  }

  get says(): string {
    const { controller } = this.performer;
    return controller.tracks.map(({ name }) => this.performer.showing(name).state).join(' · ');
  }
}
