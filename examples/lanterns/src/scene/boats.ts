import { pavement, quay } from './quay.js';

/** A boat with lanterns that passes along the quay. */
export interface Boat {
  x: number;
  readonly y: number;
  /** Pixels a second; to the left below 0. */
  readonly speed: number;
  readonly look: number;
  /** Counts its passings: who has greeted this one does not greet it again. */
  passing: number;
}

/** How far to either side of a boat people greet it. */
const seen = 130;

/** The boats of the night, from the farthest to the nearest. */
export class Boats {
  readonly all: Boat[] = Array.from({ length: 9 }, (_, i) => ({
    x: (i * quay.width) / 9 + (i % 2) * 210,
    y: pavement.shore + 66 + ((i * 53) % 84),
    speed: (i % 2 === 0 ? 1 : -1) * (34 + ((i * 7) % 17)),
    look: i % 3,
    passing: i,
  })).sort((one, other) => one.y - other.y);

  step(ms: number): void {
    for (const boat of this.all) {
      boat.x += (boat.speed * ms) / 1000;
      if (boat.x > -160 && boat.x < quay.width + 160) continue;
      boat.x = boat.speed > 0 ? -150 : quay.width + 150;
      boat.passing += this.all.length;
    }
  }

  /** The passing of a boat that is seen from a place along the quay; -1 where there is none. */
  passingAt(x: number): number {
    for (const boat of this.all) if (Math.abs(boat.x - x) < seen) return boat.passing;
    return -1;
  }
}
