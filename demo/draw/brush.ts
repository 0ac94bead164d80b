// Draws shapes onto a small grid of palette colours: each shape is sampled several times a pixel, filled with a
// three-step ramp by the light, and parted from what lies behind it by a dark rim.

/** Samples a pixel and axis. */
const samples = 4;

/** Where the light of the low sun comes from; right and up. */
const light = { x: 0.6, y: -0.8 };

/** A place, in pixels: to the right and down. */
export interface Place {
  readonly x: number;
  readonly y: number;
}

/** Gives for a point how deep inside a shape it is (negative outside) and the direction of its surface. */
export type Shape = (
  x: number,
  y: number,
) => { readonly depth: number; readonly nx: number; readonly ny: number };

/** Colours from dark to light, as `#rrggbb`. */
export type Ramp = readonly string[];

/** A colour as `#rrggbb`, `undefined` where nothing is drawn. */
export type Colour = string | undefined;

/** What shapes and single pixels are drawn with. */
export interface Pen {
  /** Fills a shape. @param rim the colour that parts it from what is behind @param bias how much lighter it is than the light makes it */
  fill(shape: Shape, ramp: Ramp, rim?: Colour, bias?: number): void;
  /** One pixel that the clean-up leaves alone, such as an eye. */
  dot(x: number, y: number, colour: Colour): void;
}

/** A grid of colours. */
export class Brush implements Pen {
  readonly colours: Colour[];
  private readonly kept: Uint8Array;

  /**
   * @param width pixels
   * @param height pixels
   * @param origin the pixel that shapes count from
   */
  constructor(
    readonly width: number,
    readonly height: number,
    private readonly origin: Place,
  ) {
    this.colours = new Array<Colour>(width * height).fill(undefined);
    this.kept = new Uint8Array(width * height);
  }

  at(x: number, y: number): Colour {
    return x < 0 || y < 0 || x >= this.width || y >= this.height
      ? undefined
      : this.colours[y * this.width + x];
  }

  put(x: number, y: number, colour: Colour, keep = false): void {
    if (x < 0 || y < 0 || x >= this.width || y >= this.height) return;
    this.colours[y * this.width + x] = colour;
    this.kept[y * this.width + x] = keep ? 1 : 0;
  }

  dot(x: number, y: number, colour: Colour): void {
    this.put(Math.round(x + this.origin.x - 0.5), Math.round(y + this.origin.y - 0.5), colour, true);
  }

  fill(shape: Shape, ramp: Ramp, rim?: Colour, bias = 0): void {
    const inside = new Uint8Array(this.width * this.height);
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        let hits = 0;
        for (let i = 0; i < samples * samples; i++) {
          const px = x + ((i % samples) + 0.5) / samples - this.origin.x;
          const py = y + (Math.floor(i / samples) + 0.5) / samples - this.origin.y;
          if (shape(px, py).depth >= 0) hits++;
        }
        inside[y * this.width + x] = hits * 2 >= samples * samples ? 1 : 0;
      }
    const has = (x: number, y: number): boolean =>
      x >= 0 && y >= 0 && x < this.width && y < this.height && inside[y * this.width + x] === 1;
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        if (has(x, y)) {
          const { nx, ny } = shape(x + 0.5 - this.origin.x, y + 0.5 - this.origin.y);
          const lit = nx * light.x + ny * light.y + bias;
          const step = (lit + 0.9) / 1.8;
          this.put(x, y, ramp[Math.max(0, Math.min(ramp.length - 1, Math.floor(step * ramp.length)))]);
        } else if (rim !== undefined && this.at(x, y) !== undefined) {
          if (has(x - 1, y) || has(x + 1, y) || has(x, y - 1) || has(x, y + 1)) this.put(x, y, rim);
        }
      }
  }

  /** Takes away what is inside a shape. */
  erase(shape: Shape): void {
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++)
        if (shape(x + 0.5 - this.origin.x, y + 0.5 - this.origin.y).depth >= 0) this.put(x, y, undefined);
  }

  /** Replaces single pixels that no neighbour shares by the colour most of their neighbours have. */
  cleanUp(): void {
    const before = [...this.colours];
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        const place = y * this.width + x;
        const colour = before[place];
        if (colour === undefined || this.kept[place] === 1) continue;
        const near: Colour[] = [];
        let alone = true;
        for (let dy = -1; dy <= 1; dy++)
          for (let dx = -1; dx <= 1; dx++) {
            if (
              (dx === 0 && dy === 0) ||
              x + dx < 0 ||
              y + dy < 0 ||
              x + dx >= this.width ||
              y + dy >= this.height
            )
              continue;
            const other = before[place + dy * this.width + dx];
            if (other === colour) alone = false;
            if (dx === 0 || dy === 0) near.push(other);
          }
        if (!alone) continue;
        const count = (c: Colour): number => near.filter((n) => n === c).length;
        this.colours[place] = near.sort((a, b) => count(b) - count(a))[0];
      }
  }

  /**
   * Draws a line of one pixel around everything.
   *
   * @param colourOf picks its colour by the colour it touches
   * @param free whether a pixel may have a line
   */
  outline(colourOf: (touched: string) => Colour, free: (x: number, y: number) => boolean = () => true): void {
    const before = [...this.colours];
    const get = (x: number, y: number): Colour =>
      x < 0 || y < 0 || x >= this.width || y >= this.height ? undefined : before[y * this.width + x];
    for (let y = 0; y < this.height; y++)
      for (let x = 0; x < this.width; x++) {
        if (get(x, y) !== undefined || !free(x, y)) continue;
        const near = [get(x, y + 1), get(x, y - 1), get(x - 1, y), get(x + 1, y)];
        const colour = near
          .map((touched) => (touched === undefined ? undefined : colourOf(touched)))
          .find((line) => line !== undefined);
        if (colour !== undefined) this.put(x, y, colour);
      }
  }
}

/** Draws onto a brush what is turned as a whole about a point; the light stays where it is. */
export function turned(
  brush: Pen,
  { degrees, about: [cx, cy] }: { readonly degrees: number; readonly about: readonly [number, number] },
): Pen {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return {
    fill(shape, ramp, rim, bias) {
      const seen: Shape = (x, y) => {
        const [dx, dy] = [x - cx, y - cy];
        const { depth, nx, ny } = shape(cx + dx * cos + dy * sin, cy - dx * sin + dy * cos);
        return { depth, nx: nx * cos - ny * sin, ny: nx * sin + ny * cos };
      };
      brush.fill(seen, ramp, rim, bias);
    },
    dot(x, y, colour) {
      const [dx, dy] = [x - cx, y - cy];
      brush.dot(cx + dx * cos - dy * sin, cy + dx * sin + dy * cos, colour);
    },
  };
}

/** A limb: from `a` with radius `ra` to `b` with radius `rb`. */
export function limb(a: Place, ra: number, b: Place, rb: number): Shape {
  const dx = b.x - a.x;
  const dy = b.y - a.y;
  const square = dx * dx + dy * dy || 1;
  return (x, y) => {
    const along = Math.max(0, Math.min(1, ((x - a.x) * dx + (y - a.y) * dy) / square));
    const ox = x - a.x - dx * along;
    const oy = y - a.y - dy * along;
    const radius = ra + (rb - ra) * along;
    return { depth: radius - Math.hypot(ox, oy), nx: ox / radius, ny: oy / radius };
  };
}

/** An ellipse about `c`, turned by `degrees`. */
export function ellipse(c: Place, rx: number, ry: number, degrees = 0): Shape {
  const turn = (degrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return (x, y) => {
    const u = ((x - c.x) * cos + (y - c.y) * sin) / rx;
    const v = (-(x - c.x) * sin + (y - c.y) * cos) / ry;
    return { depth: 1 - Math.hypot(u, v), nx: u * cos - v * sin, ny: u * sin + v * cos };
  };
}

/** A polygon, lit as if it bulged from its middle. */
export function polygon(points: readonly Place[]): Shape {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const half = { x: (right - left) / 2 || 1, y: (bottom - top) / 2 || 1 };
  return (x, y) => {
    let within = false;
    for (let i = 0, j = points.length - 1; i < points.length; j = i++) {
      const [a, b] = [points[i]!, points[j]!];
      if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) within = !within;
    }
    return {
      depth: within ? 1 : -1,
      nx: Math.max(-1, Math.min(1, (x - middle.x) / half.x)) * 0.8,
      ny: Math.max(-1, Math.min(1, (y - middle.y) / half.y)) * 0.5,
    };
  };
}

/** A band along a curve of points, with a radius at its beginning and end. */
export function ribbon(points: readonly Place[], ra: number, rb: number): Shape {
  const parts = points
    .slice(1)
    .map((point, i) =>
      limb(
        points[i]!,
        ra + ((rb - ra) * i) / (points.length - 1),
        point,
        ra + ((rb - ra) * (i + 1)) / (points.length - 1),
      ),
    );
  return (x, y) => parts.map((part) => part(x, y)).reduce((a, b) => (b.depth > a.depth ? b : a));
}

/** The crescent that a swept stick leaves in the air: around `c`, between two radii, from one angle to another. */
export function crescent(c: Place, radius: number, thick: number, from: number, to: number): Shape {
  return (x, y) => {
    const angle = (Math.atan2(x - c.x, -(y - c.y)) * 180) / Math.PI;
    const forwards = to >= from;
    const span = Math.abs(to - from);
    const gone = ((forwards ? angle - from : from - angle) + 720) % 360;
    if (gone > span) return { depth: -1, nx: 0, ny: 0 };
    // Thin where the sweep began, thick behind the stick.
    const wide = thick * (gone / span) ** 0.8;
    const away = Math.hypot(x - c.x, y - c.y);
    return {
      depth: Math.min(radius - away, away - (radius - wide)),
      nx: gone / span - 0.5,
      ny: -(gone / span) + 0.3,
    };
  };
}
