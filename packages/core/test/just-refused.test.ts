import { DotHopError } from 'dot-hop';
import type { StateDefinition, TrackDefinition } from 'dot-hop';
import { compile } from './characters.js';
import type { Parts } from './characters.js';

const common: Parts = {
  clips: {
    loop: { cells: '0-3', ms: 100 },
    walk: { cells: '4-7', ms: 100, cues: { step: 0 }, spans: { bend: '1-2' }, stride: 20 },
    still: { cells: '4-7', ms: 100, stride: 0 },
    brief: { cells: 0, ms: 50, loop: 'once' },
    act: { cells: '0-3', ms: 50, loop: 'once', cues: { hit: 2 }, spans: { late: '2-3' } },
  },
  compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0] },
  signals: {
    go: { flag: false },
    press: { pulse: true },
    vx: { number: 0 },
    mode: { choice: ['dry', 'wet'] },
  },
  rest: 'rest',
};
const state = (one: StateDefinition): Parts => ({ ...common, states: { rest: { shows: 'loop' }, one } });
const track = (arms: TrackDefinition, body: StateDefinition = { shows: 'walk', while: 'go' }): Parts => ({
  ...state(body),
  tracks: { arms },
});
const beside = (one: StateDefinition): Parts => track({ states: { along: { inStep: 'body' }, wave: one } });
const whole = (more: Partial<Parts>): Parts => ({ ...state({ shows: 'act', when: 'press' }), ...more });

/** The codes of what is wrong, each with its path. */
function wrongIn(parts: Parts): string[] {
  try {
    compile(parts);
    return [];
  } catch (error) {
    return (error as DotHopError).problems.map(({ code, path }) => `${code} ${path.join('.')}`);
  }
}

const gaits = { by: 'vx', shows: ['loop', 'walk'], above: [50] };
const going = { shows: 'walk', while: 'go' };

test.each<readonly [string, string, Parts, Parts]>([
  ['gaits-count', 'states.one.gaits', state({ gaits: { ...gaits, above: [] } }), state({ gaits })],
  [
    'gaits-order',
    'states.one.gaits.above',
    state({ gaits: { ...gaits, shows: ['loop', 'walk', 'walk'], above: [50, 50] } }),
    state({ gaits: { ...gaits, shows: ['loop', 'walk', 'walk'], above: [50, 50.1] } }),
  ],
  ['shows-one', 'states.one', state({ shows: 'loop', gaits }), state({ shows: 'loop' })],
  ['rate-fast', 'states.one.rate', state({ shows: 'loop', rate: 64.01 }), state({ shows: 'loop', rate: 64 })],
  [
    'rate-fast',
    'states.one.rate',
    state({ shows: 'loop', rate: -64.01 }),
    state({ shows: 'loop', rate: -64 }),
  ],
  [
    'rate-bounds',
    'states.one.rate',
    state({ shows: 'walk', rate: { travel: 'vx', least: 2, most: 1.9 } }),
    state({ shows: 'walk', rate: { travel: 'vx', least: 2, most: 2 } }),
  ],
  [
    'rate-bounds',
    'states.one.rate',
    state({ shows: 'walk', rate: { travel: 'vx', least: -0.1 } }),
    state({ shows: 'walk', rate: { travel: 'vx', least: 0, most: 64 } }),
  ],
  [
    'expression-syntax',
    'states.one.rate',
    state({ shows: 'loop', rate: 'vx +' }),
    state({ shows: 'loop', rate: 'vx + 1' }),
  ],
  [
    'rate-stride',
    'states.one.rate',
    state({ gaits: { ...gaits, shows: ['walk', 'loop'] }, rate: { travel: 'vx' } }),
    state({ gaits: { ...gaits, shows: ['walk', 'walk'] }, rate: { travel: 'vx' } }),
  ],
  [
    'rate-stride',
    'states.one.rate',
    state({ shows: 'still', rate: { travel: 'vx' } }),
    state({ shows: 'walk', rate: { travel: 'vx' } }),
  ],
  [
    'fit-alone',
    'states.one.fit',
    state({ shows: 'act', fit: true }),
    state({ shows: 'act', fit: true, lasts: 9 }),
  ],
  [
    'fit-with',
    'states.one.fit',
    state({ shows: 'act', fit: true, lasts: 9, rate: 2 }),
    state({ shows: 'act', lasts: 9, rate: 2 }),
  ],
  [
    'lasts-posture',
    'states.one.lasts',
    state({ ...going, lasts: 9 }),
    state({ shows: 'walk', when: 'press', lasts: 9 }),
  ],
  [
    'scrub-range',
    'states.one.scrub',
    state({ ...going, scrub: { by: 'vx', from: 5, to: 5 } }),
    state({ ...going, scrub: { by: 'vx', from: 5, to: 4 } }),
  ],
  [
    'act-endless',
    'states.one.shows',
    state({ shows: 'walk', when: 'press' }),
    state({ shows: 'act', when: 'press' }),
  ],
  [
    'scrub-act',
    'states.one.scrub',
    state({ shows: 'act', when: 'press', scrub: { by: 'vx', from: 5, to: 4 } }),
    state({ shows: 'act', when: 'press', lasts: 90, scrub: { by: 'vx', from: 5, to: 4 } }),
  ],
  [
    'then-posture',
    'states.one.then',
    state({ ...going, then: 'rest' }),
    state({ shows: 'act', then: 'rest' }),
  ],
  [
    'leaves-bare',
    'states.one.leaves',
    state({ shows: 'walk', leaves: 'end' }),
    state({ ...going, leaves: 'end' }),
  ],
  [
    'leaves-never',
    'states.one.leaves',
    state({ gaits, while: 'go', leaves: 'step' }),
    state({ gaits: { ...gaits, shows: ['act', 'walk'] }, while: 'go', leaves: 'step' }),
  ],
  [
    'leaves-never',
    'states.one.leaves',
    state({ gaits, while: 'go', leaves: { end: 'bend' } }),
    state({ gaits: { ...gaits, shows: ['walk', 'walk'] }, while: 'go', leaves: { start: 'bend' } }),
  ],
  [
    'phase-range',
    'states.one.leaves.phases.1',
    state({ ...going, leaves: { phases: [0, 1] } }),
    state({ ...going, leaves: { phases: [0, 0.999] } }),
  ],
  [
    'again-posture',
    'states.one.again',
    state({ ...going, again: 'queue' }),
    state({ ...going, again: 'ignore' }),
  ],
  [
    'bridge-endless',
    'states.one.bridges.rest',
    state({ ...going, bridges: { rest: 'loop' } }),
    state({ ...going, bridges: { rest: 'act' } }),
  ],
  [
    'gait-unknown',
    'states.one.bridges.go.act',
    {
      ...common,
      states: { rest: { shows: 'loop' }, go: { gaits }, one: { ...going, bridges: { go: { act: 'act' } } } },
    },
    {
      ...common,
      states: { rest: { shows: 'loop' }, go: { gaits }, one: { ...going, bridges: { go: { walk: 'act' } } } },
    },
  ],
  [
    'turns-act',
    'states.one.turns',
    state({ shows: 'act', when: 'press', turns: { shows: 'act' } }),
    state({ ...going, turns: { shows: 'act' } }),
  ],
  [
    'turns-least',
    'states.one.turns.least',
    state({ ...going, turns: { shows: 'act', least: 180.5 } }),
    state({ ...going, turns: { shows: 'act', least: 180 } }),
  ],
  [
    'turns-least',
    'states.one.turns.least',
    state({ ...going, turns: { shows: 'act', least: -0.5 } }),
    state({ ...going, turns: { shows: 'act', least: 0 } }),
  ],
  [
    'facing-none',
    'states.one.turns',
    { ...state({ ...going, turns: { shows: 'act' } }), compass: undefined },
    state({ ...going, turns: { shows: 'act' } }),
  ],
  [
    'facing-none',
    'states.one.facing',
    { ...state({ ...going, facing: { by: ['vx', 0] } }), compass: undefined },
    state({ ...going, facing: { by: ['vx', 0] } }),
  ],
  [
    'yields-itself',
    'states.one.yields.0.to.0',
    state({ ...going, yields: [{ to: ['one'] }] }),
    state({ ...going, yields: [{ to: ['rest'] }] }),
  ],
  [
    'variety-count',
    'states.one.shows.any',
    state({ shows: { any: ['act'] } }),
    state({ shows: { any: ['act', 'loop'] } }),
  ],
  [
    'variety-weights',
    'states.one.shows.weights',
    state({ shows: { any: ['act', 'loop'], pick: 'chance', weights: [1] } }),
    state({ shows: { any: ['act', 'loop'], pick: 'chance', weights: [1, 0] } }),
  ],
  [
    'variety-none',
    'states.one.shows.weights',
    state({ shows: { any: ['act', 'loop'], pick: 'chance', weights: [0, 0] } }),
    state({ shows: { any: ['act', 'loop'], pick: 'chance', weights: [0, 0.01] } }),
  ],
  [
    'variety-turn',
    'states.one.shows.repeats',
    state({ shows: { any: ['act', 'loop'], repeats: true } }),
    state({ shows: { any: ['act', 'loop'], pick: 'chance', repeats: true } }),
  ],
  [
    'variety-turn',
    'states.one.shows.weights',
    state({ shows: { any: ['act', 'loop'], weights: [1, 2] } }),
    state({ shows: { any: ['act', 'loop'], pick: 'chance', weights: [1, 2] } }),
  ],
  ...(['gaits', 'rate', 'scrub', 'leaves', 'bridges', 'turns', 'facing', 'lasts'] as const).map(
    (field) =>
      [
        'in-step-time',
        `tracks.arms.states.wave.${field}`,
        beside({
          inStep: 'body',
          while: 'go',
          ...(field !== 'gaits' && { shows: 'walk' }),
          [field]: {
            gaits,
            rate: 2,
            scrub: { by: 'vx', from: 0, to: 9 },
            leaves: 'end',
            bridges: { along: 'act' },
            turns: { shows: 'act' },
            facing: 'held',
            lasts: 90,
          }[field],
        }),
        beside({ inStep: 'body', while: 'go', shows: 'walk' }),
      ] as const,
  ),
  [
    'in-step-time',
    'tracks.arms.states.wave',
    beside({ inStep: 'body', while: 'go', shows: 'walk', hops: [{ to: 'along', at: 'end' }] }),
    beside({ inStep: 'body', while: 'go', shows: 'walk', hops: [{ to: 'along', at: 'now' }] }),
  ],
  [
    'in-step-time',
    'tracks.arms.states.wave',
    beside({ inStep: 'body', while: 'go', shows: 'walk', hops: [{ to: 'along', during: 'bend' }] }),
    beside({ inStep: 'body', while: 'go', shows: 'walk', hops: [{ to: 'along' }] }),
  ],
  [
    'in-step-time',
    'tracks.arms.states.wave',
    beside({ inStep: 'body', while: 'go', shows: 'walk', yields: [{ during: 'bend' }] }),
    beside({ inStep: 'body', while: 'go', shows: 'walk', yields: [{ if: 'go' }] }),
  ],
  [
    'in-step-act',
    'tracks.arms.states.wave.inStep',
    beside({ inStep: 'body', when: 'press', shows: 'act' }),
    beside({ inStep: 'body', while: 'go', shows: 'act' }),
  ],
  [
    'takes-in-step',
    'tracks.arms.states.wave.takes',
    beside({ inStep: 'body', while: 'go', shows: 'walk', takes: ['body'] }),
    beside({ while: 'go', shows: 'walk', takes: ['body'] }),
  ],
  [
    'takes-itself',
    'tracks.arms.states.wave.takes.arms',
    beside({ ...going, takes: ['arms'] }),
    beside({ ...going, takes: ['body'] }),
  ],
  [
    'in-step-itself',
    'tracks.arms.states.wave.inStep',
    beside({ inStep: 'arms', while: 'go' }),
    beside({ inStep: 'body', while: 'go' }),
  ],
  [
    'in-step-circle',
    'tracks.arms.states.along.inStep',
    track({ states: { along: { inStep: 'body' } } }, { inStep: 'arms', while: 'go' }),
    track({ states: { along: { shows: 'loop' } } }, { inStep: 'arms', while: 'go' }),
  ],
  [
    'track-name',
    'tracks.left-arm',
    whole({ tracks: { 'left-arm': { states: { still: { shows: 'loop' } } } } }),
    whole({ tracks: { left_arm: { states: { still: { shows: 'loop' } } } } }),
  ],
  [
    'track-signal',
    'tracks.go',
    whole({ tracks: { go: { states: { still: { shows: 'loop' } } } } }),
    whole({ tracks: { gone: { states: { still: { shows: 'loop' } } } } }),
  ],
  [
    'state-none',
    'tracks.arms.states',
    track({ states: {} }),
    track({ states: { still: { shows: 'loop' } } }),
  ],
  [
    'tag-tracks',
    'tracks.arms.states.still.tags.0',
    track({ states: { still: { shows: 'loop', tags: ['loud'] } } }, { ...going, tags: ['loud'] }),
    track({ states: { still: { shows: 'loop', tags: ['loud'] } } }, { ...going, tags: ['low'] }),
  ],
  [
    'variants-kind',
    'variants.mode',
    whole({ variants: { mode: { act: 'brief' } } }),
    whole({ variants: { go: { act: 'brief' } } }),
  ],
  [
    'variants-kind',
    'variants.go',
    whole({ variants: { go: { dry: { act: 'brief' } } } }),
    whole({ variants: { mode: { dry: { act: 'brief' } } } }),
  ],
  [
    'variant-option',
    'variants.mode.dray',
    whole({ variants: { mode: { dray: { act: 'brief' } } } }),
    whole({ variants: { mode: {} } }),
  ],
  [
    'clip-unknown',
    'variants.go.act',
    whole({ variants: { go: { act: 'breif' } } }),
    whole({ variants: { go: {} } }),
  ],
  [
    'signal-unknown',
    'variants.gone',
    whole({ variants: { gone: { dry: { act: 'brief' } } } }),
    whole({ variants: {} }),
  ],
  [
    'cue-unplaced',
    'cues.hot',
    whole({ cues: { hot: { any: ['a', 'b'] } } }),
    whole({ cues: { hit: { any: ['a', 'b'] } } }),
  ],
])('%s at %s, and what differs least from it is sound', (code, path, refused, sound) => {
  expect(wrongIn(sound)).toEqual([]);
  expect(wrongIn(refused)).toContain(`${code} ${path}`);
});

test('who misspells a state reads which there are, each once, without those that only take the track', () => {
  const parts = track(
    { states: { still: { shows: 'loop' }, wave: { shows: 'act', when: 'press', takes: ['body'] } } },
    { ...going, hops: [{ to: 'rust' }] },
  );
  const error = ((): unknown => {
    try {
      return compile(parts);
    } catch (thrown) {
      return thrown;
    }
  })();
  expect(error).toBeInstanceOf(DotHopError);
  expect((error as DotHopError).problems).toMatchObject([
    { values: { name: 'rust', known: ['rest', 'one'] } },
  ]);
});
