import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { compileController } from 'dot-hop';
import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import {
  addTrack,
  changedData,
  groupIn,
  groupState,
  groupsOf,
  removeTrack,
  setGroup,
  setVariant,
} from 'dot-hop/edit';
import type { Edit } from 'dot-hop/edit';
import { stateIn, statesIn } from 'dot-hop/explain';
import { sheets } from './characters.js';

const swimmer: ControllerDefinition = {
  dotHop: 1,
  sheets,
  clips: {
    stand: { cells: 0 },
    float: { cells: 1 },
    stroke: { cells: '2-3', fps: 8 },
    dive: { cells: 4, ms: 300, loop: 'once' },
  },
  signals: {
    wet: { flag: false },
    vx: { number: 0 },
    dive: { pulse: true },
    gear: { choice: ['bare', 'fins'] },
    cold: { flag: false },
  },
  states: {
    stand: { shows: 'stand' },
    float: { shows: 'float', while: 'wet', priority: 50 },
    stroke: { shows: 'stroke', while: 'wet and vx > 1', priority: 60 },
    dive: { shows: 'dive', when: 'dive', while: 'wet', priority: 70 },
  },
  rest: 'stand',
};
const done = (definition: ControllerDefinition, ...edits: ((now: ControllerDefinition) => Edit)[]) =>
  edits.reduce((now, edit) => changedData(now, edit(now).changes), definition);
const into = (name: string, group: string | undefined) => (now: ControllerDefinition) =>
  groupState(now, name, group);

test('states are gathered in a group, which says once what all of them said', () => {
  const made = done(swimmer, into('float', 'sea'), into('stroke', 'sea'), into('dive', 'sea'));
  expect(Object.keys(made.states!)).toEqual(['stand']);
  expect(made.groups).toEqual({
    sea: {
      while: 'wet',
      priority: 50,
      rest: 'float',
      states: {
        float: { shows: 'float' },
        stroke: { shows: 'stroke', while: 'wet and vx > 1', priority: 60 },
        dive: { shows: 'dive', when: 'dive', priority: 70 },
      },
    },
  });
  compileController(made);
  expect(groupIn(made, 'sea')!.path).toEqual(['groups', 'sea']);
  expect(groupIn(made, 'lake')).toBeUndefined();
});

test('who leaves a group says for itself what the group said; its rest passes on, and the last takes the group away', () => {
  const made = done(swimmer, into('float', 'sea'), into('dive', 'sea'));
  const without = done(made, into('float', undefined));
  expect(without.groups!.sea!.rest).toBe('dive');
  expect(without.states!.float).toEqual({ shows: 'float', while: 'wet' });
  const nobody = done(without, into('dive', undefined));
  expect(nobody.groups).toBeUndefined();
  expect(nobody.states!.dive).toEqual({ shows: 'dive', when: 'dive', priority: 70, while: 'wet' });
  compileController(nobody);
  const either = done(made, () => setGroup(['groups', 'sea'], 'while', 'wet or cold'), into('stroke', 'sea'));
  expect(done(either, into('stroke', undefined)).states!.stroke!.while).toBe(
    '(wet or cold) and wet and vx > 1',
  );
  expect(groupState(made, 'nobody', 'sea').changes).toEqual([]);
  expect(groupState(made, 'float', 'sea').changes).toEqual([]);
});

test('whatever is put into groups and out again, no state is lost and all stand in one place', () => {
  const names = ['float', 'stroke', 'dive'];
  const moves = fc.array(fc.tuple(fc.constantFrom(...names), fc.constantFrom('sea', 'harbour', undefined)), {
    maxLength: 8,
  });
  fc.assert(
    fc.property(moves, (list) => {
      const now = done(swimmer, ...list.map(([name, group]) => into(name, group)));
      expect(
        statesIn(now)
          .map(({ name }) => name)
          .sort(),
      ).toEqual(['dive', 'float', 'stand', 'stroke']);
      for (const [group] of groupsOf(now)) {
        const { rest, states } = group!.definition;
        expect(Object.keys(states)).toContain(rest);
      }
      const last = new Map(list);
      for (const name of names) expect(stateIn(now, name)!.groups[0]?.name).toBe(last.get(name));
    }),
  );
});

test('variants are set for an option or a flag, and leave nothing empty behind', () => {
  const finned = done(swimmer, (now) => setVariant(now, 'gear', 'fins', 'stroke', 'dive'));
  expect(finned.variants).toEqual({ gear: { fins: { stroke: 'dive' } } });
  const both = done(finned, (now) => setVariant(now, 'cold', undefined, 'stand', 'float'));
  expect(both.variants).toEqual({ gear: { fins: { stroke: 'dive' } }, cold: { stand: 'float' } });
  compileController(both);
  const one = done(both, (now) => setVariant(now, 'gear', 'fins', 'stroke', undefined));
  expect(one.variants).toEqual({ cold: { stand: 'float' } });
});

test('a new track goes along with the body until it is told more', () => {
  const made = done(swimmer, (now) => addTrack(now, 'arms'));
  expect(made.tracks).toEqual({ arms: { states: { 'arms-along': { inStep: 'body' } } } });
  expect(compileController(made).tracks.map(({ name }) => name)).toEqual(['body', 'arms']);
});

test('a track is deleted, also where other states take it, and leaves nothing empty behind', () => {
  const armed = done(swimmer, (now) => addTrack(now, 'arms'));
  const two = done(armed, (now) => addTrack(now, 'tail'));
  const taking = (takes: StateDefinition['takes']): ControllerDefinition => ({
    ...two,
    states: { ...two.states, stand: { ...two.states!.stand!, takes } },
  });
  const without = (takes: StateDefinition['takes'], name: string): unknown => {
    const left = done(taking(takes), (now) => removeTrack(now, name));
    return [left.states!.stand!.takes, Object.keys(left.tracks ?? {})];
  };
  expect(without(['arms', 'tail'], 'arms')).toEqual([['tail'], ['tail']]);
  expect(without({ arms: 'cold', tail: '!cold' }, 'tail')).toEqual([{ arms: 'cold' }, ['arms']]);
  expect(without(['arms'], 'arms')).toEqual([undefined, ['tail']]);
  expect(without(['arms'], 'body')).toEqual([['arms'], ['arms', 'tail']]);
  expect(done(armed, (now) => removeTrack(now, 'arms'))).toEqual(swimmer);
});

test('groups of the demo are found with those around them, tracks too', () => {
  const text = readFileSync(
    fileURLToPath(new URL('../../../demo/wick.dothop.yaml', import.meta.url)),
    'utf8',
  );
  const { definition } = readDocument(text, 'wick.dothop.yaml');
  expect(groupsOf(definition).map((chain) => chain.map(({ name }) => name))).toEqual([['air']]);
  const armed = done(definition, into('swing2', 'blows'));
  expect(armed.tracks!.arms!.groups!.blows!.rest).toBe('swing2');
});
