import type * as rapier from '@dimforge/rapier2d-compat';
import type { Collider, RigidBody, World } from '@dimforge/rapier2d-compat';
import { barrelRadius, barrels, boatAt, boats, grounds, planks, waterTop } from './world.js';

/** The physics engine. A page fetches it when it can show something already. */
export type Engine = typeof rapier;

/** There once {@link physicsReady} was awaited. */
export let engine: Engine;

/** To be awaited once, before the first {@link Physics}. */
export async function physicsReady(fetched: Engine): Promise<void> {
  await fetched.init();
  engine = fetched;
}

/** Pixels a second, for each second. */
export const gravity = 900;

/** How deep under its top a plank and a boat's deck reach. */
const plankDepth = 5;

/** What each is (upper half) and what it meets (lower half): barrels fall past boats into the water. */
const groups = { boats: 0x0002_fffb, barrels: 0x0004_fffd };

/** What a barrel is at an instant. */
export interface Barrel {
  readonly x: number;
  readonly y: number;
  /** How far it has rolled, in radians. */
  readonly turn: number;
}

/** The level as a physics engine has it: ground, planks, boats that carry, barrels that roll. Lengths are pixels. */
export class Physics {
  readonly world: World;
  private readonly onlyFromAbove = new Map<number, number | RigidBody>();
  private readonly boatBodies: RigidBody[];
  private readonly barrelBodies: RigidBody[];
  private time = 0;
  /** How far each boat swam in the latest step. */
  private moved: readonly { x: number; y: number }[] = [];

  constructor() {
    this.world = new engine.World({ x: 0, y: gravity });
    // What the engine takes for a usual length, so that its tolerances suit pixels.
    this.world.lengthUnit = 32;
    for (const { left, right, top, topRight = top } of grounds) {
      const corners = [left, top, right, topRight, right, 260, left, 260];
      this.world.createCollider(engine.ColliderDesc.convexHull(new Float32Array(corners))!.setFriction(0.8));
    }
    for (const { left, right, top } of planks) {
      const board = engine.ColliderDesc.cuboid((right - left) / 2, plankDepth / 2);
      const made = this.world.createCollider(board.setTranslation((left + right) / 2, top + plankDepth / 2));
      this.onlyFromAbove.set(made.handle, top);
    }
    this.boatBodies = boats.map((boat) => {
      const { x, y } = boatAt(boat, 0);
      const body = this.world.createRigidBody(engine.RigidBodyDesc.fixed().setTranslation(x, y));
      const deck = engine.ColliderDesc.cuboid(boat.width / 2, plankDepth / 2)
        .setTranslation(0, plankDepth / 2)
        .setCollisionGroups(groups.boats);
      this.onlyFromAbove.set(this.world.createCollider(deck, body).handle, body);
      return body;
    });
    this.barrelBodies = barrels.map(({ x, y }) => {
      const body = this.world.createRigidBody(
        engine.RigidBodyDesc.dynamic().setTranslation(x, y).setAngularDamping(1.5).setLinearDamping(0.4),
      );
      this.world.createCollider(
        engine.ColliderDesc.ball(barrelRadius)
          .setDensity(0.004)
          .setFriction(0.9)
          .setRestitution(0.2)
          .setCollisionGroups(groups.barrels),
        body,
      );
      return body;
    });
  }

  /**
   * Moves boats and barrels on.
   *
   * @returns where a barrel fell into the water just now; it comes back to where it stood
   */
  step(ms: number): number | undefined {
    this.time += ms;
    this.world.timestep = ms / 1000;
    this.moved = this.boatBodies.map((body, i) => {
      const [now, next] = [body.translation(), boatAt(boats[i]!, this.time)];
      // Put there instead of moved: the controller adds a part of a moving body's speed by itself, but not always.
      body.setTranslation(next, true);
      return { x: next.x - now.x, y: next.y - now.y };
    });
    this.world.step();
    let splash: number | undefined;
    this.barrelBodies.forEach((body, i) => {
      if (body.translation().y < waterTop + 8) return;
      splash = body.translation().x;
      body.setTranslation({ x: barrels[i]!.x, y: barrels[i]!.y - 120 }, true);
      body.setLinvel({ x: 0, y: 0 }, true);
    });
    return splash;
  }

  /** Where the boats' decks are. */
  get decks(): readonly { x: number; y: number }[] {
    return this.boatBodies.map((body) => body.translation());
  }

  get barrels(): readonly Barrel[] {
    return this.barrelBodies.map((body) => ({ ...body.translation(), turn: body.rotation() }));
  }

  /** Strikes the barrels in a rectangle. */
  strike(x: number, y: number, width: number, height: number, push: { x: number; y: number }): void {
    for (const body of this.barrelBodies) {
      const at = body.translation();
      const touches =
        Math.abs(at.x - x - width / 2) < width / 2 + barrelRadius &&
        Math.abs(at.y - y - height / 2) < height / 2 + barrelRadius;
      if (touches) body.setLinvel(push, true);
    }
  }

  /** Whether something lets a body through that rises, or whose feet are lower than its top. */
  letsThrough(collider: Collider, feet: number, falls: boolean): boolean {
    const top = this.onlyFromAbove.get(collider.handle);
    if (top === undefined) return false;
    return !falls || feet > (typeof top === 'number' ? top : top.translation().y) + 1.5;
  }

  /** Whether something stops who runs into it: barrels roll away, and planks and boats have no sides. */
  isWall(collider: Collider): boolean {
    return !this.onlyFromAbove.has(collider.handle) && collider.parent()?.isDynamic() !== true;
  }

  /** Whether it stays where it is: ground to be put back to. */
  isGround(collider: Collider): boolean {
    return this.isWall(collider) || this.isPlank(collider);
  }

  isPlank(collider: Collider): boolean {
    return typeof this.onlyFromAbove.get(collider.handle) === 'number';
  }

  /** How a boat's deck moved in the latest step, if this is one. */
  carriedBy(collider: Collider): { x: number; y: number } | undefined {
    const body = this.onlyFromAbove.get(collider.handle);
    return typeof body === 'object' ? this.moved[this.boatBodies.indexOf(body)] : undefined;
  }
}
