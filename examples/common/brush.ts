export type Context = CanvasRenderingContext2D;

/** A picture painted once. */
export function paintOnce(
  width: number,
  height: number,
  paint: (context: Context) => void,
): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  paint(canvas.getContext('2d')!);
  return canvas;
}

/** A filled rectangle, on whole pixels. */
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
