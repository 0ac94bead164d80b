import { Painter } from '@dot-hop/browser';
import type { Controls } from '@dot-hop/browser';
import { Boats } from './boats.js';
import { Crowd } from './crowd.js';
import type { Folk } from './folk.js';
import { Lights } from './lights.js';
import { Looks, sheetSize, tile } from './looks.js';
import { Overview } from './overview.js';
import { pavement, props, quay } from './quay.js';
import { Grounds, Pieces, boatLanterns, windows } from './scenery.js';
import type { Piece } from './scenery.js';

/** Pixels a second of the one that is led, and of the view when nobody is. */
const speeds = { quick: 44, slow: 20, view: 420 };

/** How many people there are at first. */
export const firstPeople = 20_000;

/** How far above the view somebody's head can begin, and how far beside it a light can lie. */
const margin = 52;

/** Nobody follows. */
const none = -1;

/** A night on the quay. */
export class Game {
  readonly crowd: Crowd;
  readonly boats = new Boats();
  /** Milliseconds that drawing takes, and between two pictures: of the latest ones on average. */
  drawing = 0;
  between = 1000 / 60;
  stepping = 0;
  /** What of it the troupe's step takes. */
  troupe = 0;
  /** How many people are in view. */
  seen = 0;
  zoom = 2;
  private readonly sheet: HTMLCanvasElement;
  private readonly context: CanvasRenderingContext2D;
  private readonly pieces: Pieces;
  private readonly grounds = new Grounds();
  private view = { x: 4300, y: 1216, width: 420, height: 300 };
  private painter: Painter | undefined;
  private lights: Lights | undefined;
  private overview: Overview | undefined;
  private canvas: HTMLCanvasElement | undefined;
  /** Whoever is drawn in each line of the view: the first, and for each the next. */
  private readonly first = new Int32Array(2048);
  private readonly next: Int32Array;
  private top = 0;
  private lines = 0;
  private time = 0;
  private pictured = performance.now();

  private constructor(
    folk: Folk,
    readonly looks: Looks,
    private readonly controls: Controls,
    count: number,
    lookCount: number,
  ) {
    this.crowd = new Crowd(folk.controller, lookCount, count);
    this.next = new Int32Array(this.crowd.x.length);
    this.sheet = document.createElement('canvas');
    this.sheet.width = this.sheet.height = sheetSize;
    // Thousands of small drawings are put on it before a graphics card sees it.
    this.context = this.sheet.getContext('2d', { willReadFrequently: true })!;
    this.pieces = new Pieces(this.context, looks.bottom + 2);
  }

  /** Dresses everybody, which takes a while. */
  static async open(
    folk: Folk,
    controls: Controls,
    count: number,
    progress: (done: number, all: number) => void,
  ): Promise<Game> {
    const looks = new Looks(folk);
    const game = new Game(folk, looks, controls, count, looks.count);
    await looks.draw(game.context, progress);
    return game;
  }

  /** Is given the canvases once they are there. */
  mount(scene: HTMLCanvasElement, light: HTMLCanvasElement): void {
    this.painter?.destroy();
    this.lights?.destroy();
    this.canvas = scene;
    this.painter = new Painter(scene, {});
    this.lights = new Lights(light);
  }

  mountOverview(canvas: HTMLCanvasElement): void {
    this.overview = new Overview(canvas);
  }

  /** Sizes the canvases in device pixels. */
  resize(width: number, height: number): void {
    const light = this.lights?.canvas;
    if (this.canvas === undefined || light === undefined) return;
    [this.canvas.width, this.canvas.height] = [width, height];
    // Light is soft: a quarter of the pixels are enough.
    [light.width, light.height] = [Math.ceil(width / 4), Math.ceil(height / 4)];
    this.zoomTo(this.zoom);
  }

  /** Whole device pixels for each of the drawings; what is in the middle stays there. */
  zoomTo(zoom: number): void {
    if (this.canvas === undefined) return;
    const { x, y, width, height } = this.view;
    this.zoom = zoom;
    const [wide, high] = [this.canvas.width / zoom, this.canvas.height / zoom];
    this.view = { x: x + (width - wide) / 2, y: y + (height - high) / 2, width: wide, height: high };
    this.moveView(0, 0);
  }

  /** Moves what is in view, by pixels of the drawings. */
  moveView(x: number, y: number): void {
    const { view } = this;
    view.x = Math.max(0, Math.min(quay.width - view.width, view.x + x));
    view.y = Math.max(0, Math.min(quay.height - view.height, view.y + y));
  }

  /** Has a place of the quay in the middle. */
  lookAt(x: number, y: number): void {
    const { view } = this;
    this.moveView(x - view.x - view.width / 2, y - view.y - view.height / 2);
  }

  /** The same by a place of the whole quay, both from 0 to 1. */
  lookAtPart(x: number, y: number): void {
    this.lookAt(x * quay.width, y * quay.height);
  }

  /** Leads whoever is at a place of the picture, both from 0 to 1. */
  leadAt(x: number, y: number): void {
    const { view, crowd } = this;
    crowd.lead(crowd.at(view.x + x * view.width, view.y + y * view.height));
  }

  /** Leads whoever is nearest to the middle of the picture. */
  leadAny(): void {
    const { view, crowd } = this;
    crowd.lead(crowd.at(view.x + view.width / 2, view.y + view.height / 2, Infinity));
  }

  step(ms: number): void {
    const before = performance.now();
    const { crowd, boats, controls } = this;
    this.time += ms;
    boats.step(ms);
    const [along, across] = [controls.numberOf('along'), controls.numberOf('across')];
    const long = Math.max(1, Math.hypot(along, across));
    const quick = controls.isHeld('slow') ? speeds.slow : speeds.quick;
    crowd.step(ms, boats, (along / long) * quick, (across / long) * quick);
    if (crowd.led === none) {
      const far = (speeds.view * ms) / 1000;
      this.moveView((along / long) * far, (across / long) * far);
    } else {
      const { view } = this;
      const [x, y] = [crowd.x[crowd.led]!, crowd.y[crowd.led]! - 16];
      const near = 1 - Math.exp(-ms / 180);
      this.moveView((x - view.x - view.width / 2) * near, (y - view.y - view.height / 2) * near);
    }
    this.troupe += (crowd.took - this.troupe) * 0.05;
    this.stepping += (performance.now() - before - this.stepping) * 0.05;
  }

  draw(): void {
    const before = performance.now();
    this.between += (before - this.pictured - this.between) * 0.05;
    this.pictured = before;
    const { painter, lights, crowd, boats, time } = this;
    if (painter === undefined || lights === undefined) return;
    const { width, height } = this.view;
    const view = { x: Math.round(this.view.x), y: Math.round(this.view.y), width, height };
    crowd.draw();
    painter.begin(view);
    lights.begin(view, time);
    this.file(view);
    this.drawGround(painter, lights, view);
    this.drawMirrored(painter, lights);
    this.drawBoats(painter, lights, view);
    this.drawPeople(painter, lights, view);
    painter.end();
    lights.end();
    this.overview?.draw(crowd, boats, view);
    this.drawing += (performance.now() - before - this.drawing) * 0.05;
  }

  private drawGround(painter: Painter, lights: Lights, view: Game['view']): void {
    const { cobbles, houses, shore, water, wave } = this.grounds;
    const lay = (picture: HTMLCanvasElement, top: number, bottom: number): void => {
      const { width, height } = picture;
      for (let y = top; y < bottom && y < view.y + view.height; y += height)
        for (let x = Math.floor(view.x / width) * width; x < view.x + view.width; x += width)
          if (y + height > view.y) painter.stamp(picture, 0, 0, width, Math.min(height, bottom - y), x, y);
    };
    lay(houses, 0, houses.height);
    for (const [x, y] of windows)
      for (let left = x; left < quay.width; left += houses.width)
        if (isNear(view, left, y)) lights.window(left, y);
    lay(cobbles, houses.height, pavement.shore);
    lay(water, pavement.shore, quay.height);
    lay(shore, pavement.shore - 6, pavement.shore + 12);
    for (let i = 0; i < 700; i++) {
      const swell = Math.sin(this.time / 900 + i * 1.7);
      const x = ((i * 977) % quay.width) + swell * 5;
      const y = pavement.shore + 22 + ((i * 61) % (quay.height - pavement.shore - 26));
      if (swell > 0.1 && isNear(view, x, y)) painter.stamp(wave, 0, 0, 6 + ((i * 5) % 18), 1, x, y);
    }
  }

  private drawBoats(painter: Painter, lights: Lights, view: Game['view']): void {
    for (const { x, y, look } of this.boats.all) {
      const float = y + Math.sin(this.time / 700 + look * 2) * 1.5;
      if (!isNear(view, x, y, 180)) continue;
      this.put(painter, this.pieces.boats[look]!, x, float);
      lights.boat(x, float);
      boatLanterns.forEach((one, i) => this.mirror(painter, lights, x + one.x, float + 10, i));
    }
  }

  /** Files everybody who is in view under the line in which the feet are. */
  private file(view: Game['view']): void {
    const { crowd, first, next } = this;
    const { x, y, count } = crowd;
    this.top = view.y - 8;
    this.lines = Math.min(first.length, Math.ceil(view.height) + margin + 8);
    const { top, lines } = this;
    const [left, right] = [view.x - 24, view.x + view.width + 24];
    first.fill(none, 0, lines);
    this.seen = 0;
    for (let i = 0; i < count; i++) {
      const line = Math.floor(y[i]! - top);
      if (line < 0 || line >= lines || x[i]! < left || x[i]! > right) continue;
      next[i] = first[line]!;
      first[line] = i;
      this.seen++;
    }
  }

  /** What the water mirrors of the lanterns near it: a broken streak for each. */
  private drawMirrored(painter: Painter, lights: Lights): void {
    const { crowd, first, next, top, lines, looks } = this;
    const { cell, mirrored } = crowd.drawn;
    for (let line = Math.max(0, pavement.shore - 64 - top); line < lines; line++)
      for (let i = first[line]!; i !== none; i = next[i]!) {
        const place = looks.placeOf(cell[i]!, mirrored[i]!);
        const far = pavement.shore - crowd.y[i]!;
        this.mirror(painter, lights, crowd.x[i]! + looks.handX(place), pavement.shore + 14 + far * 0.5, i);
      }
  }

  /** From the farthest to the nearest. */
  private drawPeople(painter: Painter, lights: Lights, view: Game['view']): void {
    const { crowd, looks, sheet, pieces, first, next, top, lines } = this;
    const { x, y, look, drawn, led } = crowd;
    const { cell, mirrored } = drawn;
    for (let line = 0; line < lines; line++)
      for (let i = first[line]!; i !== none; i = next[i]!) this.put(painter, pieces.shadow, x[i]!, y[i]!);
    if (led !== none) this.put(painter, pieces.ring, x[led]!, y[led]!);
    let standing = props.findIndex((one) => one.y >= top);
    if (standing < 0) standing = props.length;
    for (let line = 0; line < lines; line++) {
      for (; standing < props.length && props[standing]!.y < top + line + 1; standing++)
        this.drawProp(painter, lights, standing, view);
      for (let i = first[line]!; i !== none; i = next[i]!) {
        const place = looks.placeOf(cell[i]!, mirrored[i]!);
        const [of, px, py] = [look[i]!, Math.round(x[i]!), Math.round(y[i]!)];
        painter.stamp(
          sheet,
          looks.left(of, place),
          looks.top(of, place),
          tile.width,
          tile.height,
          px - tile.x,
          py - tile.y,
        );
        lights.lantern(px + looks.handX(place), py + looks.handY(place) + 6, i);
      }
    }
    // Trees and stalls are higher than people.
    for (; standing < props.length && props[standing]!.y < top + lines + 40; standing++)
      this.drawProp(painter, lights, standing, view);
    if (led === none) return;
    const bounce = Math.round(Math.sin(this.time / 260) * 1.5);
    this.put(painter, pieces.arrow, x[led]!, y[led]! - 44 + bounce);
    lights.mirrored(x[led]!, y[led]! - 58 + bounce);
  }

  private mirror(painter: Painter, lights: Lights, x: number, y: number, who: number): void {
    const { glint } = this.grounds;
    const sway = Math.sin(this.time / 300 + who) * 1.5;
    painter.stamp(glint, 0, 0, glint.width, glint.height, x - glint.width / 2 + sway, y);
    lights.mirrored(x, y + 4);
  }

  private drawProp(painter: Painter, lights: Lights, index: number, view: Game['view']): void {
    const prop = props[index]!;
    if (prop.x < view.x - 110 || prop.x > view.x + view.width + 110) return;
    this.put(painter, this.pieces.of(prop), prop.x, prop.y);
    if (prop.kind === 'lamp') lights.lamp(prop.x, prop.y - 34);
    else if (prop.kind === 'stall') lights.stall(prop.x, prop.y - 26);
    else if (prop.kind === 'tree') for (const at of [-13, 0, 13]) lights.window(prop.x + at, prop.y - 36);
  }

  private put(painter: Painter, { left, top, width, height, x, y }: Piece, atX: number, atY: number): void {
    painter.stamp(this.sheet, left, top, width, height, Math.round(atX) - x, Math.round(atY) - y);
  }
}

function isNear({ x, y, width, height }: Game['view'], atX: number, atY: number, room = 40): boolean {
  return atX > x - room && atX < x + width + room && atY > y - room && atY < y + height + room;
}
