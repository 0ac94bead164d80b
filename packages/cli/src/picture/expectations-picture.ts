import type { Controller } from 'dot-hop';
import type { Outcome, RehearsalResult } from 'dot-hop/rehearsal';
import { svgBox, svgLine } from './canvas.js';
import type { Drawing } from './drawing.js';
import { fitText, svgText } from './letters.js';
import { theme } from './theme.js';

const left = 24;
const rowHeight = 22;
const lineHeight = 17;

/** On which row each expectation is drawn, so that none covers another. */
export interface Rows {
  readonly of: readonly number[];
  readonly height: number;
}

/** @param x turns milliseconds into pixels */
export function expectationRows({ outcomes }: RehearsalResult, x: (ms: number) => number): Rows {
  const taken: [number, number][][] = [];
  const of = outcomes.map(({ from, to }) => {
    const middle = (x(from) + x(to)) / 2;
    const [begin, end] = [Math.min(x(from), middle - 10), Math.max(x(to), middle + 10)];
    const free = taken.findIndex((spans) => spans.every(([from, to]) => end <= from || begin >= to));
    const row = free < 0 ? taken.length : free;
    (taken[row] ??= []).push([begin, end]);
    return row;
  });
  return { of, height: outcomes.length > 0 ? taken.length * rowHeight + 14 : 0 };
}

/** @param timeTop where the mark of a failure begins, so that it runs through all that led to it */
export function drawExpectations(
  { canvas, result, x }: Drawing,
  top: number,
  rows: Rows,
  timeTop: number,
): void {
  if (result.outcomes.length === 0) return;
  canvas.draw(svgText('expected', left + 32, top + 16, { colour: theme.text }));
  result.outcomes.forEach(({ from: begin, to: end, met, index, failedAt }, i) => {
    const colour = met ? theme.good : theme.bad;
    const [from, to] = [x(begin), x(end)];
    const y = top + rows.of[i]! * rowHeight + 12;
    if (to > from) canvas.draw(svgBox(from, y - 1.5, to - from, 3, colour, 'fill-opacity="0.55"'));
    const middle = (from + to) / 2;
    if (failedAt !== undefined)
      canvas.draw(
        svgLine(x(failedAt), timeTop, x(failedAt), y, theme.bad, 'stroke-width="1.5" stroke-dasharray="5 4"'),
      );
    canvas.draw(
      `<circle cx="${middle}" cy="${y}" r="8" fill="${colour}"/>`,
      svgText(String(index + 1), middle, y + 3.5, {
        size: 10,
        bold: true,
        colour: theme.ground,
        align: 'middle',
      }),
    );
  });
}

/** An unmet expectation in words. */
export interface Failure {
  readonly outcome: Outcome;
  readonly lines: readonly string[];
  readonly height: number;
}

/** More lines of why than these are left to the printed answer. */
const mostLines = 9;

/** What there is to say of each unmet expectation. @param room how wide a line may be, in pixels */
export function failuresOf(
  { outcomes }: RehearsalResult,
  { stateNamed }: Controller,
  room: number,
): Failure[] {
  return outcomes
    .filter(({ met }) => !met)
    .map((outcome) => {
      const lines = [`instead: ${outcome.instead}`, ...whyLines(outcome, [...stateNamed.keys()])]
        .slice(0, mostLines)
        .map((line) => fitText(line, room, { size: 12 }));
      return { outcome, lines, height: (lines.length + 1) * lineHeight + 22 };
    });
}

/** Of the answer to why: how what shows came to show, and the states that the expectation speaks of. */
function whyLines({ why = '', expected, instead }: Outcome, states: readonly string[]): string[] {
  const words = new Set(`${expected} ${instead}`.split(/[^\w-]+/));
  const meant = states.filter((name) => words.has(name));
  let isMeant = true;
  return why.split('\n').filter((line, i) => {
    const state = /^[ >] +-?[\d.]+ {2}(.*?):/.exec(line)?.[1];
    if (state !== undefined) isMeant = meant.includes(state) && !line.startsWith('>');
    return i === 0 || isMeant;
  });
}

/** Each unmet expectation with what happened instead and why. */
export function drawFailures({ canvas }: Drawing, failures: readonly Failure[], top: number): void {
  let y = top;
  for (const { outcome, lines, height } of failures) {
    canvas.draw(
      svgBox(left, y, canvas.width - left * 2, height - 8, theme.panel, 'rx="4"'),
      svgBox(left, y, 4, height - 8, theme.bad, 'rx="2"'),
      `<circle cx="${left + 24}" cy="${y + 15}" r="8" fill="${theme.bad}"/>`,
      svgText(String(outcome.index + 1), left + 24, y + 18.5, {
        size: 10,
        bold: true,
        colour: theme.ground,
        align: 'middle',
      }),
      svgText(
        fitText(`expected ${outcome.expected}`, canvas.width - left * 2 - 60, { size: 13, bold: true }),
        left + 42,
        y + 20,
        { size: 13, bold: true, colour: theme.text },
      ),
      ...lines.map((line, i) =>
        svgText(line, left + 42, y + 20 + (i + 1) * lineHeight, {
          size: 12,
          colour: i === 0 ? theme.bad : theme.dim,
        }),
      ),
    );
    y += height;
  }
}
