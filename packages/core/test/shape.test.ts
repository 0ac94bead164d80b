import {
  allOf,
  any,
  expression,
  fields,
  list,
  map,
  mapBy,
  name,
  names,
  namesOf,
  number,
  one,
  text,
  tuple,
} from '../src/shape/shape.js';
import { textsIn } from '../src/shape/texts.js';
import { typed } from '../src/shape/type-of.js';

interface Lamp {
  oil: number;
  colour?: 'red' | 'white' | undefined;
}

test('a shape that says something else than its type is refused by the compiler', () => {
  const same = fields('lamp', 'a lamp', { oil: number() }, { colour: one('', 'red', 'white') });
  const lacks = allOf('lamp', 'a lamp', { oil: number() });
  const adds = fields('lamp', 'a lamp', { oil: number() }, { colour: one('', 'red', 'white'), wick: text() });
  const other = fields('lamp', 'a lamp', { oil: text() }, { colour: one('', 'red', 'white') });
  const must = allOf('lamp', 'a lamp', { oil: number(), colour: one('', 'red', 'white') });
  expect(list(typed<Lamp>()(same), 'lamps').of).toBe(same);
  // @ts-expect-error it lacks the colour
  list(typed<Lamp>()(lacks), 'lamps');
  // @ts-expect-error it has a wick, too
  list(typed<Lamp>()(adds), 'lamps');
  // @ts-expect-error the oil is a number
  list(typed<Lamp>()(other), 'lamps');
  // @ts-expect-error the colour may be left out
  list(typed<Lamp>()(must), 'lamps');
});

test('the texts of data that have a role, each with its place, whatever does not fit', () => {
  const state = fields(
    'state',
    'a state',
    { shows: any('', name('shown'), allOf('some', '', { any: names('shown', '') })) },
    {
      when: any('', one('', 'always'), expression, tuple([expression, number()], '')),
      bridges: mapBy('state', name('clip'), ''),
      note: text(),
      weights: map(number(), ''),
    },
  );
  const shape = namesOf('state', state, '');
  const placed = textsIn(
    {
      a: { shows: 'walk', when: 'go', bridges: { b: 'turn' }, note: 'walk', weights: { b: 1 } },
      b: { shows: { any: ['x', 'y'] }, when: 'always' },
      c: { shows: 5, when: ['vx', 'vy', 'vz'], bridges: ['b'], unknown: 'd' },
      d: null,
    },
    shape,
  );
  expect(placed.map(({ path, role, as, text: said }) => `${path.join('.')} ${as} ${role} ${said}`)).toEqual([
    'a key state a',
    'a.shows value shown walk',
    'a.when value expression go',
    'a.bridges.b key state b',
    'a.bridges.b value clip turn',
    'b key state b',
    'b.shows.any.0 value shown x',
    'b.shows.any.1 value shown y',
    'c key state c',
    'c.when.0 value expression vx',
    'd key state d',
  ]);
});
