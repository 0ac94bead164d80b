import { deckTop, gap, gullPerches, lampPosts, view, waterTop, worldWidth } from './world';

type Context = CanvasRenderingContext2D;

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

/** A picture painted once. */
function layer(width: number, height: number, paint: (context: Context) => void): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  paint(canvas.getContext('2d')!);
  return canvas;
}

function box(context: Context, colour: string, x: number, y: number, width: number, height: number): void {
  context.fillStyle = colour;
  context.fillRect(Math.round(x), Math.round(y), Math.round(width), Math.round(height));
}

/** The same number for the same index, from 0 to under 1: places for windows and waves. */
function chance(index: number): number {
  const value = Math.sin(index * 127.1 + 3.7) * 43758.5453;
  return value - Math.floor(value);
}

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
    box(context, i % 3 === 0 ? '#fff6cf' : '#a99fbd', chance(i) * view.width, chance(i + 40) * 40, 1, 1);
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
    const wide = 16 + Math.floor(chance(i + 5) * 16);
    const high = 12 + Math.floor(chance(i + 9) * 14);
    box(context, far, x, horizon - high, wide, high);
    for (let step = 0; step < wide / 2; step++)
      box(context, far, x + step, horizon - high - step * 0.6, wide - step * 2, 1);
    x += wide - 2;
  }
  for (let x = 0, i = 0; x < width; i++) {
    const wide = 18 + Math.floor(chance(i) * 20);
    const high = 9 + Math.floor(chance(i + 20) * 18);
    if (chance(i + 60) > 0.22) {
      box(context, wall, x, horizon - high, wide, high + 2);
      for (let step = 0; step <= 7; step++)
        box(context, '#5c3870', x - 1 + step, horizon - high - step, wide + 2 - step * 2, 1);
      if (chance(i + 31) > 0.5) box(context, wall, x + wide - 6, horizon - high - 9, 3, 6);
      for (let w = 0; w < wide / 7 - 1; w++)
        if (chance(i * 7 + w) > 0.35)
          box(context, chance(w + i) > 0.5 ? '#ffc95c' : '#f08438', x + 4 + w * 7, horizon - high + 4, 2, 3);
    }
    x += wide + Math.floor(chance(i + 80) * 8);
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

function paintPost(context: Context, x: number, top: number, bottom: number): void {
  box(context, '#2a1c30', x - 4, top, 8, bottom - top);
  box(context, '#5c3a3a', x - 3, top, 6, bottom - top);
  box(context, '#8f5f4a', x + 1, top, 2, bottom - top);
  box(context, '#c98a5a', x - 3, top, 6, 1);
  for (let y = top + 9; y < bottom; y += 13) box(context, '#3e2834', x - 3, y, 5, 1);
}

function paintDeck(context: Context, left: number, right: number): void {
  for (let x = left + 18; x < right; x += 52) paintPost(context, x, deckTop + 6, view.height);
  box(context, '#2a1c30', left, deckTop - 1, right - left, 12);
  box(context, '#8a5a48', left, deckTop, right - left, 6);
  box(context, '#d99a66', left, deckTop, right - left, 1);
  box(context, '#5c3a3a', left, deckTop + 6, right - left, 4);
  for (let x = left + 5, i = 0; x < right; x += 13, i++) {
    box(context, '#4a2f34', x, deckTop, 1, 6);
    if (chance(i + left) > 0.6) box(context, '#74483e', x + 3, deckTop + 2, 6, 1);
    box(context, '#2a1c30', x - 3, deckTop + 8, 1, 1);
  }
}

function paintCrate(context: Context, x: number, y: number, wide: number, high: number): void {
  box(context, '#2a1c30', x - 1, y - 1, wide + 2, high + 1);
  box(context, '#7a4e3e', x, y, wide, high);
  box(context, '#c98a5a', x, y, wide, 2);
  box(context, '#a06a4a', x, y + 2, 2, high - 2);
  box(context, '#5c3a3a', x + wide - 2, y + 2, 2, high - 2);
  for (let i = 0; i < wide - 6; i++)
    box(context, '#5c3a3a', x + 3 + i, y + 4 + (i / (wide - 6)) * (high - 8), 2, 2);
}

function paintBoathouse(context: Context, left: number, right: number, top: number): void {
  box(context, '#2a1c30', left + 7, top + 6, right - left - 14, deckTop - top - 6);
  box(context, '#503450', left + 8, top + 6, right - left - 16, deckTop - top - 6);
  for (let y = top + 14; y < deckTop; y += 7) box(context, '#432b48', left + 8, y, right - left - 16, 1);
  box(context, '#2a1c30', left - 1, top - 1, right - left + 2, 9);
  for (let x = left; x < right; x += 6) {
    box(context, '#a0506a', x, top, 6, 7);
    box(context, '#d07a78', x, top, 5, 2);
    box(context, '#6e3a5a', x + 5, top, 1, 7);
  }
  const door = (left + right) / 2;
  box(context, '#2a1c30', door - 10, deckTop - 27, 20, 27);
  box(context, '#6b4438', door - 9, deckTop - 26, 18, 26);
  box(context, '#3e2834', door - 0.5, deckTop - 26, 1, 26);
  for (const x of [left + 16, right - 26]) {
    box(context, '#2a1c30', x - 1, top + 17, 12, 12);
    box(context, '#ffc95c', x, top + 18, 10, 10);
    box(context, '#fff0bc', x + 5, top + 18, 5, 4);
    box(context, '#2a1c30', x + 4, top + 18, 1, 10);
    box(context, '#2a1c30', x, top + 23, 10, 1);
  }
}

function paintWorld(context: Context): void {
  paintBoathouse(context, 468, 560, deckTop - 50);
  for (const x of lampPosts) {
    box(context, '#2a1c30', x - 2, deckTop - 58, 4, 58);
    box(context, '#4b4169', x - 1, deckTop - 57, 2, 57);
    box(context, '#2a1c30', x - 3, deckTop - 4, 6, 4);
    box(context, '#2a1c30', x - 1, deckTop - 60, 12, 2);
    box(context, '#4b4169', x, deckTop - 59, 10, 1);
  }
  paintPost(context, 336, deckTop - 8, view.height);
  box(context, '#d9c7a0', 331, deckTop - 3, 10, 2);
  paintDeck(context, -20, gap.left);
  paintDeck(context, gap.right, worldWidth + 20);
  paintCrate(context, 150, deckTop - 22, 40, 22);
  paintCrate(context, 166, deckTop - 42, 22, 20);
  for (const x of [396, 574]) {
    box(context, '#2a1c30', x - 1, deckTop - 17, 16, 17);
    box(context, '#6b4438', x, deckTop - 16, 14, 16);
    box(context, '#a06a4a', x + 9, deckTop - 16, 3, 16);
    box(context, '#4b4169', x, deckTop - 13, 14, 2);
    box(context, '#4b4169', x, deckTop - 5, 14, 2);
  }
}

const gullPerched = ['..www...', '.wwkwo..', '.wwww...', 'gwwwww..', 'ggwwwww.', '.ggwww..', '...o.o..'];
const gullFlying = [
  ['g.....g.', '.gg.gg..', '..wwwko.', '..www...', '........'],
  ['........', '..wwwko.', '.gwwwg..', 'gg...gg.', '........'],
];
const gullColours: Record<string, string> = { w: '#f4ecdf', g: '#a99fbd', k: '#241a33', o: '#f08438' };

function paintGull(context: Context, rows: readonly string[], x: number, y: number, mirrored: boolean): void {
  rows.forEach((row, dy) => {
    Array.from(row).forEach((mark, dx) => {
      const colour = gullColours[mark];
      if (colour !== undefined)
        box(context, colour, x + (mirrored ? 7 - dx : dx) - 4, y + dy - rows.length, 1, 1);
    });
  });
}

/** A gull: sitting, or on its way. */
export interface Gull {
  x: number;
  y: number;
  /** Milliseconds since it was scared up; -1 while it sits. */
  away: number;
}

/** What of the scene changes. */
export interface SceneState {
  readonly time: number;
  readonly cameraX: number;
  readonly lit: readonly boolean[];
  readonly gulls: readonly Gull[];
  readonly drops: readonly { readonly x: number; readonly y: number }[];
}

export const newGulls = (): Gull[] => gullPerches.map(({ x, y }) => ({ x, y, away: -1 }));

/** The harbour at dusk. Layers that stay are painted once; waves, lamps and gulls each time. */
export class Scenery {
  private readonly sky = layer(view.width, view.height, paintSky);
  private readonly town = layer(view.width + 90, horizon + 4, (context) =>
    paintTown(context, view.width + 90),
  );
  private readonly sea = layer(view.width, view.height, paintSea);
  private readonly world = layer(worldWidth, view.height, paintWorld);

  /** What lies behind the performer. */
  drawBehind(context: Context, { time, cameraX, lit, gulls }: SceneState): void {
    context.drawImage(this.sky, 0, 0);
    context.drawImage(this.town, -Math.round(cameraX * 0.14), 0);
    context.drawImage(this.sea, 0, 0);
    this.drawGlitter(context, time);
    context.drawImage(this.world, -Math.round(cameraX), 0);
    lampPosts.forEach((x, i) =>
      drawLamp(context, x - Math.round(cameraX) + 9, deckTop - 56, lit[i] === true, time),
    );
    for (const gull of gulls) {
      const flying = gull.away >= 0;
      const rows = flying ? gullFlying[Math.floor(gull.away / 110) % 2]! : gullPerched;
      const hop = !flying && Math.floor(time / 640 + gull.x) % 7 === 0 ? 1 : 0;
      paintGull(context, rows, Math.round(gull.x - cameraX), Math.round(gull.y) - hop, gull.x > 300);
    }
  }

  /** What lies before the performer: drops and the nearest waves. */
  drawBefore(context: Context, { time, cameraX, drops }: SceneState): void {
    for (const { x, y } of drops) box(context, '#d8f4f4', x - cameraX, y, 2, 2);
    for (let row = 0; row < 3; row++)
      for (let i = 0; i < 22; i++) {
        const drift = (time / (34 - row * 8)) * (row % 2 ? 1 : -1) - cameraX;
        const x =
          ((((i * 31 + row * 13 + drift) % (view.width + 40)) + view.width + 40) % (view.width + 40)) - 20;
        const y = waterTop + 5 + row * 6 + Math.sin(time / 700 + i) * 1.2;
        box(context, row === 2 ? '#5c4f8e' : '#4b4280', x, y, 9 + (i % 3) * 3, 1);
      }
  }

  private drawGlitter(context: Context, time: number): void {
    for (let i = 0; i < 30; i++) {
      const y = horizon + 1 + i * 1.5;
      const sway = Math.sin(time / 420 + i * 1.9);
      box(
        context,
        i < 12 ? '#ffe09a' : '#e88a6e',
        196 - 9 + sway * 3 + (i % 3) * 3,
        y,
        Math.max(2, 13 - i * 0.3 + sway * 4),
        1,
      );
    }
  }
}

function drawLamp(context: Context, x: number, y: number, lit: boolean, time: number): void {
  if (lit) {
    const flicker = Math.sin(time / 90 + x) * 0.6;
    for (const [radius, alpha] of [
      [30, 0.05],
      [25, 0.05],
      [20, 0.07],
      [15, 0.09],
      [10, 0.14],
    ] as const) {
      context.globalAlpha = alpha;
      for (let dy = -radius; dy <= radius; dy++) {
        const half = Math.round(Math.sqrt((radius + flicker) ** 2 - dy * dy) || 0);
        box(context, '#ffc95c', x - half, y + 5 + dy, half * 2, 1);
      }
    }
    context.globalAlpha = 1;
  }
  box(context, '#2a1c30', x - 4, y, 8, 2);
  box(context, '#2a1c30', x - 3, y + 2, 6, 8);
  box(context, lit ? '#ffc95c' : '#4b4169', x - 2, y + 2, 4, 7);
  box(context, lit ? '#fff6cf' : '#6a5f8a', x - 1, y + 3, 2, 4);
  box(context, '#2a1c30', x - 3, y + 9, 6, 1);
}
