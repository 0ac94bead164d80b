import type { CarryRule, Clip, HopDefinition } from 'dot-hop';
import type { Reference } from './reference.js';
import type { Ungrouped } from './reference-groups.js';
import { pickedOf } from './reference-pick.js';
import { ReferencePlay, following, parts_, turned } from './reference-play.js';
import type { Moment } from './reference-play.js';
import { degreesOf } from './reference-signals.js';
import { firstStep, nextOnTheWay } from './reference-ways.js';

/** A state that is decided for, with the pulses that it uses. */
export interface Decided {
  readonly name: string;
  readonly uses: readonly string[];
  readonly routed?: boolean;
}

/** One set of states and what it plays: the rules of docs/model.md for one track. */
export class ReferenceTrack {
  state: string;
  facing: string;
  /** Where the compass points, for the vector that its state faces by. */
  toward: string;
  /** Where it is in the clip that shows: the state's own, the one of a gait, or a bridge. */
  readonly play = new ReferencePlay(() => this.phases);
  /** The acts whose `when` has become true at this instant. */
  readonly justTrue = new Set<string>();
  /** Pulses that another track has just used and this one may use yet. */
  readonly seen = new Set<string>();
  private isBridge = false;
  /** By which name it shows its clip. */
  private named = '';
  private rate = 1;
  private readonly remembered = new Set<number>();
  /** What was picked last, by state. */
  private readonly picked = new Map<string, number>();
  private enteredAt = 0;
  private overAt = 0;
  private keptUntil = 0;
  private queued = false;
  private goal: string | undefined;
  private underway = false;
  private begun = false;
  /** Until when the direction that shows must, where turning takes its time. */
  private turnsAgainAt = Infinity;

  constructor(
    private readonly all: Reference,
    readonly name: string,
    readonly states: Readonly<Record<string, Ungrouped>>,
    private readonly rest: string,
  ) {
    this.state = rest;
    this.facing = this.toward = all.parts.compass!.start ?? 'east';
  }

  /** The state that it begins in. */
  begin(): void {
    this.state = this.bestIn() ?? this.rest;
  }

  beginToPlay(): void {
    this.facing = this.toward;
    this.pick();
    this.readLengths();
    this.pickWay();
    this.play.clip = this.ownClip();
    this.readRate();
    if (this.isScrubbed) this.placeByNumber();
  }

  /** What shows: that of the track that it is in step with, if it is. */
  get shown(): { state: string; facing: string; clip: string; frame: number } {
    const lead = this.lead ?? this;
    const { shows, inStep } = this.definition;
    const drawn = inStep === undefined || shows === undefined ? lead.play.clip : this.play.clip;
    const [from, to] = [lead.play.clip.frames.length, drawn.frames.length];
    const frame = drawn === lead.play.clip ? lead.play.frame : Math.floor((lead.play.frame * to) / from);
    return { state: this.state, facing: lead.facing, clip: drawn.name, frame };
  }

  /** The track whose frames it shows, at the end of those that are in step with one another. */
  private get lead(): ReferenceTrack | undefined {
    return this.leadWithin(this.all.tracks.length);
  }

  private leadWithin(steps: number): ReferenceTrack | undefined {
    const { inStep } = this.definition;
    if (inStep === undefined || steps === 0) return inStep === undefined ? this : undefined;
    return this.all.tracks.find(({ name }) => name === inStep)!.leadWithin(steps - 1);
  }

  private get definition(): Ungrouped {
    return this.states[this.state]!;
  }

  private get signals(): Reference['signals'] {
    return this.all.signals;
  }

  private holds(condition: string | undefined): boolean {
    return this.signals.holds(condition, this.seen);
  }

  private pulsesOf(condition: string | undefined): string[] {
    return this.signals.pulsesOf(condition, this.seen);
  }

  /** The name of what the state itself shows, by its gait; variants may put another clip there. */
  private ownName(): string {
    const { shows, gaits } = this.definition;
    if (typeof shows === 'object') return shows.any[this.picked.get(this.state)!]!;
    return shows ?? gaits?.shows[this.signals.gaitOf(this.definition)] ?? '';
  }

  /** Of several flipbooks the next, or one by chance that is not the last. */
  private pick(): void {
    const { shows } = this.definition;
    if (typeof shows !== 'object') return;
    this.picked.set(
      this.state,
      pickedOf(shows, this.picked.get(this.state), () => this.all.chance()),
    );
  }

  /** Shows what goes by a name. @returns its clip, by the variants that count now */
  private clipNamed(name: string): Clip {
    this.named = name;
    return name === ''
      ? following
      : this.all.controller.clips.get(this.signals.variantOf(name, this.all.parts))!;
  }

  private ownClip(): Clip {
    const clip = this.clipNamed(this.ownName());
    return this.play.isTurned ? turned(clip) : clip;
  }

  /** Which way the time of its state runs: what begins backwards begins at its clip's end. */
  private pickWay(): void {
    this.play.isTurned = this.canTurn && this.rateNow() < 0;
  }

  private get canTurn(): boolean {
    return !this.isBridge && !this.isScrubbed && this.definition.inStep === undefined;
  }

  /** The phases that rules of the state name, of which a bridge has none. */
  private get phases(): readonly number[] {
    if (this.isBridge) return [];
    const { hops = [], leaves } = this.definition;
    return [...hops.map(({ at }) => at), leaves].flatMap((at) =>
      typeof at === 'object' && 'phases' in at ? at.phases : [],
    );
  }

  private get isScrubbed(): boolean {
    return this.definition.scrub !== undefined && !this.isBridge;
  }

  /** The next instant at which something of it happens by itself. */
  get next(): number {
    const { lasts } = this.definition;
    const { now } = this.all;
    const left = this.play.borderAfter(this.play.from) * parts_ - this.play.place;
    return Math.min(
      this.play.ended || this.rate === 0 ? Infinity : this.all.now + Math.ceil(left / this.rate),
      this.keptUntil > now ? this.keptUntil : Infinity,
      lasts !== undefined && this.overAt > now ? this.overAt : Infinity,
      this.turnsAgainAt,
    );
  }

  moveTo(at: number): void {
    if (!this.play.ended) this.play.place += (at - this.all.now) * this.rate;
  }

  /** What of its clip happens now. */
  cross(): Moment {
    if (!this.begun) this.tellCues();
    this.begun = true;
    return this.crossBorders();
  }

  /** A state that has stayed shows the gait that its number picks, and the variant. */
  followGait(): Moment | undefined {
    const before = this.play.clip;
    const after = this.isBridge ? this.clipNamed(this.named) : this.ownClip();
    if (after === before) return undefined;
    this.tell(`flipbook ${after.name}`);
    this.play.keepPhase(before, after, this.play.isEnding);
    if (after.loopFrom >= 0) this.play.ended = false;
    this.readRate();
    return this.crossBorders();
  }

  private tell(what: string): void {
    this.all.told.push(`${this.all.now / 1000} ${this.name === 'body' ? '' : `${this.name}: `}${what}`);
  }

  private crossBorders(): Moment {
    let moment: Moment = 'none';
    for (;;) {
      if (this.isScrubbed) {
        const { from } = this.play;
        this.placeByNumber();
        if (from === this.play.from) return moment;
        this.tellCues();
        return 'begins';
      }
      const border = this.play.borderAfter(this.play.from);
      if (this.play.ended || this.play.place < border * parts_) return moment;
      if (moment !== 'none' && this.decideAll(moment)) {
        moment = 'none';
        continue;
      }
      const last = border === this.play.length;
      if (last && this.isBridge) {
        this.play.place -= this.play.length * parts_;
        this.isBridge = false;
        this.pickWay();
        this.play.clip = this.ownClip();
        this.play.from = 0;
        this.readRate();
        this.followNumber();
      } else if (last && this.play.clip.loopFrom < 0) {
        this.play.place = this.play.length * parts_;
        this.play.ended = true;
        return 'ends';
      } else {
        // What is to be decided at an end is decided before the next frame begins.
        const named = [...(this.definition.hops ?? []).map(({ at }) => at), this.definition.leaves];
        if (
          (last || named.some((at) => at !== 'now' && this.play.isAt(at, 'ends', this.isBridge))) &&
          this.decideAll('ends')
        ) {
          moment = 'none';
          continue;
        }
        const start = this.play.clip.ends[this.play.clip.loopFrom - 1] ?? 0;
        if (last) this.play.place -= (this.play.length - start) * parts_;
        this.play.from = last ? start : border;
      }
      this.tellCues();
      moment = 'begins';
    }
  }

  /** Where a number says the frame, it does from here on. */
  private followNumber(): void {
    if (this.isScrubbed) this.placeByNumber();
  }

  private placeByNumber(): void {
    const { by, from, to } = this.definition.scrub!;
    const part = Math.max(0, Math.min(1, (this.signals.number(by) - from) / (to - from)));
    const whole = this.play.length * parts_;
    this.play.place = Math.min(Math.floor(part * whole), whole - 1);
    this.play.from = this.play.beginOf(this.play.place);
  }

  /** The cues of a frame that begins. */
  private tellCues(told: readonly string[] = []): void {
    if (this.play.from !== (this.play.clip.ends[this.play.showing - 1] ?? 0)) return;
    if (this.definition.inStep !== undefined) return;
    for (const cue of this.play.clip.cues[this.play.showing]!)
      if (!told.includes(cue)) this.tell(this.all.toldAs(cue));
  }

  /** The cues of the present frame that a state which keeps the place does not tell again. */
  private toldAt(ending: boolean): Record<CarryRule, readonly string[]> {
    // Two tracks in step with each other have nobody who leads, and tell nothing.
    if (this.definition.inStep !== undefined) return { none: [], phase: [], frame: [] };
    const { from, place, showing, clip } = this.play;
    const begun = from === (clip.ends[showing - 1] ?? 0) && place - from * parts_ < parts_ && !ending;
    return { none: [], phase: begun ? clip.cues[showing]! : [], frame: clip.cues[showing]! };
  }

  /** Turns, and has its rate follow, for signals as they are now. */
  heed(): void {
    if (this.turnsAgainAt <= this.all.now) this.turnsAgainAt = Infinity;
    if (!this.isHeld) this.turn();
    this.readRate();
  }

  point(): void {
    this.toward = this.signals.pointed(this.definition.facing, this.toward);
  }

  private get isHeld(): boolean {
    return this.definition.facing === 'held' || this.definition.inStep !== undefined;
  }

  private readRate(): void {
    const rate = this.rateNow();
    if (this.canTurn && rate !== 0 && rate < 0 !== this.play.isTurned) this.play.turnBack();
    this.rate = Math.abs(rate);
  }

  /** How much of its clip passes in a microsecond, in 4096ths; below 0 backwards. */
  private rateNow(): number {
    const { rate } = this.definition;
    let value = 1;
    const { least = -64, most = 64 } = typeof rate === 'object' ? { least: 0, ...rate } : {};
    if (typeof rate === 'object') {
      const { stride } = this.play.clip;
      const speed = Math.abs(this.signals.number(rate.travel));
      if (stride !== undefined) value = (speed * (this.play.length / 1e6)) / stride;
    } else if (rate !== undefined) value = this.signals.number(rate);
    // What is played in between is played as it is.
    if (this.isBridge) value = Math.abs(value);
    if (this.isScrubbed || this.definition.inStep !== undefined) return 0;
    if (this.definition.fit === true && !this.isBridge) {
      const time = this.overAt - this.enteredAt;
      return Math.max(1, Math.min(64 * parts_, Math.floor((this.play.length * parts_) / time)));
    }
    return Math.round(Math.max(least, Math.min(most, value)) * parts_);
  }

  private turn(): void {
    const { toward } = this;
    if (this.isBridge || !this.isWide()) {
      this.face(this.nextDirection());
      return;
    }
    this.face(toward);
    this.play.ended = false;
    this.isBridge = true;
    this.play.isTurned = false;
    this.play.clip = this.clipNamed(this.definition.turns!.shows);
    this.play.from = this.play.place = 0;
    this.readRate();
    this.tellCues();
  }

  /** Where the compass points, or a step on the shorter way there where turning takes its time. */
  private nextDirection(): string {
    const { toward } = this;
    const { through = 0, directions } = this.all.parts.compass!;
    if (through === 0 || this.facing === toward || this.isWide()) return toward;
    if (this.turnsAgainAt !== Infinity) return this.facing;
    this.turnsAgainAt = this.all.now + through * 1000;
    return nextOnTheWay(this.facing, toward, directions as string, this.all.controller.compass.names);
  }

  /** Whether the state has a clip for the turn that is wanted. */
  private isWide(): boolean {
    const { turns } = this.definition;
    const round = Math.abs(degreesOf(this.toward) - degreesOf(this.facing));
    return turns !== undefined && Math.min(round, 360 - round) >= (turns.least ?? 90) && round > 0;
  }

  private face(direction: string): void {
    if (this.facing === direction) return;
    this.facing = direction;
    this.tell(`turns ${direction}`);
  }

  private wantsIn(name: string): boolean {
    const state = this.states[name]!;
    if (!this.holds(state.while)) return false;
    if (state.when === undefined) return !state.isBare;
    const starts =
      this.justTrue.has(name) && this.holds(state.when) && (name !== this.state || this.isOver());
    return starts || this.pulsesOf(state.when).length > 0;
  }

  rank(name: string): number {
    return this.states[name]!.rank;
  }

  private bestIn(among?: readonly string[]): string | undefined {
    const names = Object.keys(this.states).filter(
      (name) => (among?.includes(name) ?? true) && this.wantsIn(name),
    );
    return names.sort((one, other) => this.rank(other) - this.rank(one))[0];
  }

  /** Decides for itself, at a border of its clip. @returns whether anything switched */
  private decideAll(moment: Moment): boolean {
    let switches = 0;
    for (;;) {
      const to = this.decide(moment) ?? (this.hears() ? 'again' : this.restart());
      if (to === undefined) return switches > 0;
      if (to === 'again') continue;
      if (++switches > this.all.count) throw new Error('without taking any time');
      moment = this.enter(to);
    }
  }

  private ownPulses(name: string): string[] {
    const { when, while: during } = this.states[name]!;
    return [...this.pulsesOf(when), ...this.pulsesOf(during)];
  }

  /** Remembers hops and queues presses. @returns whether a pulse was used */
  hears(): boolean {
    return this.rememberHops() || this.queuePress();
  }

  decide(moment: Moment): Decided | undefined {
    const { definition: state } = this;
    const to = (name: string): { name: string; uses: string[] } => ({ name, uses: this.ownPulses(name) });
    const best = this.bestIn();
    if (state.final !== true && best !== undefined && this.rank(best) > state.rank) return to(best);

    const leg = this.legNow(moment);
    if (leg !== undefined) return { name: leg, uses: this.ownPulses(leg), routed: true };

    for (const [i, hop] of (state.hops ?? []).entries()) {
      if (!this.play.isAt(hop.at ?? 'now', moment, this.isBridge)) continue;
      const on = remembers(hop) ? this.remembered.has(i) : this.play.isOpen(hop.during) && this.holds(hop.if);
      if (!on || !this.holds(this.states[hop.to]!.while)) continue;
      const own = hop.if === undefined ? this.ownPulses(hop.to) : this.pulsesOf(hop.if);
      return { name: hop.to, uses: remembers(hop) ? [] : own };
    }

    if (this.isKept()) return undefined;
    const over = this.isOver();
    const stands = this.holds(state.while);
    if (over && stands && this.queued) return to(this.state);
    if (over && state.then !== undefined && this.holds(this.states[state.then]!.while)) return to(state.then);
    if (over || (!stands && this.mayLeave(moment))) {
      if (best !== undefined) return to(best);
      return this.state === this.rest ? undefined : to(this.rest);
    }
    const yielded = this.state === this.rest ? best : this.yielded();
    return yielded === undefined || yielded === this.state ? undefined : to(yielded);
  }

  private isOver(): boolean {
    const { when, isBare, lasts } = this.definition;
    if (lasts !== undefined) return this.all.now >= this.overAt;
    return this.play.ended && (when !== undefined || isBare);
  }

  private isKept(): boolean {
    return this.all.now < this.keptUntil;
  }

  /** Reads how long the state lasts and is kept that begins now. */
  private readLengths(): void {
    const { atLeast = 0, lasts = 0 } = this.definition;
    const micros = (length: number | string): number =>
      Math.round(Math.max(0, Math.min(3_600_000, this.signals.number(length))) * 1000);
    this.overAt = this.all.now + Math.max(1, micros(lasts));
    this.keptUntil = this.all.now + micros(atLeast);
  }

  private yielded(): string | undefined {
    for (const { to, during, if: condition } of this.definition.yields ?? []) {
      if (!this.play.isOpen(during) || !this.holds(condition)) continue;
      const one = this.bestIn(to);
      if (one !== undefined) return one;
    }
    return undefined;
  }

  private mayLeave(moment: Moment): boolean {
    const { leaves } = this.definition;
    return (
      leaves === undefined ||
      this.isBridge ||
      this.play.ended ||
      this.play.isAt(leaves, moment, this.isBridge)
    );
  }

  /** @returns whether a pulse was used */
  private rememberHops(): boolean {
    const used: string[] = [];
    for (const [i, hop] of (this.definition.hops ?? []).entries()) {
      if (!remembers(hop) || this.remembered.has(i)) continue;
      if (!this.play.isOpen(hop.during) || !this.holds(hop.if)) continue;
      this.remembered.add(i);
      used.push(...this.pulsesOf(hop.if));
    }
    if (used.length === 0) return false;
    this.all.use(this, used);
    this.all.readSignals();
    return true;
  }

  private isPressedAgain(rule: 'restart' | 'queue'): boolean {
    const { again, when, while: during } = this.definition;
    if (again !== rule || this.isOver() || !this.holds(during)) return false;
    return (this.justTrue.has(this.state) && this.holds(when)) || this.pulsesOf(when).length > 0;
  }

  private queuePress(): boolean {
    if (!this.isPressedAgain('queue')) return false;
    this.queued = true;
    this.justTrue.delete(this.state);
    this.all.use(this, this.ownPulses(this.state));
    this.all.readSignals();
    return true;
  }

  restart(): Decided | undefined {
    if (!this.isPressedAgain('restart')) return undefined;
    return { name: this.state, uses: this.ownPulses(this.state) };
  }

  enter({ name, uses, routed = false }: Decided): Moment {
    // What is in step leaves the place of the one that it is in step with.
    const left = this.lead ?? this;
    const before = { clip: left.play.clip, frame: left.play.frame, state: this.state, named: this.named };
    const wasBridge = left.isBridge;
    const { isBridge } = this;
    let ending = left.play.isEnding;
    const toldAt = left.toldAt(ending);
    const over = left.play.place >= left.play.length * parts_;
    [this.play.place, this.play.from, this.facing] = [left.play.place, left.play.from, left.facing];
    if (left.play.isTurned) {
      // Its place in the clip as it is drawn.
      const whole = left.play.length;
      const { from } = left.play;
      this.play.place = whole * parts_ - left.play.place;
      this.play.from = whole - left.play.borderAfter(from);
      ending = this.play.place >= (whole - from) * parts_;
      before.clip = turned(left.play.clip);
    }
    this.play.isTurned = false;
    this.tell(`${this.state} > ${name}`);
    this.state = name;
    this.justTrue.delete(name);
    this.underway = routed && name !== this.goal;
    if (!this.underway) this.goal = undefined;
    this.play.ended = this.queued = false;
    this.remembered.clear();
    this.enteredAt = this.all.now;
    this.readLengths();
    const { facing } = this.definition;
    if (JSON.stringify(facing) !== JSON.stringify(this.states[before.state]!.facing)) this.point();
    if (!this.isHeld) this.face(this.nextDirection());
    this.pick();
    const bridges = this.definition.bridges?.[before.state];
    const bridge = isBridge ? undefined : typeof bridges === 'object' ? bridges[before.named] : bridges;
    this.isBridge = bridge !== undefined;
    const after = this.clipNamed(bridge ?? this.ownName());
    const { carry = 'none' } = this.definition;
    const rule: CarryRule = typeof carry === 'string' ? carry : (carry[before.state] ?? 'none');
    const keeps = !over && !wasBridge && !this.isBridge && name !== before.state;
    this.takePlace(before, after, keeps ? rule : 'none', ending);
    const begins = this.play.place - this.play.from * parts_ < parts_;
    if (begins) this.tellCues(keeps ? toldAt[rule] : []);
    this.all.use(this, uses);
    this.all.readSignals();
    return begins ? 'begins' : 'none';
  }

  private takePlace(
    before: { clip: Clip; frame: number },
    after: Clip,
    carry: CarryRule,
    ending: boolean,
  ): void {
    // Borders are those of the state that is entered from here on; how fast it goes may depend on its clip.
    this.play.clip = after;
    const isTurned = this.canTurn && this.rateNow() < 0;
    const { ends, order, frames } = isTurned ? turned(after) : after;
    if (carry === 'phase') {
      this.play.keepPhase(before.clip, after, ending);
      if (isTurned) this.play.turnBack();
      if (this.play.place >= this.play.length * parts_) this.play.place = this.play.from = 0;
      if (this.play.place >= this.play.borderAfter(this.play.from) * parts_)
        this.play.from = this.play.borderAfter(this.play.from);
    } else {
      const frame = carry === 'none' ? 0 : order.indexOf(Math.min(before.frame, frames.length - 1));
      this.play.isTurned = isTurned;
      this.play.clip = isTurned ? turned(after) : after;
      this.play.from = ends[frame - 1] ?? 0;
      this.play.place = this.play.from * parts_;
    }
    this.readRate();
    if (this.isScrubbed) this.placeByNumber();
  }

  put(name: string): boolean {
    this.all.decideAll(new Map([[this, this.enter({ name, uses: this.ownPulses(name) })]]));
    return true;
  }

  ask(name: string): boolean {
    if (name === this.state) return true;
    if (!this.holds(this.states[name]!.while)) return false;
    const { final, rank, yields = [] } = this.definition;
    const outranks = final !== true && this.rank(name) > rank;
    const open = yields.some(
      ({ to, during, if: condition }) =>
        this.play.isOpen(during) && this.holds(condition) && (to === undefined || to.includes(name)),
    );
    if (!outranks && (this.isKept() || !(this.state === this.rest || open))) return false;
    return this.put(name);
  }

  route(name: string): boolean {
    if (name === this.state) return true;
    if (firstStep(this.states, this.state, name) === undefined) return false;
    this.goal = name;
    this.all.decideAll(new Map());
    return true;
  }

  private legNow(moment: Moment): string | undefined {
    if (this.goal === undefined) return undefined;
    const leg = firstStep(this.states, this.state, this.goal);
    if (leg === undefined || !this.holds(this.states[leg.to]!.while)) return undefined;
    const passEnds = moment === 'ends' && this.play.borderAfter(this.play.from) === this.play.length;
    const at = leg.hop?.at ?? 'now';
    let open = this.play.ended || this.play.isAt(at, moment, this.isBridge);
    if (leg.hop === undefined) open = this.isOver();
    else if (at === 'now') open = !this.underway || this.play.ended || (passEnds && !this.isBridge);
    return open ? leg.to : undefined;
  }
}

/** Whether a hop's condition counts within a span and is remembered until its instant. */
function remembers({ during, at = 'now' }: HopDefinition): boolean {
  return during !== undefined && at !== 'now';
}
