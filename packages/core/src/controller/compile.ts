import { buildClip } from '../clip/clip.js';
import type { Clip } from '../clip/clip.js';
import { writeOutRows } from '../clip/rows.js';
import { buildCompass, noCompass } from '../compass/compass.js';
import type { Compass } from '../compass/compass.js';
import { ProblemList } from '../problem/problem.js';
import { PoseCache } from '../sheet/pose.js';
import { cutSheet } from '../sheet/sheet.js';
import type { ImageSize, Sheet } from '../sheet/sheet.js';
import { SignalCompiler } from '../signal/compiler.js';
import { needsPulse } from '../signal/condition.js';
import type { Condition } from '../signal/condition.js';
import { checkShape } from '../shape/check.js';
import { assemble } from './assemble.js';
import { Flipbooks } from './flipbooks.js';
import type { DirectionDrawing } from './flipbooks.js';
import { controllerShape } from './shape.js';
import { compileTurning } from './turning.js';
import { compileStates, finishStates } from './states.js';
import { askableOf, placeStates } from './tracks.js';
import type { PlacedStates } from './tracks.js';
import type { Controller, Track, Watched } from './controller.js';
import type { State } from './state.js';
import type { NamesOf } from './names.js';
import type { ControllerDefinition } from './definition.js';

/** The most states: an index has 13 bits. */
const mostStates = 8000;

/** What the compiler needs besides the document. */
export interface CompileOptions {
  /** The sizes of the images, by file as the document names it. If one is missing, the sheet's own `size` is used. */
  images?: Readonly<Record<string, ImageSize>> | undefined;
  /**
   * Further conditions to compile, which no state uses. You can ask a performer whether they hold; see `questions` of {@link Controller}.
   */
  questions?: readonly string[] | undefined;
}

/**
 * Compiles a document into a controller.
 *
 * @throws {DotHopError} with every problem of the document, each with its path: unknown names (with the nearest known one), cells out of
 *   range, durations of zero, conditions of the wrong kind, and so on
 */
export function compileController<const D extends ControllerDefinition>(
  definition: D,
  options: CompileOptions = {},
): Controller<NamesOf<D>> {
  return compileWith(definition, options) as Controller<NamesOf<D>>;
}

/** What of a document has been compiled, as far as it is sound; for what is compiled beside it. */
export interface CompiledParts {
  readonly definition: ControllerDefinition;
  /** `undefined` for one with a fault. */
  readonly sheets: ReadonlyMap<string, Sheet | undefined>;
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly flipbooks: ReadonlyMap<string, readonly DirectionDrawing[]>;
  readonly compass: Compass;
}

/**
 * The same for a document that says more than a controller does.
 *
 * @param beside compiles that; its problems are told together with all others
 */
export function compileWith(
  definition: ControllerDefinition,
  options: CompileOptions = {},
  beside?: (parts: CompiledParts, problems: ProblemList) => void,
): Controller {
  const problems = new ProblemList();
  checkShape(definition, controllerShape, [], problems);
  problems.throwIfAny();
  const sheets = new Map<string, Sheet | undefined>();
  for (const [name, sheet] of Object.entries(definition.sheets))
    sheets.set(name, cutSheet(name, sheet, options.images ?? {}, ['sheets', name], problems));
  if (sheets.size === 0) problems.add('sheet-none', ['sheets']);

  const clips = new Map<string, Clip | undefined>();
  const written = writeOutRows(definition.clips, definition.flipbooks ?? {}, problems);
  for (const [name, row] of written.clips) clips.set(name, buildClip(name, row, sheets, problems));

  const compass =
    definition.compass === undefined ? noCompass : buildCompass(definition.compass, ['compass'], problems);
  const { signals: given = {}, derived = {} } = definition;
  const placed = placeStates(definition, problems);
  const askable = askableOf(placed, problems);
  const signals = new SignalCompiler(given, derived, askable, problems);
  const turning = compileTurning(definition, placed.states, compass, signals, problems);
  const flipbooks = new Flipbooks({ clips, flipbooks: written.flipbooks, compass, problems });
  const states = compileStates({
    definition,
    clips,
    flipbooks,
    compass,
    signals,
    problems,
    poses: new PoseCache(),
    placed,
  });
  const questions = (options.questions ?? []).map((text, i) => signals.condition(text, ['questions', i]));
  const isTimed = compass.through > 0;
  const [turnTimer = -1] = placed.tracks.flatMap(() => (isTimed ? [signals.addTimer()] : []));
  const tables = signals.finish();
  finishStates(states.list, placed, tables.tags, tables.words);
  const received = states.list.length;
  if (received > mostStates) problems.add('too-many-states', ['states'], { received, most: mostStates });
  beside?.({ definition, sheets, clips, flipbooks: flipbooks.drawings, compass }, problems);
  problems.throwIfAny();

  const tracks = tracksOf(placed, states.list, states.rests, states.conditions);
  return assemble({
    name: definition.name ?? 'character',
    definition,
    version: undefined,
    hasWardrobe: definition.wardrobe !== undefined,
    sheets: sheets as Map<string, Sheet>,
    clips: clips as Map<string, Clip>,
    flipbooks: flipbooks.drawings,
    compass,
    tables,
    states: states.list,
    tracks,
    timelines: states.timelines,
    conditions: states.conditions,
    conditionTexts: states.conditionTexts,
    questions: questions as Condition[],
    cueNames: states.cues.names,
    cueVarieties: states.cues.varieties,
    turning,
    turnTimer,
  });
}

function tracksOf(
  { tracks }: PlacedStates,
  states: readonly State[],
  rests: readonly number[],
  conditions: readonly Condition[],
): Track[] {
  return tracks.map(({ name, draws }, index): Track => {
    const own = states.filter(({ track }) => track === index);
    const order = own.map((state) => state.index).sort((a, b) => states[b]!.rank - states[a]!.rank || a - b);
    return {
      index,
      name,
      order,
      rest: rests[index]!,
      watched: watchedStates(states, conditions, order),
      draws,
    };
  });
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
