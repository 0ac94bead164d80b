import type { Controller } from '../controller/controller.js';
import { ProblemList } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { buttonNames, quantityNames } from './buttons.js';
import type { RehearsalScript } from './definition.js';
import { listOf } from './definition.js';
import { namesMeant } from './meant.js';
import type { BodyDefinition, Expectation, ScriptLine } from './definition.js';
import { FeedingBody, kindsFedBy, movingOf } from './feeds.js';
import { checkQuestion } from './question.js';
import { useRehearsalSentences } from './sentences.js';

useRehearsalSentences();

/**
 * Checks a rehearsal before it runs.
 *
 * @throws {DotHopError} with every name that the controller does not have, and everything that cannot be carried out
 */
export function examine(controller: Controller, rehearsal: RehearsalScript): void {
  const problems = new ProblemList();
  new Examiner(controller, rehearsal, problems).run();
  problems.throwIfAny();
}

class Examiner {
  constructor(
    private readonly controller: Controller,
    private readonly rehearsal: RehearsalScript,
    private readonly problems: ProblemList,
  ) {}

  run(): void {
    const { script, expect = [], body, steps } = this.rehearsal;
    script.forEach((line, i) => this.line(line, ['script', i]));
    expect.forEach((_, i) => this.expectation(i));
    if (steps !== undefined && 'from' in steps && steps.from > steps.to)
      this.problems.add('rehearsal-steps', ['steps'], steps);
    if (body !== undefined) this.body(body);
  }

  private known(
    code: 'state-unknown' | 'direction-unknown' | 'clip-unknown' | 'cue-unknown' | 'button-unknown',
    name: string | undefined,
    known: readonly string[],
    path: DocumentPath,
  ): void {
    if (name !== undefined && !known.includes(name)) this.problems.add(code, path, { name, known });
  }

  private state(name: string | undefined, path: DocumentPath): void {
    this.known('state-unknown', name, namesMeant(this.controller), path);
  }

  private line(line: ScriptLine, path: DocumentPath): void {
    const { at, after, until, expect, ramp } = line;
    if ([at, after, until].filter((when) => when !== undefined).length !== 1)
      this.problems.add('rehearsal-when', path);
    for (const [one, other] of [
      ['ramp', 'over'],
      ['every', 'times'],
    ] as const)
      if ((line[one] === undefined) !== (line[other] === undefined))
        this.problems.add('rehearsal-pair', path, { one, other });
    for (const [one, other] of [
      ['for', 'press'],
      ['within', 'until'],
    ] as const)
      if (line[one] !== undefined && line[other] === undefined)
        this.problems.add('rehearsal-with', [...path, one], { one, other });
    this.within(at, [...path, 'at']);
    if (typeof until === 'string')
      checkQuestion(this.controller.definition, until, [...path, 'until'], this.problems);
    else if (until !== undefined && 'state' in until) this.state(until.state, [...path, 'until', 'state']);
    else if (until !== undefined)
      this.known('cue-unknown', until.cue, this.controller.cueNames, [...path, 'until', 'cue']);
    for (const name of Object.keys(ramp ?? {})) this.number(name, [...path, 'ramp', name]);
    for (const what of ['press', 'release'] as const)
      for (const name of listOf(line[what]))
        this.known('button-unknown', name, this.buttons(), [...path, what]);
    if (expect !== undefined) this.shown(expect, [...path, 'expect']);
  }

  private within(at: number | undefined, path: DocumentPath): void {
    const { lasts } = this.rehearsal;
    if ((at ?? 0) > lasts) this.problems.add('rehearsal-order', path, { received: at, lasts });
  }

  private number(name: string, path: DocumentPath): void {
    const { signals } = this.controller.tables;
    const signal = signals.get(name);
    const known = [...signals.values()].filter(({ kind }) => kind === 'number').map((one) => one.name);
    if (signal !== undefined && signal.kind !== 'number')
      this.problems.add('rehearsal-ramp', path, { name, kind: signal.kind });
    else if (signal === undefined) this.problems.add('signal-unknown', path, { name, known });
  }

  /** Everything that can be pressed: buttons of the body, flags and pulses. */
  private buttons(): string[] {
    const own = [...this.controller.tables.signals.values()]
      .filter(({ kind }) => kind === 'flag' || kind === 'pulse')
      .map(({ name }) => name);
    return this.rehearsal.body === undefined ? own : [...new Set([...buttonNames, ...own])];
  }

  private shown(
    { state, direction, clip }: Pick<Expectation, 'state' | 'direction' | 'clip'>,
    path: DocumentPath,
  ): void {
    this.state(state, [...path, 'state']);
    this.known('direction-unknown', direction, this.controller.compass.names, [...path, 'direction']);
    const clips = [...this.controller.clips.values()].flatMap((one) => [one.name, one.of]);
    this.known('clip-unknown', clip, [...new Set(clips)], [...path, 'clip']);
  }

  private expectation(index: number): void {
    const path = ['expect', index];
    const one = this.rehearsal.expect![index]!;
    const { at, from, to, passes, never, cues, clip, cell, state, direction } = one;
    if ((at !== undefined) === (from !== undefined && to !== undefined))
      this.problems.add('rehearsal-time', path);
    this.within(at ?? to, path);
    if ([state, direction, clip, cell, passes, never, cues].every((what) => what === undefined))
      this.problems.add('rehearsal-expect', path);
    this.shown(one, path);
    passes?.forEach((name, j) => this.state(name, [...path, 'passes', j]));
    for (const name of listOf(never)) this.state(name, [...path, 'never']);
    for (const name of Object.keys(cues ?? {}))
      this.known('cue-unknown', name, this.controller.cueNames, [...path, 'cues', name]);
  }

  private body(definition: BodyDefinition): void {
    const path = ['body', 'platformer' in definition ? 'platformer' : 'walker'];
    const { signals } = this.controller.tables;
    for (const [name, from] of Object.entries(movingOf(definition).feeds ?? {})) {
      const signal = signals.get(name);
      const wanted = kindsFedBy(from);
      if (signal === undefined)
        this.problems.add('signal-unknown', [...path, 'feeds', name], { name, known: [...signals.keys()] });
      else if (!wanted.includes(signal.kind))
        this.problems.add('rehearsal-feed', [...path, 'feeds', name], {
          name,
          from,
          kind: signal.kind,
          wanted: wanted.join(' or a '),
        });
    }
    const leapAt = 'platformer' in definition ? definition.platformer.leapAt : undefined;
    this.known('cue-unknown', leapAt, this.controller.cueNames, [...path, 'leapAt']);
    if (new FeedingBody(this.controller, definition).feeds.length === 0)
      this.problems.add('rehearsal-feeds', path, { known: quantityNames });
  }
}
