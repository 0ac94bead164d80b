import { buildClip } from '../clip/clip.js';
import type { Clip } from '../clip/clip.js';
import { buildCompass, nearestDirection, noCompass } from '../compass/compass.js';
import type { Compass } from '../compass/compass.js';
import { ProblemList, callError } from '../problem/problem.js';
import { PoseBook } from '../sheet/pose.js';
import { cutSheet } from '../sheet/sheet.js';
import type { ImageSize, Sheet } from '../sheet/sheet.js';
import { SignalCompiler } from '../signal/compiler.js';
import { needsPulse } from '../signal/condition.js';
import type { Condition } from '../signal/condition.js';
import type { Signal } from '../signal/definition.js';
import type { SignalTables } from '../signal/tables.js';
import { compileStates, tagsOf } from './states.js';
import type { Controller, State, Turning, Watched } from './controller.js';
import { Numbers } from './numbers.js';
import type { ControllerDefinition } from './definition.js';
import { Reports } from './reports.js';
import { Routes } from './routes.js';
import { Situations } from './situations.js';

/** The most states: an index has 13 bits. */
const mostStates = 8000;

/** What compiling needs besides the document. */
export interface CompileOptions {
  /** The sizes of the images, by file as the document names it; a sheet's own `size` serves where one is missing. */
  images?: Readonly<Record<string, ImageSize>> | undefined;
}

/**
 * Compiles a document into a controller.
 *
 * @throws {DotHopError} with every problem of the document: unknown names (with the nearest known one), cells out
 *   of range, durations of zero, conditions of the wrong kind, and so on, each with its path
 */
export function compileController(
  definition: ControllerDefinition,
  options: CompileOptions = {},
): Controller {
  const problems = new ProblemList();
  const sheets = new Map<string, Sheet | undefined>();
  for (const [name, sheet] of Object.entries(definition.sheets))
    sheets.set(name, cutSheet(name, sheet, options.images ?? {}, ['sheets', name], problems));
  if (sheets.size === 0) problems.add('sheet-none', ['sheets']);

  const clips = new Map<string, Clip | undefined>();
  for (const [name, clip] of Object.entries(definition.clips))
    clips.set(name, buildClip(name, clip, sheets, ['clips', name], problems));

  const compass =
    definition.compass === undefined ? noCompass : buildCompass(definition.compass, ['compass'], problems);
  const { signals: given = {}, derived = {} } = definition;
  const signals = new SignalCompiler(given, derived, tagsOf(definition), problems);
  const turning = compileTurning(definition, compass, signals, problems);
  const states = compileStates({ definition, clips, compass, signals, problems, poses: new PoseBook() });
  const tables = signals.finish();
  const received = states.list.length;
  if (received > mostStates) problems.add('too-many-states', ['states'], { received, most: mostStates });
  problems.throwIfAny();

  const order = states.list
    .map((state) => state.index)
    .sort((a, b) => {
      return states.list[b]!.priority - states.list[a]!.priority || a - b;
    });
  const places = states.list.map((_, index) => order.indexOf(index));
  const stateNames = states.list.map((state) => state.name);
  const bookNames = [...new Set(states.list.flatMap((state) => state.bookNames))];
  return {
    name: definition.name ?? 'character',
    definition,
    sheets: sheets as Map<string, Sheet>,
    clips: clips as Map<string, Clip>,
    compass,
    tables,
    states: states.list,
    order,
    places,
    stateNamed: new Map(states.list.map((state) => [state.name, state])),
    rest: states.rest,
    conditions: states.conditions,
    conditionTexts: states.conditionTexts,
    cueNames: states.cueNames,
    turning: turning === 'regions' ? undefined : turning,
    watched: watchedStates(states.list, states.conditions, order),
    situations: new Situations(states.conditions, states.list, order),
    routes: new Routes(states.list),
    reports: new Reports(states.cueNames, stateNames, compass.names, bookNames),
    numbers: new Numbers(tables),
    signal: (name) => signalNamed(tables, name),
  };
}

/** The states whose `when` can hold without a pulse, so that the instant at which it becomes true matters. */
function watchedStates(
  states: readonly State[],
  conditions: readonly Condition[],
  order: readonly number[],
): Watched[] {
  return order.flatMap((index, place) => {
    const { when, while: during } = states[index]!;
    return when < 0 || needsPulse(conditions[when]!) ? [] : [{ state: index, when, while: during, place }];
  });
}

/** The handle of a signal by name. */
export function signalNamed({ signals, derived }: SignalTables, name: string): Signal {
  const signal = signals.get(name);
  if (signal !== undefined) return signal;
  if (derived.has(name)) throw callError('set-derived', { name });
  throw callError('set-unknown', { name, known: [...signals.keys()] });
}

/**
 * Reads what turns the character. A compass of two sides over one signal is cut into that number's regions, so that
 * turning costs nothing until a border is passed; any other vector is computed when a signal it reads has changed.
 */
function compileTurning(
  { compass: definition }: ControllerDefinition,
  compass: Compass,
  signals: SignalCompiler,
  problems: ProblemList,
): Turning | 'regions' | undefined {
  if (definition === undefined || definition.directions === 'none') return undefined;
  const by = typeof definition.by === 'string' ? [`${definition.by}.x`, `${definition.by}.y`] : definition.by;
  if (by?.length !== 2) {
    problems.add('compass-by', ['compass', 'by']);
    return undefined;
  }
  const x = signals.number(by[0], ['compass', 'by', 0]);
  const y = signals.number(by[1], ['compass', 'by', 1]);
  if (x === undefined || y === undefined) return undefined;
  if (definition.directions === 'sides' && y.constant === 0 && x.plain?.shape === 'plain') {
    const { deadZone } = compass;
    signals
      .regionsOf(x.plain.slot)
      .addTurn([deadZone, -deadZone], (value) =>
        nearestDirection(compass, Math.max(-1e300, Math.min(1e300, value)), 0),
      );
    return 'regions';
  }
  signals.watch(x);
  signals.watch(y);
  return { x: x.program, y: y.program };
}
