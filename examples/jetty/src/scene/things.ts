import { box, paintOnce } from '../../../common/brush.js';
import type { Context } from '../../../common/brush.js';
import type { Barrel } from './physics.js';
import { barrelRadius, boats, gullPerches, view, waterTop } from './world.js';

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

export const newGulls = (): Gull[] => gullPerches.map(({ x, y }) => ({ x, y, away: -1 }));

export function drawGull(context: Context, gull: Gull, time: number, cameraX: number, cameraY: number): void {
  const flying = gull.away >= 0;
  const rows = flying ? gullFlying[Math.floor(gull.away / 110) % 2]! : gullPerched;
  const hop = !flying && Math.floor(time / 640 + gull.x) % 7 === 0 ? 1 : 0;
  paintGull(context, rows, Math.round(gull.x - cameraX), Math.round(gull.y - cameraY) - hop, gull.x > 300);
}

/** A boat, its deck at 0, its bow to the right. */
function paintBoat(context: Context, width: number): void {
  for (let y = 0; y < 11; y++) {
    const less = y < 2 ? 0 : (y - 1) * 1.1;
    box(context, '#2a1c30', less, y, width + 12 - less * 2.2, 1);
    if (y > 9) continue;
    box(context, y < 2 ? '#a0506a' : y < 6 ? '#35606c' : '#28485a', less + 1, y, width + 10 - less * 2.2, 1);
  }
  box(context, '#d07a78', 1, 0, width + 10, 1);
  box(context, '#5aa0a0', 6, 3, width, 1);
}

/** Boats, painted once and moved. */
export class Fleet {
  private readonly hulls = boats.map(({ width }) =>
    paintOnce(width + 12, 12, (context) => paintBoat(context, width)),
  );

  draw(context: Context, decks: readonly { x: number; y: number }[], cameraX: number, cameraY: number): void {
    decks.forEach(({ x, y }, i) => {
      const hull = this.hulls[i]!;
      context.drawImage(hull, Math.round(x - hull.width / 2 - cameraX), Math.round(y - cameraY));
    });
  }
}

/** A barrel lying on its side, in eight turns. */
const barrelTurns = (): HTMLCanvasElement[] =>
  Array.from({ length: 8 }, (_, turn) =>
    paintOnce(barrelRadius * 2 + 2, barrelRadius * 2 + 2, (context) => {
      const middle = barrelRadius + 1;
      for (let y = 0; y < middle * 2; y++)
        for (let x = 0; x < middle * 2; x++) {
          const [dx, dy] = [x + 0.5 - middle, y + 0.5 - middle];
          const away = Math.hypot(dx, dy);
          if (away > middle) continue;
          const angle = Math.atan2(dy, dx) - (turn * Math.PI) / 4 / 2;
          const stave = Math.floor((angle / Math.PI) * 4 + 8) % 2;
          const lit = dx - dy > 2;
          const wood = stave === 0 ? (lit ? '#a06a4a' : '#7a4e3e') : lit ? '#8a5a48' : '#6b4438';
          box(context, away > middle - 1 ? '#2a1c30' : away > middle - 2.4 ? '#4b4169' : wood, x, y, 1, 1);
        }
      box(context, '#2a1c30', middle - 1, middle - 1, 2, 2);
    }),
  );

/** Barrels, painted once and rolled. */
export class Barrels {
  private readonly turns = barrelTurns();

  draw(context: Context, barrels: readonly Barrel[], cameraX: number, cameraY: number): void {
    for (const { x, y, turn } of barrels) {
      const picture = this.turns[((Math.round(turn / (Math.PI / 8)) % 8) + 8) % 8]!;
      context.drawImage(
        picture,
        Math.round(x - barrelRadius - 1 - cameraX),
        Math.round(y - barrelRadius - 1 - cameraY),
      );
    }
  }
}

/** The light of a lamp, painted once. */
export const paintedGlow = (): HTMLCanvasElement =>
  paintOnce(64, 64, (context) => {
    for (const [radius, alpha] of [
      [30, 0.05],
      [25, 0.05],
      [20, 0.07],
      [15, 0.09],
      [10, 0.14],
    ] as const) {
      context.globalAlpha = alpha;
      for (let dy = -radius; dy <= radius; dy++) {
        const half = Math.round(Math.sqrt(radius ** 2 - dy * dy));
        box(context, '#ffc95c', 32 - half, 32 + dy, half * 2, 1);
      }
    }
  });

export function drawLantern(
  context: Context,
  glow: HTMLCanvasElement,
  x: number,
  y: number,
  lit: boolean,
  time: number,
): void {
  if (lit) {
    context.globalAlpha = 0.9 + Math.sin(time / 90 + x) * 0.1;
    context.drawImage(glow, x - 32, y - 27);
    context.globalAlpha = 1;
  }
  box(context, '#2a1c30', x - 4, y, 8, 2);
  box(context, '#2a1c30', x - 3, y + 2, 6, 8);
  box(context, lit ? '#ffc95c' : '#4b4169', x - 2, y + 2, 4, 7);
  box(context, lit ? '#fff6cf' : '#6a5f8a', x - 1, y + 3, 2, 4);
  box(context, '#2a1c30', x - 3, y + 9, 6, 1);
}

/** The nearest waves. */
export function drawWaves(context: Context, time: number, cameraX: number, cameraY: number): void {
  for (let row = 0; row < 3; row++)
    for (let i = 0; i < 22; i++) {
      const drift = (time / (34 - row * 8)) * (row % 2 ? 1 : -1) - cameraX;
      const round = view.width + 40;
      const x = ((((i * 31 + row * 13 + drift) % round) + round) % round) - 20;
      const y = waterTop + 5 + row * 6 + Math.sin(time / 700 + i) * 1.2 - cameraY;
      box(context, row === 2 ? '#5c4f8e' : '#4b4280', x, y, 9 + (i % 3) * 3, 1);
    }
}
