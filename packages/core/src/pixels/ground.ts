import type { Picture } from './picture.js';

/** Whether any pixel of a picture is completely transparent. */
export function hasClear({ pixels }: Picture): boolean {
  for (let i = 3; i < pixels.length; i += 4) if (pixels[i] === 0) return true;
  return false;
}

const colourAt = ({ width, pixels }: Picture, x: number, y: number): string => {
  const at = (y * width + x) * 4;
  return `#${[0, 1, 2].map((i) => pixels[at + i]!.toString(16).padStart(2, '0')).join('')}`;
};

/**
 * Finds the background colour of a picture, as `#rrggbb`: the colour that at least three of its four corners have.
 *
 * @returns `undefined` if the corners are transparent or differ
 */
export function groundOf(picture: Picture): string | undefined {
  const { width, height, pixels } = picture;
  const corners = [
    [0, 0],
    [width - 1, 0],
    [0, height - 1],
    [width - 1, height - 1],
  ] as const;
  const colours = corners.flatMap(([x, y]) =>
    pixels[(y * width + x) * 4 + 3] === 255 ? [colourAt(picture, x, y)] : [],
  );
  return colours.find((colour) => colours.filter((other) => other === colour).length >= 3);
}

/**
 * Makes one colour of a picture transparent.
 *
 * @param ground `#rrggbb`
 */
export function withoutGround({ width, height, pixels }: Picture, ground: string): Picture {
  const [red, green, blue] = [1, 3, 5].map((at) => parseInt(ground.slice(at, at + 2), 16));
  const clear = new Uint8Array(pixels);
  for (let i = 0; i < clear.length; i += 4)
    if (clear[i] === red && clear[i + 1] === green && clear[i + 2] === blue) clear[i + 3] = 0;
  return { width, height, pixels: clear };
}
