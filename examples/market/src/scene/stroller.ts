import { ground, isFree } from './square.js';
import type { Walker } from './walker.js';

/** How near others may come, in pixels, before one steps aside. */
const room = 15;

/** Leads a walker about the square: to a place, a rest there, and on to the next. */
export class Stroller {
  private goalX: number;
  private goalY: number;
  /** Milliseconds it still stands. */
  private rest: number;
  private stuck = 0;
  private readonly speed: number;

  constructor(
    readonly walker: Walker,
    private readonly chance: () => number,
    quick: boolean,
  ) {
    this.speed = (quick ? 30 : 19) + chance() * 9;
    this.rest = chance() * 2500;
    this.goalX = walker.x;
    this.goalY = walker.y;
  }

  step(ms: number, others: readonly Walker[]): void {
    const { walker } = this;
    if (this.rest > 0) {
      this.rest -= ms;
      walker.move(ms, 0, 0);
      if (this.rest <= 0) this.chooseGoal();
      return;
    }
    const [dx, dy] = [this.goalX - walker.x, this.goalY - walker.y];
    const far = Math.hypot(dx, dy);
    if (far < 6) {
      this.rest = 900 + this.chance() * 4200;
      return;
    }
    let [wishX, wishY] = [(dx / far) * this.speed, (dy / far) * this.speed];
    for (const other of others) {
      if (other === walker) continue;
      const [awayX, awayY] = [walker.x - other.x, walker.y - other.y];
      const apart = Math.hypot(awayX, awayY * 1.5);
      if (apart >= room || apart === 0) continue;
      // Past each other on the right hand, and away.
      const push = ((room - apart) / room) * this.speed * 1.1;
      wishX += (awayX / apart - awayY / apart) * push * 0.7;
      wishY += (awayY / apart + awayX / apart) * push * 0.7;
    }
    const long = Math.hypot(wishX, wishY);
    const most = Math.min(long, this.speed * 1.2) / (long || 1);
    this.stuck = walker.move(ms, wishX * most, wishY * most) ? 0 : this.stuck + ms;
    if (this.stuck > 500) this.chooseGoal();
  }

  private chooseGoal(): void {
    this.stuck = 0;
    for (let attempt = 0; attempt < 20; attempt++) {
      this.goalX = ground.left + this.chance() * (ground.right - ground.left);
      this.goalY = ground.top + this.chance() * (ground.bottom - ground.top);
      if (isFree(this.goalX, this.goalY, 12)) return;
    }
  }
}
