import type { BodyDefinition } from './definition.js';

/** What a body tells of itself. Lengths in pixels, speeds in pixels a second, x to the right, y downwards. */
export const quantityNames = [
  'x',
  'y',
  'vx',
  'vy',
  'speed',
  'grounded',
  'blocked',
  'along',
  'across',
  'velocity',
  'push',
] as const;
export type QuantityName = (typeof quantityNames)[number];

/** The buttons of a body. */
export const buttonNames = ['left', 'right', 'up', 'down', 'jump'] as const;
export type ButtonName = (typeof buttonNames)[number];

/** Whether a name is that of a button. */
export const isButton = (name: string): name is ButtonName =>
  (buttonNames as readonly string[]).includes(name);

/** Defaults, in pixels a second, and in pixels a second every second. */
const usual = { speed: 90, gain: 600, brake: 900, jump: 260, gravity: 800 };

/** A body moves in steps of at most so many seconds, so that it does not fall through thin ground. */
const finest = 1 / 240;

/** A small body for rehearsals without a game: a point that buttons move, with or without gravity. */
export class Body {
  x: number;
  y: number;
  vx = 0;
  vy = 0;
  grounded = true;
  /** Whether it was stopped by a piece of ground that stands higher. */
  blocked = false;
  readonly held = new Set<ButtonName>();
  /** The cue that it leaps at; `undefined` when it leaps as soon as `jump` is pressed. */
  readonly leapAt: string | undefined;
  private readonly falls: boolean;
  private readonly speed: number;
  private readonly gain: number;
  private readonly brake: number;
  private readonly jump: number;
  private readonly gravity: number;
  private readonly ground: readonly (readonly [number, number, number])[];

  constructor(definition: BodyDefinition) {
    this.falls = 'platformer' in definition;
    const given = 'platformer' in definition ? definition.platformer : definition.walker;
    const { speed, gain, brake, start = [0, 0] } = given;
    this.speed = speed ?? usual.speed;
    this.gain = gain ?? usual.gain;
    this.brake = brake ?? usual.brake;
    const { jump, gravity, ground, leapAt } = 'platformer' in definition ? definition.platformer : {};
    this.jump = jump ?? usual.jump;
    this.gravity = gravity ?? usual.gravity;
    this.leapAt = leapAt;
    // Heights are written upwards, as a person draws a slope of steps; inside, y goes down.
    this.ground = (ground ?? [[-Infinity, Infinity, 0]]).map(([from, to, height]) => [from, to, 0 - height]);
    [this.x, this.y] = start;
    this.grounded = !this.falls || this.groundAt(this.x, this.y) === this.y;
  }

  press(button: ButtonName): void {
    if (button === 'jump' && !this.held.has('jump') && this.leapAt === undefined) this.leap();
    this.held.add(button);
  }

  release(button: ButtonName): void {
    this.held.delete(button);
  }

  /** Leaps if it stands on something. */
  leap(): void {
    if (!this.grounded || !this.falls) return;
    this.vy = -this.jump;
    this.grounded = false;
  }

  /** -1, 0 or 1 by the two buttons of an axis. */
  private axis(less: ButtonName, more: ButtonName): number {
    return (this.held.has(more) ? 1 : 0) - (this.held.has(less) ? 1 : 0);
  }

  get along(): number {
    return this.axis('left', 'right');
  }

  get across(): number {
    return this.axis('up', 'down');
  }

  advance(ms: number): void {
    const parts = Math.max(1, Math.ceil(ms / 1000 / finest));
    for (let i = 0; i < parts; i++) this.part(ms / 1000 / parts);
  }

  private part(seconds: number): void {
    const slower = this.falls || this.along === 0 || this.across === 0 ? 1 : Math.SQRT1_2;
    this.vx = this.toward(this.vx, this.along * slower, seconds);
    if (this.falls) this.vy = this.grounded ? 0 : this.vy + this.gravity * seconds;
    else this.vy = this.toward(this.vy, this.across * slower, seconds);
    const [x, y] = [this.x + this.vx * seconds, this.y + this.vy * seconds];
    if (!this.falls) {
      [this.x, this.y] = [x, y];
      return;
    }
    const wall = this.ground.some(
      ([from, to, top]) => top < this.y && x >= from && x <= to && !(this.x >= from && this.x <= to),
    );
    this.blocked = wall && this.along !== 0;
    if (wall) this.vx = 0;
    else this.x = x;
    const floor = this.groundAt(this.x, this.y);
    if (this.grounded) this.grounded = floor === this.y;
    else if (this.vy >= 0 && y >= floor) {
      [this.y, this.vy, this.grounded] = [floor, 0, true];
      return;
    }
    if (!this.grounded) this.y = y;
  }

  /** A speed a moment later, on its way to what the buttons want. */
  private toward(speed: number, wanted: number, seconds: number): number {
    const aim = wanted * this.speed;
    const change = (wanted === 0 || Math.sign(speed) * aim < 0 ? this.brake : this.gain) * seconds;
    return speed < aim ? Math.min(aim, speed + change) : Math.max(aim, speed - change);
  }

  /** The height of the highest ground at or below a place. */
  private groundAt(x: number, y: number): number {
    return Math.min(
      ...this.ground.filter(([from, to, top]) => x >= from && x <= to && top >= y).map(([, , top]) => top),
    );
  }

  /**
   * What it tells of itself or of a button.
   *
   * @param up -1 where the document's compass counts y upwards, else 1
   */
  tell(name: QuantityName | ButtonName, up: 1 | -1): number | boolean | readonly [number, number] {
    return isButton(name) ? this.held.has(name) : this.quantity(name, up);
  }

  private quantity(name: QuantityName, up: 1 | -1): number | boolean | readonly [number, number] {
    switch (name) {
      case 'speed':
        return Math.hypot(this.vx, this.falls ? 0 : this.vy);
      case 'velocity':
        return [this.vx, up * this.vy + 0];
      case 'push':
        return [this.along, up * this.across + 0];
      case 'y':
      case 'vy':
      case 'across':
        // No negative zero, which is printed oddly.
        return up * this[name] + 0;
      default:
        return this[name];
    }
  }
}
