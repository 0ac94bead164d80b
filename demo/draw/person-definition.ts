// What a person of the quay is: colours, sizes, and what is worn; and how it holds itself.
import type { Brush, Pen, Place, Ramp } from './brush.js';
import type { Direction, Placing } from './from-above.js';

export interface Hand {
  readonly forward: number;
  readonly aside?: number;
  readonly up: number;
  readonly isRaised?: boolean;
}

export interface Foot {
  readonly forward: number;
  readonly up: number;
}

/** How a person holds itself, in pixels. */
export interface Pose {
  readonly left: Foot;
  readonly right: Foot;
  readonly rise: number;
  readonly sway: number;
  readonly leftHand: Hand;
  readonly rightHand: Hand;
  /** How far clothes are left behind. */
  readonly drag: number;
  readonly blink: boolean;
  readonly nod: number;
}

/** How long the steps of a person are, how far its hands swing, and how much it bounces, in pixels. */
export interface Gait {
  readonly step: number;
  readonly swing: number;
  readonly bounce: number;
}

/** What is at hand where a head is drawn. */
export interface HeadContext {
  readonly brush: Brush;
  readonly head: Place;
  /** Counted from the middle of the head. */
  readonly at: Placing;
  readonly direction: Direction;
  readonly pose: Pose;
  readonly line: string;
}

/** What is at hand where a body is drawn. */
export interface BodyContext {
  readonly brush: Pen;
  readonly place: Placing;
  readonly direction: Direction;
}

/** Who somebody is: colours, sizes in pixels, and what is worn. */
export interface Person {
  readonly line: string;
  readonly eye: string;
  readonly skin: Ramp;
  readonly cheek?: string;
  readonly hair: Ramp;
  readonly beard?: Ramp | undefined;
  readonly shoe: Ramp;
  readonly sleeve: Ramp;
  /** How large; 1 is grown up. */
  readonly size?: number;
  /** How much lower the face lies than on others. */
  readonly faceDown?: number;
  readonly gait: Gait;
  readonly legs: { readonly spread?: number; readonly cloth?: Ramp; readonly sock?: Ramp };
  readonly dress: {
    readonly cloth: Ramp;
    readonly top: number;
    readonly wide: number;
    readonly hem: number;
    readonly bands?: readonly (readonly [up: number, wide: number, ramp: Ramp])[];
  };
  /** What lies on the coat. */
  readonly front?: (context: BodyContext) => void;
  /** What is held in a hand: 1 is the left one. */
  readonly holds?: {
    readonly side: number;
    readonly hand: readonly [forward: number, aside: number, up: number];
    readonly draw: (context: { readonly brush: Pen; readonly palm: Place }) => void;
  };
  /** Hair that lies over the head, and behind it. */
  readonly locks?: (context: HeadContext) => void;
  readonly behindHead?: (context: HeadContext) => void;
  readonly wears?: { readonly over: (context: HeadContext) => void };
}
