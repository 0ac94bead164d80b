import { drawPose, dyeImages, continueAfterEdit } from '@dot-hop/browser';
import type { Controls } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import type { OutfitDefinition } from 'dot-hop';
import { wardrobeOf } from 'dot-hop/wardrobe';
import { byHand } from './bindings.js';
import { Body } from './body.js';
import { Particles } from './particles.js';
import { Physics } from './physics.js';
import { Scenery } from './scenery.js';
import { tellBody } from './signals.js';
import { newGulls } from './things.js';
import type { Gull } from './things.js';
import type { Wick, WickPerformer } from './wick.js';
import { gullPerches, lampPosts, lantern, view, waterTop, worldTop, worldWidth } from './world.js';

export { bindings, regions } from './bindings.js';

/** How hard Wick breathes after a long run, and how many milliseconds it takes him to get there and back. */
const hardBreath = 2.5;
const breathTime = { up: 2600, down: 2200 };

/** How many milliseconds he goes on against a wall. */
const atWall = 60;

/** How many milliseconds of a dash are seen before a wall can end it. */
const dashSeen = 60;

interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

const meets = (a: Rectangle, b: Rectangle): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

/** The jetty: reads the controls, moves the body, tells the performer its signals, hears its cues. */
export class Game {
  /** Changes with an edit of the document. */
  performer: WickPerformer;
  readonly physics = new Physics();
  readonly body = new Body(this.physics);
  readonly lit = lampPosts.map((_, i) => i === 0);
  /** The states that showed lately, the present one last. */
  trail: readonly string[];
  /** What he wears over his own clothes, and their colours. */
  worn: OutfitDefinition = {};
  private readonly scenery = new Scenery();
  private readonly gulls: Gull[] = newGulls();
  private readonly particles = new Particles();
  private time = 0;
  private camera = { x: 0, y: 0 };
  private cameraBefore = { x: 0, y: 0 };
  private breath = 1;

  constructor(
    public character: Wick,
    private readonly controls: Controls,
  ) {
    this.performer = new Performer(character.controller);
    this.trail = [this.performer.state];
  }

  /** Goes on with an edited document: in the same state, at the same phase. */
  replace(character: Wick): void {
    this.performer = continueAfterEdit(this.performer, character.controller);
    this.character = character;
    if (this.performer.outfit !== undefined) dyeImages(character.images, this.performer.outfit);
  }

  /** Changes one thing of what he wears, in the middle of whatever he does. */
  pick(what: 'pieces' | 'colours', name: string, one: string): void {
    this.worn = { ...this.worn, [what]: { ...this.worn[what], [name]: one } };
    const outfit = wardrobeOf(this.character.controller)?.outfit(this.worn);
    if (outfit !== undefined) dyeImages(this.character.images, outfit);
    this.performer.wear(outfit);
  }

  /** One step of the game, in milliseconds. */
  step(ms: number): void {
    this.time += ms;
    const { performer, body, controls, physics } = this;
    controls.feed(performer, byHand);
    // While the pole swings, and while he lies, the feet stay where they are.
    const planted = body.grounded && performer.value('busy') === true;
    const steered = controls.numberOf('along');
    const along = planted ? 0 : steered;
    const [slow, down] = [controls.isHeld('slow'), controls.isHeld('down')];
    const fallen = physics.step(ms);
    if (fallen !== undefined) this.particles.splash(fallen, waterTop - 2);
    if (performer.state !== 'dash') body.dashes = 0;
    const wasAt = body.x;
    if (body.step(ms, { along, slow, down, holdsHop: controls.isHeld('jump') })) {
      performer.pulse('sunk');
      this.particles.splash(wasAt, waterTop - 2);
    }

    tellBody(performer, body);
    // Whoever has run into a wall wants to go nowhere after a moment: he stands before it.
    performer.set('along', body.blocked > atWall ? 0 : steered);
    performer.set('breath', this.breathe(ms));
    const happened = performer.step(ms);
    for (let i = 0; i < happened; i++) this.hear(i);

    // The drawings say where his hands are; the edge is there.
    const { grip } = performer.pose.points;
    if (grip === undefined) body.standUp();
    else body.hang(grip);
    this.strike();
    this.moveGulls(ms);
    this.particles.move(ms);
    this.follow(ms);
  }

  /** @param between how far the next step has come; everything that moves fast is drawn on its way to it */
  draw(context: CanvasRenderingContext2D, between: number): void {
    const { time, lit, gulls, cameraBefore, body, physics } = this;
    const mid = (before: number, now: number): number => before + (now - before) * between;
    const [x, y] = [mid(body.before.x, body.x), mid(body.before.y, body.y)];
    // He and the camera come to whole pixels together: rounded each by itself they would tremble against each other.
    const camera = {
      x: Math.round(x) - Math.round(x - mid(cameraBefore.x, this.camera.x)),
      y: Math.round(y) - Math.round(y - mid(cameraBefore.y, this.camera.y)),
    };
    const cameraX = Math.max(0, Math.min(worldWidth - view.width, camera.x));
    const cameraY = Math.max(worldTop, Math.min(0, camera.y));
    const { barrels } = physics;
    // So does the deck that carries him.
    const decks = physics.decks.map((deck) => {
      const carries = body.grounded && Math.abs(deck.x - x) < 34 && Math.abs(deck.y - y) < 3;
      return carries
        ? { x: Math.round(deck.x - x) + Math.round(x), y: Math.round(deck.y - y) + Math.round(y) }
        : deck;
    });
    const scene = { time, cameraX, cameraY, lit, gulls, decks, barrels, drops: this.particles.all };
    this.scenery.drawBehind(context, scene);
    const [left, top] = [Math.round(x) - cameraX, Math.round(y) - cameraY];
    drawPose(context, this.character.images, this.performer.pose, left, top);
    this.scenery.drawBefore(context, scene);
  }

  /** Where a place of the level is in the picture. */
  seen(x: number, y: number): { x: number; y: number } {
    return { x: x - Math.round(this.camera.x), y: y - Math.round(this.camera.y) };
  }

  /** A report of the performer: the leap and the dash begin on their cues. */
  private hear(index: number): void {
    const { reports } = this.performer;
    const name = reports.name(index);
    const kind = reports.kind(index);
    const { state, clip, isBridging, facing } = this.performer;
    const { tracks, stateNamed } = this.character.controller;
    // What one track shows because another has taken it is told there, and that arms hang along by nobody.
    const isOwn = tracks[stateNamed.get(name)?.track ?? 0]!.name === reports.track(index);
    if (kind === 'switch' && name === 'dash') this.body.braced = dashSeen;
    if (kind === 'switch' && isOwn && name !== 'with-body')
      this.note(isBridging && state === name ? `${name}: ${clip}` : name);
    else if (kind === 'flipbook') this.note(`${state}: ${name}`);
    else if (name === 'leap') this.body.leap();
    else if (name === 'surge') {
      this.body.dashes = facing === 'east' ? 1 : -1;
      this.body.fresh = false;
    }
  }

  private note(what: string): void {
    this.trail = [...this.trail.slice(-7), what];
  }

  /** Running makes the breath hard; standing still calms it. */
  private breathe(ms: number): number {
    const runs = this.body.grounded && Math.abs(this.body.wentAlong) > 88;
    const aim = runs ? hardBreath : 1;
    this.breath += (aim - this.breath) * Math.min(1, ms / (runs ? breathTime.up : breathTime.down));
    return this.breath;
  }

  /** Where the pole reaches as long as the drawing strikes: its box is there on those frames alone. */
  private strike(): void {
    const { strike } = this.performer.pose.boxes;
    if (strike === undefined) return;
    const { x, y } = this.body;
    const box = { ...strike, x: x + strike.x, y: y + strike.y };
    lampPosts.forEach((post, i) => {
      if (this.lit[i] || !meets(box, { ...lantern, x: post.x + lantern.x, y: post.y + lantern.y })) return;
      this.lit[i] = true;
      this.particles.sparks(post.x + 9, post.y - 50);
    });
    for (const gull of this.gulls)
      if (gull.away < 0 && meets(box, { x: gull.x - 4, y: gull.y - 8, width: 8, height: 8 })) gull.away = 0;
    const forward = this.performer.facing === 'east' ? 1 : -1;
    this.physics.strike(box.x, box.y, box.width, box.height, { x: forward * 190, y: -150 });
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
      const { x, y, grounded } = this.body;
      if (grounded && Math.abs(x - home.x) < 12 && Math.abs(y - home.y) < 8) this.performer.pulse('blow');
    });
  }

  /** The camera follows: a little ahead of a run, and upwards only as far as needed. */
  private follow(ms: number): void {
    const { camera, body } = this;
    this.cameraBefore = { ...camera };
    const x = Math.max(0, Math.min(worldWidth - view.width, body.x - view.width / 2 + body.vx * 0.18));
    const y = Math.max(worldTop, Math.min(0, body.y - 118));
    camera.x += (x - camera.x) * Math.min(1, ms / 180);
    camera.y += (y - camera.y) * Math.min(1, ms / 260);
  }
}
