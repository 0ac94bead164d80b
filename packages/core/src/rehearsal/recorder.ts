import type { Performer } from '../performer/performer.js';
import { boundsText, isWithin, whyText } from '../explain/index.js';
import { gamePace } from '../engine/pace.js';
import type { SignalValue } from '../signal/definition.js';
import { entryOf } from './trace.js';
import type { PathPoint, Sample, TraceEntry, TrackSample, TrailPoint } from './trace.js';

/** How finely pictures are sampled, in milliseconds. Switches and cues have their exact instants whatever this is. */
export const sampling = 5;

/** Steps a performer and writes down what happens. */
export class Recorder {
  readonly trace: TraceEntry[] = [];
  readonly samples: Sample[] = [];
  readonly trail: TrailPoint[] = [];
  readonly path: PathPoint[] = [];
  /** The answers to why at the instants looked at, one for each track. */
  readonly whys = new Map<number, readonly string[]>();
  private nextStop = 0;
  /** How far the rehearsal is, in microseconds: a performer with a pace of its own counts others. */
  private now = 0;
  /** When a step or request began. */
  private stepped = 0;
  /** When the pace was changed last: an instant of the rehearsal, and the same instant of the performer's own time. */
  private paced: { readonly at: number; readonly own: number; readonly pace: number; readonly rest: number };

  /**
   * @param stops instants at which pictures are sampled exactly, from the earliest
   * @param looks those at which it is asked why
   * @param placeOf where a state of a track stands
   */
  constructor(
    readonly performer: Performer,
    private readonly stops: readonly number[],
    private readonly looks: ReadonlySet<number>,
    private readonly placeOf: ((state: string, track: string) => string) | undefined,
  ) {
    this.paced = this.pacedNow();
    this.recordVector();
  }

  /** Now, in milliseconds. */
  get time(): number {
    return this.now / 1000;
  }

  private pacedNow(): Recorder['paced'] {
    const { pace, time } = this.performer;
    const rest = pace === 1 ? 0 : (this.performer.snapshot().paceRest ?? 0);
    return { at: this.now, own: micros(time), pace: Math.round(pace * gamePace), rest };
  }

  /** Converts an instant of the performer's own time, of the latest step, into one of the rehearsal. */
  private timeOf(ownMs: number): number {
    const { at, own, pace, rest } = this.paced;
    const parts = (micros(ownMs) - own) * gamePace - rest;
    // While its time stands still, or runs slowly, what a step decides upon first happens when that step begins.
    return Math.max(this.stepped, parts <= 0 ? at : at + Math.ceil(parts / pace)) / 1000;
  }

  /** Makes its own time run at another pace. */
  pace(pace: number): void {
    this.performer.pace = pace;
    this.paced = this.pacedNow();
    this.trace.push({ kind: 'pace', at: this.time, name: 'pace', value: this.performer.pace });
  }

  /** Makes it begin again. @param first first values that differ from the document's */
  reset(first: Readonly<Record<string, SignalValue>>): void {
    this.performer.reset(first);
    this.paced = this.pacedNow();
    this.trace.push({ kind: 'reset', at: this.time, name: 'reset' });
  }

  set(name: string, value: SignalValue, by?: 'ramp' | 'button' | 'body'): void {
    this.performer.set(name, value);
    const { bounds } = this.performer.controller.signal(name);
    const isOutside = bounds !== undefined && typeof value === 'number' && !isWithin(value, bounds);
    this.trace.push({
      ...{ kind: 'set', at: this.time, name, value },
      ...(by !== undefined && { by }),
      ...(isOutside && { outside: boundsText(bounds) }),
    });
  }

  pulse(name: string): void {
    this.performer.pulse(name);
    this.trace.push({ kind: 'pulse', at: this.time, name });
  }

  note(kind: 'press' | 'release', name: string): void {
    this.trace.push({ kind, at: this.time, name });
  }

  noteRamp(name: string, to: number, over: number): void {
    this.trace.push({ kind: 'ramp', at: this.time, name, to, over });
  }

  /** Asks for a state; what came of it stands behind the asking. */
  request(kind: 'ask' | 'cut' | 'route', name: string): void {
    const { performer, trace } = this;
    const { length } = trace;
    this.stepped = this.now;
    let granted = true;
    if (kind === 'cut') performer.cut(name);
    else granted = performer[kind](name);
    this.record(performer.reports.count);
    trace.splice(length, 0, { kind, at: this.time, name, granted });
  }

  /** Lets time go on; what shows at a stop on the way is written down exactly. */
  advance(to: number): void {
    const end = micros(to);
    while (this.now < end) {
      const { now, stops } = this;
      while (this.nextStop < stops.length && micros(stops[this.nextStop]!) <= now) this.nextStop++;
      const stop = micros(stops[this.nextStop] ?? Infinity);
      const length = Math.min(sampling * 1000, end - now, stop - now);
      this.stepped = now;
      const count = this.performer.step(length / 1000);
      this.now = now + length;
      this.record(count);
      if (this.now === stop && stop < end) this.look();
    }
  }

  /** Decides what was set now. */
  decide(): void {
    this.stepped = this.now;
    this.record(this.performer.step(0));
    this.look();
  }

  /** Writes down where the body is. */
  place(x: number, y: number): void {
    const last = this.path[this.path.length - 1];
    if (last?.x !== x || last.y !== y) this.path.push({ at: this.time, x, y });
  }

  private look(): void {
    const { tracks } = this.performer.controller;
    for (const at of this.looks)
      if (micros(at) === this.now)
        this.whys.set(
          at,
          tracks.map(({ name }) => whyText(this.performer.why(name), this.placeOf)),
        );
  }

  /** Writes down what the latest step or request reported, and what shows now. */
  private record(count: number): void {
    const { performer, trace } = this;
    const { reports } = performer;
    for (let i = 0; i < count; i++) {
      trace.push(entryOf(reports, i, this.timeOf(reports.at(i))));
    }
    this.recordVector();
    const { pose, controller } = performer;
    const tracks = controller.tracks.map(({ name }): TrackSample => {
      const { state, clip, frameIndex: frame, facing: direction } = performer.showing(name);
      return { state, clip, frame, direction };
    });
    const last = this.samples[this.samples.length - 1];
    const isSame = (what: 'state' | 'frame'): boolean =>
      tracks.every((one, i) => last?.tracks[i]![what] === one[what]);
    if (last?.pose === pose && isSame('state') && isSame('frame') && count === 0) return;
    const switched = trace.findLast(({ kind }) => kind === 'switch' || kind === 'reset');
    const entered = last !== undefined && !isSame('state') && switched !== undefined;
    this.samples.push({ at: entered ? switched.at : this.time, ...tracks[0]!, pose, tracks });
  }

  private recordVector(): void {
    const [x, y] = this.performer.vector;
    const { facing: direction } = this.performer;
    const at = this.time;
    const last = this.trail[this.trail.length - 1];
    if (last?.x !== x || last.y !== y || last.direction !== direction)
      this.trail.push({ at, x, y, direction });
  }
}

/** The performer counts whole microseconds: a finer instant would never be reached. */
export const micros = (ms: number): number => Math.round(ms * 1000);
