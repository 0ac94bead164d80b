import { drawPose } from '@dot-hop/browser';
import type { Bindings, Controls, LoadedCharacter, Region } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import { Mover } from './mover';
import { Scenery, newGulls } from './scenery';
import type { Gull } from './scenery';
import { gullPerches, lampPosts, view, waterTop, worldWidth } from './world';

/** What the player holds in hand: keys, the buttons and the stick of a gamepad, regions of the picture. */
export const bindings: Bindings = {
  along: {
    less: { keys: ['ArrowLeft', 'KeyA'], buttons: [14], axis: 0, regions: ['left'] },
    more: { keys: ['ArrowRight', 'KeyD'], buttons: [15], axis: 0, regions: ['right'] },
  },
  slow: { keys: ['ShiftLeft', 'ShiftRight'], buttons: [4] },
  jump: { keys: ['Space', 'ArrowUp', 'KeyW'], buttons: [0], regions: ['hop'] },
  swing: { keys: ['KeyJ', 'KeyX'], buttons: [2], regions: ['swing'] },
};

/** Where a finger runs, hops and swings. */
export const regions: readonly Region[] = [
  { name: 'left', x: 0, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'right', x: 0.25, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'hop', x: 0.75, y: 0.4, width: 0.25, height: 0.6 },
  { name: 'swing', x: 0.5, y: 0.4, width: 0.25, height: 0.6 },
];

/** The signals that hands set themselves; the others follow from the body. */
const byHand: ReadonlySet<string> = new Set(['jump', 'swing']);

/** How hard Wick breathes after a long run, and how many milliseconds it takes him to get there and back. */
const hardBreath = 2.5;
const breathTime = { up: 2600, down: 2200 };

/** How near a lamp or gull must be to be reached by a swing, in pixels. */
const reach = 34;

/** The jetty: reads the controls, moves the body, tells the performer its signals, hears its cues. */
export class Game {
  readonly performer: Performer;
  readonly mover = new Mover();
  readonly lit = lampPosts.map((_, i) => i === 0);
  /** The states that showed lately, the present one last. */
  trail: readonly string[];
  private readonly scenery = new Scenery();
  private readonly gulls: Gull[] = newGulls();
  private drops: { x: number; y: number; vx: number; vy: number }[] = [];
  private time = 0;
  private cameraX = 0;
  private breath = 1;

  constructor(
    readonly character: LoadedCharacter,
    private readonly controls: Controls,
  ) {
    this.performer = new Performer(character.controller);
    this.trail = [this.performer.state];
  }

  /** One step of the game, in milliseconds. */
  step(ms: number): void {
    this.time += ms;
    const { performer, mover, controls } = this;
    controls.feed(performer, byHand);
    // While the pole swings, and while he lies, the feet stay where they are.
    const planted = mover.grounded && performer.value('busy') === true;
    const wish = {
      along: planted ? 0 : controls.numberOf('along'),
      slow: controls.isHeld('slow'),
      holdsHop: controls.isHeld('jump'),
    };
    if (mover.step(ms, wish)) {
      performer.pulse('splash');
      this.throwDrops(mover.x);
    }

    performer.set('vx', mover.vx);
    performer.set('vy', mover.vy);
    performer.set('grounded', mover.grounded);
    performer.set('along', wish.along);
    performer.set('breath', this.breathe(ms));
    const happened = performer.step(ms);
    for (let i = 0; i < happened; i++) this.hear(i);

    this.moveGulls(ms);
    this.moveDrops(ms / 1000);
    const wanted = Math.max(0, Math.min(worldWidth - view.width, mover.x - view.width / 2 + mover.vx * 0.18));
    this.cameraX += (wanted - this.cameraX) * Math.min(1, ms / 180);
  }

  draw(context: CanvasRenderingContext2D): void {
    const { time, lit, gulls, drops } = this;
    const cameraX = Math.round(this.cameraX);
    const scene = { time, cameraX, lit, gulls, drops };
    this.scenery.drawBehind(context, scene);
    drawPose(context, this.character.images, this.performer.pose, this.mover.x - cameraX, this.mover.y);
    this.scenery.drawBefore(context, scene);
  }

  /** A report of the performer: the leap begins on its cue, the pole reaches lamps and gulls on its own. */
  private hear(index: number): void {
    const { reports } = this.performer;
    const name = reports.name(index);
    const kind = reports.kind(index);
    const { state, clip, isBridging } = this.performer;
    if (kind === 'switch') this.note(isBridging && state === name ? `${name}: ${clip}` : name);
    else if (kind === 'gait') this.note(`${state}: ${name}`);
    else if (name === 'leap') this.mover.leap();
    else if (name === 'whoosh') this.strike();
  }

  private note(what: string): void {
    this.trail = [...this.trail.slice(-7), what];
  }

  /** Running makes the breath hard; standing still calms it. */
  private breathe(ms: number): number {
    const runs = this.mover.grounded && Math.abs(this.mover.vx) > 88;
    const aim = runs ? hardBreath : 1;
    this.breath += (aim - this.breath) * Math.min(1, ms / (runs ? breathTime.up : breathTime.down));
    return this.breath;
  }

  private strike(): void {
    const { x, y } = this.mover;
    const forward = this.performer.facing === 'east' ? 1 : -1;
    const touches = (at: number): boolean => Math.abs(at - (x + forward * 14)) < reach;
    lampPosts.forEach((post, i) => {
      if (touches(post + 9)) this.lit[i] = true;
    });
    for (const gull of this.gulls)
      if (gull.away < 0 && touches(gull.x) && Math.abs(gull.y - y) < 44) gull.away = 0;
  }

  private moveGulls(ms: number): void {
    this.gulls.forEach((gull, i) => {
      if (gull.away < 0) return;
      gull.away += ms;
      const home = gullPerches[i]!;
      // Up and around, and back to its perch after seven seconds.
      const turn = Math.min(1, gull.away / 7000);
      gull.x = home.x + Math.sin(turn * Math.PI * 2) * 110;
      gull.y = home.y - Math.sin(turn * Math.PI) * 96;
      if (turn < 1) return;
      Object.assign(gull, { ...home, away: -1 });
      // Who stands on its perch is sorry for it.
      const { x, y, grounded } = this.mover;
      if (grounded && Math.abs(x - home.x) < 12 && Math.abs(y - home.y) < 8) this.performer.pulse('blow');
    });
  }

  private throwDrops(x: number): void {
    for (let i = 0; i < 14; i++)
      this.drops.push({ x: x + (i - 7) * 2, y: waterTop - 18, vx: (i - 6.5) * 9, vy: -90 - ((i * 37) % 60) });
  }

  private moveDrops(s: number): void {
    for (const drop of this.drops) {
      drop.vy += 420 * s;
      drop.x += drop.vx * s;
      drop.y += drop.vy * s;
    }
    this.drops = this.drops.filter(({ y }) => y < waterTop + 20);
  }
}
