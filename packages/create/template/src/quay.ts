/** The picture's size, in pixels of the drawings. */
export const view = { width: 200, height: 130 };

/** Where one can walk. */
export const ground = { left: 14, right: 186, top: 54, bottom: 116 };

const colours = {
  sky: ['#3b2f63', '#6b4478', '#a85f7a', '#e0906a'],
  water: '#2b3f63',
  glint: '#e8b878',
  plank: ['#8a5b45', '#7d513e', '#946449'],
  gap: '#553528',
  mark: '#5f4034',
};

/** How long a wet footprint stays, in milliseconds. */
const drying = 2500;

/** A wooden quay at dusk, and the marks that feet leave on it. */
export class Quay {
  private marks: { readonly x: number; readonly y: number; age: number }[] = [];
  private time = 0;

  leaveMark(x: number, y: number): void {
    this.marks.push({ x: Math.round(x), y: Math.round(y), age: 0 });
  }

  step(ms: number): void {
    this.time += ms;
    for (const mark of this.marks) mark.age += ms;
    this.marks = this.marks.filter(({ age }) => age < drying);
  }

  draw(context: CanvasRenderingContext2D): void {
    const box = (colour: string, x: number, y: number, width: number, height: number): void => {
      context.fillStyle = colour;
      context.fillRect(x, y, width, height);
    };
    colours.sky.forEach((colour, i) => box(colour, 0, i * 7, view.width, 7));
    box(colours.water, 0, 28, view.width, 20);
    for (let i = 0; i < 12; i++) {
      const sway = Math.round(Math.sin(this.time / 700 + i) * 3);
      box(colours.glint, ((i * 53) % 190) + sway, 31 + ((i * 5) % 15), 3 + (i % 4), 1);
    }
    for (let i = 0; i * 14 < view.width; i++) box(colours.plank[i % 3]!, i * 14, 48, 13, view.height - 48);
    for (let i = 0; i * 14 < view.width; i++) box(colours.gap, i * 14 + 13, 48, 1, view.height - 48);
    box(colours.gap, 0, 48, view.width, 2);
    for (const { x, y, age } of this.marks) {
      context.globalAlpha = 1 - age / drying;
      box(colours.mark, x - 2, y - 1, 4, 2);
    }
    context.globalAlpha = 1;
  }
}
