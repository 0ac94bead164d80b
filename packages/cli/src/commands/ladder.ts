import path from 'node:path';
import type { Controller, State } from 'dot-hop';
import { loadCharacter } from '../character.js';
import { writeWhole } from '../files.js';
import { Misuse } from '../misuse.js';
import { ladderPicture } from '../picture/ladder-picture.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { csv, printTable } from './table.js';

/** The options of `dot-hop ladder`. */
export interface LadderOptions {
  readonly out?: string;
  readonly csv?: boolean;
  readonly json?: boolean;
}

/** The states by rank with their conditions and ways: as a picture, or as a table. */
export async function ladder(file: string, options: LadderOptions, output: Output): Promise<number> {
  const { controller, images } = await loadCharacter(file);
  if (options.out !== undefined) {
    if (path.extname(options.out).toLowerCase() !== '.png')
      throw new Misuse(`-o ${options.out}: a ladder is written as .png`);
    await writeWhole(options.out, await ladderPicture(controller, images));
    output.note(`ladder of ${controller.states.length} states in ${options.out}`);
  }
  const rungs = controller.order.map((index) => plain(controller, controller.states[index]!));
  const columns = ['rank', 'state', 'kind', 'while', 'when', 'ways'];
  const rows = rungs.map(({ rank, state, kind, while: during, when, ways }) => {
    const on = ways.map(({ to, if: condition }) => `${to}${condition === '' ? '' : ` if ${condition}`}`);
    return [rank, state, kind, during, when, on.join('; ')];
  });
  if (options.json === true) printJson(output, rungs);
  else if (options.csv === true) output.line(csv(columns, rows));
  else printTable(output, columns, rows);
  return exit.well;
}

interface Rung {
  readonly rank: number;
  readonly state: string;
  readonly kind: string;
  readonly while: string;
  readonly when: string;
  readonly ways: readonly { readonly to: string; readonly if: string }[];
}

function plain({ conditionTexts, states, rest }: Controller, state: State): Rung {
  const text = (index: number): string => conditionTexts[index] ?? '';
  return {
    rank: state.priority,
    state: state.name,
    kind: state.index === rest ? 'rest' : state.kind,
    while: text(state.while),
    when: text(state.when),
    ways: [
      ...state.hops.map((hop) => ({ to: states[hop.to]!.name, if: text(hop.if) })),
      ...(state.then < 0 ? [] : [{ to: states[state.then]!.name, if: 'it has ended' }]),
    ],
  };
}
