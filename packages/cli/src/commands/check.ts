import { pathText, problemText } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import type { CheckResult, Finding, Severity } from 'dot-hop/check';
import { DocumentError, isForOthers } from 'dot-hop/document';
import { measureClips, measureParts, measureWardrobe } from 'dot-hop/pixels';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { isBroken } from '../checked.js';
import type { Broken, Checked, PlacedFinding } from '../checked.js';
import { needPng } from '../files/kinds.js';
import { writeWhole } from '../files/writing.js';
import { Misuse } from '../misuse.js';
import type { Remark } from '../picture/ladder/remarks.js';
import { sarifOf } from '../sarif.js';
import { wornIn } from '../worn.js';
import { exit, indented, printJson } from './command.js';
import type { Output } from './command.js';

/** The options of `dot-hop check`. */
export interface CheckOptions {
  readonly json?: boolean;
  readonly sarif?: boolean;
  /** Draw the ladder with what was found here. */
  readonly out?: string;
  /** Print what the documents accept too. */
  readonly accepted?: boolean;
}

/** Checks documents. Exit code 2 when one cannot be compiled (the others are checked all the same); 1 when anything was found that is neither a note nor accepted. */
export async function check(
  files: readonly string[],
  options: CheckOptions,
  output: Output,
): Promise<number> {
  if (options.out !== undefined && files.length > 1)
    throw new Misuse(`-o ${options.out} is for one document; ${files.length} were given`);
  if (options.out !== undefined) needPng(options.out, 'a check');
  const all: (Checked | Broken)[] = [];
  for (const file of files) all.push(await checkFile(file));
  if (options.sarif === true) printJson(output, sarifOf(all));
  else if (options.json === true) printJson(output, all.map(plain));
  else
    for (const one of all)
      if (isBroken(one)) output.note(new DocumentError(one.problems).message);
      else print(one, options.accepted ?? false, output);
  const [first] = all;
  if (options.out !== undefined && first !== undefined && !isBroken(first)) {
    await writeWhole(options.out, await pictureOf(first, options.accepted ?? false));
    output.note(`ladder with what was found in ${options.out}`);
  }
  if (all.some(isBroken)) return exit.misuse;
  const counts = all.some((one) => !isBroken(one) && one.findings.some(weighs));
  return counts ? exit.failed : exit.well;
}

/** The state that a finding is about. */
function stateAt({ states, rest }: Controller, place: readonly (string | number)[]): string | undefined {
  const [first, , , further] = place;
  if (first === 'rest') return states[rest]!.name;
  if (first === 'states') return String(place[1]);
  return first === 'tracks' && place[2] === 'states' ? String(further) : undefined;
}

async function pictureOf(
  { character: { controller, images }, findings }: Checked,
  withAccepted: boolean,
): Promise<Buffer> {
  const told = findings.filter(({ accepted }) => withAccepted || accepted === undefined);
  const list = told.map(({ path: place, code, severity, line, message, accepted }): Remark => ({
    state: stateAt(controller, place),
    severity,
    head: `${accepted === undefined ? severity : `accepted ${severity}`}  ${code}  ${pathText(place)}, line ${line}`,
    text: accepted === undefined ? message : `${message} Accepted: ${accepted}`,
  }));
  const { ladderPicture } = await import('../picture/ladder-picture.js');
  return ladderPicture(controller, images, wornIn(controller, {}), { list, verdict: summaryOf(findings) });
}

/** How much was found, in words. */
function summaryOf(findings: readonly Finding[]): string {
  const open = findings.filter(({ accepted }) => accepted === undefined);
  const told = (['error', 'warning', 'note'] as const).flatMap((severity) => {
    const count = open.filter((one) => one.severity === severity).length;
    return count === 0 ? [] : [`${count} ${severity}${count === 1 ? '' : 's'}`];
  });
  const accepts = findings.length - open.length;
  const aside = accepts > 0 ? `; ${accepts} accepted` : '';
  return (told.length === 0 ? 'nothing found' : told.join(', ')) + aside;
}

async function checkFile(file: string): Promise<Checked | Broken> {
  try {
    return checkOne(await loadCharacter(file));
  } catch (error) {
    if (!(error instanceof DocumentError)) throw error;
    return { file: file === '-' ? '(standard input)' : file, problems: error.problems };
  }
}

const weighs = ({ severity, accepted }: Finding): boolean => severity !== 'note' && accepted === undefined;

function checkOne(character: Character): Checked {
  const { controller, images, document } = character;
  const { source } = document;
  const { findings: drawings } = measureClips([...controller.clips.values()], (image) => images.get(image)!);
  const wardrobe = measureWardrobe(controller, (image) => images.get(image)!);
  const parts = measureParts(controller, (image) => images.get(image)!);
  const result = checkController(controller, { drawings, wardrobe, parts });
  const findings = result.findings
    .map((one): PlacedFinding => ({ ...one, ...source.place(one.path, 0, 'key') }))
    .filter((one) => !isForOthers(one, one, source));
  const others = character.baseFiles;
  const rank = ({ file }: PlacedFinding): number => (file === source.file ? -1 : others.indexOf(file));
  findings.sort((a, b) => rank(a) - rank(b) || a.line - b.line || a.column - b.column);
  return { file: source.file, character, result, findings };
}

function plain(one: Checked | Broken): unknown {
  if (isBroken(one)) {
    const problems = one.problems.map((problem) => {
      const { code, path, file, line, column, values } = problem;
      return { code, path: pathText(path), file, line, column, message: problemText(problem), values };
    });
    return { document: one.file, problems };
  }
  const { character, result, findings } = one;
  const { situations, tried, givenUp } = result;
  return {
    document: character.file,
    situations,
    tried,
    givenUp,
    findings: findings.map(({ code, severity, path, file, line, column, message, accepted, values }) => {
      return { code, severity, path: pathText(path), file, line, column, message, accepted, values };
    }),
  };
}

function print({ character, result, findings }: Checked, withAccepted: boolean, output: Output): void {
  const { paint } = output;
  const { stateNamed } = character.controller;
  output.line(
    `${paint.bold(character.document.source.file)}  ${paint.dim(`${character.controller.name}, ${stateNamed.size} state${stateNamed.size === 1 ? '' : 's'}`)}`,
  );
  const colours: Record<Severity, (text: string) => string> = {
    error: paint.red,
    warning: paint.yellow,
    note: paint.cyan,
  };
  for (const { code, severity, path, file, line, column, message, accepted } of findings) {
    if (accepted !== undefined && !withAccepted) continue;
    const weight = accepted === undefined ? colours[severity](severity) : paint.dim(`accepted ${severity}`);
    // What it takes over from another document is mended there.
    const place = `${file === character.document.source.file ? '' : `${file}:`}${line}:${column}`;
    output.line(`  ${place}  ${weight}  ${paint.bold(code)}  ${paint.dim(pathText(path))}`);
    output.line(indented(message, '      ', output));
    if (accepted !== undefined) output.line(`      ${paint.dim(`accepted: ${accepted}`)}`);
  }
  const open = findings.filter(({ accepted }) => accepted === undefined);
  const hidden = !withAccepted && open.length < findings.length ? ' (--accepted shows them)' : '';
  const summary = summaryOf(findings) + hidden;
  output.line(`  ${open.some(weighs) ? paint.red(summary) : paint.green(summary)}`);
  output.line(`  ${paint.dim(examined(result))}`);
}

/** How much was examined, and what was not. */
function examined({ situations, tried, givenUp }: CheckResult): string {
  if (situations <= 1) return 'no condition to examine';
  const count = situations < 1e15 ? situations.toLocaleString('en') : situations.toExponential(1);
  const open =
    givenUp === 0
      ? ''
      : `; ${givenUp} question${givenUp === 1 ? ' was' : 's were'} given up, so what they ask (whether something can be) is not proved`;
  return `${count} situations that its conditions tell apart, all examined by ${tried.toLocaleString('en')} step${tried === 1 ? '' : 's'}${open}`;
}
