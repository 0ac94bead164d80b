import RAPIER from '@dimforge/rapier2d-compat';
import type { Collider, KinematicCharacterController, RigidBody } from '@dimforge/rapier2d-compat';
import { gravity } from './physics';
import type { Physics } from './physics';
import { deckTop, waterTop, worldWidth } from './world';

/** What the player wants to do. */
export interface Wish {
  /** -1 left, 1 right, 0 neither. */
  readonly along: number;
  /** Whether to walk only. */
  readonly slow: boolean;
  /** Whether the hop's button is still held. */
  readonly holdsHop: boolean;
  /** Whether to drop down through a plank. */
  readonly down: boolean;
}

const runSpeed = 140;
const walkSpeed = 56;
const dashSpeed = 300;
const acceleration = 420;
const braking = 640;
const hopSpeed = -300;
const fallSpeed = 360;
/** A hop whose button is let go rises no faster than this. */
const shortHop = -120;
/** A wall that is met faster than this is a bump. */
const bumpSpeed = 110;
/** The capsule: half the length of its straight part, and its radius. */
const half = 9;
const radius = 6;
const feet = half + radius;

/** Wick's body, moved by the physics engine's character controller. It knows nothing of pictures. */
export class Body {
  vx = 0;
  vy = 0;
  grounded = true;
  /** Whether a wall stopped it in the air, in the latest step. */
  bumped = false;
  /** Whether a dash is left until it stands again. */
  fresh = true;
  /** Which way a dash goes, 0 for none. While it lasts nothing pulls the body down. */
  dashes = 0;
  /** Where it was before the latest step, for drawing in between. */
  before = { x: 48, y: deckTop };
  private safe = { x: 48, y: deckTop };
  private readonly body: RigidBody;
  private readonly collider: Collider;
  private readonly controller: KinematicCharacterController;
  private below: Collider | undefined;
  private dropping = 0;

  constructor(private readonly physics: Physics) {
    const { world } = physics;
    this.body = world.createRigidBody(
      RAPIER.RigidBodyDesc.kinematicPositionBased().setTranslation(48, deckTop - feet),
    );
    this.collider = world.createCollider(RAPIER.ColliderDesc.capsule(half, radius), this.body);
    this.controller = world.createCharacterController(0.15);
    this.controller.setUp({ x: 0, y: -1 });
    this.controller.setMaxSlopeClimbAngle((50 * Math.PI) / 180);
    this.controller.enableAutostep(5, 3, false);
    this.controller.enableSnapToGround(5);
    this.controller.setApplyImpulsesToDynamicBodies(true);
    this.controller.setCharacterMass(1.2);
  }

  get x(): number {
    return this.body.translation().x;
  }

  /** The height of the soles. */
  get y(): number {
    return this.body.translation().y + feet;
  }

  /** Leaves the ground. */
  leap(): void {
    this.vy = hopSpeed;
    this.grounded = false;
    this.below = undefined;
  }

  /** Is put somewhere, and stands still there. */
  place(x: number, y: number): void {
    this.body.setTranslation({ x, y: y - feet }, true);
    this.before = { x, y };
    this.vx = this.vy = this.dashes = 0;
  }

  /**
   * Moves on. The physics' own step comes before it.
   *
   * @returns whether the body fell into the water and was put back to where it stood safely
   */
  step(ms: number, wish: Wish): boolean {
    const s = ms / 1000;
    this.before = { x: this.x, y: this.y };
    this.steer(s, wish);
    this.dropping =
      wish.down && this.below !== undefined && this.physics.isPlank(this.below) ? 160 : this.dropping - ms;
    this.ride();
    const wanted = { x: this.vx * s, y: this.vy * s };
    const soles = this.y;
    this.controller.computeColliderMovement(this.collider, wanted, undefined, undefined, (other) => {
      if (this.dropping > 0 && this.physics.isPlank(other)) return false;
      return !this.physics.letsThrough(other, soles, wanted.y >= 0);
    });
    const moved = this.controller.computedMovement();
    const at = this.body.translation();
    const x = Math.max(12, Math.min(worldWidth - 12, at.x + moved.x));
    // Set at once: the step of the physics then only tells the barrels.
    this.body.setTranslation({ x, y: at.y + moved.y }, true);
    this.meet(wanted.x);
    if (this.y > waterTop + 18) {
      this.place(this.safe.x, this.safe.y);
      this.grounded = true;
      return true;
    }
    if (this.grounded && this.below !== undefined && this.physics.isGround(this.below) && this.holdsAround())
      this.safe = { x: this.x, y: this.y };
    return false;
  }

  /** Goes where the deck below went: as a whole, since the controller would lose a part of so little. */
  private ride(): void {
    const moved = this.below && this.grounded ? this.physics.carriedBy(this.below) : undefined;
    if (moved === undefined) return;
    const { x, y } = this.body.translation();
    this.body.setTranslation({ x: x + moved.x, y: y + moved.y }, true);
    this.physics.world.propagateModifiedBodyPositionsToColliders();
  }

  private steer(s: number, { along, slow, holdsHop }: Wish): void {
    if (this.dashes !== 0) {
      this.vx = this.dashes * dashSpeed;
      this.vy = 0;
      return;
    }
    const aim = along * (slow ? walkSpeed : runSpeed);
    const rate = (aim === 0 ? braking : acceleration) * s;
    this.vx += Math.max(-rate, Math.min(rate, aim - this.vx));
    if (!holdsHop && this.vy < shortHop) this.vy = shortHop;
    // On the ground, too: what is pressed down a little keeps its contact.
    this.vy = Math.min(fallSpeed, (this.grounded ? 0 : this.vy) + gravity * s);
  }

  /** What it met on its way: ground below, a wall before it, a ceiling above. */
  private meet(wantedX: number): void {
    const { controller } = this;
    const rises = this.vy < 0;
    this.grounded = !rises && controller.computedGrounded();
    this.bumped = false;
    for (let i = 0; i < controller.numComputedCollisions(); i++) {
      const { normal1, collider } = controller.computedCollision(i)!;
      if (normal1.y < -0.6) this.below = collider ?? undefined;
      if (normal1.y > 0.7 && rises) this.vy = 0;
      const isWall = Math.abs(normal1.x) > 0.85 && Math.sign(normal1.x) === -Math.sign(wantedX);
      if (!isWall || collider === null || !this.physics.isWall(collider)) continue;
      this.bumped ||= !this.grounded && Math.abs(this.vx) > bumpSpeed;
      this.vx = this.bumped ? -this.vx * 0.3 : 0;
      if (this.bumped) this.dashes = 0;
    }
    if (!this.grounded) {
      this.below = undefined;
      return;
    }
    this.vy = 0;
    this.fresh = true;
  }

  /** Whether there is ground a little to the left and to the right: a place to be put back to. */
  private holdsAround(): boolean {
    const { world } = this.physics;
    return [-16, 16].every((dx) => {
      const ray = new RAPIER.Ray({ x: this.x + dx, y: this.y - 12 }, { x: 0, y: 1 });
      const hit = world.castRay(ray, 30, true);
      return hit !== null && this.physics.isGround(hit.collider);
    });
  }
}
