import { drawPose } from '@dot-hop/browser';
import type { Bindings, Controls, Pointer } from '@dot-hop/browser';
import { Performer, compileController } from 'dot-hop';
import type { CompassDefinition, Controller } from 'dot-hop';
import { chanceFrom } from '../../../common/chance';
import type { Townsfolk } from '../../../common/townsfolk';
import { Backdrop } from './backdrop';
import { Stroller } from './stroller';
import { ground, isFree, stands } from './square';
import { Walker } from './walker';

/** Keys, the cross and the stick of a gamepad. */
export const bindings: Bindings = {
  along: {
    less: { keys: ['ArrowLeft', 'KeyA'], buttons: [14], axis: 0 },
    more: { keys: ['ArrowRight', 'KeyD'], buttons: [15], axis: 0 },
  },
  across: {
    less: { keys: ['ArrowUp', 'KeyW'], buttons: [12], axis: 1 },
    more: { keys: ['ArrowDown', 'KeyS'], buttons: [13], axis: 1 },
  },
  slow: { keys: ['ShiftLeft', 'ShiftRight'], buttons: [4] },
};

/** How many stroll, besides the one that is led. */
const crowd = 35;

/** Pixels a second of the one that is led. */
const leadSpeed = { quick: 44, slow: 20 };

/** What the panel changes of everybody's compass. */
export type CompassWish = Pick<CompassDefinition, 'directions' | 'stick' | 'through' | 'diagonal'>;

/** The market square: strollers, the one that is led, and the compass they all have. */
export class Game {
  led: Walker;
  compass: CompassWish = { directions: 'eight', stick: 8, through: 60, diagonal: 'nearest' };
  private readonly walkers: Walker[] = [];
  private readonly strollers = new Map<Walker, Stroller>();
  private readonly backdrop = new Backdrop();
  private time = 0;

  constructor(
    folk: Townsfolk,
    private readonly controls: Controls,
    private readonly pointer: () => Pointer | undefined,
  ) {
    const chance = chanceFrom(7);
    const names = Object.keys(folk);
    for (let i = 0; i <= crowd; i++) {
      const name = names[i % names.length]!;
      const character = folk[name]!;
      let [x, y] = [210, 150];
      while (i > 0 && (!isFree(x, y) || this.walkers.some((one) => Math.hypot(one.x - x, one.y - y) < 18))) {
        x = ground.left + chance() * (ground.right - ground.left);
        y = ground.top + chance() * (ground.bottom - ground.top);
      }
      const walker = new Walker(name, character, new Performer(character.controller), x, y);
      this.walkers.push(walker);
      this.strollers.set(walker, new Stroller(walker, chance, name === 'pim'));
    }
    this.led = this.walkers[0]!;
  }

  /** Leads the nearest of the people with a name. */
  lead(name: string): void {
    const { x, y } = this.led;
    const far = (one: Walker): number => (one.name === name ? Math.hypot(one.x - x, one.y - y) : Infinity);
    this.led = this.walkers.reduce((best, one) => (far(one) < far(best) ? one : best), this.led);
  }

  /** Gives everybody another compass; each goes on in the state and at the phase it is in. */
  turnBy(change: Partial<CompassWish>): void {
    this.compass = { ...this.compass, ...change };
    const controllers = new Map<Controller, Controller>();
    for (const walker of this.walkers) {
      const { controller, images } = walker.character;
      let changed = controllers.get(controller);
      if (changed === undefined) {
        const { definition } = controller;
        const compass = { ...definition.compass!, ...this.compass };
        changed = compileController(
          { ...definition, ...drawnFor(definition, this.compass), compass },
          { images },
        );
        controllers.set(controller, changed);
      }
      const performer = new Performer(changed);
      performer.adopt(walker.performer.snapshot());
      walker.performer = performer;
    }
  }

  step(ms: number): void {
    this.time += ms;
    const { walkers, led } = this;
    const [x, y] = this.wish();
    const quick = this.controls.isHeld('slow') ? leadSpeed.slow : leadSpeed.quick;
    for (const walker of walkers) {
      if (walker === led) walker.move(ms, x * quick, y * quick);
      else this.strollers.get(walker)!.step(ms, walkers);
      walker.perform(ms);
    }
  }

  draw(context: CanvasRenderingContext2D): void {
    const { backdrop, walkers, led, time } = this;
    backdrop.drawGround(context, time);
    backdrop.drawRing(context, led.x, led.y);
    for (const { x, y } of walkers) backdrop.drawShadow(context, x, y);
    // Who stands lower in the picture stands nearer.
    const standing = [
      ...walkers.map((walker) => ({ y: walker.y, draw: () => drawWalker(context, walker) })),
      ...stands.map((stand) => ({ y: stand.bottom, draw: () => backdrop.drawStand(context, stand, time) })),
    ].sort((one, other) => one.y - other.y);
    for (const { draw } of standing) draw();
    backdrop.drawLight(context, time);
    backdrop.drawPointer(context, led.x, led.y, time);
  }

  /** Where the keys, the gamepad or the pointer lead, at most 1 long. */
  private wish(): readonly [number, number] {
    const { controls, led } = this;
    const held = this.pointer()?.at;
    if (held !== undefined) {
      const [dx, dy] = [held[0] - led.x, held[1] - (led.y - 12)];
      const far = Math.hypot(dx, dy);
      return far < 6 ? [0, 0] : [dx / far, dy / far];
    }
    const [x, y] = [controls.numberOf('along'), controls.numberOf('across')];
    const long = Math.max(1, Math.hypot(x, y));
    return [x / long, y / long];
  }
}

/** A compass of four has no use for what is drawn in between. */
function drawnFor(
  { clips }: Controller['definition'],
  { directions }: CompassWish,
): Partial<Controller['definition']> {
  if (directions !== 'four') return {};
  const rows = { south: 0, east: 2, north: 4 };
  return {
    clips: Object.fromEntries(Object.entries(clips).map(([name, clip]) => [name, { ...clip, rows }])),
  };
}

function drawWalker(context: CanvasRenderingContext2D, { character, performer, x, y }: Walker): void {
  drawPose(context, character.images, performer.pose, x, y);
}
