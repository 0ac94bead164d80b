import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { needsPulse } from '../signal/condition.js';
import type { Condition, Term } from '../signal/condition.js';
import type { SignalValue } from '../signal/definition.js';
import { wantsOf } from './questions.js';
import { Solver, all, always, literal, not } from './solver.js';

/** A row of the table of who takes over. Read it from the top: the first row that fits a situation says which state takes over. */
export interface Winner {
  readonly state: string;
  /** Its priority; of a state in groups, which are named from the outermost, among the states of the last of them. */
  readonly rank: number | 'rest';
  readonly groups: readonly string[];
  /** The terms that must be true or false. A term that is not named does not matter. Empty for the rest of the track. */
  readonly terms: readonly { readonly text: string; readonly on: boolean }[];
  /** Whether it takes over only at the moment at which this becomes true. */
  readonly once: boolean;
  /** The states of lower or equal rank that may want in at the same time, and lose. */
  readonly over: readonly string[];
  /** Values that bring the situation about, in words. Empty if none were found in time. */
  readonly example: string;
  /** The same values as data. Flags and numbers that do not matter are left out. */
  readonly set: Readonly<Record<string, SignalValue>>;
}

/** What must be on and what off, each term once. */
type Cube = ReadonlyMap<Term, boolean>;

/** Conditions with more alternatives than this stand in the table as they were written together. */
const mostCubes = 48;

const conditionOf = (cube: Cube): Condition => all([...cube].map(([term, on]) => literal(term, on)));

/** The alternatives of a condition; `undefined` when there are too many. */
function cubesOf(condition: Condition, wanted = true): Cube[] | undefined {
  switch (condition.op) {
    case 'constant':
      return condition.value === wanted ? [new Map()] : [];
    case 'term':
      return [new Map([[condition.term, wanted]])];
    case 'not':
      return cubesOf(condition.part, !wanted);
    default: {
      const left = cubesOf(condition.left, wanted);
      const right = cubesOf(condition.right, wanted);
      if (left === undefined || right === undefined) return undefined;
      const joins = (condition.op === 'and') === wanted;
      const cubes = joins
        ? left.flatMap((one) => right.flatMap((other) => joined(one, other) ?? []))
        : [...left, ...right];
      return cubes.length > mostCubes ? undefined : withoutRepeats(cubes);
    }
  }
}

/** Both together; `undefined` when they want a term on and off. */
function joined(one: Cube, other: Cube): Cube | undefined {
  const both = new Map(one);
  for (const [term, on] of other) {
    if (both.get(term) === !on) return undefined;
    both.set(term, on);
  }
  return both;
}

const covers = (wide: Cube, narrow: Cube): boolean =>
  [...wide].every(([term, on]) => narrow.get(term) === on);

/** Without alternatives that another one covers. */
function withoutRepeats(cubes: readonly Cube[]): Cube[] {
  return cubes.filter(
    (one, i) => !cubes.some((other, j) => i !== j && covers(other, one) && !(covers(one, other) && i < j)),
  );
}

/**
 * Lists which state takes over in which situation, from the highest rank down. A row leaves out terms that follow from the rows above it or
 * from `question`.
 *
 * @param question what is known of the situation; default: nothing (see `questions` of {@link CompileOptions})
 * @param track the track whose states are listed; default: that of the document's own states
 */
export function whoWins(controller: Controller, question: Condition = always, track = 0): Winner[] {
  const { states, conditions } = controller;
  const { order, rest } = controller.tracks[track]!;
  const wide = new Solver(controller, true);
  const seen = new Solver(controller, false);
  const ranked = order
    .map((index) => states[index]!)
    .filter(({ kind }) => kind !== 'bare')
    .map((state) => ({ state, wants: wantsOf(controller, state) }));
  const rows: Winner[] = [];
  let open = question;
  ranked.forEach(({ state, wants }, place) => {
    if (!wide.can(all([open, wants]))) return;
    // What starts on a change is there for that moment only: it leaves open what shows while it stays true.
    const once = state.when >= 0 && !needsPulse(conditions[state.when]!);
    const written = cubesOf(wants);
    const possible = (written ?? []).filter((cube) => wide.can(all([open, conditionOf(cube)])));
    const folded = once ? possible : withoutRepeats(possible.map((cube) => fold(wide, cube, open)));
    let left = open;
    for (const cube of written === undefined ? [asWritten(controller, state)] : folded) {
      // A condition that was too long to be taken apart is asked for as it is.
      const own = written === undefined ? wants : conditionOf(cube);
      const asked = all([left, own]);
      if (!wide.can(asked)) continue;
      const over = ranked.slice(place + 1).filter((one) => wide.can(all([asked, one.wants])));
      const terms = once || written === undefined ? cube : fold(wide, cube, left);
      rows.push({
        ...row(seen, state, terms, asked, all([question, own])),
        over: over.map((one) => one.state.name),
        once,
      });
      // Later alternatives need not say what the earlier ones have covered.
      left = all([left, not(own)]);
    }
    if (!once) open = all([open, not(wants)]);
  });
  if (wide.can(open))
    rows.push({ ...row(seen, states[rest]!, new Map(), open, question), over: [], once: false });
  return rows;
}

/** Stands for a condition that has too many alternatives. */
function asWritten({ conditionTexts }: Controller, state: State): Cube {
  const texts = [state.while, state.when]
    .filter((index) => index >= 0)
    .map((index) => conditionTexts[index]!);
  const text = texts.length === 1 ? texts[0]! : texts.map((one) => `(${one})`).join(' && ');
  return new Map([[{ index: -1, text, kind: 'flag', word: 0, bit: 0, reads: [] }, true]]);
}

/** Leaves out what follows from the rest of it where the rows above do not fit. */
function fold(wide: Solver, cube: Cube, above: Condition): Cube {
  const kept = new Map(cube);
  for (const [term, on] of cube) {
    kept.delete(term);
    if (wide.can(all([above, conditionOf(kept), literal(term, !on)]))) kept.set(term, on);
  }
  return new Map([...cube].filter(([term]) => kept.has(term)));
}

/** @param about what its example speaks of besides numbers */
function row(
  seen: Solver,
  { name, priority, groups, isGroupRest }: State,
  cube: Cube,
  asked: Condition,
  about: Condition,
): Omit<Winner, 'over' | 'once'> {
  const found = seen.find(asked);
  const isFound = typeof found === 'object';
  return {
    state: name,
    rank: isGroupRest ? 'rest' : priority,
    groups: groups.map((group) => group.name),
    terms: [...cube].map(([{ text }, on]) => ({ text, on })),
    example: isFound ? seen.words(found, about) : '',
    set: isFound ? seen.signals(found) : {},
  };
}
