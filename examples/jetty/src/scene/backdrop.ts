import { box, paintOnce } from '../../../common/brush.js';
import { chanceAt } from '../../../common/chance.js';
import type { Context } from '../../../common/brush.js';
import { deckTop, view } from './world.js';

const dusk = [
  '#2a2350',
  '#3b2b60',
  '#543470',
  '#76427c',
  '#a0557f',
  '#c96c78',
  '#e88a6e',
  '#f6b074',
  '#fbd08a',
];
const horizon = deckTop - 26;

/** Bands of sky, each running into the next over four rows of checks. */
function paintSky(context: Context): void {
  const band = horizon / dusk.length;
  dusk.forEach((colour, i) => {
    box(context, colour, 0, i * band, view.width, band + 1);
    const above = dusk[i - 1];
    if (above === undefined) return;
    for (let row = 0; row < 4; row++)
      for (let x = row % 2; x < view.width; x += row < 2 ? 2 : 4)
        box(context, above, x, i * band + row, 1, 1);
  });
  for (let i = 0; i < 26; i++)
    box(context, i % 3 === 0 ? '#fff6cf' : '#a99fbd', chanceAt(i) * view.width, chanceAt(i + 40) * 40, 1, 1);
  const sun = { x: 196, radius: 40 };
  for (let y = -sun.radius; y <= 0; y++) {
    const half = Math.round(Math.sqrt(sun.radius ** 2 - y * y));
    box(context, y < -24 ? '#fff0bc' : '#ffe09a', sun.x - half, horizon + y, half * 2, 1);
  }
  const cloud = (x: number, y: number, wide: number, colour: string): void => {
    box(context, colour, x, y, wide, 2);
    box(context, colour, x + wide * 0.2, y - 2, wide * 0.5, 2);
    box(context, colour, x + wide * 0.3, y + 2, wide * 0.55, 1);
  };
  cloud(22, 46, 58, '#8c4d80');
  cloud(118, 62, 74, '#c96c78');
  cloud(214, 38, 50, '#6a3c78');
  cloud(60, 80, 40, '#f0a074');
}

/** The far town: roofs and lit windows, with a lighthouse on its headland. */
function paintTown(context: Context, width: number): void {
  const wall = '#4a2f66';
  const far = '#6b3f74';
  for (let x = -10, i = 0; x < width; i++) {
    const wide = 16 + Math.floor(chanceAt(i + 5) * 16);
    const high = 12 + Math.floor(chanceAt(i + 9) * 14);
    box(context, far, x, horizon - high, wide, high);
    for (let step = 0; step < wide / 2; step++)
      box(context, far, x + step, horizon - high - step * 0.6, wide - step * 2, 1);
    x += wide - 2;
  }
  for (let x = 0, i = 0; x < width; i++) {
    const wide = 18 + Math.floor(chanceAt(i) * 20);
    const high = 9 + Math.floor(chanceAt(i + 20) * 18);
    if (chanceAt(i + 60) > 0.22) {
      box(context, wall, x, horizon - high, wide, high + 2);
      for (let step = 0; step <= 7; step++)
        box(context, '#5c3870', x - 1 + step, horizon - high - step, wide + 2 - step * 2, 1);
      if (chanceAt(i + 31) > 0.5) box(context, wall, x + wide - 6, horizon - high - 9, 3, 6);
      for (let w = 0; w < wide / 7 - 1; w++)
        if (chanceAt(i * 7 + w) > 0.35)
          box(
            context,
            chanceAt(w + i) > 0.5 ? '#ffc95c' : '#f08438',
            x + 4 + w * 7,
            horizon - high + 4,
            2,
            3,
          );
    }
    x += wide + Math.floor(chanceAt(i + 80) * 8);
  }
  box(context, '#3a2858', width * 0.72 - 22, horizon - 6, 50, 8);
  for (let y = 0; y < 44; y++)
    box(
      context,
      Math.floor(y / 9) % 2 ? '#b8617f' : '#e8c0a0',
      width * 0.72 - 4 - y * 0.05,
      horizon - 48 + y,
      8 + y * 0.1,
      1,
    );
  box(context, '#2a2350', width * 0.72 - 6, horizon - 50, 12, 2);
  box(context, '#fff6cf', width * 0.72 - 3, horizon - 56, 6, 6);
  box(context, '#2a2350', width * 0.72 - 4, horizon - 58, 8, 2);
}

function paintSea(context: Context): void {
  const rows = ['#a85a78', '#7d4a80', '#5c3d78', '#463670', '#38306a', '#302a5e'];
  rows.forEach((colour, i) =>
    box(context, colour, 0, horizon + i * 6, view.width, i === rows.length - 1 ? 60 : 6),
  );
  for (let i = 0; i < rows.length - 1; i++)
    for (let x = i % 3; x < view.width; x += 3) box(context, rows[i]!, x, horizon + (i + 1) * 6, 2, 1);
}

/** What is far away: it moves less than what is near. Painted once, but for the glitter. */
export class Backdrop {
  private readonly sky = paintOnce(view.width, view.height, paintSky);
  private readonly town = paintOnce(view.width + 220, horizon + 4, (context) =>
    paintTown(context, view.width + 220),
  );
  private readonly sea = paintOnce(view.width, view.height, paintSea);

  draw(context: Context, time: number, cameraX: number, cameraY: number): void {
    // Seen from higher up the horizon sinks, though less than what is near.
    const sinks = Math.round(-cameraY * 0.3);
    context.drawImage(this.sky, 0, 0);
    if (sinks > 0) box(context, dusk.at(-1)!, 0, horizon - 1, view.width, sinks + 1);
    context.drawImage(this.town, -Math.round(cameraX * 0.14), sinks);
    context.drawImage(this.sea, 0, sinks);
    drawGlitter(context, time, sinks);
  }
}

function drawGlitter(context: Context, time: number, sinks: number): void {
  for (let i = 0; i < 30; i++) {
    const sway = Math.sin(time / 420 + i * 1.9);
    const wide = Math.max(2, 13 - i * 0.3 + sway * 4);
    const x = 196 - 9 + sway * 3 + (i % 3) * 3;
    box(context, i < 12 ? '#ffe09a' : '#e88a6e', x, horizon + sinks + 1 + i * 1.5, wide, 1);
  }
}
