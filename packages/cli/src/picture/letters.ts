import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import opentype from 'opentype.js';
import type { Font } from 'opentype.js';

// Letters are drawn as outlines of a font that comes as a package, so that a picture is the same on a machine that
// has no fonts.
const require = createRequire(import.meta.url);
const fonts = new Map<string, Font>();

function font(weight: 400 | 600): Font {
  const file = `@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-${weight}-normal.woff`;
  let loaded = fonts.get(file);
  if (loaded === undefined) {
    const bytes = readFileSync(require.resolve(file));
    loaded = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
    fonts.set(file, loaded);
  }
  return loaded;
}

/** How a text is drawn. */
export interface TextStyle {
  /** Pixels; default 13. */
  readonly size?: number;
  readonly colour: string;
  readonly bold?: boolean;
  /** Default `left`. */
  readonly align?: 'left' | 'middle' | 'right';
}

/** The width of a text in pixels. */
export function textWidth(
  text: string,
  { size = 13, bold = false }: Pick<TextStyle, 'size' | 'bold'>,
): number {
  return font(bold ? 600 : 400).getAdvanceWidth(text, size);
}

/** A text as an SVG element, standing on the line `y`. */
export function svgText(text: string, x: number, y: number, style: TextStyle): string {
  const { size = 13, colour, bold = false, align = 'left' } = style;
  const width = align === 'left' ? 0 : textWidth(text, style);
  const left = align === 'middle' ? x - width / 2 : align === 'right' ? x - width : x;
  return `<path d="${font(bold ? 600 : 400)
    .getPath(text, left, y, size)
    .toPathData(2)}" fill="${colour}"/>`;
}

/** The text, cut with an ellipsis where it is wider than `most` pixels. */
export function fitText(text: string, most: number, style: Pick<TextStyle, 'size' | 'bold'>): string {
  if (textWidth(text, style) <= most) return text;
  let cut = text;
  while (cut.length > 0 && textWidth(`${cut}…`, style) > most) cut = cut.slice(0, -1);
  return cut === '' ? '' : `${cut}…`;
}
