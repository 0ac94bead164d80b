import { box, paintOnce } from '../../../common/brush.js';
import type { Context } from '../../../common/brush.js';
import { chanceAt, chanceFrom } from '../../../common/chance.js';
import { awnings, paintBarrels, paintCobbles, paintLamp, paintStall } from '../../../common/quayside.js';
import { pavement, quay } from './quay.js';
import type { Prop } from './quay.js';

/** A picture among others on one image, and where its foot is in it. */
export interface Piece {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly x: number;
  readonly y: number;
}

/** What stands, floats and lies under somebody's feet, side by side below the drawings of the people. */
export class Pieces {
  readonly shadow: Piece;
  readonly ring: Piece;
  readonly arrow: Piece;
  readonly boats: readonly Piece[];
  private readonly stalls: readonly Piece[];
  private readonly trees: readonly Piece[];
  private readonly lamp: Piece;
  private readonly crates: Piece;
  private readonly post: Piece;
  private right = 0;

  constructor(
    private readonly context: Context,
    private readonly top: number,
  ) {
    this.shadow = this.paint(14, 7, 7, 4, (to) => {
      box(to, 'rgba(18, 14, 36, 0.5)', 1, 1, 12, 4);
      box(to, 'rgba(18, 14, 36, 0.42)', 3, 0, 8, 6);
    });
    this.ring = this.paint(30, 16, 15, 8, (to) => {
      for (let i = 0; i < 72; i++) {
        const turn = (i / 72) * 2 * Math.PI;
        box(to, '#ffe08a', 14 + Math.cos(turn) * 13, 7 + Math.sin(turn) * 6.4, 2, 1);
      }
    });
    this.arrow = this.paint(15, 10, 7, 10, (to) => {
      for (let row = 0; row < 8; row++) box(to, '#1c1830', row, row, 15 - 2 * row, 2);
      for (let row = 0; row < 6; row++) box(to, '#fff6cf', row + 1, row + 1, 13 - 2 * row, 1);
    });
    this.lamp = this.paint(14, 46, 7, 43, paintLamp);
    this.crates = this.paint(40, 36, 20, 33, paintBarrels);
    this.post = this.paint(8, 12, 4, 10, (to) => {
      box(to, '#3a2c36', 1, 2, 6, 10);
      box(to, '#8a6a70', 2, 1, 4, 3);
    });
    this.stalls = awnings.map((colours, i) => this.paint(76, 62, 38, 59, (to) => paintStall(to, colours, i)));
    this.trees = [0, 1].map((i) => this.paint(52, 76, 26, 73, (to) => paintTree(to, i)));
    this.boats = [0, 1, 2].map((i) => this.paint(168, 84, 84, 66, (to) => paintBoat(to, i)));
  }

  of({ kind, look }: Prop): Piece {
    if (kind === 'stall') return this.stalls[look]!;
    if (kind === 'tree') return this.trees[look % 2]!;
    return { lamp: this.lamp, crates: this.crates, post: this.post }[kind];
  }

  private paint(width: number, height: number, x: number, y: number, paint: (to: Context) => void): Piece {
    const left = this.right;
    this.right += width + 2;
    this.context.drawImage(paintOnce(width, height, paint), left, this.top);
    return { left, top: this.top, width, height, x, y };
  }
}

/** The ground in pieces that are laid side by side. */
export class Grounds {
  readonly cobbles = paintOnce(512, 264, (to) => paintCobbles(to, chanceFrom(5), 512, 0, 264));
  readonly houses = paintOnce(1536, pavement.top + 6, paintHouses);
  readonly shore = paintOnce(512, 18, paintShore);
  readonly water = paintOnce(512, quay.height - pavement.shore, paintWater);
  readonly glint = paintOnce(7, 24, (to) => {
    for (let row = 0, i = 0; row < 24; row += 2 + (i % 2), i++) {
      const wide = Math.max(1, 7 - Math.round(row / 4));
      box(to, row < 9 ? '#ffe6a6' : '#f0a860', (7 - wide) / 2 + ((i % 3) - 1) * 0.7, row, wide, 1);
    }
  });
  readonly wave = paintOnce(24, 1, (to) => box(to, '#dfe6ff', 0, 0, 24, 1));
}

/** Where windows of the houses are lit, for the light they give: x and y on the picture of the houses. */
export const windows: (readonly [number, number])[] = [];

function paintHouses(to: Context): void {
  const chance = chanceFrom(23);
  const walls = ['#6b4a6e', '#7d4f63', '#58507c', '#734f74', '#85566a', '#5d5a80'];
  const foot = pavement.top;
  box(to, '#141229', 0, 0, 1536, foot);
  for (let x = 0, i = 0; x < 1536; i++) {
    const width = Math.min(54 + Math.floor(chance() * 34), 1536 - x);
    const high = 86 + Math.floor(chance() * 36);
    const roof = foot - high;
    box(to, walls[i % walls.length]!, x, roof, width, high);
    for (let row = 0; row < 12; row++)
      box(to, row % 4 === 3 ? '#3c2540' : '#54304c', x - 1, roof + row, width + 2, 1);
    box(to, 'rgba(20, 14, 36, 0.5)', x + width - 2, roof, 2, high);
    if (chance() > 0.5) box(to, '#4c3550', x + 8 + chance() * (width - 24), roof - 9, 8, 10);
    for (let wy = roof + 19; wy < foot - 34; wy += 23)
      for (let wx = x + 8; wx < x + width - 14; wx += 19) {
        const isLit = chance() > 0.45;
        box(to, '#251b33', wx - 1, wy - 1, 12, 16);
        box(to, isLit ? '#f6b860' : '#39436e', wx, wy, 10, 14);
        box(to, isLit ? '#ffe3a0' : '#4a5690', wx, wy, 5, 7);
        box(to, '#251b33', wx + 4, wy, 1, 14);
        box(to, '#251b33', wx, wy + 6, 10, 1);
        if (isLit) windows.push([wx + 5, wy + 7]);
      }
    const door = x + 8 + Math.floor(chance() * Math.max(1, width - 30));
    box(to, '#251b33', door - 1, foot - 27, 16, 27);
    box(to, ['#8a5d48', '#4f747a', '#884a5c'][i % 3]!, door, foot - 26, 14, 26);
    box(to, 'rgba(255, 230, 190, 0.2)', door, foot - 26, 2, 26);
    box(to, '#e8b860', door + 11, foot - 13, 1, 2);
    x += width;
  }
  box(to, '#4a3d64', 0, foot - 3, 1536, 5);
  box(to, '#a08fa8', 0, foot + 1, 1536, 2);
  box(to, 'rgba(20, 14, 36, 0.4)', 0, foot + 3, 1536, 3);
}

function paintShore(to: Context): void {
  box(to, '#a794ae', 0, 0, 512, 5);
  box(to, '#6d5a7c', 0, 5, 512, 6);
  for (let x = 0; x < 512; x += 32) box(to, '#57466a', x, 5, 1, 6);
  box(to, '#2c2450', 0, 11, 512, 7);
  box(to, '#191536', 0, 15, 512, 3);
}

function paintWater(to: Context): void {
  const chance = chanceFrom(31);
  box(to, '#6a76cc', 0, 0, 512, quay.height - pavement.shore);
  for (let i = 0; i < 420; i++) {
    const [x, y] = [chance() * 512, chance() * (quay.height - pavement.shore)];
    box(to, chance() > 0.5 ? '#8792e0' : '#5660b4', x, y, Math.min(6 + chance() * 22, 512 - x), 1);
  }
}

function paintTree(to: Context, look: number): void {
  const leaves = look === 0 ? ['#2c5348', '#41735a', '#639a68'] : ['#4e4a2c', '#7c6c38', '#b09a4c'];
  box(to, 'rgba(18, 14, 36, 0.5)', 10, 69, 32, 6);
  box(to, '#3c2a30', 23, 40, 6, 32);
  box(to, '#6d4a3c', 24, 40, 2, 32);
  for (let i = 0; i < 130; i++) {
    const [turn, far] = [chanceAt(i + look * 200) * 2 * Math.PI, Math.sqrt(chanceAt(i + 500))];
    const [x, y] = [26 + Math.cos(turn) * 21 * far, 24 + Math.sin(turn) * 20 * far];
    const shade = x + y > 56 ? 0 : x + y > 40 ? 1 : 2;
    box(to, leaves[shade]!, x - 3, y - 2, 6, 5);
  }
  // Paper lanterns hang in it.
  for (const [x, y] of [
    [12, 34],
    [24, 42],
    [38, 33],
  ] as const) {
    box(to, '#241c38', x + 1, y - 3, 1, 3);
    box(to, ['#f0a040', '#f07860'][look]!, x - 1, y, 5, 6);
    box(to, '#fff0b8', x, y + 1, 2, 3);
  }
}

function paintBoat(to: Context, look: number): void {
  const [hull, trim, sail] = [
    ['#7a3f3c', '#e8b860', '#e9d7c0'],
    ['#35607a', '#f1e3d0', '#d8a8a0'],
    ['#4c6a48', '#f0d060', '#c9d8c0'],
  ][look] as [string, string, string];
  // What it mirrors in the water.
  for (let row = 0; row < 12; row++)
    box(to, `rgba(20, 18, 52, ${0.5 - row * 0.04})`, 22 + row, 68 + row, 124 - 2 * row, 1);
  for (let row = 0; row < 18; row++) {
    const inset = Math.round((row / 18) ** 2 * 22);
    box(to, row < 3 ? trim : hull, 14 + inset, 50 + row, 140 - 2 * inset, 1);
  }
  box(to, 'rgba(255, 240, 210, 0.25)', 18, 54, 132, 1);
  box(to, 'rgba(20, 14, 36, 0.35)', 26, 62, 116, 5);
  box(to, '#8a6a58', 96, 36, 34, 15);
  box(to, '#5f4650', 94, 33, 38, 4);
  for (const x of [101, 112, 122]) box(to, '#ffd98a', x, 40, 6, 6);
  box(to, '#4b3a40', 66, 4, 3, 47);
  for (let row = 0; row < 34; row++)
    box(to, row % 9 === 8 ? '#b8a898' : sail, 70, 8 + row, 3 + Math.round(row * 0.6), 1);
  // Strings of lanterns from the mast to both ends.
  for (const { x, y } of boatLanterns) {
    box(to, '#241c38', x + 80, y + 58, 1, 3);
    box(to, '#f0a040', x + 78, y + 61, 5, 5);
    box(to, '#fff0b8', x + 79, y + 62, 2, 2);
  }
}

/** Where the lanterns of a boat hang, from its foot. */
export const boatLanterns: readonly { readonly x: number; readonly y: number }[] = Array.from(
  { length: 9 },
  (_, i) => {
    const along = i - 4;
    return { x: -14 + along * 15, y: -62 + Math.abs(along) * 10 + (4 - Math.abs(along)) };
  },
);

/** A round light of some colour, brightest in its middle. */
export function paintGlow(
  radius: number,
  [red, green, blue]: readonly [number, number, number],
  power: number,
): HTMLCanvasElement {
  return paintOnce(2 * radius, 2 * radius, (to) => {
    const picture = to.createImageData(2 * radius, 2 * radius);
    for (let y = 0; y < 2 * radius; y++)
      for (let x = 0; x < 2 * radius; x++) {
        const far = Math.hypot(x + 0.5 - radius, y + 0.5 - radius) / radius;
        const light = far >= 1 ? 0 : (1 - far * far) ** 2 * power;
        picture.data.set([red, green, blue, Math.round(255 * light)], 4 * (y * 2 * radius + x));
      }
    to.putImageData(picture, 0, 0);
  });
}
