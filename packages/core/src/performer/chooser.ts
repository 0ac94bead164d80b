import type { Names } from '../controller/names.js';
import type { Controller, State } from '../controller/controller.js';
import { Place } from '../controller/numbers.js';
import { Rule } from '../controller/rule.js';
import type { Situation } from '../controller/situations.js';
import { Mark, Moment, Player } from './player.js';

/**
 * Which states' `when` has become true at the instant being decided, which hop was found last, and whether a track still
 * sees a pulse that another has used. An instant is decided within one call, so one scratch serves all performers.
 */
export const fresh = { starts: new Uint8Array(64), any: false, hop: -1, sees: false };

const goalShift = 17;
const switchBits = (1 << goalShift) - 1;

/** Whether what a performer keeps of its last switch says that it is on a route. */
export const isRouted = (last: number): boolean => last >> goalShift !== 0;

/** What the one rule of decision gives: which state shows next, by which rule. It changes nothing. */
export abstract class Chooser<N extends Names = Names> extends Player<N> {
  /** A bit for each hop whose condition was true within its span. */
  protected remembered = 0;
  /**
   * By which rule the state was entered (four bits), from which state (plus one, thirteen bits), and the goal of a route
   * (plus one) above.
   */
  protected last: number = Rule.start;
  /** The pulses that were used for it. */
  protected lastUsed = 0;

  protected constructor(controller: Controller<N>) {
    super(controller);
    if (fresh.starts.length < controller.states.length)
      fresh.starts = new Uint8Array(controller.states.length);
  }

  /** The state that a route leads to, -1 for none. */
  protected get goal(): number {
    return (this.last >> goalShift) - 1;
  }

  protected set goal(state: number) {
    this.last = (this.last & switchBits) | ((state + 1) << goalShift);
  }

  protected override get isOnRoute(): boolean {
    return isRouted(this.last);
  }

  /**
   * What is decided now: the state to switch to, or -1 to stay; notes the rule in {@link last}. Where it follows from
   * the state and the situation alone it is kept in the situation, and found there the next time.
   */
  protected choose(moment: number): number {
    const { current } = this;
    const situation = this.view;
    const open = !current.isStatic || fresh.any || this.goal >= 0 || (this.marks & Mark.ended) !== 0;
    if (open) return this.decide(moment);
    situation.decided ??= new Int32Array(this.controller.states.length);
    const known = situation.decided[current.index]!;
    if (known !== 0) return known < 0 ? -1 : this.by(known & 15, (known >> 4) - 1);
    const to = this.decide(moment);
    situation.decided[current.index] = to < 0 ? -1 : ((to + 1) << 4) | (this.last & 15);
    return to;
  }

  /**
   * The situation as the state that shows sees it. It is the one that signals amount to, but for pulses that another track
   * has just used.
   */
  protected get view(): Situation {
    return fresh.sees ? this.seen() : this.situation;
  }

  protected abstract seen(): Situation;

  /** The rule of decision. */
  private decide(moment: number): number {
    const { states } = this.controller;
    const situation = this.view;
    const state = this.current;
    const { rest } = state;
    const over = state.ends && (this.marks & Mark.ended) !== 0;
    const best = this.best(over);
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
    return this.numbers[this.base + Place.due]! < this.numbers[this.base + Place.entered]! + atLeast;
  }

  /** Notes the rule by which a state is entered next, and the one that is left. */
  protected by(rule: number, to: number): number {
    this.last = (this.last & ~switchBits) | ((this.timeline.state + 1) << 4) | rule;
    return to;
  }

  /** Whether a state that no longer stands may be left here. At a clip's end it always may, and during a bridge. */
  private mayLeave(state: State, moment: number): boolean {
    const { timeline, segment } = this;
    if (!state.leaves || timeline.bridge || (this.marks & Mark.ended) !== 0) return true;
    if (moment === Moment.begins) return timeline.leavesAt[segment]!;
    return moment === Moment.ends && timeline.leavesAfter[segment]!;
  }

  /** The highest-ranked state that wants in; -1 for none. */
  private best(over: boolean): number {
    const { track } = this.current;
    const best = this.view.bestOf(track);
    if (!fresh.any) return best;
    const { tracks, places } = this.controller;
    const place = best < 0 ? Infinity : places[best]!;
    for (const one of tracks[track]!.watched) {
      if (one.place >= place) return best;
      if (this.startsNow(one.state, over)) return one.state;
    }
    return best;
  }

  /**
   * Whether a state wants in because its `when` has just become true, and still is: what another switch of the same instant
   * has made false again starts nothing. One that is playing does not want in anew: it would hide others for one instant.
   */
  private startsNow(state: number, over: boolean): boolean {
    return (state !== this.timeline.state || over) && this.hasStarted(state);
  }

  protected hasStarted(state: number): boolean {
    if (!fresh.any || fresh.starts[state] === 0) return false;
    const { when, while: during } = this.controller.states[state]!;
    return this.view.holds(when) && this.view.holds(during);
  }

  /** The highest-ranked state that wants in of some, or of all; -1 for none. */
  private bestAmong(among: ReadonlySet<number> | undefined, over: boolean): number {
    if (among === undefined) return this.best(over);
    const { tracks } = this.controller;
    const situation = this.view;
    for (const index of tracks[this.current.track]!.order) {
      if (!among.has(index)) continue;
      if (situation.wantsIn(index) || this.startsNow(index, over)) return index;
    }
    return -1;
  }

  /** The target of the first hop that is taken now; -1 for none. */
  private hopNow(state: State, moment: number): number {
    const { timeline, segment } = this;
    const situation = this.view;
    const { states } = this.controller;
    const armed = timeline.armed[segment]!;
    const marked = this.markedHops(moment);
    for (let i = 0; i < state.hops.length; i++) {
      const hop = state.hops[i]!;
      const bit = 1 << i;
      if (!hop.now && (marked & bit) === 0) continue;
      const met = hop.remembers
        ? (this.remembered & bit) !== 0
        : (armed & bit) !== 0 && situation.holds(hop.if);
      if (met && situation.holds(states[hop.to]!.while)) {
        fresh.hop = i;
        return hop.to;
      }
    }
    return -1;
  }

  /** The hops whose instant is this. */
  protected markedHops(moment: number): number {
    const { timeline, segment } = this;
    if (moment === Moment.nothing) return 0;
    return (moment === Moment.begins ? timeline.hopsAt : timeline.hopsAfter)[segment]!;
  }

  /**
   * The next state of a route, if its way there is open now: at the hop's instant, whatever its condition; from a state
   * on the way whose hop has none, at the end of its clip's pass, so that each state is played.
   */
  private legNow(state: State, moment: number, over: boolean): number {
    const { routes, states } = this.controller;
    const leg = routes.leg(state.index, this.goal);
    if (leg === undefined || !this.view.holds(states[leg.to]!.while)) return -1;
    const { timeline, segment, marks } = this;
    const ended = (marks & Mark.ended) !== 0;
    const passed = ended || (moment === Moment.ends && segment === timeline.ends.length - 1);
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
    const open = this.timeline.yielding[this.segment]!;
    const situation = this.view;
    for (let i = 0; i < yields.length; i++) {
      if ((open & (1 << i)) === 0 || !situation.holds(yields[i]!.if)) continue;
      const best = this.bestAmong(yields[i]!.to, over);
      if (best >= 0) return best;
    }
    return -1;
  }

  /** Whether the rules would let a state in that is asked for now. */
  protected grants(to: number): boolean {
    const state = this.current;
    const asked = this.controller.states[to]!;
    if (!this.situation.holds(asked.while)) return false;
    if (!state.final && asked.priority > state.priority) return true;
    if (state.atLeast > 0 && this.isKept(state)) return false;
    if (state.index === state.rest) return true;
    const open = this.timeline.yielding[this.segment]!;
    return state.yields.some(
      (one, i) =>
        (open & (1 << i)) !== 0 && this.situation.holds(one.if) && (one.to === undefined || one.to.has(to)),
    );
  }
}
