import { Performer, compileController, defineController } from 'dot-hop';
import type { ControllerDefinition, GroupDefinition } from 'dot-hop';
import { checkController } from 'dot-hop/check';
import { compiledOf } from 'dot-hop/compiled';
import { changedData, rename } from 'dot-hop/edit';
import { describeController, whyText } from 'dot-hop/explain';
import { Player, loadCompiled } from 'dot-hop/play';
import { stepTold } from './characters.js';

const definition = defineController({
  dotHop: 1,
  sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
  clips: {
    stand: { cells: 0, fps: 10 },
    walk: { cells: '1-4', fps: 10 },
    float: { cells: '5-6', fps: 5 },
    swim: { cells: '7-10', fps: 10 },
    stroke: { cells: '11-12', fps: 10, loop: 'once' },
    struck: { cells: '13-14', fps: 10, loop: 'once' },
    dive: { cells: '15-16', fps: 10 },
    splash: { cells: '17', ms: 50, loop: 'once' },
  },
  compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0] },
  signals: {
    vx: { number: 0 },
    water: { flag: false },
    deep: { flag: false },
    pull: { pulse: true },
    wave: { pulse: true },
    leap: { pulse: true },
  },
  states: {
    stand: { shows: 'stand', bridges: { sea: 'splash' }, hops: [{ to: 'sea', if: 'leap' }] },
    walk: { shows: 'walk', while: 'vx != 0', priority: 10 },
    wave: { shows: 'stand', when: 'leap and body.sea', priority: 50, lasts: 100, tags: ['dry'] },
  },
  groups: {
    sea: {
      while: 'water',
      priority: 50,
      rest: 'float',
      tags: ['wet'],
      facing: 'held',
      carry: { sea: 'phase' },
      states: {
        float: { shows: 'float' },
        swim: { shows: 'swim', while: 'vx != 0 or deep', priority: 1, facing: { by: ['vx', 0] } },
        stroke: { shows: 'stroke', when: 'pull', priority: 2, then: 'drift' },
        struck: { shows: 'struck', when: 'wave', priority: 3 },
        drift: { shows: 'float', priority: -1 },
      },
      groups: {
        below: {
          while: 'deep',
          priority: 5,
          rest: 'hover',
          states: { hover: { shows: 'float' }, dive: { shows: 'dive', while: 'vx > 50' } },
        },
      },
    },
  },
  rest: 'stand',
});
const controller = compileController(definition);

test('states of a group show only while its condition holds, its rest when no other of them wants to', () => {
  const performer = new Performer(controller, { vx: 10 });
  expect(performer.state).toBe('walk');
  performer.set('water', true);
  expect(stepTold(performer, 0)).toEqual(['0 walk > swim']);
  performer.set('vx', 0);
  expect(stepTold(performer, 0)).toEqual(['0 swim > float']);
  performer.pulse('wave');
  expect(stepTold(performer, 300)).toEqual(['0 float > struck', '200 struck > float']);
  performer.pulse('pull');
  performer.step(10);
  // Out of the water nothing of it goes on.
  performer.set('water', false);
  expect(stepTold(performer, 0)).toEqual(['310 stroke > stand']);
  performer.pulse('pull');
  expect(stepTold(performer, 0)).toEqual([]);
});

test('ranks count from the outside in, and a group in a group stands while both conditions hold', () => {
  const { order, states } = controller;
  expect(order.map((index) => states[index]!.name)).toEqual([
    ...['dive', 'hover', 'struck', 'stroke', 'swim', 'wave', 'drift', 'float', 'walk', 'stand'],
  ]);
  const ranks = describeController(controller).states.map(({ name, rank }) => `${name} ${rank}`);
  expect(ranks.slice(0, 2)).toEqual(['dive 50 / 5 / 0', 'hover 50 / 5 / rest']);
  expect(ranks).toContain('float 50 / rest');
  expect(ranks).toContain('wave 50');
  const performer = new Performer(controller, { water: true, deep: true });
  expect(performer.state).toBe('hover');
  performer.set('vx', 60);
  expect(stepTold(performer, 0)).toEqual(['0 hover > dive']);
  performer.set('deep', false);
  expect(stepTold(performer, 0)).toEqual(['0 dive > swim']);
  performer.set('water', false);
  performer.set('deep', true);
  expect(stepTold(performer, 0)).toEqual(['0 swim > walk']);
});

test('a hop into a group leads to the highest of its states whose conditions hold, and to none while it does not stand', () => {
  const performer = new Performer(controller);
  performer.pulse('leap');
  expect(stepTold(performer, 0)).toEqual([]);
  const jetty = { shows: 'stand', while: 'vx == 60', priority: 90, hops: [{ to: 'sea', if: 'leap' }] };
  const kept = new Performer(compileController({ ...definition, states: { ...definition.states, jetty } }), {
    vx: 60,
    water: true,
    deep: true,
  });
  expect(kept.state).toBe('jetty');
  kept.pulse('leap');
  expect(stepTold(kept, 0)).toEqual(['0 jetty > dive', '0 dive > jetty']);
});

test('tags, facing and carry of a group count for its states; in conditions and bridges its name stands for all of them', () => {
  const performer = new Performer(controller, { water: true });
  expect([performer.value('wet'), performer.value('body.sea')]).toEqual([true, true]);
  performer.step(150);
  performer.pulse('leap');
  // `body.sea` lets the wave in, of the same rank as the sea, above its rest.
  expect(stepTold(performer, 0)).toEqual(['150 float > wave']);
  expect([performer.value('wet'), performer.value('body.sea')]).toEqual([false, false]);
  performer.step(100);
  performer.step(250);
  expect(performer.state).toBe('float');
  // Holding its direction is what the group says, and `swim` says otherwise.
  performer.set('vx', -5);
  expect(stepTold(performer, 0)).toEqual(['500 float > swim', '500 turns west']);
  const { phase } = performer;
  expect(phase).toBeGreaterThan(0.1);
  performer.set('water', false);
  performer.set('vx', 0);
  expect(stepTold(performer, 0)).toEqual(['500 swim > stand']);
  expect([performer.clip, performer.isBridging]).toEqual(['splash', true]);
});

test('why and the compiled document know groups', () => {
  const performer = new Performer(controller, { water: true, vx: 10 });
  const dive = performer.why().states.find(({ name }) => name === 'dive')!;
  expect([dive.rank, dive.keptOut, dive.while!.text]).toEqual([
    '50 / 5 / 0',
    'condition',
    'water and deep and vx > 50',
  ]);
  expect(dive.while!.parts.map(({ text, on }) => [text, on])).toEqual([
    ['water', true],
    ['deep', false],
    ['vx > 50', false],
  ]);
  const swim = performer.why().states.find(({ name }) => name === 'swim')!;
  expect(swim.while!.text).toBe('water and (vx != 0 or deep)');
  const player = new Player(loadCompiled(JSON.parse(JSON.stringify(compiledOf(controller))) as never), {
    water: true,
    vx: 10,
  });
  expect(player.state).toBe('swim');
  expect(
    Performer.of(player)
      .why()
      .states.map(({ rank }) => rank),
  ).toEqual(performer.why().states.map(({ rank }) => rank));
});

test('in words each rank stands where the order says, whole', () => {
  const performer = new Performer(controller, { water: true });
  const ranks = whyText(performer.why())
    .split('\n')
    .flatMap((line) => /^[ >] +([-\d].*?) {2}(\w+):/.exec(line)?.slice(1, 3).join(' ') ?? []);
  expect(ranks).toEqual([
    ...['50 / 5 / 0 dive', '50 / 5 / rest hover', '50 / 3 struck', '50 / 2 stroke', '50 / 1 swim', '50 wave'],
    ...['50 / -1 drift', '50 / rest float', '10 walk', '0 stand'],
  ]);
});

test('a check asks groups as it asks states', () => {
  const found = checkController(
    compileController({
      ...definition,
      signals: { ...definition.signals, unread: { flag: false } },
      groups: {
        sea: {
          ...definition.groups.sea,
          states: {
            ...definition.groups.sea.states,
            float: { shows: 'float', rate: 'vx' },
            // Whatever it wants, swimming wants it too.
            late: { shows: 'swim', while: 'vx != 0' },
          },
        },
      },
      // A hop into the sea would lead to it, too.
      states: { ...definition.states, stand: { shows: 'stand' } },
    }),
  ).findings.map(({ code, path }) => `${path.join('.')} ${code}`);
  expect(found).toContain('signals.unread signal-unused');
  expect(found).toContain('groups.sea.states.late state-never');
  expect(found).not.toContain('signals.deep signal-unused');
  expect(found.filter((one) => one.includes('unreachable'))).toEqual([]);
});

test('renaming reaches into groups, and a group is renamed as its states are', () => {
  const renamed = (
    kind: 'state' | 'signal' | 'clip' | 'tag',
    from: string,
    to: string,
  ): ControllerDefinition => {
    return changedData<ControllerDefinition>(definition, rename(definition, { kind, from, to }).changes);
  };
  const sea = renamed('state', 'sea', 'harbour');
  expect(sea.groups!.harbour!.carry).toEqual({ harbour: 'phase' });
  expect(sea.states!.stand).toMatchObject({ bridges: { harbour: 'splash' }, hops: [{ to: 'harbour' }] });
  expect(sea.states!.wave!.when).toBe('leap and body.harbour');
  expect(renamed('state', 'float', 'bob').groups!.sea).toMatchObject({ rest: 'bob', states: { bob: {} } });
  expect(renamed('signal', 'deep', 'sunk').groups!.sea!.groups!.below!.while).toBe('sunk');
  expect(renamed('clip', 'dive', 'plunge').groups!.sea!.groups!.below!.states.dive!.shows).toBe('plunge');
  expect(renamed('tag', 'wet', 'soaked').groups!.sea!.tags).toEqual(['soaked']);
});

const withSea = (sea: object, more: object = {}): ControllerDefinition => ({
  ...definition,
  groups: { sea: { ...definition.groups.sea, ...sea } },
  ...more,
});
const { states: inSea }: GroupDefinition = definition.groups.sea;

test.each([
  [withSea({ rest: undefined }), 'groups.sea.rest: "rest" is missing'],
  [withSea({ while: undefined }), 'groups.sea.while: "while" is missing'],
  [withSea({ rest: 'flaot' }), 'groups.sea.rest: there is no state "flaot"; did you mean "float"?'],
  [withSea({ rest: 'walk' }), 'groups.sea.rest: there is no state "walk"'],
  [withSea({ rest: 'swim' }), 'groups.sea.states.swim.while: "swim" is the rest of its group'],
  [withSea({ while: 'watr' }), 'groups.sea.while: there is no signal "watr"; did you mean "water"?'],
  [withSea({ facing: { by: ['vz', 0] } }), 'groups.sea.facing.by[0]: there is no signal'],
  [withSea({ carry: { see: 'phase' } }), 'groups.sea.carry.see: there is no state "see"'],
  [withSea({ tags: ['vx'] }), 'groups.sea.tags[0]: "vx" is both a tag and a signal'],
  [withSea({ groups: { walk: definition.groups.sea.groups.below } }), '"walk" is the name of'],
  [
    withSea({ states: { ...inSea, walk: { shows: 'walk' } } }),
    'groups.sea.states.walk: "walk" is the name of states.walk already',
  ],
  [
    withSea({ states: { ...inSea, stroke: { ...inSea.stroke, then: 'sea' } } }),
    'groups.sea.states.stroke.then: "sea" is a group, and "then" names one state',
  ],
  [withSea({}, { rest: 'float' }), 'rest: "float" shows only while the "while" of a group is true'],
  [withSea({}, { rest: 'sea' }), 'rest: "sea" shows only while the "while" of a group is true'],
  [
    withSea({}, { states: {}, rest: undefined }),
    'states: a character needs a state outside of groups to rest in',
  ],
  [
    withSea({ states: { ...inSea, swim: { shows: 'swum' } } }),
    'groups.sea.states.swim.shows: there is no clip',
  ],
])('a group that cannot be is refused in words: %#', (document, words) => {
  expect(() => compileController(document)).toThrow(words);
});

test('what is wrong with a group is told once, however many states it counts for', () => {
  const told = (document: ControllerDefinition): string[] => {
    try {
      compileController(document);
      return [];
    } catch (error) {
      return (error as Error).message.split('\n');
    }
  };
  expect(told(withSea({ while: 'watr', facing: { by: ['vz', 0] }, carry: { see: 'phase' } }))).toEqual([
    expect.stringMatching(/^groups\.sea\.while: /),
    'groups.sea.carry.see: there is no state "see"; did you mean "sea"?',
    expect.stringMatching(/^groups\.sea\.facing\.by\[0\]: /),
  ]);
  // A hop into it is not told as one to nowhere.
  expect(told(withSea({ rest: 'flaot' }))).toEqual([expect.stringMatching(/^groups\.sea\.rest: /)]);
});

test('the compiler looks names of groups up', () => {
  defineController({
    ...definition,
    // @ts-expect-error there is no state "sae"
    states: { stand: { shows: 'stand', hops: [{ to: 'sae' }] } },
  });
  defineController({
    ...definition,
    groups: {
      sea: {
        while: 'water',
        // @ts-expect-error there is no state of this group "walk"
        rest: 'walk',
        // @ts-expect-error there is no clip or flipbook "flot"
        states: { float: { shows: 'flot' } },
      },
    },
  });
  const performer = new Performer(controller);
  expect(performer.ask('float')).toBe(false);
  // @ts-expect-error a group is no state
  expect(() => performer.ask('sea')).toThrow('there is no state "sea"');
});
