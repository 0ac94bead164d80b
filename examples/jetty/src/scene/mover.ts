import { deckTop, gap, ledges, waterTop, worldWidth } from './world';

/** What the player wants to do. */
export interface Wish {
  /** -1 left, 1 right, 0 neither. */
  readonly along: number;
  /** Whether to walk only. */
  readonly slow: boolean;
  /** Whether the hop's button is still held. */
  readonly holdsHop: boolean;
}

const runSpeed = 140;
const walkSpeed = 56;
const acceleration = 420;
const braking = 640;
const gravity = 900;
const hopSpeed = -292;
/** A hop whose button is let go rises no faster than this. */
const shortHop = -120;
const halfWidth = 6;

/** Wick's body: the game's own simple motion. It knows nothing of pictures. */
export class Mover {
  x = 48;
  y = deckTop;
  vx = 0;
  vy = 0;
  grounded = true;
  private safeX = 48;

  /** Leaves the ground. */
  leap(): void {
    this.vy = hopSpeed;
    this.grounded = false;
  }

  /**
   * Moves on.
   *
   * @returns whether the body fell into the water and was put back onto the deck
   */
  step(ms: number, wish: Wish): boolean {
    const s = ms / 1000;
    const aim = wish.along * (wish.slow ? walkSpeed : runSpeed);
    const rate = (aim === 0 ? braking : acceleration) * s;
    this.vx += Math.max(-rate, Math.min(rate, aim - this.vx));
    if (!wish.holdsHop && this.vy < shortHop) this.vy = shortHop;
    this.vy = this.grounded ? 0 : Math.min(360, this.vy + gravity * s);
    this.x = Math.max(12, Math.min(worldWidth - 12, this.x + this.vx * s));
    this.fall(this.vy * s);
    if (this.y <= waterTop + 20) return false;
    this.x = this.safeX;
    this.y = deckTop;
    this.vx = this.vy = 0;
    this.grounded = true;
    return true;
  }

  private fall(distance: number): void {
    const before = this.y;
    this.y += distance;
    const floor = ledges.find(
      ({ left, right, top }) =>
        this.x + halfWidth > left && this.x - halfWidth < right && before <= top + 0.01 && this.y >= top,
    );
    this.grounded = this.vy >= 0 && floor !== undefined;
    if (!this.grounded || floor === undefined) return;
    this.y = floor.top;
    this.vy = 0;
    if (this.x < gap.left - 14 || this.x > gap.right + 14) this.safeX = this.x;
  }
}
