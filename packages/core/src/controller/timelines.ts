import type { Clip } from '../clip/clip.js';
import type { PoseBook } from '../sheet/pose.js';
import type { Page } from './books.js';
import type { StateDefinition } from './definition.js';
import { Timeline, buildSegments, posesOf } from './timeline.js';
import type { FrameRules, Segments } from './timeline.js';

/** A flipbook of a state with the place where it is named. */
export interface Book {
  readonly name: string;
  readonly pages: readonly Page[];
  readonly bridge: boolean;
}

/** Segments by clip, for the rules of one state. */
interface Ruled {
  readonly rules: FrameRules | undefined;
  readonly own: Map<Clip, Segments>;
  readonly bridges: Map<Clip, Segments>;
}

/** The timelines of all states, numbered as they are made. */
export class Timelines {
  readonly all: Timeline[] = [];
  private readonly plainSegments = new Map<Clip, Segments>();
  private readonly bridgeSegments = new Map<Clip, Segments>();
  private readonly silentClips = new Map<Clip, Clip>();
  /** Those of the state that is being compiled. */
  private ruled: Ruled = { rules: undefined, own: new Map(), bridges: new Map() };

  constructor(
    private readonly cueNames: readonly string[],
    private readonly poses: PoseBook,
  ) {}

  /** Those of the books of a state, one for each direction. */
  of(books: readonly Book[], state: number, definition: StateDefinition): Timeline[][] {
    const rules: FrameRules = {
      hops: (definition.hops ?? []).map(({ during, at }) => ({ during, at })),
      yields: (definition.yields ?? []).map(({ during }) => ({ during })),
      leaves: definition.leaves,
    };
    return books.map(({ pages, bridge }, book) =>
      pages.map(({ clip, mirrored }, direction) => {
        const shown = definition.inStep === undefined ? clip : this.silent(clip);
        const segments = this.segments(shown, bridge, rules);
        const poses = posesOf(segments, mirrored, this.poses);
        const timeline = new Timeline(this.all.length, state, direction, book, bridge, poses, segments);
        this.all.push(timeline);
        return timeline;
      }),
    );
  }

  /** States without rules about frames show a clip in the same segments, and all directions of a state do. */
  private segments(clip: Clip, bridge: boolean, rules: FrameRules): Segments {
    const plain = rules.hops.length === 0 && rules.yields.length === 0 && rules.leaves === undefined;
    const known = plain
      ? bridge
        ? this.bridgeSegments
        : this.plainSegments
      : this.ruledSegments(rules, bridge);
    let segments = known.get(clip);
    if (segments === undefined) {
      segments = buildSegments(clip, bridge, rules, (name) => this.cueNames.indexOf(name));
      known.set(clip, segments);
    }
    return segments;
  }

  private ruledSegments(rules: FrameRules, bridge: boolean): Map<Clip, Segments> {
    if (this.ruled.rules !== rules) this.ruled = { rules, own: new Map(), bridges: new Map() };
    return bridge ? this.ruled.bridges : this.ruled.own;
  }

  /** A clip that is shown in step tells no cues: it has no time of its own. */
  private silent(clip: Clip): Clip {
    const known = this.silentClips.get(clip) ?? { ...clip, cues: clip.cues.map(() => []) };
    this.silentClips.set(clip, known);
    return known;
  }
}
