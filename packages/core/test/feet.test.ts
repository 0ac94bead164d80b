import { checked } from './findings-page.js';

test('feet jump only where both states step in a loop, equally often, and nothing says how one goes over into the other', () => {
  const jumps = (change: Partial<Record<'walk' | 'run' | 'clip' | 'more', string>> = {}): unknown[] => {
    const { walk = '', run = '', clip = 'cues: { step: [0, 4] }, stride: 50', more = '' } = change;
    return checked(`clips:
  walk: { cells: 0-7, fps: 10, stride: 24, cues: { step: [0, 4], puff: 2 } }
  run: { cells: 8-15, fps: 14, ${clip} }
  skid: { cells: 16-17, fps: 8, loop: once }
signals: { vx: { number: 0 } }
derived: { fast: { of: abs(vx), above: 95, below: 85 } }
states:
  walk: { shows: walk${walk} }
  run: { shows: run, while: fast, priority: 1${run} }
${more}`).flatMap(({ code, values }) => (code === 'feet-jump' ? [[values.state, values.from]] : []));
  };
  const [intoWalk, intoRun] = [
    ['walk', ['run']],
    ['run', ['walk']],
  ];
  expect(jumps()).toEqual([intoWalk, intoRun]);
  expect(jumps({ walk: ', carry: frame', run: ', carry: none' })).toEqual([]);
  expect(jumps({ walk: ', carry: { run: phase }' })).toEqual([intoRun]);
  expect(jumps({ run: ', bridges: { walk: skid }' })).toEqual([intoWalk]);
  // Other feet, or as many as do not fit.
  for (const clip of [
    'cues: { stroke: [0, 4] }, stride: 50',
    'cues: { step: 0 }, stride: 50',
    'cues: { step: [0, 4] }',
    'cues: { step: [0, 4], puff: 7 }, stride: 50, loop: once',
    'cues: { step: [0, 1, 4] }, stride: 50, loop: { from: 1 }',
  ])
    expect([clip, jumps({ clip })].flat()).toHaveLength(clip.includes('from') ? 3 : 1);
  expect(jumps({ run: ', scrub: { by: vx, from: 0, to: 99 }' })).toEqual([]);
  // What a group says counts for its states; and each track has its own feet.
  const wet = (carry: string) => `groups:
  wet: { while: vx > 200, rest: wade${carry}, states: { wade: { shows: walk } } }
`;
  const said = { walk: ', carry: phase', run: ', carry: phase' };
  expect(jumps({ ...said, more: wet('') })).toEqual([['wade', ['walk', 'run']]]);
  expect(jumps({ ...said, more: wet(', carry: phase') })).toEqual([]);
  expect(jumps({ ...said, more: 'tracks: { arms: { states: { sway: { shows: run } } } }' })).toEqual([]);
});
