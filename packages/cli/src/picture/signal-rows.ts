import type { SignalFacts } from 'dot-hop/explain';
import type { TraceEntry } from 'dot-hop/rehearsal';
import { svgBox, svgLine } from './canvas.js';
import { labels, margin } from './drawing.js';
import type { Drawing } from './drawing.js';
import { fitText, svgText, textWidth } from './letters.js';
import { theme } from './theme.js';

export const signalHeight = 30;

/** What is drawn of a signal, or of one part of a vector. */
export interface SignalRow {
  readonly name: string;
  readonly kind: 'number' | 'flag' | 'choice' | 'pulse';
  /** Its values in the order of time; those of a choice are its options. */
  readonly values: readonly { readonly at: number; readonly value: number | string }[];
}

/** The rows of a signal: a vector has two. */
export function rowsOf({ name, kind, first }: SignalFacts, trace: readonly TraceEntry[]): SignalRow[] {
  const sets = trace.filter(
    (e): e is Extract<TraceEntry, { kind: 'set' }> => e.kind === 'set' && e.name === name,
  );
  if (kind === 'vector')
    return ['x', 'y'].map((part, i) => ({
      name: `${name}.${part}`,
      kind: 'number',
      values: [
        { at: 0, value: (first as readonly number[])[i]! },
        ...sets.map(({ at, value }) => ({ at, value: (value as readonly number[])[i]! })),
      ],
    }));
  if (kind === 'choice') {
    const values = sets.map(({ at, value }) => ({ at, value: String(value) }));
    return [{ name, kind, values: [{ at: 0, value: String(first) }, ...values] }];
  }
  const values = sets.map(({ at, value }) => ({ at, value: Number(value) }));
  return [{ name, kind, values: [{ at: 0, value: Number(first) }, ...values] }];
}

/** Between what a number went, where its curve has no room to say so. */
function rangeText(values: SignalRow['values']): string {
  const numbers = values.map(({ value }) => Number(value));
  if (new Set(numbers).size < 4) return '';
  return `${Number(Math.min(...numbers).toFixed(1))} to ${Number(Math.max(...numbers).toFixed(1))}`;
}

/** A number as a curve of steps, a flag as a bar while it is on, a choice as named bars, a pulse as a mark. */
export function drawSignal(
  { canvas, result, x }: Drawing,
  { name, kind, values }: SignalRow,
  top: number,
): void {
  const height = signalHeight - 10;
  const rangeOf = kind === 'number' ? rangeText(values) : '';
  canvas.draw(
    svgText(fitText(name, labels - 34, { size: 13 }), margin + 32, top + (rangeOf === '' ? 16 : 10), {
      colour: theme.dim,
    }),
    svgText(rangeOf, margin + 32, top + 22, { size: 10, colour: theme.dim }),
  );
  if (kind === 'pulse') {
    for (const { at } of result.trace.filter((entry) => entry.kind === 'pulse' && entry.name === name))
      canvas.draw(svgBox(x(at) - 1.5, top + 2, 3, height - 2, theme.lamp, 'rx="1"'));
    canvas.draw(svgLine(x(0), top + height, x(result.lasts), top + height, theme.line));
    return;
  }
  const all = values.map(({ value }) => (typeof value === 'number' ? value : 0));
  const [low, high] = kind === 'flag' ? [0, 1] : [Math.min(0, ...all), Math.max(0, ...all)];
  const y = (value: number): number =>
    top + height - (high === low ? 0 : ((value - low) / (high - low)) * (height - 3));
  canvas.draw(svgLine(x(0), y(0), x(result.lasts), y(0), theme.line));
  let path = '';
  values.forEach(({ at, value }, i) => {
    const end = values[i + 1]?.at ?? result.lasts;
    const wide = x(end) - x(at);
    const bar = kind === 'choice' || (kind === 'flag' && value !== 0);
    if (bar) canvas.draw(svgBox(x(at), top + 3, wide, height - 3, theme.good, 'fill-opacity="0.5" rx="2"'));
    const text = String(value);
    const labelled = kind === 'choice' || (kind === 'number' && value !== 0);
    const fits = labelled && wide > textWidth(text, { size: 10 }) + 8;
    const colour = kind === 'choice' ? theme.text : theme.dim;
    const base = typeof value === 'number' ? y(value) - 3 : top + height - 4;
    if (fits) canvas.draw(svgText(text, x(at) + 4, base, { size: 10, colour }));
    if (typeof value === 'number') path += `${i === 0 ? 'M' : 'L'}${x(at)} ${y(value)} H${x(end)} `;
  });
  if (kind === 'number')
    canvas.draw(`<path d="${path}" fill="none" stroke="${theme.good}" stroke-width="1.6"/>`);
}
