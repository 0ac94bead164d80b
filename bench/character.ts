import type { ControllerDefinition, StateDefinition } from 'dot-hop';

// The bench's character as a document: twelve states as most platform characters have them, and the same with
// twenty-eight more that are asked about at every decision and hardly ever show.
const cells = (first: number, count: number): string => `${first}-${first + count - 1}`;

type Clips = ControllerDefinition['clips'];

const steps = { step: [0, 4] };

/** Milliseconds of each frame; the yardstick has the same. Those of run are three quarters of those of walk. */
export const times = {
  stand: [140, 120, 140, 120, 140, 120, 140, 120],
  walk: [80, 100, 80, 100, 80, 100, 80, 100],
  run: [60, 75, 60, 75, 60, 75, 60, 75],
  crouch: [180, 160],
  land: [60, 70, 90],
  fall: [90, 110],
  rise: [110, 100],
  takeoff: [40, 40, 50],
  swing1: [50, 90, 60, 70, 80, 70],
  swing2: [50, 80, 60, 70, 90, 80],
  hurt: [80, 110, 120, 90],
  splashed: [80, 140, 120, 110],
};

const once = new Set(['land', 'takeoff', 'swing1', 'swing2', 'hurt', 'splashed']);

function clips(): Clips {
  let first = 0;
  return Object.fromEntries(
    Object.entries(times).map(([name, ms]) => {
      const clip: Clips[string] = {
        cells: cells(first, ms.length),
        ms,
        loop: once.has(name) ? 'once' : 'forever',
        ...(name === 'walk' || name === 'run' ? { cues: steps } : {}),
        ...(name.startsWith('swing') ? { cues: { whoosh: 2 } } : {}),
        ...(name === 'swing1' ? { spans: { 'follow-up': '2-5' } } : {}),
        ...(name === 'land' ? { spans: { recovery: '1-2' } } : {}),
      };
      first += ms.length;
      return [name, clip];
    }),
  );
}

/** What the character's document says. */
type Whole = ControllerDefinition & { readonly states: NonNullable<ControllerDefinition['states']> };

/** @param more how many states there are besides the twelve */
export function document(more = 0): Whole {
  const flags = Array.from({ length: Math.min(more, 14) }, (_, i) => `extra${i}`);
  return {
    dotHop: 1,
    sheets: { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } },
    clips: clips(),
    compass: { directions: 'sides', mirror: { west: 'east' }, by: ['vx', 0], deadZone: 6 },
    signals: {
      vx: { number: 0 },
      vy: { number: 0 },
      grounded: { flag: true },
      low: { flag: false },
      jump: { pulse: { keep: 120 } },
      swing: { pulse: { keep: 200 } },
      hurt: { pulse: true },
      splash: { pulse: true },
      ...Object.fromEntries(flags.map((name) => [name, { flag: false }])),
    },
    derived: {
      speed: 'abs(vx)',
      moving: { of: 'speed', above: 12, below: 8 },
      fast: { of: 'speed', above: 95, below: 80 },
    },
    states: {
      stand: { shows: 'stand' },
      walk: { shows: 'walk', while: 'grounded && moving', priority: 10, carry: { run: 'phase' } },
      run: { shows: 'run', while: 'grounded && fast', priority: 12, carry: { walk: 'phase' } },
      crouch: { shows: 'crouch', while: 'grounded && low && !moving', priority: 14 },
      land: {
        shows: 'land',
        when: 'grounded',
        while: 'grounded',
        priority: 15,
        yields: [{ to: ['walk', 'run'], during: 'recovery' }],
      },
      fall: { shows: 'fall', while: '!grounded && vy >= 0', priority: 20 },
      rise: { shows: 'rise', while: '!grounded && vy < 0', priority: 20 },
      takeoff: { shows: 'takeoff', when: 'jump && grounded', priority: 30 },
      swing1: {
        shows: 'swing1',
        when: 'swing && grounded',
        priority: 40,
        hops: [{ to: 'swing2', if: 'swing', during: 'follow-up', at: 'end' }],
      },
      swing2: { shows: 'swing2', priority: 40 },
      hurt: { shows: 'hurt', when: 'hurt', priority: 60 },
      splashed: { shows: 'splashed', when: 'splash', priority: 70 },
      ...Object.fromEntries(Array.from({ length: more }, (_, i) => [`more${i}`, extra(i, flags)])),
    },
    rest: 'stand',
  };
}

/** A posture or an act that wants in for a flag of its own, in some way with speed or height besides. */
function extra(i: number, flags: readonly string[]): StateDefinition {
  const flag = flags[i % flags.length]!;
  const with_ = ['', ' && moving', ' && !grounded', ' && vy > 40'][i % 4];
  const rule =
    i % 3 === 0 ? { when: `${flag}${with_}`, shows: 'land' } : { while: `${flag}${with_}`, shows: 'crouch' };
  return { ...rule, priority: 16 + i };
}
