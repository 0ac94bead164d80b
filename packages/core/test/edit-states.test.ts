import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import {
  addDerived,
  addSignal,
  addState,
  changedData,
  changedText,
  conditionText,
  conditionTree,
  rankState,
  removeSignal,
  removeState,
  setHop,
  setSignal,
  setState,
} from 'dot-hop/edit';
import type { ConditionTree, Edit } from 'dot-hop/edit';
import { describeController, statesIn } from 'dot-hop/explain';
import { parseExpression } from '../src/signal/expression.js';
import { ferryman } from './ferryman.js';
import { often } from './often.js';

const made = (edit: Edit, on: ControllerDefinition = ferryman): ControllerDefinition =>
  changedData(on, edit.changes);

/** The ladder from the highest rung down, with its priorities. */
const ladder = (definition: ControllerDefinition): string =>
  describeController(compileController(definition))
    .states.map(({ name, priority }) => `${name} ${priority}`)
    .join(', ');

describe('ranks', () => {
  test('a state moves between two others, to the top and to the bottom', () => {
    expect(ladder(ferryman)).toBe('wave 40, crouch 30, fly 20, land 12, stroll 10, stand 0');
    expect(ladder(made(rankState(ferryman, 'wave', 1)))).toBe(
      'crouch 30, wave 25, fly 20, land 12, stroll 10, stand 0',
    );
    expect(ladder(made(rankState(ferryman, 'stroll', 0)))).toBe(
      'stroll 50, wave 40, crouch 30, fly 20, land 12, stand 0',
    );
    expect(ladder(made(rankState(ferryman, 'fly', 5)))).toBe(
      'wave 40, crouch 30, land 12, stroll 10, stand 0, fly -10',
    );
  });

  test('where there is no room, those above make some, and no more than they must', () => {
    const tight = made(setState(ferryman, 'land', 'priority', 11));
    const edit = rankState(tight, 'stand', 4);
    expect(ladder(made(edit, tight))).toBe('wave 40, crouch 30, fly 20, land 12, stand 11, stroll 10');
    expect(edit.changes).toHaveLength(2);
  });

  test('where it stands already nothing is changed, nor for a name that is not there', () => {
    expect(rankState(ferryman, 'wave', 0).changes).toEqual([]);
    expect(rankState(ferryman, 'wvae', 0).changes).toEqual([]);
  });

  test('a state comes to whichever rung is wanted, and the others keep their order', () => {
    const { states } = ferryman;
    const names = Object.keys(states!);
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -3, max: 8 }), { minLength: names.length, maxLength: names.length }),
        fc.constantFrom(...names),
        fc.nat(names.length - 1),
        (priorities, name, to) => {
          const ranked = names.map((one, i) => [one, { ...states![one], priority: priorities[i] }]);
          const definition = { ...ferryman, states: Object.fromEntries(ranked) as typeof states };
          const order = (one: ControllerDefinition): string[] =>
            describeController(compileController(one)).states.map((state) => state.name);
          const before = order(definition).filter((one) => one !== name);
          const after = order(made(rankState(definition, name, to), definition));
          expect(after).toEqual([...before.slice(0, to), name, ...before.slice(to)]);
        },
      ),
      { numRuns: often(200) },
    );
  });

  test('in a group it moves among the states of that group', () => {
    const sea = {
      while: 'not grounded',
      rest: 'float',
      states: {
        float: { shows: 'fly' },
        dive: { shows: 'fly', when: 'jump', priority: 1 },
        row: { shows: 'fly', while: 'moving', priority: 2 },
      },
    };
    const definition = { ...ferryman, groups: { sea } };
    const { changes } = rankState(definition, 'dive', 0);
    expect(changes).toEqual([
      { op: 'set', path: ['groups', 'sea', 'states', 'dive', 'priority'], value: 12 },
    ]);
  });
});

describe('states', () => {
  test('a new one has a name of its own, and the document stays sound', () => {
    const edit = addState(ferryman, 'wave', { shows: 'wave', when: 'wave and lamp', priority: 50 });
    expect(edit.says).toBe('make state wave-2');
    expect(ladder(made(edit))).toMatch(/^wave-2 50, wave 40/);
  });

  test('one that is deleted takes the ways to it with it', () => {
    const hopping = made(setHop(ferryman, 'land', 0, { to: 'wave', if: 'wave' }));
    const linked = made({
      says: '',
      changes: [
        ...setHop(ferryman, 'crouch', 0, { to: 'fly', at: 'leap' }).changes,
        ...setHop(hopping, 'land', 1, { to: 'fly', if: 'jump' }).changes,
        ...setState(ferryman, 'wave', 'then', 'fly').changes,
      ],
    });
    const left = made(removeState(linked, 'fly'), linked);
    expect(statesIn(left).map(({ name }) => name)).not.toContain('fly');
    const { crouch, land, wave } = left.states!;
    expect([crouch!.hops, land!.hops, wave!.then]).toEqual([
      undefined,
      [{ to: 'wave', if: 'wave' }],
      undefined,
    ]);
    expect(() => compileController(left)).not.toThrow();
  });

  test('a hop is put in the place of another, and the last one that goes leaves no empty list', () => {
    const one = made(setHop(ferryman, 'crouch', 0, { to: 'fly' }));
    const other = made(setHop(one, 'crouch', 0, { to: 'land', at: 'end' }), one);
    expect(other.states!.crouch!.hops).toEqual([{ to: 'land', at: 'end' }]);
    const gone = setHop(other, 'crouch', 0, undefined);
    expect(gone.says).toBe('no hop from crouch to land');
    expect(made(gone, other).states!.crouch).not.toHaveProperty('hops');
  });
});

describe('signals', () => {
  test('they are made, said again and deleted, in their place', () => {
    const one = made(addSignal(ferryman, 'lamp', { flag: true }));
    expect(one.signals!['lamp-2']).toEqual({ flag: true });
    const two = made(addDerived(one, 'fast', { of: 'abs(vx)', above: 90, below: 80 }), one);
    const three = made(setSignal(two, 'fast', 'vx > 100'), two);
    expect(three.derived!.fast).toBe('vx > 100');
    expect(made(removeSignal(three, 'fast'), three).derived).toEqual(ferryman.derived);
    expect(made(setSignal(three, 'lamp-2', { number: 3 }), three).signals!['lamp-2']).toEqual({ number: 3 });
    expect(made(removeSignal(three, 'lamp-2'), three).signals).toEqual(ferryman.signals);
  });
});

describe('conditions', () => {
  /** What an expression says, whatever it was written like. */
  const meaning = (text: string): unknown =>
    JSON.parse(
      JSON.stringify(parseExpression(text), (key, value: unknown) =>
        key === 'at' || key === 'end' ? undefined : value,
      ),
    );

  test('are taken apart at their words, and put together with brackets where they are needed', () => {
    expect(conditionTree('grounded && !(moving || jump) and vy < 0')).toEqual({
      kind: 'all',
      not: false,
      parts: [
        { kind: 'term', text: 'grounded', not: false },
        {
          kind: 'any',
          not: true,
          parts: [
            { kind: 'term', text: 'moving', not: false },
            { kind: 'term', text: 'jump', not: false },
          ],
        },
        { kind: 'term', text: 'vy < 0', not: false },
      ],
    });
    const written = (text: string): string => conditionText(conditionTree(text)!);
    expect(written('grounded && !(moving || jump) and vy < 0')).toBe(
      'grounded and not (moving or jump) and vy < 0',
    );
    expect(written('(a or b) and not (vy < 0)')).toBe('(a or b) and not (vy < 0)');
    expect(written('not not wet')).toBe('wet');
    expect(conditionTree('grounded and and')).toBeUndefined();
  });

  test('put together again mean the same, also those of the demo', () => {
    const wick = readFileSync(
      fileURLToPath(new URL('../../../demo/wick.dothop.yaml', import.meta.url)),
      'utf8',
    );
    const { definition } = readDocument(wick, 'wick.dothop.yaml');
    const texts = statesIn(definition).flatMap(({ definition: state }) => [
      ...[state.while, state.when].flatMap((text) => text ?? []),
      ...(state.hops ?? []).flatMap((hop) => hop.if ?? []),
    ]);
    expect(texts.length).toBeGreaterThan(10);
    for (const text of texts)
      expect(meaning(conditionText(conditionTree(text)!))).toEqual(
        meaning(text.replaceAll("'", '').replaceAll('"', '')),
      );
  });

  test('whatever is put together is read as that', () => {
    const term = fc.record({
      kind: fc.constant('term' as const),
      text: fc.constantFrom('wet', 'vy < 0', 'abs(vx) > 3', 'aim.x == 1', 'wet ? dry : cold'),
      not: fc.boolean(),
    });
    const { tree } = fc.letrec<{ tree: ConditionTree; joined: ConditionTree }>((tie) => ({
      tree: fc.oneof({ depthSize: 'small' }, term, tie('joined')),
      joined: fc.record({
        kind: fc.constantFrom('all' as const, 'any' as const),
        parts: fc.array(tie('tree'), { minLength: 2, maxLength: 3 }),
        not: fc.boolean(),
      }),
    }));
    /** Joins of the same word in one another are one. */
    const flat = (one: ConditionTree): ConditionTree =>
      one.kind === 'term'
        ? one
        : {
            ...one,
            parts: one.parts
              .map(flat)
              .flatMap((part) =>
                part.kind !== 'term' && part.kind === one.kind && !part.not ? part.parts : [part],
              ),
          };
    fc.assert(
      fc.property(tree, (one) => {
        expect(conditionTree(conditionText(one))).toEqual(flat(one));
      }),
      { numRuns: often(500) },
    );
  });
});

test('the text of a document changes in the lines of what is named alone', () => {
  const text =
    'dotHop: 1\nstates:\n  stand: { shows: stand }   # at ease\n  walk:  { shows: walk, while: moving, priority: 10 }\n';
  const definition = {
    ...ferryman,
    states: { stand: { shows: 'stand' }, walk: { shows: 'walk', priority: 10 } },
  };
  const { changes } = setState(definition, 'walk', 'priority', 20);
  expect(changedText(text, changes)).toBe(text.replace('priority: 10', 'priority: 20'));
});
