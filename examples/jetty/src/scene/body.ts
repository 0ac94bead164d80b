import type {
  CharacterCollision,
  Collider,
  KinematicCharacterController,
  RigidBody,
  Vector,
} from '@dimforge/rapier2d-compat';
import { engine, gravity } from './physics.js';
import type { Physics } from './physics.js';
import { deckTop, shores, start, waterTop, worldWidth } from './world.js';
import type { Shore } from './world.js';

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
/** A wall that is met faster than this is a bump, unless the body left the ground less than so many milliseconds ago. */
const bumpSpeed = 110;
const bumpAfter = 150;
/** Who wants to go and goes slower than this is stopped by something. */
const stuckSpeed = 5;
/** How far it is lifted over what may be no wall, and how far below it ground is looked for, in pixels. */
const lift = 0.3;
const reach = 2;
/** Ground that is no lower than this below an edge is a step down: who walks over the edge does not fall. */
const stepDown = 12;
/** The capsule: half the length of its straight part, and its radius. */
const half = 9;
const radius = 6;
const feet = half + radius;

/** How far a step took the body, in pixels, and what it met. */
interface Way extends Vector {
  readonly grounded: boolean;
  /** The ground that it stands on. */
  readonly below: Collider | undefined;
  readonly wall: boolean;
  readonly ceiling: boolean;
}

/** Wick's body, moved by the physics engine's character controller. It knows nothing of pictures. */
export class Body {
  /** What it wants to go, in pixels a second. */
  vx = 0;
  vy = 0;
  grounded = true;
  /** Whether it has walked over an edge, and ground is near below: it goes down a step. */
  stepsDown = false;
  /** Whether a wall stopped it in the air, in the latest step. */
  bumped = false;
  /** Whether a dash is left until it stands again. */
  fresh = true;
  /** For how many milliseconds it has wanted to go along the ground, and could not. */
  blocked = 0;
  /** Which way a dash goes, 0 for none. While it lasts nothing pulls the body down. */
  dashes = 0;
  /** For how many milliseconds more a wall only stops it: a dash is seen before it ends at a wall. */
  braced = 0;
  /** Where it was before the latest step, for drawing in between. */
  before = { x: start.x, y: deckTop };
  /** The edge that it holds on to, out of the water. It stays there until it is told to stand up. */
  holdsOn: Shore | undefined;
  private safe = { x: start.x, y: deckTop };
  private readonly body: RigidBody;
  private readonly collider: Collider;
  private readonly controller: KinematicCharacterController;
  private below: Collider | undefined;
  private dropping = 0;
  /** For how many milliseconds it has been in the air. */
  private airborneFor = 0;
  /** The speeds along of the latest three steps. */
  private strides: readonly number[] = [0, 0, 0];

  constructor(private readonly physics: Physics) {
    const { world } = physics;
    this.body = world.createRigidBody(
      engine.RigidBodyDesc.kinematicPositionBased().setTranslation(start.x, deckTop - feet),
    );
    this.collider = world.createCollider(engine.ColliderDesc.capsule(half, radius), this.body);
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

  /**
   * How fast it really went along, in pixels a second, without what a deck carried it. It is what the pictures go by. A mean of
   * three steps: a barrel that is pushed stops it in one step and gives way in the next.
   */
  get wentAlong(): number {
    // Just enough to look towards the land.
    if (this.holdsOn !== undefined) return this.holdsOn.land * 8;
    return this.strides.reduce((sum, speed) => sum + speed, 0) / this.strides.length;
  }

  /** Leaves the ground. */
  leap(): void {
    this.vy = hopSpeed;
    this.grounded = this.stepsDown = false;
    this.below = undefined;
  }

  /** Is put somewhere, and stands still there. */
  place(x: number, y: number): void {
    this.body.setTranslation({ x, y: y - feet }, true);
    this.before = { x, y };
    this.vx = this.vy = this.dashes = 0;
    this.strides = [0, 0, 0];
  }

  /**
   * Moves on. The physics' own step comes before it.
   *
   * @returns whether the body fell into the water just now; it holds on to the shore that it came from
   */
  step(ms: number, wish: Wish): boolean {
    const s = ms / 1000;
    this.before = { x: this.x, y: this.y };
    if (this.holdsOn !== undefined) return false;
    this.braced = Math.max(0, this.braced - ms);
    this.steer(s, wish);
    this.dropping =
      wish.down && this.below !== undefined && this.physics.isPlank(this.below) ? 160 : this.dropping - ms;
    this.ride();
    const from = { ...this.body.translation() };
    const walks = this.grounded && this.vy >= 0;
    const moved = walks ? this.walk(s, from) : this.fly(s);
    const x = Math.max(12, Math.min(worldWidth - 12, from.x + moved.x));
    // Set at once: the step of the physics then only tells the barrels.
    this.body.setTranslation({ x, y: from.y + moved.y }, true);
    this.strides = [...this.strides.slice(1), (x - from.x) / s];
    this.airborneFor = moved.grounded ? 0 : this.airborneFor + ms;
    this.meet(moved);
    this.stepsDown = !this.grounded && (walks || this.stepsDown) && this.isNearGround();
    const stuck = this.grounded && wish.along !== 0 && Math.abs(this.wentAlong) < stuckSpeed;
    this.blocked = stuck ? this.blocked + ms : 0;
    if (this.y > waterTop + 18) {
      this.holdOn();
      return true;
    }
    if (this.grounded && this.below !== undefined && this.physics.isGround(this.below) && this.holdsAround())
      this.safe = { x: this.x, y: this.y };
    return false;
  }

  /** Swims to the nearest shore towards where it stood last, and holds on to its edge. */
  private holdOn(): void {
    const towards = shores.filter(({ x, land }) => Math.sign(this.safe.x - x) === land);
    const far = ({ x }: Shore): number => Math.abs(x - this.x);
    const shore = towards.reduce((best, one) => (far(one) < far(best) ? one : best));
    this.place(shore.x, shore.top);
    this.grounded = true;
    this.holdsOn = shore;
  }

  /** Hangs from the edge by its hands, which are so far from its soles. */
  hang(hands: { readonly x: number; readonly y: number }): void {
    if (this.holdsOn !== undefined) this.place(this.holdsOn.x - hands.x, this.holdsOn.top - hands.y);
  }

  /** Lets go of the edge, and stands on it. */
  standUp(): void {
    if (this.holdsOn === undefined) return;
    const { x, top, land } = this.holdsOn;
    this.place(x + land * 5, top);
    this.holdsOn = undefined;
  }

  private fly(s: number): Way {
    return this.moved({ x: this.vx * s, y: this.vy * s });
  }

  /**
   * Along the ground. Nothing presses the body down while it goes: the controller would take a part of the way for that, up to
   * all of it. Now and then it also takes the level ground for a wall; so a body that is stopped tries once more, lifted a little.
   */
  private walk(s: number, from: Vector): Way {
    const x = this.vx * s;
    if (x === 0) return this.moved({ x, y: this.vy * s });
    const isFar = (way: Way): boolean => Math.abs(way.x) > Math.abs(x) / 2;
    const level = this.moved({ x, y: 0 });
    const lifted = isFar(level) ? level : this.moved({ x, y: -lift });
    const way = isFar(lifted) ? lifted : level;
    if (way.grounded) return way;
    // Is there ground where it came to?
    this.put({ x: from.x + way.x, y: from.y + way.y });
    const down = this.moved({ x: 0, y: reach });
    this.put(from);
    return down.grounded ? { ...way, y: way.y + down.y, grounded: true, below: down.below } : way;
  }

  /** How far the controller lets the body go, and what it meets there. */
  private moved(wanted: Vector): Way {
    const { controller } = this;
    const soles = this.y;
    controller.computeColliderMovement(this.collider, wanted, undefined, undefined, (other) => {
      if (this.dropping > 0 && this.physics.isPlank(other)) return false;
      return !this.physics.letsThrough(other, soles, wanted.y >= 0);
    });
    const met = Array.from({ length: controller.numComputedCollisions() }, (_, i) =>
      controller.computedCollision(i)!,
    );
    const isWall = ({ normal1, collider }: CharacterCollision): boolean =>
      Math.abs(normal1.x) > 0.85 &&
      Math.sign(normal1.x) === -Math.sign(wanted.x) &&
      collider !== null &&
      this.physics.isWall(collider);
    return {
      ...controller.computedMovement(),
      grounded: controller.computedGrounded(),
      below: met.findLast(({ normal1 }) => normal1.y < -0.6)?.collider ?? undefined,
      wall: met.some(isWall) && Math.abs(controller.computedMovement().x) < Math.abs(wanted.x) / 2,
      ceiling: met.some(({ normal1 }) => normal1.y > 0.7),
    };
  }

  private put(place: Vector): void {
    this.body.setTranslation(place, true);
    this.physics.world.propagateModifiedBodyPositionsToColliders();
  }

  /** Goes where the deck below went: as a whole, since the controller would lose a part of so little. */
  private ride(): void {
    const moved = this.below && this.grounded ? this.physics.carriedBy(this.below) : undefined;
    if (moved === undefined) return;
    const { x, y } = this.body.translation();
    this.put({ x: x + moved.x, y: y + moved.y });
  }

  private steer(s: number, { along, slow, holdsHop }: Wish): void {
    if (this.dashes !== 0) {
      this.vx = this.dashes * dashSpeed;
      this.vy = 0;
      return;
    }
    const aim = along * (slow ? walkSpeed : runSpeed);
    const slows = aim === 0 || aim * this.vx < 0;
    const rate = (slows ? braking : acceleration) * s;
    this.vx += Math.max(-rate, Math.min(rate, aim - this.vx));
    if (!holdsHop && this.vy < shortHop) this.vy = shortHop;
    this.vy = Math.min(fallSpeed, (this.grounded ? 0 : this.vy) + gravity * s);
  }

  /** What it met on its way: ground below, a wall before it, a ceiling above. */
  private meet({ grounded, below, wall, ceiling }: Way): void {
    const rises = this.vy < 0;
    if (ceiling && rises) this.vy = 0;
    this.grounded = !rises && grounded;
    const isFast = Math.abs(this.vx) > bumpSpeed && this.airborneFor >= bumpAfter && this.braced === 0;
    // Just above the ground, or in the water already, there is no time for it.
    this.bumped = wall && !this.grounded && isFast && this.y < waterTop && !this.isNearGround();
    if (wall) this.vx = this.bumped ? -this.vx * 0.3 : 0;
    if (this.bumped) this.dashes = 0;
    if (!this.grounded) {
      this.below = undefined;
      return;
    }
    this.below = below ?? this.below;
    this.vy = 0;
    this.fresh = true;
  }

  /** Whether there is ground a step below, here or where it will be in a moment. */
  private isNearGround(): boolean {
    if (this.vy < 0 || this.dropping > 0) return false;
    const here = { ...this.body.translation() };
    // Only looked at: what lies there is not pushed.
    this.controller.setApplyImpulsesToDynamicBodies(false);
    const isNear = [0, 0.06, 0.12].some((s) => {
      this.put(here);
      const { x } = this.moved({ x: this.vx * s, y: 0 });
      this.put({ x: here.x + x, y: here.y });
      return this.moved({ x: 0, y: stepDown }).grounded;
    });
    this.put(here);
    this.controller.setApplyImpulsesToDynamicBodies(true);
    return isNear;
  }

  /** Whether there is ground a little to the left and to the right: a place to be put back to. */
  private holdsAround(): boolean {
    const { world } = this.physics;
    return [-16, 16].every((dx) => {
      const ray = new engine.Ray({ x: this.x + dx, y: this.y - 12 }, { x: 0, y: 1 });
      const hit = world.castRay(ray, 30, true);
      return hit !== null && this.physics.isGround(hit.collider);
    });
  }
}
