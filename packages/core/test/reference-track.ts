import type { AtDefinition, CarryRule, Clip, HopDefinition, StateDefinition } from 'dot-hop';
import type { Reference } from './reference.js';
import { degreesOf } from './reference-signals.js';

/** What of a clip happens at an instant that is decided upon. */
export type Moment = 'none' | 'begins' | 'ends';

/** A state that is decided for, with the pulses that it uses. */
export interface Decided {
  readonly name: string;
  readonly uses: readonly string[];
  readonly routed?: boolean;
}

/** Places in a clip are whole parts of a microsecond, 4096 of them, so that they are exact at any rate. */
const parts_ = 4096;

/** What stands for the drawings of a state that shows its part of what another track shows. */
const following = {
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

/** One set of states and what it plays: the rules of docs/model.md for one track. */
export class ReferenceTrack {
  state: string;
  facing: string;
  /** Where the compass points, for the vector that its state faces by. */
  toward: string;
  /** The clip that shows: the state's own, the one of a gait, or a bridge. */
  clip: Clip = following;
  /** The acts whose `when` has become true at this instant. */
  readonly justTrue = new Set<string>();
  /** Pulses that another track has just used and this one may use yet. */
  readonly seen = new Set<string>();
  private isBridge = false;
  /** Where the part of the clip begins that is being played, in microseconds: a frame, or what of it follows a phase. */
  private from = 0;
  /** The place in the clip, in 4096ths of a microsecond, at `now`. */
  private place = 0;
  private rate = 1;
  /** The borders of each clip in each state, found once. */
  private readonly borders = new Map<string, number[]>();
  private readonly remembered = new Set<number>();
  private enteredAt = 0;
  private ended = false;
  private queued = false;
  private goal: string | undefined;
  private underway = false;
  private begun = false;
  /** Until when the direction that shows must, where turning takes its time. */
  private turnsAgainAt = Infinity;

  constructor(
    private readonly all: Reference,
    readonly name: string,
    readonly states: Readonly<Record<string, StateDefinition>>,
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
    this.clip = this.ownClip();
    this.readRate();
    if (this.isScrubbed) this.placeByNumber();
  }

  /** What shows: that of the track that it is in step with, if it is. */
  get shown(): { state: string; facing: string; clip: string; frame: number } {
    const lead = this.lead ?? this;
    const { shows, inStep } = this.definition;
    const drawn = inStep === undefined || shows === undefined ? lead.clip : this.clip;
    const [from, to] = [lead.clip.frames.length, drawn.frames.length];
    const frame = drawn === lead.clip ? lead.frame : Math.floor((lead.frame * to) / from);
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

  get frame(): number {
    return this.clip.order[this.showing]!;
  }

  private get showing(): number {
    return this.clip.ends.findIndex((end) => this.from < end);
  }

  private get definition(): StateDefinition {
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

  /** The clip of the state itself, by its gait. */
  private ownClip(): Clip {
    const { shows, gaits, inStep } = this.definition;
    if (inStep !== undefined && shows === undefined) return following;
    return this.all.controller.clips.get(shows ?? gaits!.shows[this.signals.gaitOf(this.definition)]!)!;
  }

  private get length(): number {
    return this.clip.ends[this.clip.ends.length - 1]!;
  }

  private get isScrubbed(): boolean {
    return this.definition.scrub !== undefined && !this.isBridge;
  }

  /** Whether the place is at a border that is about to be crossed. */
  private get isEnding(): boolean {
    return this.place >= this.borderAfter(this.from) * parts_;
  }

  /** Where the part of a clip that begins at a place ends: at the frame's end, or at a phase that a rule names. */
  private borderAfter(place: number): number {
    const key = `${this.state} ${this.clip.name} ${this.isBridge}`;
    let borders = this.borders.get(key);
    if (borders === undefined) {
      const { hops = [], leaves } = this.definition;
      const named = this.isBridge ? [] : [...hops.map(({ at }) => at), leaves];
      const phases = named.flatMap((at) => (typeof at === 'object' && 'phases' in at ? at.phases : []));
      borders = [...this.clip.ends, ...phases.map((phase) => Math.round(phase * this.length))];
      borders.sort((a, b) => a - b);
      this.borders.set(key, borders);
    }
    return borders.find((border) => border > place) ?? Infinity;
  }

  /** The next instant at which something of it happens by itself. */
  get next(): number {
    const { atLeast = 0 } = this.definition;
    const held = this.enteredAt + atLeast * 1000;
    const left = this.borderAfter(this.from) * parts_ - this.place;
    return Math.min(
      this.ended || this.rate === 0 ? Infinity : this.all.now + Math.ceil(left / this.rate),
      atLeast > 0 && held > this.all.now ? held : Infinity,
      this.turnsAgainAt,
    );
  }

  moveTo(at: number): void {
    if (!this.ended) this.place += (at - this.all.now) * this.rate;
  }

  /** What of its clip happens now. */
  cross(): Moment {
    if (!this.begun) this.tellCues();
    this.begun = true;
    return this.crossBorders();
  }

  /** A state that has stayed shows the gait that its number picks. */
  followGait(): Moment | undefined {
    const before = this.clip;
    if (this.definition.gaits === undefined || this.isBridge || this.ownClip() === before) return undefined;
    const after = this.ownClip();
    this.tell(`gait ${after.name}`);
    this.keepPhase(before, after, this.isEnding);
    if (after.loopFrom >= 0) this.ended = false;
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
        const { from } = this;
        this.placeByNumber();
        if (from === this.from) return moment;
        this.tellCues();
        return 'begins';
      }
      const border = this.borderAfter(this.from);
      if (this.ended || this.place < border * parts_) return moment;
      if (moment !== 'none' && this.decideAll(moment)) {
        moment = 'none';
        continue;
      }
      const last = border === this.length;
      if (last && this.isBridge) {
        this.place -= this.length * parts_;
        this.isBridge = false;
        this.clip = this.ownClip();
        this.from = 0;
        this.readRate();
        this.followNumber();
      } else if (last && this.clip.loopFrom < 0) {
        this.place = this.length * parts_;
        this.ended = true;
        return 'ends';
      } else {
        // What is to be decided at an end is decided before the next frame begins.
        const named = [...(this.definition.hops ?? []).map(({ at }) => at), this.definition.leaves];
        if ((last || named.some((at) => at !== 'now' && this.isAt(at, 'ends'))) && this.decideAll('ends')) {
          moment = 'none';
          continue;
        }
        const start = this.clip.ends[this.clip.loopFrom - 1] ?? 0;
        if (last) this.place -= (this.length - start) * parts_;
        this.from = last ? start : border;
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
    const whole = this.length * parts_;
    this.place = Math.min(Math.floor(part * whole), whole - 1);
    this.from = this.beginOf(this.place);
  }

  /** Where the part of the clip begins in which a place lies. */
  private beginOf(place: number): number {
    let from = 0;
    while (this.borderAfter(from) * parts_ <= place && this.borderAfter(from) < this.length)
      from = this.borderAfter(from);
    return from;
  }

  /** The cues of a frame that begins. */
  private tellCues(): void {
    if (this.from !== (this.clip.ends[this.showing - 1] ?? 0)) return;
    if (this.definition.inStep !== undefined) return;
    for (const cue of this.clip.cues[this.showing]!) this.tell(cue);
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
    const { rate } = this.definition;
    let value = 1;
    const { least = 0, most = 64 } = typeof rate === 'object' ? rate : {};
    if (typeof rate === 'object') {
      const { stride } = this.clip;
      const speed = Math.abs(this.signals.number(rate.travel));
      if (stride !== undefined) value = (speed * (this.length / 1e6)) / stride;
    } else if (rate !== undefined) value = this.signals.number(rate);
    this.rate = Math.round(Math.max(least, Math.min(most, value)) * parts_);
    if (this.isScrubbed || this.definition.inStep !== undefined) this.rate = 0;
  }

  private turn(): void {
    const { toward } = this;
    if (this.isBridge || !this.isWide()) {
      this.face(this.nextDirection());
      return;
    }
    this.face(toward);
    this.ended = false;
    this.isBridge = true;
    this.clip = this.all.controller.clips.get(this.definition.turns!.shows)!;
    this.from = this.place = 0;
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
    const step = 360 / { sides: 2, four: 4, eight: 8 }[directions as string]!;
    const from = degreesOf(this.facing);
    const turn = (degreesOf(toward) - from + 360) % 360;
    // Half around: by the side that faces the viewer.
    const clockwise = turn < 180 || (turn === 180 && (from < 90 || from >= 270 || from === 90));
    const next = (from + (clockwise ? step : 360 - step)) % 360;
    return this.all.controller.compass.names.find((name) => degreesOf(name) === next)!;
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

  /** The phase is kept; what was at a border stays at one, if there is one within a microsecond. */
  private keepPhase(before: Clip, after: Clip, ending: boolean): void {
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

  private wantsIn(name: string): boolean {
    const state = this.states[name]!;
    if (!this.holds(state.while)) return false;
    if (state.when === undefined) return state.while !== undefined;
    const starts = this.justTrue.has(name) && this.holds(state.when) && (name !== this.state || this.ended);
    return starts || this.pulsesOf(state.when).length > 0;
  }

  rank(name: string): number {
    return this.states[name]!.priority ?? 0;
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
    if (state.final !== true && best !== undefined && this.rank(best) > (state.priority ?? 0))
      return to(best);

    const leg = this.legNow(moment);
    if (leg !== undefined) return { name: leg, uses: this.ownPulses(leg), routed: true };

    for (const [i, hop] of (state.hops ?? []).entries()) {
      if (!this.isAt(hop.at ?? 'now', moment)) continue;
      const on = remembers(hop) ? this.remembered.has(i) : this.isOpen(hop.during) && this.holds(hop.if);
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
    const { when, while: during } = this.definition;
    return this.ended && (when !== undefined || during === undefined);
  }

  private isKept(): boolean {
    const { atLeast = 0 } = this.definition;
    return this.all.now < this.enteredAt + atLeast * 1000;
  }

  private yielded(): string | undefined {
    for (const { to, during, if: condition } of this.definition.yields ?? []) {
      if (!this.isOpen(during) || !this.holds(condition)) continue;
      const one = this.bestIn(to);
      if (one !== undefined) return one;
    }
    return undefined;
  }

  private mayLeave(moment: Moment): boolean {
    const { leaves } = this.definition;
    return leaves === undefined || this.isBridge || this.ended || this.isAt(leaves, moment);
  }

  /** Whether this is the instant that a rule names. */
  private isAt(at: AtDefinition | undefined, moment: Moment): boolean {
    if (at === undefined) return false;
    if (at === 'now') return true;
    if (moment === 'none') return false;
    const border = this.borderAfter(this.from);
    const frameBegins = this.from === (this.clip.ends[this.showing - 1] ?? 0);
    const frameEnds = border === this.clip.ends[this.showing];
    if (at === 'end') return moment === 'ends' && border === this.length && !this.isBridge;
    if (typeof at === 'string')
      return moment === 'begins' && frameBegins && this.clip.cues[this.showing]!.includes(at);
    if ('start' in at)
      return moment === 'begins' && frameBegins && this.clip.spans.get(at.start)?.first === this.frame;
    if ('end' in at)
      return moment === 'ends' && frameEnds && this.clip.spans.get(at.end)?.last === this.frame;
    const phases = at.phases.map((phase) => Math.round(phase * this.length));
    return moment === 'begins' && !this.isBridge && phases.includes(this.from);
  }

  private isOpen(span: string | undefined): boolean {
    if (span === undefined) return true;
    const range = this.clip.spans.get(span);
    return range !== undefined && this.frame >= range.first && this.frame <= range.last;
  }

  /** @returns whether a pulse was used */
  private rememberHops(): boolean {
    const used: string[] = [];
    for (const [i, hop] of (this.definition.hops ?? []).entries()) {
      if (!remembers(hop) || this.remembered.has(i)) continue;
      if (!this.isOpen(hop.during) || !this.holds(hop.if)) continue;
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
    if (again !== rule || this.ended || !this.holds(during)) return false;
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
    const before = { clip: left.clip, frame: left.frame, state: this.state };
    const wasBridge = left.isBridge;
    const { isBridge } = this;
    const ending = left.isEnding;
    const over = left.place >= left.length * parts_;
    [this.place, this.from, this.facing] = [left.place, left.from, left.facing];
    this.tell(`${this.state} > ${name}`);
    this.state = name;
    this.justTrue.delete(name);
    this.underway = routed && name !== this.goal;
    if (!this.underway) this.goal = undefined;
    this.ended = this.queued = false;
    this.remembered.clear();
    this.enteredAt = this.all.now;
    const { facing } = this.definition;
    if (JSON.stringify(facing) !== JSON.stringify(this.states[before.state]!.facing)) this.point();
    if (!this.isHeld) this.face(this.nextDirection());
    const bridges = this.definition.bridges?.[before.state];
    const bridge = isBridge ? undefined : typeof bridges === 'object' ? bridges[before.clip.name] : bridges;
    this.isBridge = bridge !== undefined;
    const after = bridge === undefined ? this.ownClip() : this.all.controller.clips.get(bridge)!;
    const { carry = 'none' } = this.definition;
    const rule: CarryRule = typeof carry === 'string' ? carry : (carry[before.state] ?? 'none');
    const keeps = !over && !wasBridge && !this.isBridge && name !== before.state;
    this.takePlace(before, after, keeps ? rule : 'none', ending);
    const begins = this.place - this.from * parts_ < parts_;
    if (begins) this.tellCues();
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
    // Borders are those of the state that is entered from here on.
    const { ends, order, frames } = after;
    if (carry === 'phase') {
      this.keepPhase(before.clip, after, ending);
      if (this.place >= this.borderAfter(this.from) * parts_) this.from = this.borderAfter(this.from);
    } else {
      const frame = carry === 'none' ? 0 : order.indexOf(Math.min(before.frame, frames.length - 1));
      this.clip = after;
      this.from = ends[frame - 1] ?? 0;
      this.place = this.from * parts_;
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
    const { final, priority = 0, yields = [] } = this.definition;
    const outranks = final !== true && this.rank(name) > priority;
    const open = yields.some(
      ({ to, during, if: condition }) =>
        this.isOpen(during) && this.holds(condition) && (to === undefined || to.includes(name)),
    );
    if (!outranks && (this.isKept() || !(this.state === this.rest || open))) return false;
    return this.put(name);
  }

  route(name: string): boolean {
    if (name === this.state) return true;
    if (this.wayTo(name) === undefined) return false;
    this.goal = name;
    this.all.decideAll(new Map());
    return true;
  }

  /** The first step of the shortest way along hops and `then`: hops in order first, then `then`. */
  private wayTo(goal: string): { to: string; hop: HopDefinition | undefined } | undefined {
    const far = new Map([[goal, 0]]);
    for (let distance = 0; distance < Object.keys(this.states).length; distance++)
      for (const [name, { hops = [], then }] of Object.entries(this.states))
        if (!far.has(name) && [...hops.map(({ to }) => to), then].some((to) => far.get(to!) === distance))
          far.set(name, distance + 1);
    const mine = far.get(this.state);
    if (mine === undefined) return undefined;
    const { hops = [], then } = this.definition;
    const hop = hops.find(({ to }) => far.get(to) === mine - 1);
    return { to: hop?.to ?? then!, hop };
  }

  private legNow(moment: Moment): string | undefined {
    if (this.goal === undefined) return undefined;
    const leg = this.wayTo(this.goal);
    if (leg === undefined || !this.holds(this.states[leg.to]!.while)) return undefined;
    const passEnds = moment === 'ends' && this.borderAfter(this.from) === this.length;
    const at = leg.hop?.at ?? 'now';
    let open = this.ended || this.isAt(at, moment);
    if (leg.hop === undefined) open = this.isOver();
    else if (at === 'now') open = !this.underway || this.ended || (passEnds && !this.isBridge);
    return open ? leg.to : undefined;
  }
}

/** Whether a hop's condition counts within a span and is remembered until its instant. */
function remembers({ during, at = 'now' }: HopDefinition): boolean {
  return during !== undefined && at !== 'now';
}
