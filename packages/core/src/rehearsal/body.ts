import type { BodyDefinition } from './definition.js';
import { Ground } from './ground.js';
import type { QuantityName, ButtonName } from './buttons.js';
import { isButton } from './buttons.js';
/** Defaults, in pixels a second, and in pixels a second every second. */
const usual = { speed: 90, gain: 600, brake: 900, jump: 260, gravity: 800 };

/** In water it falls so much slower, sinks at most so fast in pixels a second, and a stroke is so much weaker than a leap. */
const water = { gravity: 0.3, sinks: 60, stroke: 0.6 };

/** A body moves in steps of at most so many seconds, so that it does not fall through thin ground. */
const finest = 1 / 240;

/** A small body for rehearsals without a game: a point that buttons move, with or without gravity. */
export class Body {
  x: number;
  y: number;
  vx = 0;
  vy = 0;
  grounded = true;
  /** Whether a wall stopped it. */
  blocked = false;
  /** Whether its feet are under water. */
  wet: boolean;
  readonly held = new Set<ButtonName>();
  /** The cue at which it leaps; `undefined` if it leaps as soon as `jump` is pressed. */
  readonly leapAt: string | undefined;
  private readonly falls: boolean;
  private readonly speed: number;
  private readonly gain: number;
  private readonly brake: number;
  private readonly jump: number;
  private readonly gravity: number;
  private readonly ground: Ground;

  constructor(definition: BodyDefinition) {
    this.falls = 'platformer' in definition;
    const given = 'platformer' in definition ? definition.platformer : definition.walker;
    const { speed, gain, brake, start = [0, 0] } = given;
    this.speed = speed ?? usual.speed;
    this.gain = gain ?? usual.gain;
    this.brake = brake ?? usual.brake;
    const falling = 'platformer' in definition ? definition.platformer : {};
    const { jump, gravity, leapAt } = falling;
    this.jump = jump ?? usual.jump;
    this.gravity = gravity ?? usual.gravity;
    this.leapAt = leapAt;
    this.ground = new Ground(falling);
    [this.x, this.y] = start;
    this.grounded = !this.falls || this.ground.floorAt(this.x, this.y) === this.y;
    this.wet = this.falls && this.ground.isWet(this.x, this.y);
  }

  press(button: ButtonName): void {
    if (button === 'jump' && !this.held.has('jump') && this.leapAt === undefined) this.leap();
    this.held.add(button);
  }

  release(button: ButtonName): void {
    this.held.delete(button);
  }

  /** Leaps if it stands on something, or swims up. */
  leap(): void {
    if (!this.falls || !(this.grounded || this.wet)) return;
    this.vy = -this.jump * (this.wet ? water.stroke : 1);
    this.grounded = false;
  }

  /** -1, 0 or 1, by the two buttons of an axis. */
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
    if (this.falls) this.vy = this.grounded ? 0 : this.falling(seconds);
    else this.vy = this.toward(this.vy, this.across * slower, seconds);
    const [x, y] = [this.x + this.vx * seconds, this.y + this.vy * seconds];
    if (!this.falls) {
      [this.x, this.y] = [x, y];
      return;
    }
    this.onGround(x, y);
    this.wet = this.ground.isWet(this.x, this.y);
  }

  /** The speed of its fall a moment later. */
  private falling(seconds: number): number {
    if (!this.wet) return this.vy + this.gravity * seconds;
    return Math.min(water.sinks, this.vy + this.gravity * water.gravity * seconds);
  }

  /** Moves to a place, as far as walls and ground let it. */
  private onGround(x: number, y: number): void {
    const { ground } = this;
    const wall = ground.isWall(this.x, x, this.y);
    this.blocked = wall && this.along !== 0;
    const before = this.x;
    if (wall) this.vx = 0;
    else this.x = x;
    const slope = this.grounded ? ground.slopeUnder(before, this.x, this.y) : undefined;
    if (slope !== undefined) {
      this.y = slope;
      return;
    }
    const floor = ground.floorAt(this.x, this.y, before);
    if (this.grounded) this.grounded = floor === this.y;
    else if (this.vy >= 0 && y >= floor) {
      [this.y, this.vy, this.grounded] = [floor, 0, true];
      return;
    }
    if (!this.grounded) this.y = y;
  }

  /** A speed a moment later, on its way to the speed that the buttons want. */
  private toward(speed: number, wanted: number, seconds: number): number {
    const aim = wanted * this.speed;
    const change = (wanted === 0 || Math.sign(speed) * aim < 0 ? this.brake : this.gain) * seconds;
    return speed < aim ? Math.min(aim, speed + change) : Math.max(aim, speed - change);
  }

  /**
   * The value of a quantity or a button.
   *
   * @param up -1 if the document's compass counts y upwards, else 1
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
