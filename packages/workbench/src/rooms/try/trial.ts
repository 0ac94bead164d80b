import type { Controller, Performer } from 'dot-hop';
import type {
  BodyDefinition,
  ButtonName,
  GroundDefinition,
  RehearsalScript,
  ScriptLine,
} from 'dot-hop/rehearsal';
import { LedCharacter } from '../../stage/led.js';
import type { BodyKind } from '../../stage/body.js';
import { startOn, written } from './ground.js';

/** Steps a second: each is a whole number of milliseconds, so that what is tried passes the same in a rehearsal. */
export const stepsPerSecond = 125;

/** How many places are remembered, to show where the character was: those of the last ten seconds. */
const mostPlaces = 10 * stepsPerSecond;

/** How fast bodies go unless somebody says otherwise. */
export const usualSpeed: Readonly<Record<BodyKind, number>> = { platformer: 120, walker: 60, none: 0 };

/** What it is tried with. */
export interface TrialSetup {
  readonly kind: BodyKind;
  /** The cue at which it leaves the ground; empty for the press itself. */
  readonly leapAt: string;
  /** How fast its body goes, in pixels a second. */
  readonly speed: number;
  /** What it runs on. */
  readonly ground: GroundDefinition;
}

const bodyOf = ({ kind, leapAt, speed, ground }: TrialSetup): BodyDefinition | undefined => {
  if (kind === 'none') return undefined;
  if (kind === 'walker') return { walker: { speed } };
  const start = startOn(ground);
  return {
    platformer: {
      speed,
      ...(leapAt !== '' && { leapAt }),
      ...(start[1] !== 0 && { start }),
      ...written(ground),
    },
  };
};

/** A character that is tried. Everything that is done to it is written down, so that it can become a rehearsal that passes the same. */
export class Trial {
  private readonly led: LedCharacter;
  private readonly script: ScriptLine[] = [];
  private places: { readonly at: number; readonly x: number; readonly y: number }[] = [];
  private steps = 0;
  private endWatch: () => void;

  constructor(
    controller: Controller,
    readonly setup: TrialSetup,
  ) {
    this.led = new LedCharacter(controller, bodyOf(setup), (button, isDown) =>
      this.note(isDown ? { press: button } : { release: button }),
    );
    this.endWatch = this.watch();
  }

  get performer(): Performer {
    return this.led.performer;
  }

  /** Writes down what is told by hand. */
  private watch(): () => void {
    return this.performer.observe({
      input: (input) => {
        if (this.led.isFeeding) return;
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
    this.led.press(button);
  }

  release(button: ButtonName): void {
    this.led.release(button);
  }

  /** Changes a flag from its first value as long as something is held. */
  hold(flag: string, isDown: boolean): void {
    const signal = this.performer.controller.definition.signals?.[flag];
    const isOnAtFirst = signal !== undefined && 'flag' in signal && signal.flag;
    this.performer.set(flag, isDown !== isOnAtFirst);
  }

  step(ms: number): void {
    this.led.step(ms);
    this.steps++;
    this.places.push({ at: this.performer.time, ...this.led.place });
    if (this.places.length > 2 * mostPlaces) this.places = this.places.slice(-mostPlaces);
  }

  /** Where it was at an instant of the performer, in pixels, y downwards. */
  placeAt(time: number): { readonly x: number; readonly y: number } {
    return this.places.findLast(({ at }) => at <= time) ?? { x: 0, y: 0 };
  }

  /** Goes on with an edited character. What was done so far was done to another one. */
  exchange(controller: Controller): void {
    this.endWatch();
    this.led.exchange(controller);
    this.endWatch = this.watch();
  }

  /** What was done since it began, as a rehearsal. @param lasts up to when, in milliseconds */
  rehearsal(lasts: number): RehearsalScript {
    const body = bodyOf(this.setup);
    return {
      lasts,
      ...(body && { body }),
      steps: { perSecond: stepsPerSecond },
      script: this.script.filter(({ at }) => at! <= lasts),
    };
  }
}
