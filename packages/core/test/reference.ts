import type { Clip, Controller, ControllerDefinition, HopDefinition, StateDefinition } from 'dot-hop';
import type { Deed } from './characters.js';

type Parts = Omit<ControllerDefinition, 'dotHop' | 'sheets'>;
type Moment = 'none' | 'frame' | 'end';
type Values = Record<string, number | boolean>;

const pulseKeep: Record<string, number> = { p: 1, q: 60_000 };
const tests = new Map<string, (values: Values) => unknown>();

/** The value of an expression, by the language whose subset it is. */
function evaluate(text: string, values: Values): unknown {
  let test = tests.get(text);
  if (test === undefined) {
    const names = ['vx', 'vy', 'a', 'b', 'p', 'q', 'speed', 'moving', 'lasting', 'settled', 'tilt'];
    // eslint-disable-next-line @typescript-eslint/no-implied-eval
    const run = new Function('abs', ...names, `return ${text}`) as (...parts: unknown[]) => unknown;
    test = (all) => run(Math.abs, ...names.map((name) => all[name]));
    tests.set(text, test);
  }
  return test(values);
}

/**
 * The rules of time and decision of docs/model.md, written to be read and not to be fast: no bits, no tables, every
 * condition evaluated anew. It knows the signals of the made-up characters of these tests and no others.
 */
export class Reference {
  readonly told: string[] = [];
  now = 0;
  state: string;
  facing: 'east' | 'west' = 'east';
  showing = 0;
  private toward: 'east' | 'west' = 'east';
  private set_: Values = { vx: 0, vy: 0, a: false, b: true };
  private values: Values = {};
  private readonly expires = new Map<string, number>();
  private readonly due = new Map<string, number>();
  private readonly justTrue = new Set<string>();
  private readonly remembered = new Set<number>();
  /** Microseconds since the clip's pass began. */
  private position = 0;
  private ended = false;
  private changed = true;
  private begun = false;

  constructor(
    private readonly parts: Parts,
    private readonly controller: Controller,
  ) {
    this.state = parts.rest!;
    this.values = { moving: false, tilt: false, lasting: false, settled: false };
    this.readSignals();
    this.justTrue.clear();
    this.facing = this.toward;
    this.state = this.bestIn() ?? parts.rest!;
  }

  do(deed: Deed): void {
    this.changed = true;
    if ('pulse' in deed) this.expires.set(deed.pulse, this.now + pulseKeep[deed.pulse]!);
    else this.set_ = { ...this.set_, [deed.set]: deed.to };
  }

  step(time: number): void {
    const until = this.now + time;
    if (this.changed) this.instant(this.now);
    this.changed = false;
    for (let next = this.nextInstant(); next <= until; next = this.nextInstant()) this.instant(next);
    this.position += this.ended ? 0 : until - this.now;
    this.now = until;
  }

  get frame(): number {
    return this.clip.order[this.showing]!;
  }

  private get definition(): StateDefinition {
    return this.parts.states![this.state]!;
  }

  private get clip(): Clip {
    return this.controller.clips.get(this.definition.shows)!;
  }

  private nextInstant(): number {
    const clipEnd = this.ended
      ? Infinity
      : this.now + Math.ceil(this.clip.ends[this.showing]! - this.position);
    return Math.min(clipEnd, ...this.expires.values(), ...this.due.values());
  }

  private instant(at: number): void {
    if (!this.ended) this.position += at - this.now;
    this.now = at;
    this.justTrue.clear();
    for (const [pulse, expiry] of this.expires) if (expiry <= at) this.expires.delete(pulse);
    this.readSignals();
    if (!this.begun) this.tellCues();
    this.begun = true;
    this.decideAll(this.crossFrames());
  }

  private crossFrames(): Moment {
    const { ends, loopFrom } = this.clip;
    if (this.ended || this.position < ends[this.showing]!) return 'none';
    if (this.showing + 1 < ends.length) this.showing++;
    else if (loopFrom < 0) {
      this.ended = true;
      return 'end';
    } else {
      // The end of a pass is decided upon before the next pass begins.
      if (this.decideAll('end')) return 'none';
      this.position -= ends[ends.length - 1]! - (ends[loopFrom - 1] ?? 0);
      this.showing = loopFrom;
    }
    this.tellCues();
    return 'frame';
  }

  private tellCues(): void {
    const { ends, cues } = this.clip;
    if (this.position - (ends[this.showing - 1] ?? 0) < 1)
      for (const cue of cues[this.showing]!) this.told.push(`${this.now / 1000} ${cue}`);
  }

  /** What is true now, from what was set; and which `when` has become true by it. */
  private readSignals(): void {
    const before = { ...this.values };
    const { vx, vy, a } = this.set_ as { vx: number; vy: number; a: boolean };
    const values: Values = {
      ...before,
      ...this.set_,
      p: this.expires.has('p'),
      q: this.expires.has('q'),
      speed: Math.abs(vx),
    };
    if (Math.abs(vx) > 12) values.moving = true;
    if (Math.abs(vx) < 8) values.moving = false;
    if (vx + vy > 15) values.tilt = true;
    if (vx + vy < -15) values.tilt = false;
    this.last(values, 'lasting', a, 0, 45_000);
    this.last(values, 'settled', values.moving === false && !a, 30_000, 0);
    this.values = values;
    if ('vx' in before)
      for (const [name, { when }] of Object.entries(this.parts.states!))
        if (when !== undefined && !/\b[pq]\b/.test(when.replace(/![pq]/g, '')))
          if (evaluate(when, values) === true && evaluate(when, before) !== true) this.justTrue.add(name);
    if (vx >= 5) this.toward = 'east';
    if (vx <= -5) this.toward = 'west';
    if (this.definition.facing !== 'held') this.turn();
  }

  /** A flag that follows its condition after a while. */
  private last(values: Values, name: string, wanted: boolean, rise: number, fall: number): void {
    if (values[name] === wanted) {
      this.due.delete(name);
      return;
    }
    const due = this.due.get(name) ?? this.now + (wanted ? rise : fall);
    this.due.set(name, due);
    if (due > this.now) return;
    this.due.delete(name);
    values[name] = wanted;
  }

  private turn(): void {
    if (this.facing === this.toward) return;
    this.facing = this.toward;
    if (this.begun || 'vx' in this.values) this.told.push(`${this.now / 1000} turns ${this.facing}`);
  }

  private holds(condition: string | undefined): boolean {
    return condition === undefined || evaluate(condition, this.values) === true;
  }

  /** The pulses that a true condition reads as true: those that are on and not under a `!`. */
  private pulsesOf(condition: string | undefined): string[] {
    if (condition === undefined || !this.holds(condition)) return [];
    return ['p', 'q'].filter(
      (pulse) => this.values[pulse] === true && new RegExp(`(?<!!)\\b${pulse}\\b`).test(condition),
    );
  }

  private wantsIn(name: string): boolean {
    const state = this.parts.states![name]!;
    if (!this.holds(state.while)) return false;
    if (state.when === undefined) return state.while !== undefined;
    const starts = this.justTrue.has(name) && (name !== this.state || this.ended);
    return starts || this.pulsesOf(state.when).length > 0;
  }

  private bestIn(among?: readonly string[]): string | undefined {
    const names = Object.keys(this.parts.states!).filter(
      (name) => (among?.includes(name) ?? true) && this.wantsIn(name),
    );
    const rank = (name: string): number => this.parts.states![name]!.priority ?? 0;
    return names.sort((one, other) => rank(other) - rank(one))[0];
  }

  /** @returns whether anything switched */
  private decideAll(moment: Moment): boolean {
    let switches = 0;
    const chain: string[] = [];
    for (;;) {
      const to = this.decide(moment);
      if (to === undefined) {
        if (!this.rememberHops()) return switches > 0;
        continue;
      }
      if (++switches > Object.keys(this.parts.states!).length) throw new Error('without taking any time');
      chain.push(to.name);
      this.enter(to.name, to.uses);
      moment = 'frame';
    }
  }

  private decide(moment: Moment): { name: string; uses: string[] } | undefined {
    const state = this.definition;
    const own = (name: string): string[] => {
      const { when, while: during } = this.parts.states![name]!;
      return [...this.pulsesOf(when), ...this.pulsesOf(during)];
    };
    const best = this.bestIn();
    const rank = (name: string): number => this.parts.states![name]!.priority ?? 0;
    if (state.final !== true && best !== undefined && rank(best) > (state.priority ?? 0))
      return { name: best, uses: own(best) };

    for (const [i, hop] of (state.hops ?? []).entries()) {
      if (!this.isTime(hop, moment)) continue;
      const remembers = this.remembers(hop);
      const on = remembers ? this.remembered.has(i) : this.isOpen(hop.during) && this.holds(hop.if);
      if (!on || !this.holds(this.parts.states![hop.to]!.while)) continue;
      return {
        name: hop.to,
        uses: remembers ? [] : hop.if === undefined ? own(hop.to) : this.pulsesOf(hop.if),
      };
    }

    const isAct = state.when !== undefined || (state.while === undefined && this.clip.loopFrom < 0);
    const over = isAct && this.ended;
    if (this.holds(state.while) && !over) {
      if (this.state === this.parts.rest)
        return best === undefined || best === this.state ? undefined : { name: best, uses: own(best) };
      for (const { to, during, if: condition } of state.yields ?? []) {
        if (!this.isOpen(during) || !this.holds(condition)) continue;
        const one = this.bestIn(to);
        if (one !== undefined) return one === this.state ? undefined : { name: one, uses: own(one) };
      }
      return undefined;
    }
    if (over && state.then !== undefined && this.holds(this.parts.states![state.then]!.while))
      return { name: state.then, uses: own(state.then) };
    if (best !== undefined) return { name: best, uses: own(best) };
    return this.state === this.parts.rest
      ? undefined
      : { name: this.parts.rest!, uses: own(this.parts.rest!) };
  }

  private isTime({ at = 'now' }: HopDefinition, moment: Moment): boolean {
    if (at === 'now') return true;
    if (at === 'end') return moment === 'end';
    if (moment !== 'frame') return false;
    if (typeof at === 'object') return this.clip.spans.get(at.start)?.first === this.frame;
    return this.clip.cues[this.showing]!.includes(at);
  }

  private isOpen(span: string | undefined): boolean {
    if (span === undefined) return true;
    const range = this.clip.spans.get(span);
    return range !== undefined && this.frame >= range.first && this.frame <= range.last;
  }

  private remembers({ during, at = 'now' }: HopDefinition): boolean {
    return during !== undefined && at !== 'now';
  }

  /** @returns whether a pulse was used */
  private rememberHops(): boolean {
    const used: string[] = [];
    for (const [i, hop] of (this.definition.hops ?? []).entries()) {
      if (!this.remembers(hop) || this.remembered.has(i) || !this.isOpen(hop.during) || !this.holds(hop.if))
        continue;
      this.remembered.add(i);
      used.push(...this.pulsesOf(hop.if));
    }
    this.use(used);
    return used.length > 0;
  }

  private use(pulses: readonly string[]): void {
    if (pulses.length === 0) return;
    for (const pulse of pulses) this.expires.delete(pulse);
    this.readSignals();
  }

  private enter(name: string, uses: readonly string[]): void {
    const before = this.clip;
    const { showing, position } = this;
    const over = position >= before.ends[before.ends.length - 1]!;
    const again = name === this.state;
    this.told.push(`${this.now / 1000} ${this.state} > ${name}`);
    this.state = name;
    this.justTrue.delete(name);
    this.ended = false;
    this.remembered.clear();
    if (this.definition.facing !== 'held') this.turn();
    const { ends } = this.clip;
    const { carry = 'none' } = this.definition;
    const lengths = [before.ends[before.ends.length - 1]!, ends[ends.length - 1]!] as const;
    this.position = 0;
    if (!again && !over && carry === 'frame')
      this.position = ends[Math.min(showing, ends.length - 1) - 1] ?? 0;
    if (!again && !over && carry === 'phase')
      this.position = Math.min(position * (lengths[1] / lengths[0]), lengths[1] - 1 / 4096);
    // The runtime counts in parts of a microsecond.
    this.position = Math.floor(this.position * 4096) / 4096;
    this.showing = ends.findIndex((end) => this.position < end);
    this.tellCues();
    for (const pulse of uses) this.expires.delete(pulse);
    this.readSignals();
  }
}
