import type { Controller } from 'dot-hop';
import type { Deed } from './stories.js';
import { ungrouped } from './reference-groups.js';
import type { Ungrouped } from './reference-groups.js';
import { pickedOf } from './reference-pick.js';
import { ReferenceSignals } from './reference-signals.js';
import type { Parts } from './reference-signals.js';
import { ReferenceTrack } from './reference-track.js';
import type { Moment } from './reference-play.js';
import type { Decided } from './reference-track.js';

/**
 * The rules of time and decision of docs/model.md, written to be read and not to be fast: no bits, no tables, every
 * condition evaluated again, the borders of a clip found when they are asked for.
 */
export class Reference {
  readonly told: string[] = [];
  now = 0;
  readonly tracks: readonly ReferenceTrack[];
  readonly signals: ReferenceSignals;
  /** How many states there are, also those by which tracks are taken. */
  readonly count: number;
  private changed = true;
  /** How fast its time runs, in thousandths, and what has passed of a microsecond. */
  private pace = 1000n;
  private rest = 0n;
  private seed = 1n;
  /** By which of its names each cue was told last. */
  private readonly toldBy = new Map<string, number>();
  /** Of each track its own states, without those by which it is taken. */
  private readonly owned: Readonly<Record<string, Readonly<Record<string, Ungrouped>>>>;

  constructor(
    readonly parts: Parts,
    readonly controller: Controller,
  ) {
    const { states = {}, groups, rest, tracks = {} } = parts;
    const given = { body: { states, groups, rest }, ...tracks };
    const all = Object.fromEntries(
      Object.entries(given).map(([name, track]): [string, Record<string, Ungrouped>] => [
        name,
        ungrouped(track),
      ]),
    );
    this.owned = all;
    this.tracks = Object.entries(given).map(([name, track]) => {
      const takers = Object.keys(all).flatMap((by) => takersOf(name, by, all[by]!));
      const own = { ...all[name], ...Object.fromEntries(takers) };
      return new ReferenceTrack(this, name, own, track.rest ?? Object.keys(track.states)[0]!);
    });
    this.count = this.tracks.reduce((sum, track) => sum + Object.keys(track.states).length, 0);
    this.signals = new ReferenceSignals(this.tracks, parts.compass!);
    this.readValues();
    for (const track of this.tracks) track.begin();
    this.readValues();
    for (const track of this.tracks) track.beginToPlay();
  }

  /** Numbers that look like chance: a linear congruence of 32 bits. */
  chance(): number {
    this.seed = (1664525n * this.seed + 1013904223n) % 2n ** 32n;
    return Number(this.seed) / 2 ** 32;
  }

  /** The name by which a cue is told this time. */
  toldAs(cue: string): string {
    const names = this.parts.cues?.[cue];
    if (names === undefined) return cue;
    const place = pickedOf(names, this.toldBy.get(cue), () => this.chance());
    this.toldBy.set(cue, place);
    return names.any[place]!;
  }

  do(deed: Deed): boolean | undefined {
    if ('ask' in deed) return this.request(deed.ask, (track) => track.ask(deed.ask));
    if ('route' in deed) return this.request(deed.route, (track) => track.route(deed.route));
    if ('cut' in deed) return this.request(deed.cut, (track) => track.put(deed.cut));
    if ('pace' in deed) {
      const pace = BigInt(Math.round(deed.pace * 1000));
      if (pace !== this.pace) [this.pace, this.rest] = [pace, 0n];
      return undefined;
    }
    this.changed = true;
    this.signals.do(deed, this.now);
    return undefined;
  }

  step(time: number): void {
    const passed = BigInt(time) * this.pace + this.rest;
    this.rest = passed % 1000n;
    const until = this.now + Number(passed / 1000n);
    if (this.changed) this.instant(this.now);
    this.changed = false;
    for (let next = this.nextInstant(); next <= until; next = this.nextInstant()) this.instant(next);
    this.moveTo(until);
  }

  private nextInstant(): number {
    return Math.min(this.signals.next, ...this.tracks.map((track) => track.next));
  }

  private moveTo(at: number): void {
    for (const track of this.tracks) track.moveTo(at);
    this.now = at;
  }

  private instant(at: number): void {
    this.moveTo(at);
    for (const track of this.tracks) track.justTrue.clear();
    this.signals.expire(at);
    this.readSignals();
    this.decideAll(new Map(this.tracks.map((track) => [track, track.cross()])));
    const geared = this.tracks.map((track) => [track, track.followGait()] as const);
    const moments = geared.flatMap(([track, moment]) =>
      moment === undefined ? [] : [[track, moment] as const],
    );
    if (moments.length > 0) this.decideAll(new Map(moments));
  }

  /** Of what the tracks would switch to, the highest rank is entered, and all decide again, until none switches. */
  decideAll(moments: Map<ReferenceTrack, Moment>): void {
    for (let switches = 0; ;) {
      let to: { track: ReferenceTrack; decided: Decided } | undefined;
      for (const track of this.tracks) {
        const decided = track.decide(moments.get(track) ?? 'none');
        if (decided === undefined) continue;
        if (to === undefined || track.rank(decided.name) > to.track.rank(to.decided.name))
          to = { track, decided };
      }
      if (to === undefined) {
        if (this.tracks.map((track) => track.hears()).includes(true)) continue;
        for (const track of this.tracks) {
          const decided = track.restart();
          if (decided !== undefined) to ??= { track, decided };
        }
      }
      if (to === undefined) {
        if (this.tracks.every(({ seen }) => seen.size === 0)) return;
        for (const { seen } of this.tracks) seen.clear();
        continue;
      }
      if (++switches > this.count) throw new Error('without taking any time');
      moments.set(to.track, to.track.enter(to.decided));
    }
  }

  /** A pulse that a track uses is gone for it, and for the others when all have decided. */
  use(by: ReferenceTrack, used: readonly string[]): void {
    for (const pulse of used) {
      by.seen.delete(pulse);
      if (!this.signals.isOn(pulse)) continue;
      for (const track of this.tracks) if (track !== by) track.seen.add(pulse);
      this.signals.use(pulse);
    }
  }

  readSignals(): void {
    this.readValues();
    for (const track of this.tracks) track.heed();
  }

  private readValues(): void {
    this.signals.read(this.now);
    for (const track of this.tracks) track.point();
  }

  private request(state: string, run: (track: ReferenceTrack) => boolean): boolean {
    this.instant(this.now);
    this.changed = false;
    return run(this.tracks.find(({ name }) => state in this.owned[name]!)!);
  }
}

/** A state that takes a track is a posture there, in step with its own track, as long as it shows. */
function takersOf(
  track: string,
  by: string,
  states: Readonly<Record<string, Ungrouped>>,
): [string, Ungrouped][] {
  return Object.entries(states).flatMap(([name, { takes = {}, rank, final }]): [string, Ungrouped][] => {
    const isList = Array.isArray(takes);
    if (isList ? !takes.includes(track) : !(track in takes)) return [];
    const condition = isList ? '' : ` && (${(takes as Record<string, string>)[track]!})`;
    const during = `${by}.${name}${condition}`;
    return [[name, { rank, final, while: during, inStep: by, isBare: false, groups: [] }]];
  });
}
