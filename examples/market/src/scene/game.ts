import { drawPose, dropDyed, dyeImages, continueAfterEdit } from '@dot-hop/browser';
import type { Controls, LoadedCharacter, Pointer } from '@dot-hop/browser';
import { Performer, compileController } from 'dot-hop';
import type { CompassDefinition, Controller, OutfitDefinition } from 'dot-hop';
import { chanceFrom } from '../../../common/chance.js';
import type { Townsfolk } from '../../../common/townsfolk.js';
import { Backdrop } from './backdrop.js';
import { Dressing, Mannequins, anyOutfit, dress } from './dressed.js';
import { Stroller } from './stroller.js';
import { ground, isFree, stands } from './square.js';
import { Walker } from './walker.js';

/** How many stroll in what chance has put on them. */
const crowd = 100;

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

  /** What the fifth person wears, and the mannequins show. */
  own: OutfitDefinition;
  readonly mannequins: Mannequins;
  /** Which hundred this is. */
  seed = 1;
  private readonly chance = chanceFrom(7);
  /** The hundred that are just being dressed. */
  private dressing: Dressing | undefined;

  /**
   * @param named those who have a sheet of their own
   * @param folk the body that all others have, with its wardrobe
   */
  constructor(
    named: Townsfolk,
    private readonly folk: LoadedCharacter,
    private readonly controls: Controls,
    private readonly pointer: () => Pointer | undefined,
  ) {
    for (const [name, character] of Object.entries(named)) this.add(name, character);
    const own = this.add('you', folk);
    for (let i = 0; i < crowd; i++) this.add('', folk);
    this.led = this.walkers[0]!;
    this.mannequins = new Mannequins(folk);
    this.own = anyOutfit(folk, 'you');
    this.wear(this.own);
    dress(own, this.own);
    this.dressing = new Dressing(this.crowd, this.seed);
  }

  /** Everybody who has come: the hundred come as they are dressed. */
  private get present(): Walker[] {
    return this.walkers.filter(({ name, performer }) => name !== '' || performer.outfit !== undefined);
  }

  /** Everybody who has no name. */
  private get crowd(): Walker[] {
    return this.walkers.filter(({ name }) => name === '');
  }

  private add(name: string, character: LoadedCharacter): Walker {
    const { chance, walkers } = this;
    let [x, y] = [210, 150];
    const isTaken = (): boolean => walkers.some((one) => Math.hypot(one.x - x, (one.y - y) * 1.4) < 14);
    for (
      let tries = 0;
      walkers.length > 0 && tries < 400 && (tries === 0 || !isFree(x, y) || isTaken());
      tries++
    ) {
      x = ground.left + chance() * (ground.right - ground.left);
      y = ground.top + chance() * (ground.bottom - ground.top);
    }
    const walker = new Walker(name, character, new Performer(character.controller), x, y);
    walkers.push(walker);
    this.strollers.set(walker, new Stroller(walker, chance, name === 'pim'));
    return walker;
  }

  /** Dresses the hundred again while they walk. */
  another(): void {
    this.seed++;
    this.dropUnworn();
    this.dressing = new Dressing(this.crowd, this.seed);
  }

  /** Whether everybody is dressed. */
  get isDressed(): boolean {
    return this.dressing === undefined;
  }

  private dressSome(): void {
    this.dressing?.goOn();
    if (this.dressing?.isOver !== true) return;
    this.dressing = undefined;
    this.dropUnworn();
  }

  /** Lets the colours go that nobody wears any more. */
  private dropUnworn(): void {
    const worn = [...this.walkers, ...this.mannequins.performers.map((performer) => ({ performer }))];
    dropDyed(
      this.folk.images,
      worn.flatMap(({ performer: { outfit } }) => outfit ?? []),
    );
  }

  /** Dresses the one of the dressing corner. */
  wear(outfit: OutfitDefinition): void {
    this.own = outfit;
    this.mannequins.wear(outfit);
    for (const walker of this.walkers) if (walker.name === 'you') dress(walker, outfit);
  }

  /** Changes one thing of what it wears: a piece, or the colours of something. */
  pick(what: 'pieces' | 'colours', name: string, one: string): void {
    this.wear({ ...this.own, [what]: { ...this.own[what], [name]: one } });
  }

  /** Leaves it to chance. */
  wearAny(): void {
    this.wear(anyOutfit(this.folk, Math.floor(this.chance() * 1e9)));
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
      walker.performer = continueAfterEdit(walker.performer, changed);
      const { outfit } = walker.performer;
      if (outfit !== undefined) dyeImages(images, outfit);
    }
  }

  step(ms: number): void {
    this.time += ms;
    const { present, led } = this;
    const [x, y] = this.wish();
    const quick = this.controls.isHeld('slow') ? leadSpeed.slow : leadSpeed.quick;
    this.mannequins.step(ms);
    for (const walker of present) {
      if (walker === led) walker.move(ms, x * quick, y * quick);
      else this.strollers.get(walker)!.step(ms, present);
      walker.perform(ms);
    }
  }

  draw(context: CanvasRenderingContext2D): void {
    this.dressSome();
    const { backdrop, present, led, time } = this;
    backdrop.drawGround(context, time);
    backdrop.drawRing(context, led.x, led.y);
    for (const { x, y } of present) backdrop.drawShadow(context, x, y);
    // Who stands lower in the picture stands nearer.
    const standing = [
      ...present.map((walker) => ({ y: walker.y, draw: () => drawWalker(context, walker) })),
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
  { clips, wardrobe }: Controller['definition'],
  { directions }: CompassWish,
): Partial<Controller['definition']> {
  if (directions !== 'four') return {};
  const rows = { south: 0, east: 2, north: 4 };
  const four = ['south', 'east', 'north', 'west'];
  const orders = wardrobe?.orders?.map((order) => ({
    ...order,
    directions: order.directions?.filter((name) => four.includes(name)),
  }));
  return {
    clips: Object.fromEntries(Object.entries(clips).map(([name, clip]) => [name, { ...clip, rows }])),
    wardrobe: wardrobe && { ...wardrobe, orders },
  };
}

function drawWalker(context: CanvasRenderingContext2D, { character, performer, x, y }: Walker): void {
  drawPose(context, character.images, performer.pose, x, y);
}
