import type { Controller } from '../controller/controller.js';
import { DotHopError } from '../problem/problem.js';
import type { SignalValue } from '../signal/definition.js';
import type { ScriptLine } from './definition.js';
import { runRehearsal } from './run.js';
import type { RehearsalScript } from './definition.js';
import type { TraceEntry } from './trace.js';

/** The numbers of decimal places that are tried in rounding, the fewest first. */
const places = [0, 1, 2, 3];
/** How far an instant may move, in milliseconds: a picture of a usual display. */
const near = 17;

/**
 * Rounds the numbers of a rehearsal as far as the result stays the same: the same switches, turns and cues in the same order, each at most
 * one picture earlier or later. It leaves out values that are set again without a change.
 */
export function shortened(controller: Controller, rehearsal: RehearsalScript): RehearsalScript {
  const exact = toldBy(controller, rehearsal);
  for (const digits of places) {
    const rounded = {
      ...rehearsal,
      script: withoutRepeats(rehearsal.script.map((line) => roundedLine(line, digits))),
    };
    if (tellsAlike(controller, rounded, exact)) return rounded;
  }
  return rehearsal;
}

const toldBy = (controller: Controller, rehearsal: RehearsalScript): TraceEntry[] =>
  runRehearsal(controller, rehearsal).trace.filter(({ kind }) =>
    ['switch', 'turn', 'flipbook', 'cue'].includes(kind),
  );

/** Whether a rehearsal does the same. One that cannot be run, because a rounded number leads states round in a circle, does not. */
function tellsAlike(
  controller: Controller,
  rehearsal: RehearsalScript,
  exact: readonly TraceEntry[],
): boolean {
  try {
    return areAlike(exact, toldBy(controller, rehearsal));
  } catch (error) {
    if (error instanceof DotHopError) return false;
    throw error;
  }
}

const areAlike = (one: readonly TraceEntry[], other: readonly TraceEntry[]): boolean =>
  one.length === other.length &&
  one.every(({ kind, name, at }, i) => {
    const beside = other[i]!;
    return kind === beside.kind && name === beside.name && Math.abs(at - beside.at) <= near;
  });

function roundedLine(line: ScriptLine, digits: number): ScriptLine {
  if (line.set === undefined) return line;
  const round = (value: number): number => Number(value.toFixed(digits)) + 0;
  return {
    ...line,
    set: Object.fromEntries(
      Object.entries(line.set).map(([name, value]): [string, SignalValue] => [
        name,
        typeof value === 'number'
          ? round(value)
          : typeof value === 'object'
            ? [round(value[0]), round(value[1])]
            : value,
      ]),
    ),
  };
}

function withoutRepeats(script: readonly ScriptLine[]): ScriptLine[] {
  const latest = new Map<string, string>();
  return script.flatMap((line) => {
    if (line.set === undefined) return [line];
    const changed = Object.entries(line.set).filter(([name, value]) => latest.get(name) !== String(value));
    for (const [name, value] of changed) latest.set(name, String(value));
    if (changed.length > 0) return [{ ...line, set: Object.fromEntries(changed) }];
    const rest = Object.fromEntries(Object.entries(line).filter(([field]) => field !== 'set'));
    return Object.keys(rest).some((field) => field !== 'at') ? [rest] : [];
  });
}
