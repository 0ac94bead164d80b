// What goes round: feet that walk, and what swings with them. A pass goes from 0 to 1.

export const wave = (p: number, shift = 0): number => Math.sin((p + shift) * 2 * Math.PI);
export const lerp = (a: number, b: number, t: number): number => a + (b - a) * t;

/** How feet go. */
export interface Going {
  /** How far before and behind the hip a foot is on the ground, in pixels. */
  readonly reach: number;
  /** For which part of a pass it is on the ground. */
  readonly stance: number;
  /** How high it is lifted, in pixels. */
  readonly lift: number;
  /** How it is tipped as it lands and as it leaves, in degrees. */
  readonly heel: number;
  readonly toe: number;
}

/** Where a foot is in a cycle: on the ground from `reach` to `-reach` while `stance` lasts, else swinging forward. */
export function step(
  p: number,
  { reach, stance, lift, heel, toe }: Going,
): readonly [x: number, y: number, tip: number] {
  const q = ((p % 1) + 1) % 1;
  if (q < stance) {
    const t = q / stance;
    const tip = t < 0.18 ? lerp(heel, 0, t / 0.18) : t > 0.7 ? lerp(0, toe, (t - 0.7) / 0.3) : 0;
    // On its toes the heel, and with it the ankle, is lifted; on its heel the toes are.
    return [lerp(reach, -reach, t), tip > 0 ? -tip * 0.035 : tip * 0.03, tip];
  }
  const t = (q - stance) / (1 - stance);
  const ease = t * t * (3 - 2 * t);
  return [
    lerp(-reach, reach, ease),
    -lift * Math.sin(Math.PI * t) ** 0.9 - (1 - t) * toe * 0.035,
    lerp(toe, heel, ease),
  ];
}

/** Poses of a pass. @param pose is told how far each is, and its number */
export const frames = <Pose>(count: number, pose: (p: number, i: number) => Pose): Pose[] =>
  Array.from({ length: count }, (_, i) => pose(i / count, i));
