import { DotHopError } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { isButton } from './buttons.js';
import { listOf } from './definition.js';
import type { ScriptLine } from './definition.js';
import type { FeedingBody } from './feeds.js';
import { statesMeant } from './meant.js';
import { isTrue } from './question.js';
import type { SignalValue } from '../signal/definition.js';
import { micros } from './recorder.js';
import type { Recorder } from './recorder.js';
import { tellsCue } from './trace.js';

/** A line that begins at an instant of its own, with the lines that count from the one above them. */
interface Chain {
  readonly lines: readonly { readonly index: number; readonly line: ScriptLine }[];
  /** The index of the next line. */
  place: number;
  /** How often that line has happened already. */
  done: number;
  /** The instant at which the line above happened (or happened last), in milliseconds. */
  since: number;
  /** The length of the trace at that instant: only later cues count for a wait. */
  heard: number;
}

/** A wait that is over, or a line that expects something, with its instant. */
export interface ScriptEvent {
  readonly kind: 'waited' | 'gave up' | 'expects';
  readonly index: number;
  readonly line: ScriptLine;
  /** The instant from which it waited. */
  readonly since: number;
  readonly at: number;
}

/** A number on its way. */
interface Ramp {
  readonly from: number;
  readonly to: number;
  readonly start: number;
  readonly over: number;
}

/** What a line waits for, in words. */
export function waitText({ until }: ScriptLine): string {
  if (typeof until !== 'object') return until ?? '';
  return 'state' in until ? `state ${until.state}` : `cue ${until.cue}`;
}

/** Plays the lines of a rehearsal, and everything that they have started: ramps, held buttons, the body. */
export class Script {
  readonly moments: ScriptEvent[] = [];
  private readonly chains: Chain[] = [];
  private readonly ramps = new Map<string, Ramp>();
  private readonly releases: { at: number; name: string }[] = [];
  /** The length of the trace when the body moved last, and that instant. */
  private moved = 0;
  private bodyTime = 0;

  constructor(
    lines: readonly ScriptLine[],
    private readonly recorder: Recorder,
    private readonly body: FeedingBody | undefined,
  ) {
    lines.forEach((line, index) => {
      const begins = line.at !== undefined || this.chains.length === 0;
      if (begins) this.chains.push({ lines: [], place: 0, done: 0, since: 0, heard: 0 });
      (this.chains[this.chains.length - 1]!.lines as { index: number; line: ScriptLine }[]).push({
        index,
        line,
      });
    });
  }

  /** Whether something must be looked at again before the next line is due. */
  get isBusy(): boolean {
    return this.body !== undefined || this.ramps.size > 0 || this.chains.some((chain) => this.waits(chain));
  }

  /** The next instant at which something is known to be due, in milliseconds. */
  next(): number {
    const dues = this.chains.map((chain) => this.due(chain));
    const ends = [...this.ramps.values()].map(({ start, over }) => start + over);
    return Math.min(...dues, ...ends, ...this.releases.map(({ at }) => at));
  }

  /** Does everything that is due by now, in the order in which it was due. Lines of one instant happen in their own order. */
  play(): void {
    this.moveBody();
    this.releaseDue();
    const now = micros(this.recorder.time);
    const dueOf = (chain: Chain): number =>
      micros(this.waits(chain) ? (this.isOver(chain) ? 0 : Infinity) : this.due(chain));
    for (;;) {
      const ready = this.chains
        .filter((chain) => dueOf(chain) <= now)
        .sort((a, b) => dueOf(a) - dueOf(b) || headOf(a)!.index - headOf(b)!.index);
      if (ready.length === 0) break;
      this.playHead(ready[0]!);
    }
    this.playRamps();
    this.feed();
  }

  /** Writes down what was left when the time was over: waits in vain, and lines that did not happen. */
  finish(): void {
    for (const chain of this.chains) {
      const head = headOf(chain);
      if (head !== undefined) this.note('gave up', chain, head);
    }
  }

  private note(kind: ScriptEvent['kind'], { since }: Chain, { index, line }: Chain['lines'][number]): void {
    this.moments.push({ kind, index, line, since, at: this.recorder.time });
  }

  private due(chain: Chain): number {
    const head = headOf(chain);
    if (head === undefined || this.waits(chain)) return Infinity;
    if (chain.done > 0) return chain.since + head.line.every!;
    return head.line.at ?? chain.since + (head.line.after ?? 0);
  }

  /** Whether the next line waits for something. */
  private waits(chain: Chain): boolean {
    return chain.done === 0 && headOf(chain)?.line.until !== undefined;
  }

  private isOver(chain: Chain): boolean {
    const { line } = headOf(chain)!;
    return (
      this.hasCome(chain) || micros(this.recorder.time) > micros(chain.since + (line.within ?? Infinity))
    );
  }

  private hasCome(chain: Chain): boolean {
    const { until } = headOf(chain)!.line;
    const { performer, trace } = this.recorder;
    if (typeof until === 'string') return isTrue(until, performer);
    if ('state' in until!) {
      const { track, states } = statesMeant(performer.controller, until.state)!;
      return states.has(performer.showing(performer.controller.tracks[track]!.name).state);
    }
    const { cue } = until!;
    return trace.slice(chain.heard).some((entry) => tellsCue(entry, cue));
  }

  private playHead(chain: Chain): void {
    const head = headOf(chain)!;
    const { line, index } = head;
    if (this.waits(chain)) {
      const came = this.hasCome(chain);
      this.note(came ? 'waited' : 'gave up', chain, head);
      if (!came) {
        chain.place = chain.lines.length;
        return;
      }
    }
    // Lines count from when they were due, not from the step that noticed: only a wait ends when it is noticed.
    chain.since = this.waits(chain) ? this.recorder.time : this.due(chain);
    chain.heard = this.recorder.trace.length;
    placing(['script', index], () => this.act(line));
    if (line.expect !== undefined) this.note('expects', chain, head);
    chain.done++;
    if (chain.done < (line.times ?? 1)) return;
    chain.place++;
    chain.done = 0;
  }

  private act(line: ScriptLine): void {
    const { recorder } = this;
    if (line.pace !== undefined) recorder.pace(line.pace);
    const set = Object.entries(line.set ?? {});
    if (line.reset === true) this.reset(set);
    for (const [name, value] of set) {
      this.ramps.delete(name);
      placing(['set', name], () => recorder.set(name, value));
    }
    for (const [name, aim] of Object.entries(line.ramp ?? {})) {
      const [from, to] = typeof aim === 'number' ? [Number(recorder.performer.value(name)), aim] : aim;
      recorder.noteRamp(name, to, line.over!);
      this.ramps.set(name, { from, to, start: recorder.time, over: line.over! });
    }
    for (const name of listOf(line.pulse)) placing(['pulse'], () => recorder.pulse(name));
    for (const name of listOf(line.press)) this.press(name, line.for);
    for (const name of listOf(line.release)) this.release(name);
    for (const kind of ['ask', 'route', 'cut'] as const)
      if (line[kind] !== undefined) placing([kind], () => recorder.request(kind, line[kind]!));
  }

  /** Tells the script that the character begins again. Its body and held buttons go on. */
  private reset(first: readonly (readonly [string, SignalValue])[]): void {
    const { recorder } = this;
    this.ramps.clear();
    for (const [name] of first) placing(['set', name], () => recorder.performer.controller.signal(name));
    placing(['set'], () => recorder.reset(Object.fromEntries(first)));
    this.body?.forget();
  }

  private press(name: string, lasts: number | undefined): void {
    const { recorder, body } = this;
    recorder.note('press', name);
    if (body !== undefined && isButton(name)) {
      body.press(name);
      for (const signal of body.pulsesOf(name)) recorder.pulse(signal);
    } else if (recorder.performer.controller.signal(name).kind === 'pulse') recorder.pulse(name);
    else recorder.set(name, true, 'button');
    if (lasts !== undefined) this.releases.push({ at: recorder.time + lasts, name });
  }

  private release(name: string): void {
    const { recorder, body } = this;
    recorder.note('release', name);
    if (body !== undefined && isButton(name)) body.release(name);
    else if (recorder.performer.controller.signal(name).kind === 'flag') recorder.set(name, false, 'button');
  }

  private releaseDue(): void {
    const now = micros(this.recorder.time);
    for (const one of this.releases.filter(({ at }) => micros(at) <= now)) {
      this.releases.splice(this.releases.indexOf(one), 1);
      this.release(one.name);
    }
  }

  private playRamps(): void {
    const { recorder } = this;
    for (const [name, { from, to, start, over }] of this.ramps) {
      const way = Math.min(1, (recorder.time - start) / over);
      const value = way === 1 ? to : from + (to - from) * way;
      if (recorder.performer.value(name) !== value) recorder.set(name, value, 'ramp');
      if (way === 1) this.ramps.delete(name);
    }
  }

  private moveBody(): void {
    const { body, recorder } = this;
    if (body === undefined) return;
    const { leapAt } = body;
    const heard =
      leapAt !== undefined && recorder.trace.slice(this.moved).some((entry) => tellsCue(entry, leapAt));
    this.moved = recorder.trace.length;
    if (heard) body.leap();
    body.advance(recorder.time - this.bodyTime);
    this.bodyTime = recorder.time;
    recorder.place(body.x, body.y);
  }

  private feed(): void {
    for (const [signal, value] of this.body?.changes() ?? []) this.recorder.set(signal, value, 'body');
  }
}

function headOf(chain: Chain): Chain['lines'][number] | undefined {
  return chain.lines[chain.place];
}

function placing(path: DocumentPath, run: () => void): void {
  try {
    run();
  } catch (error) {
    if (!(error instanceof DotHopError)) throw error;
    throw new DotHopError(
      error.problems.map((problem) => ({ ...problem, path: [...path, ...problem.path] })),
    );
  }
}
