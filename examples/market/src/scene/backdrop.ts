import { box, paintOnce } from '../../../common/brush.js';
import { chanceFrom } from '../../../common/chance.js';
import { awnings, paintBarrels, paintCobbles, paintLamp, paintStall } from '../../../common/quayside.js';
import { stands, view } from './square.js';
import type { Stand } from './square.js';

/** What is drawn of the square besides its people. */
export class Backdrop {
  private readonly still = paintOnce(view.width, view.height, paintSquare);
  private readonly stalls = awnings.map((colours, i) =>
    paintOnce(76, 62, (context) => paintStall(context, colours, i)),
  );
  private readonly well = paintOnce(52, 50, paintWell);
  private readonly barrels = paintOnce(40, 36, paintBarrels);
  private readonly lamp = paintOnce(14, 46, paintLamp);
  private readonly shadow = paintOnce(12, 5, (context) => {
    context.fillStyle = 'rgba(24, 18, 44, 0.34)';
    context.fillRect(0, 1, 12, 3);
    context.fillStyle = 'rgba(24, 18, 44, 0.3)';
    context.fillRect(2, 0, 8, 5);
  });

  drawGround(context: CanvasRenderingContext2D, time: number): void {
    context.drawImage(this.still, 0, 0);
    // Light on the water.
    const chance = chanceFrom(3);
    for (let i = 0; i < 46; i++) {
      const [x, y, long] = [chance() * view.width, 300 + chance() * 18, 4 + chance() * 12];
      const swell = Math.sin(time / 700 + chance() * 7);
      context.fillStyle = swell > 0.2 ? '#6f7fb0' : '#3b4378';
      context.fillRect(Math.round(x + swell * 3), Math.round(y), Math.round(long), 1);
    }
  }

  drawShadow(context: CanvasRenderingContext2D, x: number, y: number): void {
    context.drawImage(this.shadow, Math.round(x) - 6, Math.round(y) - 3);
  }

  /** Marks who is led. */
  drawRing(context: CanvasRenderingContext2D, x: number, y: number): void {
    context.fillStyle = '#ffc95c';
    for (let i = 0; i < 40; i++) {
      const turn = (i / 40) * 2 * Math.PI;
      context.fillRect(Math.round(x + Math.cos(turn) * 10), Math.round(y - 1 + Math.sin(turn) * 5), 1, 1);
    }
  }

  /** Points at who is led, also behind a stall. */
  drawPointer(context: CanvasRenderingContext2D, x: number, y: number, time: number): void {
    const [left, top] = [Math.round(x), Math.round(y - 45 + Math.sin(time / 260) * 1.5)];
    for (const [colour, grow] of [
      ['#241a33', 1],
      ['#ffc95c', 0],
    ] as const) {
      context.fillStyle = colour;
      for (let row = -grow; row < 4 + grow; row++) {
        const half = 4 - row + grow;
        context.fillRect(left - half, top + row, half * 2 + 1, 1);
      }
    }
  }

  drawStand(context: CanvasRenderingContext2D, { kind, left, bottom, colour }: Stand, time: number): void {
    const picture = { stall: this.stalls[colour]!, well: this.well, barrels: this.barrels, lamp: this.lamp }[
      kind
    ];
    const x = kind === 'lamp' ? left - 4 : left - 6;
    context.drawImage(picture, x, bottom - picture.height + 2);
    if (kind !== 'lamp') return;
    context.fillStyle = Math.sin(time / 130 + left) > -0.4 ? '#fff1c0' : '#ffd98a';
    context.fillRect(left + 1, bottom - 38, 4, 4);
  }

  /** The dusk over everything, and the light of the lamps in it. */
  drawLight(context: CanvasRenderingContext2D, time: number): void {
    context.save();
    context.globalCompositeOperation = 'multiply';
    context.fillStyle = '#cdb6d6';
    context.fillRect(0, 0, view.width, view.height);
    context.globalCompositeOperation = 'lighter';
    for (const { kind, left, bottom } of stands) {
      if (kind !== 'lamp') continue;
      const [x, y] = [left + 3, bottom - 30];
      const glow = context.createRadialGradient(x, y, 2, x, y, 62 + Math.sin(time / 300 + left) * 2);
      glow.addColorStop(0, 'rgba(255, 190, 90, 0.34)');
      glow.addColorStop(1, 'rgba(255, 150, 60, 0)');
      context.fillStyle = glow;
      context.fillRect(x - 66, y - 66, 132, 132);
    }
    context.restore();
  }
}

function paintSquare(context: CanvasRenderingContext2D): void {
  const chance = chanceFrom(11);
  box(context, '#57476d', 0, 0, view.width, view.height);
  paintCobbles(context, chance, view.width, 58, 292);
  // A worn way around the well.
  context.fillStyle = 'rgba(255, 222, 180, 0.05)';
  context.beginPath();
  context.ellipse(210, 192, 64, 34, 0, 0, 2 * Math.PI);
  context.fill();
  paintHouses(context, chance);
  // The quay's edge and the water.
  box(context, '#2c2a52', 0, 296, view.width, 24);
  box(context, '#8b7890', 0, 290, view.width, 4);
  box(context, '#5b4a66', 0, 294, view.width, 4);
  box(context, '#241f40', 0, 298, view.width, 1);
  for (let x = 6; x < view.width; x += 34) {
    box(context, '#3a2c36', x, 286, 6, 9);
    box(context, '#5f4650', x + 1, 285, 4, 3);
  }
}

function paintHouses(context: CanvasRenderingContext2D, chance: () => number): void {
  const walls = ['#4a3556', '#5a3b52', '#3f3558', '#523f63', '#63424f', '#45405f'];
  for (let x = 0, i = 0; x < view.width; i++) {
    const width = 52 + Math.floor(chance() * 26);
    box(context, walls[i % walls.length]!, x, 0, width, 60);
    box(context, 'rgba(20, 14, 36, 0.55)', x + width - 1, 0, 1, 60);
    box(context, '#2e2440', x, 0, width, 5);
    for (let wx = x + 8; wx < x + width - 12; wx += 18) {
      const isLit = chance() > 0.42;
      box(context, '#251b33', wx - 1, 13, 11, 15);
      box(context, isLit ? '#f6b860' : '#3a4568', wx, 14, 9, 13);
      box(context, isLit ? '#ffdf9a' : '#4a5680', wx, 14, 4, 6);
      box(context, '#251b33', wx + 4, 14, 1, 13);
      box(context, '#251b33', wx, 20, 9, 1);
    }
    const door = x + 10 + Math.floor(chance() * (width - 32));
    box(context, '#251b33', door - 1, 37, 14, 23);
    box(context, ['#6d4a3c', '#3f5a5e', '#6a3a48'][i % 3]!, door, 38, 12, 22);
    box(context, 'rgba(255, 230, 190, 0.16)', door, 38, 2, 22);
    box(context, '#e8b860', door + 9, 49, 1, 2);
    x += width;
  }
  box(context, '#3a2d4c', 0, 56, view.width, 5);
  box(context, '#8b7890', 0, 60, view.width, 2);
  box(context, 'rgba(20, 14, 36, 0.3)', 0, 62, view.width, 5);
}

function paintWell(context: CanvasRenderingContext2D): void {
  const ring = (y: number, rx: number, ry: number, colour: string): void => {
    context.fillStyle = colour;
    for (let dy = -ry; dy <= ry; dy++) {
      const half = Math.round(rx * Math.sqrt(1 - (dy / (ry + 0.5)) ** 2));
      context.fillRect(26 - half, y + dy, half * 2, 1);
    }
  };
  ring(43, 23, 6, 'rgba(24, 18, 44, 0.34)');
  for (let y = 40; y > 28; y--) ring(y, 20, 7, (y - 29) % 5 === 0 ? '#4a3d5c' : '#76678a');
  for (let x = 8; x < 46; x += 6) box(context, '#5d4f70', x, 36, 1, 8);
  ring(28, 20, 7, '#a596ac');
  ring(28, 16, 5, '#2a2448');
  ring(30, 13, 2, '#5a6aa8');
  box(context, '#3c2a30', 8, 4, 3, 26);
  box(context, '#3c2a30', 41, 4, 3, 26);
  box(context, '#6d4a3c', 6, 9, 40, 3);
  box(context, '#a97c58', 6, 9, 40, 1);
  for (let row = 0; row < 8; row++)
    box(context, row % 3 === 2 ? '#5b2f3a' : '#8c4a4a', 10 - row, row, 32 + row * 2, 1);
  box(context, '#d8c8a8', 25, 12, 1, 12);
  box(context, '#6d4a3c', 23, 22, 6, 5);
}
