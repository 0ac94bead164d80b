export type Context = CanvasRenderingContext2D;

/** A picture painted once. */
export function layer(width: number, height: number, paint: (context: Context) => void): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  paint(canvas.getContext('2d')!);
  return canvas;
}

export function box(
  context: Context,
  colour: string,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  context.fillStyle = colour;
  context.fillRect(Math.round(x), Math.round(y), Math.round(width), Math.round(height));
}

/** The same number for the same index, from 0 to under 1: places for windows and waves. */
export function chance(index: number): number {
  const value = Math.sin(index * 127.1 + 3.7) * 43758.5453;
  return value - Math.floor(value);
}
