/** A drop of water or a spark on its way. */
export interface Particle {
  x: number;
  y: number;
  vx: number;
  vy: number;
  readonly colour: string;
  /** Milliseconds left. */
  left: number;
}

/** Drops and sparks: thrown up, pulled down, gone. At most 120 at a time. */
export class Particles {
  all: Particle[] = [];

  splash(x: number, y: number): void {
    for (let i = 0; i < 14; i++)
      this.add({
        x: x + (i - 7) * 2,
        y,
        vx: (i - 6.5) * 9,
        vy: -90 - ((i * 37) % 60),
        colour: '#d8f4f4',
        left: 900,
      });
  }

  sparks(x: number, y: number): void {
    for (let i = 0; i < 12; i++) {
      const turn = (i / 12) * 2 * Math.PI;
      const speed = 40 + ((i * 29) % 40);
      const colour = i % 3 === 0 ? '#fff6cf' : '#ffc95c';
      this.add({
        x,
        y,
        vx: Math.cos(turn) * speed,
        vy: Math.sin(turn) * speed - 40,
        colour,
        left: 420 + ((i * 53) % 200),
      });
    }
  }

  move(ms: number): void {
    const s = ms / 1000;
    for (const one of this.all) {
      one.vy += 420 * s;
      one.x += one.vx * s;
      one.y += one.vy * s;
      one.left -= ms;
    }
    if (this.all.some(({ left }) => left <= 0)) this.all = this.all.filter(({ left }) => left > 0);
  }

  private add(one: Particle): void {
    if (this.all.length < 120) this.all.push(one);
  }
}
