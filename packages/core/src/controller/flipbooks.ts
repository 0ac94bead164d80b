import type { Clip } from '../clip/clip.js';
import type { FlipbookDefinition } from '../clip/rows.js';
import { apart } from '../compass/compass.js';
import type { Compass } from '../compass/compass.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';

/** The drawing of one direction: a clip, mirrored or not. */
export interface DirectionDrawing {
  readonly clip: Clip;
  readonly mirrored: boolean;
  /** The direction it is drawn for: another one where it is mirrored, or where the nearest drawing stands in. */
  readonly drawnFor: number;
  /** Whether it stands in for a direction that has neither a drawing nor a mirror image. */
  readonly standsIn: boolean;
}

interface FlipbooksInput {
  /** `undefined` for a clip that has problems of its own. */
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly flipbooks: ReadonlyMap<string, FlipbookDefinition>;
  readonly compass: Compass;
  readonly problems: ProblemList;
}

/** What clips and flipbooks show in each direction of the compass. */
export class Flipbooks {
  /** By name; a clip is in it once it was asked for. Empty after a problem. */
  readonly drawings = new Map<string, readonly DirectionDrawing[]>();

  constructor(private readonly input: FlipbooksInput) {
    for (const [name, flipbook] of input.flipbooks) this.drawings.set(name, this.flipbook(name, flipbook));
  }

  /** Whether there is a clip or flipbook of a name. */
  has = (name: string): boolean => this.drawings.has(name) || this.input.clips.has(name);

  /** The names of all clips and flipbooks. */
  get names(): string[] {
    return [...this.input.clips.keys(), ...this.input.flipbooks.keys()];
  }

  /** What a clip or flipbook shows in each direction; empty after a problem. */
  drawingsOf(shows: string, path: DocumentPath): readonly DirectionDrawing[] {
    const known = this.drawings.get(shows);
    if (known !== undefined) return known;
    const { clips, compass, problems } = this.input;
    if (!clips.has(shows)) problems.add('clip-unknown', path, { name: shows, known: this.names });
    const clip = clips.get(shows);
    if (clip === undefined) return [];
    const drawings = compass.mirrorOf.map((from, i): DirectionDrawing => ({
      clip,
      mirrored: from >= 0,
      drawnFor: from < 0 ? i : from,
      standsIn: false,
    }));
    this.drawings.set(shows, drawings);
    return drawings;
  }

  private flipbook(name: string, flipbook: FlipbookDefinition): DirectionDrawing[] {
    const { clips, compass, problems } = this.input;
    const path = ['flipbooks', name];
    const drawn = compass.names.map((direction) => {
      const clip = flipbook[direction];
      if (clip !== undefined && !clips.has(clip))
        problems.add('clip-unknown', [...path, direction], { name: clip, known: [...clips.keys()] });
      return clip === undefined ? undefined : clips.get(clip);
    });
    for (const direction of Object.keys(flipbook))
      if (!compass.names.includes(direction))
        problems.add('direction-unknown', [...path, direction], { name: direction, known: compass.names });
    const drawings = compass.mirrorOf.map((from, i): DirectionDrawing | undefined => {
      const drawnFor = drawn[i] === undefined ? from : i;
      const clip = drawn[drawnFor];
      return clip && { clip, mirrored: drawnFor !== i, drawnFor, standsIn: false };
    });
    const there = drawings.flatMap((drawing, i) => (drawing === undefined ? [] : [i]));
    const isNamed = compass.names.some((direction) => flipbook[direction] !== undefined);
    if (there.length === 0 && !isNamed) problems.add('flipbook-empty', path);
    if (there.length === 0) return [];
    return drawings.map(
      (drawing, i) => drawing ?? { ...drawings[nearest(compass, i, there)]!, standsIn: true },
    );
  }
}

/** The nearest of some directions; of two equally near the one that looks more to the side, then the first named. */
function nearest({ degrees }: Compass, direction: number, among: readonly number[]): number {
  const farness = (one: number): number => {
    const upright = Math.abs(Math.sin((degrees[one]! * Math.PI) / 180));
    return Math.round(apart(degrees[direction]!, degrees[one]!) * 1e6) + upright / 2;
  };
  return among.reduce((best, one) => (farness(one) < farness(best) ? one : best));
}
