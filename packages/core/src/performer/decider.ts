import type { Controller, State } from '../controller/controller.js';
import { Place } from '../controller/numbers.js';
import { Rule } from '../controller/rule.js';
import { Verdict, ruleOf, targetOf, verdictOf } from '../controller/verdict.js';
import { callError } from '../problem/problem.js';
import { pulsesRead } from '../signal/condition.js';
import { Mark, Moment, Player, passing } from './player.js';

/**
 * Which states' `when` has become true at the instant being decided. An instant is decided within one call, so one
 * scratch serves all performers.
 */
let justTrue = new Uint8Array(64);
let anyJustTrue = false;

/** Which hop was found last; read by `enter` right after. One scratch for all, as above. */
let takenHop = -1;

const goalShift = 17;
const switchBits = (1 << goalShift) - 1;

/** The one rule of decision: what shows next, and how it is entered. */
export abstract class Decider extends Player {
  /** A bit for each hop whose condition was true within its span. */
  protected remembered = 0;
  /**
   * By which rule the state was entered (four bits), from which state (plus one, thirteen bits), and the goal of a route
   * (plus one) above.
   */
  protected last: number = Rule.start;
  /** The pulses that were used for it. */
  protected lastUsed = 0;

  protected constructor(controller: Controller) {
    super(controller);
    if (justTrue.length < controller.states.length) justTrue = new Uint8Array(controller.states.length);
  }

  /** The state that a route leads to, -1 for none. */
  protected get goal(): number {
    return (this.last >> goalShift) - 1;
  }

  protected set goal(state: number) {
    this.last = (this.last & switchBits) | ((state + 1) << goalShift);
  }

  protected override get isWatchful(): boolean {
    return this.goal >= 0;
  }

  protected override instant(): void {
    const { numbers } = this;
    this.move();
    const at = numbers[Place.due]!;
    if (numbers[Place.timer]! <= at) this.expirePulses();
    if (anyJustTrue) forgetChanges();
    let fresh = this.commit();
    if ((this.marks & Mark.begun) === 0) {
      this.marks |= Mark.begun;
      this.reportCues();
      fresh = true;
    }
    const { atLeast } = this.current;
    if (atLeast > 0 && numbers[Place.entered]! + atLeast === at) fresh = true;
    const moment = this.crossBorders();
    // Where neither a bit nor the frame has changed, the last decision still stands.
    if (fresh || moment !== Moment.nothing) this.settle(moment);
    if (this.current.gaits.length > 0) this.followGait();
  }

  protected override listen(): void {
    const { numbers } = this;
    if (anyJustTrue) forgetChanges();
    if (this.commit()) {
      const code = this.verdict();
      if (code === Verdict.open) this.settle(Moment.nothing);
      else if (code !== Verdict.stays) this.switchBy(code);
      if (this.current.gaits.length > 0) this.followGait();
    }
    // Unless its place in the clip was touched, what was due is so still.
    if (numbers[Place.marked] === numbers[Place.due]) this.findDue();
    else numbers[Place.due] = Math.min(passing[1]!, numbers[Place.timer]!);
  }

  /** What is decided when nothing but the situation counts; `open` when something else does. */
  private verdict(): number {
    const { situation, timeline, controller } = this;
    if (anyJustTrue || this.goal >= 0 || (this.marks & Mark.ended) !== 0) return Verdict.open;
    situation.decided ??= new Int16Array(controller.timelines);
    const known = situation.decided[timeline.id]!;
    if (known !== Verdict.unknown) return known;
    const code = verdictOf(controller, this.current, situation);
    situation.decided[timeline.id] = code;
    return code;
  }

  /** Enters a state of which {@link verdictOf} has found that nothing else follows from it. */
  private switchBy(code: number): void {
    const before = this.timeline;
    const state = this.controller.states[targetOf(code)]!;
    const rule = ruleOf(code);
    const { toward, numbers } = this;
    this.move();
    this.last = ((before.state + 1) << 4) | rule;
    this.lastUsed = this.remembered = 0;
    this.report(1, before.state, state.index, rule);
    numbers[Place.entered] = numbers[Place.due]!;
    const direction = state.held ? before.direction : toward;
    if (direction !== before.direction) this.report(2, before.direction, direction, 0);
    this.timeline = state.books[0]![direction]!;
    this.takePlace(before, state.carry[before.state]!);
  }

  /**
   * Takes over what was set, and notes which `when` has thereby become true.
   *
   * @returns whether the situation or the direction has changed
   */
  protected commit(): boolean {
    const { watched } = this.controller;
    const before = this.situation;
    this.readSignals();
    const after = this.situation;
    let changed = before !== after;
    if (changed)
      for (let i = 0; i < watched.length; i++) {
        const { state, when } = watched[i]!;
        if (before.holds(when) || !after.holds(when)) continue;
        justTrue[state] = 1;
        anyJustTrue = true;
      }
    const state = this.current;
    const { timeline, toward } = this;
    const direction = state.held ? timeline.direction : toward;
    if (direction !== timeline.direction) this.report(2, timeline.direction, direction, 0);
    if (direction !== timeline.direction) {
      this.changeTimeline(state.books[timeline.book]![direction]!);
      changed = true;
    }
    if (state.rate !== undefined) {
      this.move();
      this.readRate();
    }
    return changed;
  }

  /**
   * Shows the gait that the number picks, if the state has stayed: what is left is left in the gait it showed. Another
   * clip may open hops and yields, so it is decided anew.
   */
  private followGait(): void {
    const state = this.current;
    const { timeline } = this;
    if (state.gaits.length === 0 || timeline.bridge) return;
    const book = this.gait(state);
    if (book === timeline.book) return;
    const { reports } = this.controller;
    const nameOf = (one: number): number => reports.bookIndex(state.bookNames[one]!);
    this.report(3, nameOf(timeline.book), nameOf(book), 0);
    this.changeTimeline(state.books[book]![timeline.direction]!);
    this.settle(Moment.nothing);
  }

  protected override settle(moment: number): boolean {
    const { states } = this.controller;
    let switches = 0;
    for (;;) {
      const code = this.verdict();
      // Postures mostly: what is decided follows from the situation alone, and was decided before.
      if (code === Verdict.stays) return switches > 0;
      let to = code === Verdict.open ? this.decide(moment) : this.by(ruleOf(code), targetOf(code));
      if (to < 0) {
        if (!this.current.hears) return switches > 0;
        if (this.remember() || this.queuePress()) continue;
        to = this.restart();
        if (to < 0) return switches > 0;
      }
      if (++switches > states.length) throw this.cycleError(to);
      moment = this.enter(to) ? Moment.begins : Moment.nothing;
    }
  }

  /** The rule of decision. @returns the state to switch to, or -1 to stay; notes the rule in {@link last} */
  private decide(moment: number): number {
    const { states, rest } = this.controller;
    const { situation } = this;
    const state = this.current;
    const over = state.ends && (this.marks & Mark.ended) !== 0;
    const best = anyJustTrue ? this.best(over) : situation.best;
    // Most decisions: the state that shows is the highest of those that want in, and has no other rule.
    if (best === state.index && state.isPlain && !over && this.goal < 0) return -1;
    if (!state.final && best >= 0 && states[best]!.priority > state.priority) return this.by(Rule.rank, best);

    const leg = this.goal < 0 ? -1 : this.legNow(state, moment, over);
    if (leg >= 0) return this.by(Rule.route, leg);
    const hop = state.hops.length === 0 ? -1 : this.hopNow(state, moment);
    if (hop >= 0) return this.by(Rule.hop, hop);

    if (state.atLeast > 0 && this.isKept(state)) return -1;
    const stands = situation.holds(state.while);
    if (over && stands && (this.marks & Mark.queued) !== 0) return this.by(Rule.again, state.index);
    if (over && state.then >= 0 && situation.holds(states[state.then]!.while))
      return this.by(Rule.then, state.then);
    if (!over && (stands || !this.mayLeave(state, moment))) {
      const yielded = state.index === rest ? best : this.yieldNow(state, over);
      return yielded < 0 || yielded === state.index ? -1 : this.by(Rule.way, yielded);
    }
    if (best >= 0) return this.by(Rule.way, best);
    return state.index === rest ? -1 : this.by(Rule.rest, rest);
  }

  /** Whether a state's `atLeast` is not over. */
  private isKept({ atLeast }: State): boolean {
    return this.numbers[Place.due]! < this.numbers[Place.entered]! + atLeast;
  }

  /** Notes the rule by which a state is entered next, and the one that is left. */
  private by(rule: number, to: number): number {
    this.last = (this.last & ~switchBits) | ((this.timeline.state + 1) << 4) | rule;
    return to;
  }

  /** Whether a state that no longer stands may be left here. At a clip's end it always may, and during a bridge. */
  private mayLeave(state: State, moment: number): boolean {
    const { timeline, showing } = this;
    if (!state.leaves || timeline.bridge || (this.marks & Mark.ended) !== 0) return true;
    if (moment === Moment.begins) return timeline.leavesAt[showing]!;
    return moment === Moment.ends && timeline.leavesAfter[showing]!;
  }

  /** The highest-ranked state that wants in; -1 for none. */
  private best(over: boolean): number {
    const { situation } = this;
    const { watched, places } = this.controller;
    const { best } = situation;
    if (!anyJustTrue) return best;
    const place = best < 0 ? Infinity : places[best]!;
    for (const one of watched) {
      if (one.place >= place) return best;
      if (this.startsNow(one.state, over) && situation.holds(one.while)) return one.state;
    }
    return best;
  }

  /**
   * Whether a state's `when` has just become true. One that is playing does not want in anew: it would hide others for
   * one instant.
   */
  private startsNow(state: number, over: boolean): boolean {
    return anyJustTrue && justTrue[state] !== 0 && (state !== this.timeline.state || over);
  }

  /** The highest-ranked state that wants in of some, or of all; -1 for none. */
  private bestAmong(among: ReadonlySet<number> | undefined, over: boolean): number {
    if (among === undefined) return this.best(over);
    const { order, states } = this.controller;
    for (const index of order) {
      if (!among.has(index)) continue;
      if (this.situation.wantsIn(index)) return index;
      if (this.startsNow(index, over) && this.situation.holds(states[index]!.while)) return index;
    }
    return -1;
  }

  /** The target of the first hop that is taken now; -1 for none. */
  private hopNow(state: State, moment: number): number {
    const { situation, timeline, showing } = this;
    const { states } = this.controller;
    const armed = timeline.armed[showing]!;
    const marked = this.markedHops(moment);
    for (let i = 0; i < state.hops.length; i++) {
      const hop = state.hops[i]!;
      const bit = 1 << i;
      if (!hop.now && (marked & bit) === 0) continue;
      const met = hop.remembers
        ? (this.remembered & bit) !== 0
        : (armed & bit) !== 0 && situation.holds(hop.if);
      if (met && situation.holds(states[hop.to]!.while)) {
        takenHop = i;
        return hop.to;
      }
    }
    return -1;
  }

  /** The hops whose instant is this. */
  private markedHops(moment: number): number {
    const { timeline, showing } = this;
    if (moment === Moment.nothing) return 0;
    return (moment === Moment.begins ? timeline.hopsAt : timeline.hopsAfter)[showing]!;
  }

  /**
   * The next state of a route, if its way there is open now: at the hop's instant, whatever its condition; from a state
   * on the way whose hop has none, at the end of its clip's pass, so that each state is played.
   */
  private legNow(state: State, moment: number, over: boolean): number {
    const { routes, states } = this.controller;
    const leg = routes.leg(state.index, this.goal);
    if (leg === undefined || !this.situation.holds(states[leg.to]!.while)) return -1;
    const { timeline, showing, marks } = this;
    const ended = (marks & Mark.ended) !== 0;
    const passed = ended || (moment === Moment.ends && showing === timeline.ends.length - 1);
    const hop = leg.hop < 0 ? undefined : state.hops[leg.hop]!;
    const open =
      hop === undefined
        ? over
        : hop.now
          ? (marks & Mark.underway) === 0 || (passed && !timeline.bridge)
          : ended || (this.markedHops(moment) & (1 << leg.hop)) !== 0;
    return open ? leg.to : -1;
  }

  private yieldNow({ yields }: State, over: boolean): number {
    if (yields.length === 0) return -1;
    const open = this.timeline.yielding[this.showing]!;
    for (let i = 0; i < yields.length; i++) {
      if ((open & (1 << i)) === 0 || !this.situation.holds(yields[i]!.if)) continue;
      const best = this.bestAmong(yields[i]!.to, over);
      if (best >= 0) return best;
    }
    return -1;
  }

  /** Remembers the hops whose condition is true within their span, and uses its pulses. @returns whether a pulse was */
  private remember(): boolean {
    const { hops } = this.current;
    if (hops.length === 0) return false;
    const { situation } = this;
    const { conditions } = this.controller;
    const armed = this.timeline.armed[this.showing]! & ~this.remembered;
    let used = 0;
    for (let i = 0; i < hops.length; i++) {
      const hop = hops[i]!;
      if (!hop.remembers || (armed & (1 << i)) === 0 || !situation.holds(hop.if)) continue;
      this.remembered |= 1 << i;
      if (hop.if >= 0) used |= pulsesRead(conditions[hop.if]!, situation);
    }
    if (used === 0) return false;
    this.usePulses(used);
    this.commit();
    return true;
  }

  /** Whether the act that plays is pressed anew. */
  private isPressedAgain({ index, kind, again, while: during }: State): boolean {
    if (kind !== 'act' || again === 'ignore' || (this.marks & Mark.ended) !== 0) return false;
    return (
      this.situation.wantsIn(index) || (anyJustTrue && justTrue[index] !== 0 && this.situation.holds(during))
    );
  }

  /** Queues a press of an act that says so. @returns whether a press was used */
  private queuePress(): boolean {
    const state = this.current;
    if (state.again !== 'queue' || !this.isPressedAgain(state)) return false;
    this.marks |= Mark.queued;
    justTrue[state.index] = 0;
    this.usePulses(this.ownPulses(state));
    this.commit();
    return true;
  }

  /** The act itself, if it is to begin anew by a press; -1 if not. */
  private restart(): number {
    const state = this.current;
    if (state.again !== 'restart' || !this.isPressedAgain(state)) return -1;
    return this.by(Rule.again, state.index);
  }

  /** Switches to a state. @returns whether a segment of its clip begins */
  private enter(to: number): boolean {
    const { states, tables } = this.controller;
    const before = this.timeline;
    this.move();
    const state = states[to]!;
    const rule = this.last & 15;
    this.lastUsed = (this.situation.flags & tables.pulseBits) === 0 ? 0 : this.pulsesOf(state, rule);
    this.usePulses(this.lastUsed);
    if (anyJustTrue) this.startNoMore(to);
    this.report(1, before.state, to, rule);
    const again = to === before.state;
    this.marks &= ~(Mark.ended | Mark.queued | Mark.underway);
    if (rule === Rule.route && to !== this.goal) this.marks |= Mark.underway;
    else this.goal = -1;
    this.remembered = 0;
    const at = this.numbers[Place.due]!;
    this.numbers[Place.entered] = at;
    if (state.atLeast > 0)
      this.numbers[Place.timer] = Math.min(this.numbers[Place.timer]!, at + state.atLeast);
    const direction = state.held ? before.direction : this.toward;
    if (direction !== before.direction) this.report(2, before.direction, direction, 0);
    const bridge = state.bridges[before.state]?.[before.book];
    this.timeline = state.books[bridge ?? this.gait(state)]![direction]!;
    const begins = this.takePlace(before, again ? 'none' : state.carry[before.state]!);
    // Its tags, the pulses that were used and the numbers it reads may change what holds.
    const changes = (this.setFlags | state.tagBits) !== this.situation.flags || state.reads.length > 0;
    if (changes) this.commit();
    return begins;
  }

  /** What has just become true for a state that is entered has had its effect. */
  private startNoMore(state: number): void {
    justTrue[state] = 0;
    const { watched } = this.controller;
    anyJustTrue = false;
    for (let i = 0; i < watched.length; i++) if (justTrue[watched[i]!.state] !== 0) anyJustTrue = true;
  }

  /** The pulses that entering a state uses: those of the hop's own condition, else of the state's. */
  private pulsesOf(state: State, rule: number): number {
    if (rule !== Rule.hop) return this.ownPulses(state);
    const hop = this.current.hops[takenHop]!;
    if (hop.remembers) return 0;
    if (hop.if < 0) return this.ownPulses(state);
    return pulsesRead(this.controller.conditions[hop.if]!, this.situation);
  }

  private ownPulses(state: State): number {
    return this.pulsesIn(state.when) | this.pulsesIn(state.while);
  }

  private pulsesIn(condition: number): number {
    return condition < 0 ? 0 : pulsesRead(this.controller.conditions[condition]!, this.situation);
  }

  /** Puts a state there by a request, at the present instant. */
  protected request(to: number, rule: number): void {
    this.by(rule, to);
    const begins = this.enter(to);
    this.settle(begins ? Moment.begins : Moment.nothing);
  }

  /** Whether the rules would let a state in that is asked for now. */
  protected grants(to: number): boolean {
    const state = this.current;
    const asked = this.controller.states[to]!;
    if (!this.situation.holds(asked.while)) return false;
    if (!state.final && asked.priority > state.priority) return true;
    if (state.atLeast > 0 && this.isKept(state)) return false;
    if (state.index === this.controller.rest) return true;
    const open = this.timeline.yielding[this.showing]!;
    return state.yields.some(
      (one, i) =>
        (open & (1 << i)) !== 0 && this.situation.holds(one.if) && (one.to === undefined || one.to.has(to)),
    );
  }

  private cycleError(to: number): Error {
    const { states, reports } = this.controller;
    const names: string[] = [];
    for (let i = 0; i < this.happened; i++) if (reports.kind(i) === 'switch') names.push(reports.name(i));
    const end = states[to]!.name;
    const begin = names.lastIndexOf(end);
    return callError('switch-cycle', { states: [...names.slice(Math.max(0, begin)), end] });
  }
}

function forgetChanges(): void {
  for (let i = 0; i < justTrue.length; i++) justTrue[i] = 0;
  anyJustTrue = false;
}
