import type { AtDefinition, Clip } from 'dot-hop';

/** What of a clip happens at an instant that is decided upon. */
export type Moment = 'none' | 'begins' | 'ends';

/** Places in a clip are whole parts of a microsecond, 4096 of them, so that they are exact at any rate. */
export const parts_ = 4096;

/** What stands for the drawings of a state that shows its part of what another track shows. */
export const following = {
  ...{
    name: '',
    of: '',
    direction: undefined,
    frames: [],
    cells: [],
    order: [0],
    ends: [1e6],
    loopFrom: 0,
    cues: [[]],
  },
  ...{ spans: new Map<string, never>(), stride: undefined },
} satisfies Clip;

/** A place in a clip, found again by plain searching whenever it is asked for. */
export class ReferencePlay {
  clip: Clip = following;
  /** Whether the clip plays backwards: it is the same with its showings in the other order then. */
  isTurned = false;
  /** Where the part of the clip begins that is being played, in microseconds: a frame, or what of it follows a phase. */
  from = 0;
  /** The place in the clip, in 4096ths of a microsecond, at `now`. */
  place = 0;
  ended = false;
  /** The borders of each clip with each phases, found once. */
  private readonly borders = new Map<string, number[]>();

  /** @param phases those that rules name now, so that borders lie there */
  constructor(private readonly phases: () => readonly number[]) {}

  get frame(): number {
    return this.clip.order[this.showing]!;
  }

  get showing(): number {
    return this.clip.ends.findIndex((end) => this.from < end);
  }

  get length(): number {
    return this.clip.ends[this.clip.ends.length - 1]!;
  }

  /** Whether the place is at a border that is about to be crossed. */
  get isEnding(): boolean {
    return this.place >= this.borderAfter(this.from) * parts_;
  }

  /** Where the part of a clip that begins at a place ends: at the frame's end, or at a phase that a rule names. */
  borderAfter(place: number): number {
    const phases = this.phases();
    const key = `${this.clip.name} ${this.isTurned} ${phases.join(' ')}`;
    let borders = this.borders.get(key);
    if (borders === undefined) {
      borders = [...this.clip.ends, ...phases.map((phase) => this.atPhase(phase))].sort((a, b) => a - b);
      this.borders.set(key, borders);
    }
    return borders.find((border) => border > place) ?? Infinity;
  }

  /** Where a phase of the clip as it is drawn lies in the one that plays. */
  atPhase(phase: number): number {
    const place = Math.round(phase * this.length);
    return this.isTurned ? (this.length - place) % this.length : place;
  }

  /** Where the part of the clip begins in which a place lies. */
  beginOf(place: number): number {
    let from = 0;
    while (this.borderAfter(from) * parts_ <= place && this.borderAfter(from) < this.length)
      from = this.borderAfter(from);
    return from;
  }

  /** The same place of its clip, played the other way. */
  turnBack(): void {
    const whole = this.length;
    [this.place, this.from] = [whole * parts_ - this.place, whole - this.borderAfter(this.from)];
    this.isTurned = !this.isTurned;
    this.clip = turned(this.clip);
    this.ended = false;
  }

  /** The phase is kept; what was at a border stays at one, if there is one within a microsecond. */
  keepPhase(before: Clip, after: Clip, ending: boolean): void {
    const { place, from } = this;
    const lengths = [before.ends[before.ends.length - 1]!, after.ends[after.ends.length - 1]!] as const;
    this.clip = after;
    if (place >= lengths[0] * parts_) {
      this.place = lengths[1] * parts_;
      this.from = this.beginOf(this.place);
      return;
    }
    const scaled = Math.min(Math.floor(place * (lengths[1] / lengths[0])), lengths[1] * parts_ - 1);
    const atBorder = ending || place - from * parts_ < parts_;
    const near = this.beginOf(Math.min(scaled + parts_, lengths[1] * parts_ - 1));
    const snaps = atBorder && Math.abs(near * parts_ - scaled) <= parts_;
    this.place = snaps ? near * parts_ : scaled;
    // A border that is about to be crossed still is.
    this.from = this.beginOf(snaps && ending && near > 0 ? this.place - 1 : this.place);
  }

  /** Whether this is the instant that a rule names. */
  isAt(at: AtDefinition | undefined, moment: Moment, isBridge: boolean): boolean {
    if (at === undefined) return false;
    if (at === 'now') return true;
    if (moment === 'none') return false;
    const border = this.borderAfter(this.from);
    const frameBegins = this.from === (this.clip.ends[this.showing - 1] ?? 0);
    const frameEnds = border === this.clip.ends[this.showing];
    if (at === 'end') return moment === 'ends' && border === this.length && !isBridge;
    if (typeof at === 'string')
      return moment === 'begins' && frameBegins && this.clip.cues[this.showing]!.includes(at);
    if ('start' in at)
      return (
        moment === 'begins' &&
        frameBegins &&
        this.clip.spans.get(at.start)?.[this.isTurned ? 'last' : 'first'] === this.frame
      );
    if ('end' in at)
      return (
        moment === 'ends' &&
        frameEnds &&
        this.clip.spans.get(at.end)?.[this.isTurned ? 'first' : 'last'] === this.frame
      );
    const phases = at.phases.map((phase) => this.atPhase(phase));
    return moment === 'begins' && !isBridge && phases.includes(this.from);
  }

  /** Whether play is within a span; always, where none is named. */
  isOpen(span: string | undefined): boolean {
    if (span === undefined) return true;
    const range = this.clip.spans.get(span);
    return range !== undefined && this.frame >= range.first && this.frame <= range.last;
  }
}

const turnedClips = new Map<Clip, Clip>();

/** A clip with its showings in the other order. A loop without an intro is one still; its own turned clip is the clip itself. */
export function turned(clip: Clip): Clip {
  const known = turnedClips.get(clip);
  if (known !== undefined) return known;
  const { order, cells, cues, ends, loopFrom } = clip;
  const lengths = ends.map((end, i) => end - (ends[i - 1] ?? 0)).reverse();
  let sum = 0;
  const made: Clip = {
    ...clip,
    order: [...order].reverse(),
    cells: [...cells].reverse(),
    cues: [...cues].reverse(),
    ends: lengths.map((length) => (sum += length)),
    loopFrom: loopFrom === 0 ? 0 : -1,
  };
  turnedClips.set(clip, made);
  turnedClips.set(made, clip);
  return made;
}
