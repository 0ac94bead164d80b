// The quay at night, in pixels of the drawings: houses along its upper edge, water along its lower one.

export const quay = { width: 9216, height: 1580 };

/** Where the pavement begins below the houses, and where it ends at the water. */
export const pavement = { top: 128, shore: 1366 };

/** How far from the water people see a boat and greet it. */
export const nearWater = 190;

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** Something that stands on the pavement; the place is the middle of its foot. */
export interface Prop extends Place {
  readonly kind: 'lamp' | 'stall' | 'crates' | 'tree' | 'post';
  /** Which of its colours. */
  readonly look: number;
}

const spread = (from: number, to: number, every: number): number[] =>
  Array.from({ length: Math.floor((to - from) / every) + 1 }, (_, i) => from + i * every);

/** Everything that stands, from the farthest to the nearest. */
export const props: readonly Prop[] = [
  ...spread(150, 1300, 158).flatMap((y, row) =>
    spread(60 + (row % 2) * 150, quay.width - 40, 300).map((x, i): Prop => {
      const kind = (['lamp', 'tree', 'lamp', 'stall', 'lamp', 'crates'] as const)[(i + row * 2) % 6]!;
      return {
        kind,
        x: x + ((i * 37 + row * 53) % 41) - 20,
        y: y + ((i * 29 + row * 17) % 31),
        look: (i + row) % 4,
      };
    }),
  ),
  ...spread(24, quay.width, 64).map((x): Prop => ({ kind: 'post', x, y: pavement.shore - 4, look: 0 })),
].sort((one, other) => one.y - other.y);
