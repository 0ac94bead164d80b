import { backwards } from '../clip/backwards.js';
import type { Clip } from '../clip/clip.js';
import type { PoseCache } from '../sheet/pose.js';
import type { DirectionDrawing } from './flipbooks.js';
import type { StateDefinition } from './definition.js';
import { Timeline, buildSegments, posesOf } from './timeline.js';
import type { FrameRules, Segments } from './timeline.js';

/** A flipbook of a state with the place where it is named. */
export interface StateFlipbook {
  readonly name: string;
  readonly drawings: readonly DirectionDrawing[];
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
  private readonly turnedClips = new Map<Clip, Clip>();
  /** Those of the state that is being compiled. */
  private ruled: Ruled = { rules: undefined, own: new Map(), bridges: new Map() };

  constructor(
    private readonly cueNames: readonly string[],
    private readonly poses: PoseCache,
  ) {}

  /**
   * Those of the flipbooks of a state, one for each direction.
   *
   * @param turns whether its time may run backwards, so that each has another
   */
  of(
    flipbooks: readonly StateFlipbook[],
    state: number,
    definition: StateDefinition,
    turns: boolean,
  ): Timeline[][] {
    const rules: FrameRules = {
      hops: (definition.hops ?? []).map(({ during, at }) => ({ during, at })),
      yields: (definition.yields ?? []).map(({ during }) => ({ during })),
      leaves: definition.leaves,
    };
    return flipbooks.map(({ drawings, bridge }, flipbook) =>
      drawings.map(({ clip, mirrored }, direction) => {
        const shown = definition.inStep === undefined ? clip : this.silent(clip);
        const made = (isBackwards: boolean): Timeline => {
          const segments = this.segments(
            isBackwards ? this.turned(shown) : shown,
            bridge,
            rules,
            isBackwards,
          );
          const poses = posesOf(segments, mirrored, this.poses);
          const { length } = this.all;
          const one = new Timeline(length, state, direction, flipbook, bridge, isBackwards, poses, segments);
          this.all.push(one);
          return one;
        };
        const timeline = made(false);
        // What is played in between is played as it is.
        if (turns && !bridge) {
          timeline.reverse = made(true);
          timeline.reverse.reverse = timeline;
        }
        return timeline;
      }),
    );
  }

  /** States without rules about frames show a clip in the same segments, and all directions of a state do. */
  private segments(clip: Clip, bridge: boolean, rules: FrameRules, isBackwards: boolean): Segments {
    const plain = rules.hops.length === 0 && rules.yields.length === 0 && rules.leaves === undefined;
    const known = plain
      ? bridge
        ? this.bridgeSegments
        : this.plainSegments
      : this.ruledSegments(rules, bridge);
    let segments = known.get(clip);
    if (segments === undefined) {
      const cueIndex = (name: string): number => this.cueNames.indexOf(name);
      segments = buildSegments(clip, bridge, rules, cueIndex, isBackwards);
      known.set(clip, segments);
    }
    return segments;
  }

  private ruledSegments(rules: FrameRules, bridge: boolean): Map<Clip, Segments> {
    if (this.ruled.rules !== rules) this.ruled = { rules, own: new Map(), bridges: new Map() };
    return bridge ? this.ruled.bridges : this.ruled.own;
  }

  private turned(clip: Clip): Clip {
    const known = this.turnedClips.get(clip) ?? backwards(clip);
    this.turnedClips.set(clip, known);
    return known;
  }

  /** A clip that is shown in step tells no cues: it has no time of its own. */
  private silent(clip: Clip): Clip {
    const known = this.silentClips.get(clip) ?? { ...clip, cues: clip.cues.map(() => []) };
    this.silentClips.set(clip, known);
    return known;
  }
}
