import type { State } from './state.js';

/** One step of a route: the state it leads to, and the hop that does, or -1 for `then`. */
export interface RouteStep {
  readonly to: number;
  readonly hop: number;
}

/** The shortest ways along hops and `then`, found when they are first asked for. */
export class Routes {
  /** For each state that was asked for: the first step from every state that leads there. */
  private readonly known = new Map<number, readonly (RouteStep | undefined)[]>();

  constructor(private readonly states: readonly State[]) {}

  /**
   * The first step of the shortest way; `undefined` if there is no way. Of two ways of equal length, the first one in the document counts.
   */
  step(from: number, to: number): RouteStep | undefined {
    let steps = this.known.get(to);
    if (steps === undefined) {
      steps = this.search(to);
      this.known.set(to, steps);
    }
    return steps[from];
  }

  /** A breadth-first search, backwards from the goal. */
  private search(goal: number): (RouteStep | undefined)[] {
    const steps = new Array<RouteStep | undefined>(this.states.length).fill(undefined);
    let reached = new Set([goal]);
    const found = new Set(reached);
    while (reached.size > 0) {
      const next = new Set<number>();
      for (const { index, hops, then } of this.states) {
        if (found.has(index)) continue;
        const hop = hops.findIndex(({ to }) => reached.has(to));
        if (hop >= 0) steps[index] = { to: hops[hop]!.to, hop };
        else if (reached.has(then)) steps[index] = { to: then, hop: -1 };
        else continue;
        next.add(index);
      }
      for (const index of next) found.add(index);
      reached = next;
    }
    return steps;
  }
}
