import { DotHopError, problemText } from 'dot-hop';
import type { Controller, State, Track } from 'dot-hop';
import { whoWins } from 'dot-hop/check';
import type { Winner } from 'dot-hop/check';
import { compileDocument } from 'dot-hop/document';
import type { PlacedGroup } from 'dot-hop/explain';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { needPng } from '../files/kinds.js';
import { writeWhole } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import { nearestOf } from '../nearest.js';
import { definitionOf, groupsOf, kindText, lengthText, variantsOf, whileText } from '../state-words.js';
import { checkWorn, wornIn } from '../worn.js';
import type { WornOptions } from '../worn.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { csv, printTable } from './table.js';

/** The options of `dot-hop ladder`. */
export interface LadderOptions extends WornOptions {
  readonly out?: string;
  readonly csv?: boolean;
  readonly json?: boolean;
  /** Print who wins in which situation in place of the states. */
  readonly winners?: boolean;
  /** Only the situations in which this condition is true. */
  readonly when?: string;
  /** Only this track; by default all of them in the table of states, and the document's own states in that of winners. */
  readonly track?: string;
}

/** The states by rank with their conditions and ways, as a picture or a table; or who wins in which situation. */
export async function ladder(file: string, options: LadderOptions, output: Output): Promise<number> {
  checkWorn(options);
  if (options.out !== undefined) needPng(options.out, 'a ladder');
  const character = await loadCharacter(file);
  const { controller, images } = character;
  if (options.out !== undefined) {
    const { ladderPicture } = await import('../picture/ladder-picture.js');
    await writeWhole(options.out, await ladderPicture(controller, images, wornIn(controller, options)));
    output.note(
      `ladder of ${controller.stateNamed.size} state${controller.stateNamed.size === 1 ? '' : 's'} in ${options.out}`,
    );
  }
  if (options.winners === true || options.when !== undefined) printWinners(character, options, output);
  else printRungs(controller, options, output);
  return exit.well;
}

/** The track that is asked for; `undefined` where none is. */
function trackNamed({ tracks }: Controller, { track }: LadderOptions): Track | undefined {
  const named = tracks.find(({ name }) => name === track);
  if (track === undefined || named !== undefined) return named;
  const known = tracks.map(({ name }) => name);
  throw new Misuse(`--track ${track}: there is no such track${nearestOf(track, known)}`);
}

function printRungs(controller: Controller, options: LadderOptions, output: Output): void {
  const order = trackNamed(controller, options)?.order ?? controller.order;
  const rungs = order.map((index) => plain(controller, controller.states[index]!));
  const several = controller.tracks.length === 1 ? [] : ['track'];
  const grouped = rungs.some(({ groups }) => groups.length > 0) ? ['group'] : [];
  const lengths = rungs.some(({ lasts }) => lasts !== '') ? ['lasts'] : [];
  const looks = controller.definition.variants === undefined ? [] : ['shows'];
  const columns = [...several, 'rank', 'state', 'kind', ...looks, 'while', 'when', ...lengths, 'ways'];
  const rowOf = (
    { track, rank, state, kind, shows, when, lasts, ways }: Rung,
    during: string,
  ): (string | number)[] => {
    const on = ways.map(({ to, if: condition }) => `${to}${condition === '' ? '' : ` if ${condition}`}`);
    return [
      ...several.map(() => track),
      rank,
      state,
      kind,
      ...looks.map(() => shows.join(', ')),
      during,
      when,
      ...lengths.map(() => lasts),
      on.join('; '),
    ];
  };
  if (options.json === true) printJson(output, rungs);
  else if (options.csv === true)
    output.line(
      csv(
        [...grouped, ...columns],
        rungs.map((one) => [...grouped.map(() => one.groups.join(' / ')), ...rowOf(one, one.while)]),
      ),
    );
  else printTable(output, columns, nested(controller, order, rungs, rowOf));
}

/** Rows with those of a group below it, a step to the right. */
function nested(
  controller: Controller,
  order: readonly number[],
  rungs: readonly Rung[],
  rowOf: (rung: Rung, during: string) => (string | number)[],
): (string | number)[][] {
  let open: readonly PlacedGroup[] = [];
  return rungs.flatMap((one, i) => {
    const state = controller.states[order[i]!]!;
    const groups = groupsOf(controller, state);
    const kept = groups.findIndex(({ name }, depth) => open[depth]?.name !== name);
    const opened = kept < 0 ? [] : groups.slice(kept);
    const depth = groups.length - opened.length;
    open = groups;
    const step = (by: number, name: string | number): string => '  '.repeat(by) + String(name);
    const { name: track } = controller.tracks[state.track]!;
    const heads = opened.map(({ name, definition: { while: during, priority = 0 } }, n) =>
      rowOf(
        {
          ...{ track, groups: [], kind: 'group', while: during, when: '', lasts: '', shows: [], ways: [] },
          rank: step(depth + n, priority),
          state: step(depth + n, name),
        },
        during,
      ),
    );
    const { length } = groups;
    const own = { ...one, rank: step(length, one.rank), state: step(length, one.state) };
    return [...heads, rowOf(length === 0 ? one : own, whileText(controller, state))];
  });
}

/** Who wins in which situation, read from the top: the first row that fits. */
function printWinners(character: Character, options: LadderOptions, output: Output): void {
  const { controller, question } = asked(character, options.when);
  const winners = whoWins(controller, question, trackNamed(controller, options)?.index);
  if (options.json === true) {
    printJson(output, winners);
    return;
  }
  const terms = [...new Set(winners.flatMap((one) => one.terms.map(({ text }) => text)))];
  const mark = ({ terms: wanted }: Winner, term: string): string => {
    const found = wanted.find(({ text }) => text === term);
    return found === undefined ? '' : found.on ? 'yes' : 'no';
  };
  if (options.csv === true) {
    const grouped = winners.some(({ groups }) => groups.length > 0) ? ['group'] : [];
    const head = [...grouped, 'rank', 'state', 'once', ...terms, 'over', 'example'];
    const rows = winners.map((one) => [
      ...grouped.map(() => one.groups.join(' / ')),
      one.rank,
      one.state,
      one.once ? 'yes' : '',
      ...terms.map((term) => mark(one, term)),
      one.over.join(' '),
      one.example,
    ]);
    output.line(csv(head, rows));
    return;
  }
  const { paint } = output;
  const rows = winners.map((one) => [
    one.groups.length === 0 ? one.rank : [...one.groups, one.rank].join(' / '),
    one.state,
    (one.once ? 'as it comes:   ' : '') + termsText(one, one === winners[winners.length - 1]),
    one.over.join(' '),
    one.example,
  ]);
  if (options.when !== undefined) output.line(`when ${paint.bold(options.when)}:`);
  printTable(output, ['rank', 'takes over', 'the first that fits: + on, - off', 'over', 'for example'], rows);
}

function termsText({ terms }: Winner, isLast: boolean): string {
  if (terms.length === 0) return isLast ? 'else' : 'always';
  return terms.map(({ text, on }) => (on ? `+ ${text}` : `- ${text}`)).join('   ');
}

/** The controller with a question about its signals, as far as one is asked. */
function asked(
  { controller, document, images }: Character,
  when: string | undefined,
): { controller: Controller; question?: Controller['questions'][number] } {
  if (when === undefined) return { controller };
  try {
    const asking = compileDocument(document, { images: Object.fromEntries(images), questions: [when] });
    return { controller: asking, question: asking.questions[0]! };
  } catch (error) {
    if (!(error instanceof DotHopError)) throw error;
    throw new Misuse(`--when ${JSON.stringify(when)}: ${problemText(error.problems[0]!)}`);
  }
}

interface Rung {
  readonly track: string;
  /** Its priority; in a group that among the states of the group, below all of them for its rest. */
  readonly rank: number | string;
  /** Its groups, the outermost first. */
  readonly groups: readonly string[];
  readonly state: string;
  readonly kind: string;
  readonly while: string;
  readonly when: string;
  /** How long it lasts, if it says so. */
  readonly lasts: string;
  /** What it shows: its gaits, and what variants put in their place. */
  readonly shows: readonly string[];
  readonly ways: readonly { readonly to: string; readonly if: string }[];
}

function plain(controller: Controller, state: State): Rung {
  const { conditionTexts, states, tracks } = controller;
  const text = (index: number): string => conditionTexts[index] ?? '';
  const said = definitionOf(controller, state)?.hops ?? [];
  return {
    track: tracks[state.track]!.name,
    rank: state.isGroupRest ? 'rest' : state.priority,
    groups: state.groups.map(({ name }) => name),
    state: state.name,
    kind: kindText(controller, state),
    while: text(state.while),
    when: text(state.when),
    lasts: lengthText(controller, state),
    shows: [...state.flipbookNames.slice(0, state.gaitCount), ...variantsOf(state)],
    ways: [
      ...state.hops
        // Into a group there are several.
        .filter(({ place }, i) => state.hops[i - 1]?.place !== place)
        .map((hop) => ({ to: said[hop.place]?.to ?? states[hop.to]!.name, if: text(hop.if) })),
      ...(state.then < 0 ? [] : [{ to: states[state.then]!.name, if: 'it has ended' }]),
    ],
  };
}
