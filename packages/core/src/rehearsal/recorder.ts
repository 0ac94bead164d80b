import type { Performer } from '../performer/performer.js';
import { boundsText, isWithin, whyText } from '../explain/index.js';
import { gamePace } from '../engine/pace.js';
import type { SignalValue } from '../signal/definition.js';
import { entryOf } from './trace.js';
import type { PathPoint, Sample, TraceEntry, TrackSample, TrailPoint } from './trace.js';

/** How finely pictures are sampled, in milliseconds. Switches and cues have their exact instants all the same. */
export const sampling = 5;

/** Steps a performer and writes down what happens. */
export class Recorder {
  readonly trace: TraceEntry[] = [];
  readonly samples: Sample[] = [];
  readonly trail: TrailPoint[] = [];
  readonly path: PathPoint[] = [];
  /** The answers to why at the instants in question, one for each track. */
  readonly whys = new Map<number, readonly string[]>();
  private nextStop = 0;
  /** The present instant of the rehearsal, in microseconds. A performer with a pace counts its own time. */
  private now = 0;
  /** The instant at which the latest step or request began. */
  private stepped = 0;
  /** The latest change of the pace: an instant of the rehearsal, and the same instant of the performer's own time. */
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

  /** The present instant, in milliseconds. */
  get time(): number {
    return this.now / 1000;
  }

  private pacedNow(): Recorder['paced'] {
    const { pace, time } = this.performer;
    const rest = pace === 1 ? 0 : (this.performer.snapshot().paceRest ?? 0);
    return { at: this.now, own: micros(time), pace: Math.round(pace * gamePace), rest };
  }

  /** Converts an instant of the performer's own time, within the latest step, into an instant of the rehearsal. */
  private timeOf(ownMs: number): number {
    const { at, own, pace, rest } = this.paced;
    const parts = (micros(ownMs) - own) * gamePace - rest;
    // While its time stands still, or runs slowly, what a step decides upon first happens when that step begins.
    return Math.max(this.stepped, parts <= 0 ? at : at + Math.ceil(parts / pace)) / 1000;
  }

  /** Changes the pace of its own time. */
  pace(pace: number): void {
    this.performer.pace = pace;
    this.paced = this.pacedNow();
    this.trace.push({ kind: 'pace', at: this.time, name: 'pace', value: this.performer.pace });
  }

  /**
   * Makes the performer begin again.
   *
   * @param first first values of signals, if they differ from the document's
   */
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

  /** Asks for a state. The trace tells what happened after the request. */
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

  /** Lets time pass. If it stops on the way, it writes down exactly what shows there. */
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

  /** Decides about the new values. */
  decide(): void {
    this.stepped = this.now;
    this.record(this.performer.step(0));
    this.look();
  }

  /** Writes down the place of the body. */
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

  /** Writes down the reports of the latest step or request, and what shows now. */
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

/** Rounds to whole microseconds, because the performer counts in them: it would never reach a finer instant. */
export const micros = (ms: number): number => Math.round(ms * 1000);
