import { pathText } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import type { CheckResult, Finding, Severity } from 'dot-hop/check';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { sarifOf } from '../sarif.js';
import { exit, indented, printJson } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop check`. */
export interface CheckOptions {
  readonly json?: boolean;
  readonly sarif?: boolean;
  /** Print what the documents accept too. */
  readonly accepted?: boolean;
}

/** A finding with its place in the file. */
export interface PlacedFinding extends Finding {
  readonly file: string;
  readonly line: number;
  readonly column: number;
}

/** A document that was checked. */
export interface Checked {
  readonly character: Character;
  readonly result: CheckResult;
  /** In the order of the file. */
  readonly findings: readonly PlacedFinding[];
}

/** Checks documents. Exit code 1 when anything was found that is neither a note nor accepted. */
export async function check(
  files: readonly string[],
  options: CheckOptions,
  output: Output,
): Promise<number> {
  const checked: Checked[] = [];
  for (const file of files) checked.push(checkOne(await loadCharacter(file)));
  if (options.sarif === true) printJson(output, sarifOf(checked));
  else if (options.json === true) printJson(output, checked.map(plain));
  else for (const one of checked) print(one, options.accepted ?? false, output);
  const counts = checked.some(({ findings }) => findings.some(weighs));
  return counts ? exit.failed : exit.well;
}

const weighs = ({ severity, accepted }: Finding): boolean => severity !== 'note' && accepted === undefined;

function checkOne(character: Character): Checked {
  const { source } = character.document;
  const result = checkController(character.controller);
  const findings = result.findings.map((one): PlacedFinding => ({
    ...one,
    file: source.file,
    ...source.place(one.path, 0, 'key'),
  }));
  findings.sort((a, b) => a.line - b.line || a.column - b.column);
  return { character, result, findings };
}

function plain({ character, result, findings }: Checked): unknown {
  const { situations, tried, givenUp } = result;
  return {
    document: character.file,
    situations,
    tried,
    givenUp,
    findings: findings.map(({ code, severity, path, line, column, message, accepted, values }) => {
      return { code, severity, path: pathText(path), line, column, message, accepted, values };
    }),
  };
}

function print({ character, result, findings }: Checked, withAccepted: boolean, output: Output): void {
  const { paint } = output;
  const { states } = character.controller;
  output.line(
    `${paint.bold(character.document.source.file)}  ${paint.dim(`${character.controller.name}, ${states.length} states`)}`,
  );
  const colours: Record<Severity, (text: string) => string> = {
    error: paint.red,
    warning: paint.yellow,
    note: paint.cyan,
  };
  for (const { code, severity, path, line, column, message, accepted } of findings) {
    if (accepted !== undefined && !withAccepted) continue;
    const weight = accepted === undefined ? colours[severity](severity) : paint.dim(`accepted ${severity}`);
    output.line(`  ${line}:${column}  ${weight}  ${paint.bold(code)}  ${paint.dim(pathText(path))}`);
    output.line(indented(message, '      ', output));
    if (accepted !== undefined) output.line(`      ${paint.dim(`accepted: ${accepted}`)}`);
  }
  const open = findings.filter(({ accepted }) => accepted === undefined);
  const told = (['error', 'warning', 'note'] as const).flatMap((severity) => {
    const count = open.filter((one) => one.severity === severity).length;
    return count === 0 ? [] : [`${count} ${severity}${count === 1 ? '' : 's'}`];
  });
  const accepts = findings.length - open.length;
  const aside = accepts > 0 ? `; ${accepts} accepted${withAccepted ? '' : ' (--accepted shows them)'}` : '';
  const summary = told.length === 0 ? `nothing found${aside}` : `${told.join(', ')}${aside}`;
  output.line(`  ${open.some(weighs) ? paint.red(summary) : paint.green(summary)}`);
  output.line(`  ${paint.dim(examined(result))}`);
}

/** How much was examined, and what was not. */
function examined({ situations, tried, givenUp }: CheckResult): string {
  const count = situations < 1e15 ? situations.toLocaleString('en') : situations.toExponential(1);
  const open =
    givenUp === 0
      ? ''
      : `; ${givenUp} questions were given up, so what they ask (whether something can be) is not proved`;
  return `${count} situations that its conditions tell apart, all examined by ${tried.toLocaleString('en')} steps${open}`;
}
