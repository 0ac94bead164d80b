import type { Controller } from 'dot-hop';
import type { Outcome, RehearsalResult, TraceEntry } from 'dot-hop/rehearsal';
import type { Output } from '../commands/command.js';
import { isBroken } from './runs.js';
import type { BrokenRun, Run } from './runs.js';
import { verdictOf } from './verdict.js';

/** A run as data, for `--json`. */
export function plainRun(one: Run | BrokenRun): unknown {
  if (isBroken(one)) return { rehearsal: one.file, error: one.error.message };
  const { file, source, character, result } = one;
  return {
    rehearsal: file,
    document: character.file,
    lasts: result.lasts,
    trace: result.trace,
    expectations: result.outcomes.map((outcome) => ({ ...outcome, line: source.place(outcome.path).line })),
  };
}

/** Prints what happened, and what was not as expected. @param quiet whether only the latter */
export function print({ file, source, character, result }: Run, quiet: boolean, output: Output): void {
  const { paint } = output;
  output.line(`${paint.bold(file)}  ${paint.dim(`${character.controller.name}, ${result.lasts} ms`)}`);
  if (!quiet) printTimeline(result, character.controller, output);
  for (const outcome of result.outcomes)
    printOutcome(outcome, source.place(outcome.path).line, quiet, output);
  const { text, isMet } = verdictOf(result.outcomes);
  if (text !== '') output.line(isMet ? paint.green(text) : paint.red(text));
}

/** Lines of one instant stand together: what the game set, and what came of it. */
function printTimeline(result: RehearsalResult, controller: Controller, output: Output): void {
  const { paint } = output;
  const line = (text: string): void => output.line(text);
  const first = result.samples[0]!;
  const states = first.tracks.map(({ state }, i) => {
    return paint.dim(trackText(controller.tracks[i]!.name)) + paint.bold(state);
  });
  line(`${time(0)}  ${states.join('  ')}  ${paint.dim(`facing ${first.direction}`)}`);
  let last = 0;
  for (const entry of result.trace) {
    if (entry.kind === 'set' && entry.by !== undefined && typeof entry.value !== 'boolean') continue;
    const at = entry.at === last ? ' '.repeat(time(0).length) : time(entry.at);
    last = entry.at;
    line(`${at}  ${describe(entry, controller, paint)}`);
  }
  line(`${time(result.lasts)}  ${paint.dim('end')}`);
}

const time = (ms: number): string => `${ms.toFixed(1).padStart(9)} ms`;

const ruleWords = {
  start: 'first',
  rank: 'ranks higher',
  hop: 'hop',
  then: 'follows its end',
  way: 'gave way',
  rest: 'nothing else wants in',
  again: 'pressed again',
  ask: 'asked for',
  cut: 'put there',
  route: 'on its route',
} as const;

/** The document's own states need no word. */
const trackText = (track: string): string => (track === 'body' ? '' : `${track}: `);

function describe(entry: TraceEntry, controller: Controller, paint: Output['paint']): string {
  const { tracks, stateNamed } = controller;
  const track = 'track' in entry ? trackText(entry.track) : '';
  switch (entry.kind) {
    case 'set':
      return (
        (entry.by === undefined
          ? paint.cyan(`  set ${entry.name} = ${String(entry.value)}`)
          : paint.dim(`  ${entry.by}: ${entry.name} = ${String(entry.value)}`)) +
        (entry.outside === undefined ? '' : paint.yellow(`  outside of ${entry.outside}`))
      );
    case 'pulse':
    case 'press':
    case 'release':
      return paint.cyan(`  ${entry.kind} ${entry.name}`);
    case 'ramp':
      return paint.cyan(`  ramp ${entry.name} to ${entry.to} over ${entry.over} ms`);
    case 'pace':
      return paint.cyan(`  pace ${entry.value}`);
    case 'reset':
      return paint.cyan('  reset: it starts over');
    case 'cue':
      return paint.yellow(`  ${track}cue ${entry.name}${entry.from === undefined ? '' : ` (${entry.from})`}`);
    case 'turn':
      return paint.dim(`  ${track}faces ${entry.name}`);
    case 'flipbook':
      return paint.dim(`  ${track}shows ${entry.name}`);
    case 'ask':
    case 'cut':
    case 'route':
      return paint.cyan(`  ${entry.kind} ${entry.name}${entry.granted ? '' : ': not granted'}`);
    case 'switch': {
      const owner = tracks[stateNamed.get(entry.name)!.track]!.name;
      const how = owner === entry.track ? ruleWords[entry.rule] : `taken by ${owner}`;
      return `${paint.dim(track)}${paint.bold(entry.name.padEnd(12))} ${paint.dim(`from ${entry.from}: ${how}`)}`;
    }
  }
}

function printOutcome(
  { index, met, expected, instead, why }: Outcome,
  line: number,
  quiet: boolean,
  output: Output,
): void {
  const { paint } = output;
  if (met && quiet) return;
  output.line(
    `${met ? paint.green('  met    ') : paint.red('  NOT MET')} ${index + 1}. ${expected}${met ? '' : paint.dim(` (line ${line})`)}`,
  );
  if (met) return;
  output.line(`           instead: ${instead}`);
  if (why !== undefined) for (const text of why.split('\n')) output.line(paint.dim(`           ${text}`));
}
