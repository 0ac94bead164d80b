import {
  allOf,
  any,
  expression,
  fields,
  flag,
  number,
  one,
  pair,
  text,
  texts,
  withinHour,
} from '../shape/shape.js';
import { typed } from '../shape/type-of.js';
import type { DerivedDefinition, SignalDefinition } from './definition.js';

export const lengthShape = any('milliseconds from 0 to 3600000, or an expression', withinHour, expression);

const bounds = {
  from: number(),
  to: number(),
  whole: flag,
  unit: text(),
};

const anySignal = any(
  'a signal: { number: 0 }, { flag: false }, { choice: [a, b] }, { vector: [0, 0] } or { pulse: { keep: 120 } }',
  fields('number', 'a number: { number: 0, from: 0, to: 100 }', { number: number() }, bounds),
  allOf('flag', 'a flag: { flag: false }', { flag }),
  fields(
    'choice',
    'a choice: { choice: [a, b] }',
    {
      choice: texts('a list of names'),
    },
    {
      first: text(),
    },
  ),
  allOf('vector', 'a vector: { vector: [0, 0] }', {
    vector: pair,
  }),
  allOf('pulse', 'a pulse: { pulse: { keep: 120 } }', {
    pulse: any(
      'true or { keep: milliseconds }',
      one('true', true),
      fields(
        'kept',
        '{ keep: milliseconds }',
        {},
        {
          keep: withinHour,
        },
      ),
    ),
  }),
);

export const signalShape = typed<SignalDefinition>()(anySignal);

const anyDerived = any(
  'an expression, { of, above, below }, { of, linger } or { of, settle }',
  expression,
  allOf('band', 'a band: { of, above, below }', {
    of: expression,
    above: number(),
    below: number(),
  }),
  allOf('linger', '{ of, linger }', {
    of: expression,
    linger: lengthShape,
  }),
  allOf('settle', '{ of, settle }', {
    of: expression,
    settle: lengthShape,
  }),
);

export const derivedShape = typed<DerivedDefinition>()(anyDerived);
