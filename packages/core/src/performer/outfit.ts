import type { Clip } from '../clip/clip.js';
import type { Controller } from '../controller/controller.js';
import type { Timeline } from '../controller/timeline.js';
import type { Pose } from '../sheet/pose.js';

// What a performer must know of what it wears. Wardrobes, which make outfits, are an entry of their own.

/** A recoloured image. It is made once and drawn under its name. */
export interface DyedImage {
  /** The name that poses use for it: the file's name, followed by the colours. */
  readonly name: string;
  readonly file: string;
  /** Each colour to replace and its replacement, as numbers with red in the highest of three bytes. */
  readonly colours: ReadonlyMap<number, number>;
}

/** What several tracks show at an instant: of each its timeline and a segment, of what is in step that of the one that leads. */
export interface ShownTracks {
  readonly timelines: readonly Timeline[];
  readonly segments: readonly number[];
  /** The track that leads the body. */
  readonly lead: number;
}

/** What shows at an instant, as a wardrobe asks for it. */
export interface Shown {
  /** The state of the body, and those of further tracks. */
  readonly states: readonly string[];
  /** The direction it faces, and the one it is drawn for. */
  readonly direction: string;
  readonly drawnFor: string;
  readonly clip: Clip;
  readonly frame: number;
}

/** What a character wears. Any number of performers can wear the same outfit, if its wardrobe belongs to their controller. */
export interface Outfit {
  /** The piece of each layer; `none` for an empty layer. Every layer is named. */
  readonly pieces: Readonly<Record<string, string>>;
  /** The colours of each palette (see `OutfitDefinition`). Everything that can be coloured is named. */
  readonly colours: Readonly<Record<string, string>>;
  /** The recoloured images that it needs. */
  readonly dyed: readonly DyedImage[];
  /** The same for another version of the controller, as far as its wardrobe has it; `undefined` where it has none. */
  fittedTo(controller: Controller): Outfit | undefined;
  /**
   * What a segment of a timeline shows, in this outfit, with or without a performer: `state.flipbooks[0][direction]` is a timeline. The
   * same object each time.
   *
   * @param segment which of the timeline's poses
   */
  poseAt(controller: Controller, timeline: Timeline, segment: number): Pose;
  /** What several tracks show together, in this outfit; the same object each time. */
  composedAt(controller: Controller, composed: Pose, shown: ShownTracks): Pose;
  /**
   * The pose of a body in this outfit, made again. Where the body is drawn in parts, pieces that are cut like it lie part by part
   * on these, and whole ones over all of them, or under.
   */
  dress(body: Pose, shown: Shown): Pose;
}
