import type { Names } from '../controller/names.js';
import { apart, neighbourTowards } from '../compass/compass.js';
import type { State } from '../controller/controller.js';
import { Place } from '../controller/numbers.js';
import { Rule } from '../controller/rule.js';
import { mostWatchedBits } from '../controller/situations.js';
import type { Situation } from '../controller/situations.js';
import { Units } from '../controller/timeline.js';
import type { Timeline } from '../controller/timeline.js';
import { callError } from '../problem/problem.js';
import { pulsesRead } from '../signal/condition.js';
import { Chooser, fresh } from './chooser.js';
import { Each } from './reader.js';
import { Mark, Moment, passing } from './player.js';

/** What a performer does at an instant: what was set counts, states are entered until nothing switches any more. */
export abstract class Decider<N extends Names = Names> extends Chooser<N> {
  protected override instant(): void {
    if (this.controller.furtherTracks > 0) {
      this.instantOfAll();
      return;
    }
    const { numbers, base } = this;
    this.move();
    const at = numbers[base + Place.due]!;
    if (numbers[base + Place.timer]! <= at) this.expirePulses();
    if (fresh.any) forgetChanges();
    let changed = this.commit();
    if ((this.marks & Mark.begun) === 0) {
      this.marks |= Mark.begun;
      this.reportCues();
      changed = true;
    }
    const { atLeast } = this.current;
    if (atLeast > 0 && numbers[base + Place.entered]! + atLeast === at) changed = true;
    const moment = this.crossBorders();
    // Where neither a bit nor the frame has changed, the last decision still stands.
    if (changed || moment !== Moment.nothing) this.settle(moment);
    if (this.current.gaits.length > 0) this.followGait();
  }

  protected abstract instantOfAll(): void;

  protected override listen(): void {
    if (this.controller.furtherTracks > 0) {
      this.instantOfAll();
      this.findDue();
      return;
    }
    const { numbers, base } = this;
    if (fresh.any) forgetChanges();
    if (this.commit()) {
      this.settle(Moment.nothing);
      if (this.current.gaits.length > 0) this.followGait();
    }
    // Unless its place in the clip was touched, what was due is so still.
    if (numbers[base + Place.marked] === numbers[base + Place.due]) this.findDue();
    else numbers[base + Place.due] = Math.min(passing[1]!, numbers[base + Place.timer]!);
  }

  /**
   * Takes over what was set, and notes which `when` has thereby become true.
   *
   * @returns whether the situation or the direction has changed
   */
  protected commit(): boolean {
    const { controller, situation: before } = this;
    this.readSignals();
    const after = this.situation;
    const changed = before !== after;
    const mayStart = (after.watched & ~before.watched) !== 0 || controller.watched.length > mostWatchedBits;
    if (changed && mayStart) this.noteStarts(before, after);
    return (controller.furtherTracks === 0 ? this.heed() : this.inEach(Each.heed)) || changed;
  }

  private noteStarts(before: Situation, after: Situation): void {
    for (const { state, when } of this.controller.watched) {
      if (before.holds(when) || !after.holds(when)) continue;
      fresh.starts[state] = 1;
      fresh.any = true;
    }
  }

  /** Turns the state that shows, and has its rate follow, for signals as they are now. @returns whether it turned */
  protected heed(): boolean {
    const state = this.current;
    const { timeline, toward } = this;
    if (this.controller.turnTimer >= 0) this.endTurn();
    const turned = !state.held && toward !== timeline.direction && this.turn(state);
    if (state.rate !== undefined) {
      this.move();
      this.readRate();
    }
    return turned;
  }

  /** The timer of the time that turning takes. */
  private get turnTimer(): number {
    return this.controller.turnTimer + this.current.track;
  }

  /** A direction has been shown long enough: the next may follow. */
  private endTurn(): void {
    const { numbers, base } = this;
    const timer = base + this.timerAt(this.turnTimer);
    if (numbers[timer]! <= numbers[base + Place.due]!) numbers[timer] = Infinity;
  }

  /**
   * The direction to show now in a state: where the compass points, or a step on the way there where turning takes its time.
   * A turn that the state has a clip for needs no steps.
   */
  private directionNow(state: State): number {
    const { toward, numbers, base } = this;
    const { compass } = this.controller;
    const { direction } = this.timeline;
    if (this.controller.turnTimer < 0 || toward === direction || this.isWide(state)) return toward;
    if (numbers[base + this.timerAt(this.turnTimer)] !== Infinity) return direction;
    this.setTimer(this.turnTimer, compass.through);
    return neighbourTowards(compass, direction, toward);
  }

  /** Whether the compass points so far off that a state has a clip for the turn. */
  private isWide({ turns }: State): boolean {
    const { degrees } = this.controller.compass;
    return (
      turns !== undefined && apart(degrees[this.timeline.direction]!, degrees[this.toward]!) >= turns.least
    );
  }

  /** Turns in the state that shows. @returns whether it did */
  private turn(state: State): boolean {
    const { timeline, toward } = this;
    if (!timeline.bridge && this.isWide(state)) {
      this.report(2, timeline.direction, toward, 0);
      this.move();
      this.marks &= ~Mark.ended;
      this.timeline = state.books[state.turns!.book]![toward]!;
      this.takePlace(timeline, 'none');
      return true;
    }
    const direction = this.directionNow(state);
    if (direction === timeline.direction) return false;
    this.report(2, timeline.direction, direction, 0);
    this.changeTimeline(state.books[timeline.book]![direction]!);
    return true;
  }

  /**
   * Shows the gait that the number picks, if the state has stayed: what is left is left in the gait it showed. Another
   * clip may open hops and yields, so it is decided anew.
   */
  private followGait(): void {
    // What has ended goes on at once in a clip that loops, also while its rate is 0.
    if (this.changeGait()) this.settle(this.crossBorders());
  }

  /** @returns whether another gait shows than before */
  protected changeGait(): boolean {
    const state = this.current;
    const { timeline } = this;
    if (timeline.bridge || state.gaits.length === 0) return false;
    const book = this.gait(state);
    if (book === timeline.book) return false;
    const names = this.controller.reportNames;
    const before = names.bookIndex(state.bookNames[timeline.book]!);
    this.report(3, before, names.bookIndex(state.bookNames[book]!), 0);
    this.changeTimeline(state.books[book]![timeline.direction]!);
    return true;
  }

  protected override settle(moment: number): boolean {
    const { states } = this.controller;
    let switches = 0;
    for (;;) {
      let to = this.choose(moment);
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

  /** Remembers the hops whose condition is true within their span, and uses its pulses. @returns whether a pulse was */
  protected remember(): boolean {
    const { hops } = this.current;
    if (hops.length === 0) return false;
    const situation = this.view;
    const { conditions } = this.controller;
    const armed = this.timeline.armed[this.segment]! & ~this.remembered;
    let used = 0;
    for (let i = 0; i < hops.length; i++) {
      const hop = hops[i]!;
      if (!hop.remembers || (armed & (1 << i)) === 0 || !situation.holds(hop.if)) continue;
      this.remembered |= 1 << i;
      if (hop.if >= 0) used |= pulsesRead(conditions[hop.if]!, situation);
    }
    if (used === 0) return false;
    this.use(used);
    this.commit();
    return true;
  }

  /** Whether the act that plays is pressed anew. */
  private isPressedAgain({ index, kind, again }: State): boolean {
    if (kind !== 'act' || again === 'ignore' || (this.marks & Mark.ended) !== 0) return false;
    return this.view.wantsIn(index) || this.hasStarted(index);
  }

  /** Queues a press of an act that says so. @returns whether a press was used */
  protected queuePress(): boolean {
    const state = this.current;
    if (state.again !== 'queue' || !this.isPressedAgain(state)) return false;
    this.marks |= Mark.queued;
    fresh.starts[state.index] = 0;
    this.use(this.ownPulses(state));
    this.commit();
    return true;
  }

  /** The act itself, if it is to begin anew by a press; -1 if not. */
  protected restart(): number {
    const state = this.current;
    if (state.again !== 'restart' || !this.isPressedAgain(state)) return -1;
    return this.by(Rule.again, state.index);
  }

  /** Switches to a state. @returns whether a segment of its clip begins */
  protected enter(to: number): boolean {
    const { states, tables, furtherTracks } = this.controller;
    const { direction: faced, state: from } = this.timeline;
    const state = states[to]!;
    const isPlain =
      furtherTracks === 0 && state.beginsPlainly && states[from]!.leavesPlainly && this.toward === faced;
    const carry = to === from ? 'none' : (state.carry[from] ?? state.carryElse);
    const isKept = to === from || carry !== 'none' || state.bridges[from] !== undefined;
    const hasPulse = (this.situation.flags & tables.pulseBits) !== 0;
    if (isPlain && !isKept && !hasPulse && !fresh.any && this.goal < 0) {
      this.beginPlainly(state.books[0]![faced]!);
      return true;
    }
    this.move();
    const left = this.leave();
    // What was in step with another track faces as that one does.
    const before = this.timeline;
    const rule = this.last & 15;
    this.lastUsed = (this.view.flags & tables.pulseBits) === 0 ? 0 : this.pulsesOf(state, rule);
    this.use(this.lastUsed);
    if (fresh.any) this.startNoMore(to);
    this.report(1, from, to, rule);
    this.marks &= ~(Mark.ended | Mark.queued | Mark.underway);
    if (rule === Rule.route && to !== this.goal) this.marks |= Mark.underway;
    else this.goal = -1;
    this.remembered = 0;
    const at = this.numbers[this.base + Place.due]!;
    this.numbers[this.base + Place.entered] = at;
    if (state.atLeast > 0)
      this.numbers[this.base + Place.timer] = Math.min(
        this.numbers[this.base + Place.timer]!,
        at + state.atLeast,
      );
    if (state.facesBy !== states[from]!.facesBy) this.readCompass(state);
    const direction = state.held ? before.direction : this.directionNow(state);
    if (direction !== before.direction) this.report(2, before.direction, direction, 0);
    const bridge = state.bridges[from]?.[before.book];
    this.timeline = state.books[bridge ?? this.gait(state)]![direction]!;
    const begins = this.takePlace(left, carry);
    // Its tags, the pulses that were used and the numbers it reads may change what holds.
    const changes = (this.setFlags | this.shownBits()) !== this.situation.flags || state.reads.length > 0;
    if (changes) this.commit();
    return begins;
  }

  /** Enters a state where that is no more than beginning its clip: the short way of most switches. */
  private beginPlainly(timeline: Timeline): void {
    const { numbers, base } = this;
    this.report(1, this.timeline.state, timeline.state, this.last & 15);
    this.marks &= ~(Mark.ended | Mark.queued | Mark.underway);
    this.remembered = this.lastUsed = this.segment = 0;
    this.rate = Units.perMicrosecond;
    this.timeline = timeline;
    const at = numbers[base + Place.due]!;
    numbers[base + Place.marked] = numbers[base + Place.entered] = at;
    numbers[base + Place.position] = 0;
    if (timeline.cues[0]!.length > 0) this.reportCues();
  }

  /** The timeline whose place is kept where a state says so: the one that is left. */
  protected leave(): Timeline {
    return this.timeline;
  }

  private use(pulses: number): void {
    if (this.controller.furtherTracks > 0) this.sharePulses(pulses);
    this.usePulses(pulses);
  }

  /** What has just become true for a state that is entered has had its effect. */
  private startNoMore(state: number): void {
    fresh.starts[state] = 0;
    const { watched } = this.controller;
    fresh.any = false;
    for (const one of watched) if (fresh.starts[one.state] !== 0) fresh.any = true;
  }

  /** The pulses that entering a state uses: those of the hop's own condition, else of the state's. */
  private pulsesOf(state: State, rule: number): number {
    if (rule !== Rule.hop) return this.ownPulses(state);
    const hop = this.current.hops[fresh.hop]!;
    if (hop.remembers) return 0;
    if (hop.if < 0) return this.ownPulses(state);
    return pulsesRead(this.controller.conditions[hop.if]!, this.view);
  }

  private ownPulses(state: State): number {
    return this.pulsesIn(state.when) | this.pulsesIn(state.while);
  }

  private pulsesIn(condition: number): number {
    return condition < 0 ? 0 : pulsesRead(this.controller.conditions[condition]!, this.view);
  }

  /** Puts a state there by a request, at the present instant. */
  protected request(to: number, rule: number): void {
    this.by(rule, to);
    const begins = this.enter(to);
    this.settleNow(begins ? Moment.begins : Moment.nothing);
  }

  /** Decides after a request, at the present instant. */
  protected settleNow(moment: number): void {
    if (this.controller.furtherTracks === 0) this.settle(moment);
    else this.settleTogether(moment);
  }

  /** Decides in all tracks; of the one that is in the fields something of the clip happens. */
  protected abstract settleTogether(moment: number): void;

  /** Has the other tracks see pulses yet that this one uses. */
  protected abstract sharePulses(used: number): void;

  protected cycleError(to: number): Error {
    const { states } = this.controller;
    const names = [...this.ownReports].flatMap(({ kind, name }) => (kind === 'switch' ? [name] : []));
    const end = states[to]!.name;
    const begin = names.lastIndexOf(end);
    return callError('switch-cycle', { states: [...names.slice(Math.max(0, begin)), end] });
  }
}

export function forgetChanges(): void {
  fresh.starts.fill(0);
  fresh.any = false;
}
