import { Performer } from '../performer/performer.js';
import type { PerformerSnapshot } from '../performer/snapshot-data.js';
import type { SignalValue } from '../signal/definition.js';
import { listOf } from './definition.js';
import type { ScriptLine } from './definition.js';
import { micros } from './recorder.js';
import type { RehearsalScript } from './definition.js';
import { entryOf } from './trace.js';
import type { TraceEntry } from './trace.js';

/** How long a recording reaches back when nothing else is said, in milliseconds. */
const usualReach = 10_000;

/** How often a snapshot is kept, in milliseconds. To find any instant, what happened since the snapshot is played again. */
const keptEvery = 1000;

/** One thing that a game did. Instants are those of the performer, in milliseconds. */
type Deed =
  | { readonly at: number; readonly kind: 'set'; readonly name: string; readonly value: SignalValue }
  | { readonly at: number; readonly kind: 'pulse' | 'ask' | 'cut' | 'route'; readonly name: string };

/**
 * Records the last seconds of a performer, or of a member of a troupe, so that you can look at them again or save them as a rehearsal. A
 * performer may have several recordings. All instants are in the performer's own time, so a slowed-down performer is recorded at its usual
 * speed.
 */
export class Recording {
  private readonly stood: { readonly at: number; readonly snapshot: PerformerSnapshot }[] = [];
  private deeds: Deed[] = [];
  private told: TraceEntry[] = [];
  private readonly latest = new Map<string, string>();
  private readonly scratch: Performer;
  private readonly end: () => void;

  /** @param reach how far it reaches back, in milliseconds */
  constructor(
    readonly performer: Performer,
    private readonly reach = usualReach,
  ) {
    this.scratch = new Performer(performer.controller);
    this.keep();
    this.end = performer.observe({
      input: (input) => {
        if (input.kind === 'set') this.noteSet(input.name, input.value);
        else this.note(input.kind, input.name);
      },
      step: (count, from) => {
        this.hear(count, from);
        if (performer.time - this.stood[this.stood.length - 1]!.at >= keptEvery) this.keep();
      },
      // Whatever puts it elsewhere begins the recording again: what was before does not lead to what comes.
      moved: () => this.clear(),
    });
  }

  /** The earliest instant that it contains, in milliseconds of the performer's time. */
  get begins(): number {
    return this.stood[0]!.at;
  }

  /** What happened since then, in the performer's time. */
  get trace(): readonly TraceEntry[] {
    return this.told;
  }

  /**
   * The performer as it was at an instant: its pose, its state, its `why()`. The object is reused, so it is valid until the next call.
   *
   * @param time of the performer, in milliseconds; an instant outside the recording counts as the nearest end
   */
  at(time: number): Performer {
    const { scratch } = this;
    const wanted = Math.min(Math.max(time, this.begins), this.performer.time);
    const from = this.stood.findLast(({ at }) => at <= wanted)!;
    scratch.restore(from.snapshot);
    // What is played again passes in the performer's own time.
    scratch.pace = 1;
    for (const deed of this.deeds) {
      // What was done at the very instant shows with the step that follows it.
      if (deed.at < from.at || deed.at >= wanted) continue;
      stepTo(scratch, deed.at);
      if (deed.kind === 'set') scratch.set(deed.name, deed.value);
      else scratch[deed.kind](deed.name);
    }
    stepTo(scratch, wanted);
    // It is seen in what is worn now: clothes are no part of what happened.
    scratch.wear(this.performer.outfit);
    return scratch;
  }

  /** The recording as a rehearsal that begins where the performer stood at its beginning. If you run it, the same happens again. */
  rehearsal(): RehearsalScript {
    const [{ at: begin, snapshot }] = this.stood as [(typeof this.stood)[0]];
    const script: ScriptLine[] = [];
    for (const deed of this.deeds) {
      const at = (micros(deed.at) - micros(begin)) / 1000;
      const last = script[script.length - 1];
      // What is set at one instant stands in one line, as long as nothing was asked for in between.
      if (deed.kind === 'set' && last?.at === at && last.pulse === undefined && isPlain(last))
        script[script.length - 1] = { ...last, set: { ...last.set, [deed.name]: copied(deed.value) } };
      else if (deed.kind === 'set') script.push({ at, set: { [deed.name]: copied(deed.value) } });
      else if (deed.kind === 'pulse' && last?.at === at && isPlain(last))
        script[script.length - 1] = { ...last, pulse: [...listOf(last.pulse), deed.name] };
      else script.push({ at, [deed.kind]: deed.name });
    }
    const begins: Mutable<PerformerSnapshot> = { ...snapshot };
    delete begins.pace;
    delete begins.paceRest;
    return {
      // It passes in the performer's own time.
      begins,
      lasts: (micros(this.performer.time) - micros(begin)) / 1000,
      script,
    };
  }

  /** Ends the recording. The performer goes on as before. */
  stop(): void {
    this.end();
  }

  private note(kind: 'pulse' | 'ask' | 'cut' | 'route', name: string): void {
    const at = this.performer.time;
    this.deeds.push({ at, kind, name });
    if (kind === 'pulse') this.told.push({ kind, at, name });
  }

  private noteSet(name: string, value: SignalValue): void {
    const text = String(value);
    // What a game sets again at every tick changes nothing.
    if (this.latest.get(name) === text) return;
    this.latest.set(name, text);
    const at = this.performer.time;
    this.deeds.push({ at, kind: 'set', name, value });
    this.told.push({ kind: 'set', at, name, value });
  }

  /** Writes down what a step or a request reported. */
  private hear(count: number, from: number): void {
    const { reports } = this.performer;
    for (let i = from; i < from + count; i++) this.told.push(entryOf(reports, i, reports.at(i)));
  }

  /** Keeps where it stands, and lets go what lies too far back. */
  private keep(): void {
    const { performer, stood } = this;
    const at = performer.time;
    stood.push({ at, snapshot: performer.snapshot() });
    while (stood.length > 1 && stood[1]!.at <= at - this.reach) stood.shift();
    const { begins } = this;
    this.deeds = this.deeds.filter((deed) => deed.at >= begins);
    this.told = this.told.filter((entry) => entry.at >= begins);
  }

  private clear(): void {
    this.stood.length = 0;
    this.deeds = [];
    this.told = [];
    this.latest.clear();
    this.keep();
  }
}

type Mutable<T> = { -readonly [K in keyof T]: T[K] };

const copied = (value: SignalValue): number | boolean | string | [number, number] =>
  Array.isArray(value) ? [value[0] as number, value[1] as number] : (value as number | boolean | string);
const isPlain = ({ ask, cut, route }: ScriptLine): boolean =>
  ask === undefined && cut === undefined && route === undefined;

function stepTo(performer: Performer, time: number): void {
  const left = micros(time) - micros(performer.time);
  if (left > 0) performer.step(left / 1000);
}
