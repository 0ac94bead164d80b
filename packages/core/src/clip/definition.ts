import type { MarksDefinition } from '../sheet/definition.js';
import type { CellsDefinition } from './cells.js';

/** What happens at a clip's last frame. */
export type LoopDefinition =
  | 'forever'
  | 'once'
  /** 0 1 2 1 0 1 ..., without end. */
  | 'back-and-forth'
  /** How many passes are played. Then the clip stays on its last frame. */
  | number
  /** Plays all, then goes on from this frame for ever. */
  | { from: number };

/** A clip as it stands in a document. */
export interface ClipDefinition extends MarksDefinition {
  /** The sheet its cells are on. Default: the first sheet of the document. */
  sheet?: string | undefined;
  cells: CellsDefinition;
  /**
   * The directions for which it is drawn, in rows of the sheet: `cells` are those of the first, each next lies a row
   * below; or by direction how many rows below. It is then a flipbook, of clips named `walk-south` and so on.
   */
  rows?: readonly string[] | Readonly<Record<string, number>> | undefined;
  /** With `rows`: how many cells from one row to the next. Default: the columns of the sheet's grid. */
  every?: number | undefined;
  /** Frames a second, over 0 and at most 1000. */
  fps?: number | undefined;
  /** Milliseconds of each frame, or of every frame when it is one number; from 1 to an hour. */
  ms?: number | readonly number[] | undefined;
  /** Milliseconds of one pass over all frames, shared out evenly. */
  lasts?: number | undefined;
  /** Frames (from 0) that are held so many times as long. */
  hold?: Readonly<Record<string, number>> | undefined;
  /** Default: `forever`. */
  loop?: LoopDefinition | undefined;
  /** Cue names with the frames (from 0) that report them. */
  cues?: Readonly<Record<string, number | readonly number[]>> | undefined;
  /** Span names with their range of frames, such as `2-3`. */
  spans?: Readonly<Record<string, string | number>> | undefined;
  /** Pixels that the body travels during one pass. */
  stride?: number | undefined;
  /** Marks of single frames, by number. */
  perFrame?: Readonly<Record<string, MarksDefinition>> | undefined;
}
