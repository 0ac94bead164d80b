import { any, fields, flag, number, one, pair, text, texts, withinHour } from '../shape/shape.js';

/** A length that is given, or read when it begins to count. */
export const lengthShape = any('milliseconds from 0 to 3600000, or an expression', withinHour, text());

export const signalShape = any(
  'a signal: { number: 0 }, { flag: false }, { choice: [a, b] }, { vector: [0, 0] } or { pulse: { keep: 120 } }',
  fields(
    'number',
    'a number: { number: 0, from: 0, to: 100 }',
    { number: number() },
    { from: number(), to: number(), whole: flag, unit: text() },
  ),
  fields('flag', 'a flag: { flag: false }', { flag }),
  fields('choice', 'a choice: { choice: [a, b] }', { choice: texts('a list of names') }, { first: text() }),
  fields('vector', 'a vector: { vector: [0, 0] }', { vector: pair }),
  fields('pulse', 'a pulse: { pulse: { keep: 120 } }', {
    pulse: any(
      'true or { keep: milliseconds }',
      one('true', true),
      fields('kept', '{ keep: milliseconds }', {}, { keep: withinHour }),
    ),
  }),
);

export const derivedShape = any(
  'an expression, { of, above, below }, { of, linger } or { of, settle }',
  text(),
  fields('band', 'a band: { of, above, below }', { of: text(), above: number(), below: number() }),
  fields('linger', '{ of, linger }', { of: text(), linger: lengthShape }),
  fields('settle', '{ of, settle }', { of: text(), settle: lengthShape }),
);
