import { z } from 'zod';
import { flag, named, number, section, text } from './basics.js';
import { vector } from './signals.js';

const at = z.union(
  [
    z.string(),
    z.strictObject({ start: z.string().describe('The instant this span begins.') }),
    z.strictObject({ end: z.string().describe('The instant this span ends.') }),
    z.strictObject({ phases: z.array(z.number()).describe('Phases of a pass, each from 0 to under 1.') }),
  ],
  { error: '"now", "end", a cue, { start: span }, { end: span } or { phases: [0.5] }' },
);

const hop = section(
  {
    to: text.describe('The state it leads to.'),
    if: text.optional().describe('Default: always.'),
    during: text.optional().describe('The span within which the condition counts, remembered until "at".'),
    at: at
      .optional()
      .describe(
        'The instant it is taken: now (default), end, a cue, { start: span }, { end: span }, { phases: [0.5] }.',
      ),
  },
  'a hop: { to, if, at }',
).meta({ examples: [{ to: 'swing2', if: 'swing', during: 'follow-up', at: 'end' }] });

const givesWay = section(
  {
    to: z
      .array(text, { error: 'a list of states' })
      .optional()
      .describe('Default: whichever state wants in.'),
    during: text.optional().describe('A span; default: at any time.'),
    if: text.optional().describe('Default: always.'),
  },
  'a yield: { to, during }',
);

const carry = z.enum(['none', 'phase', 'frame']);

const gaits = section(
  {
    by: text.describe('The number that picks the gait, such as speed.'),
    shows: z
      .array(text, { error: 'a list of clips or flipbooks' })
      .describe('From the slowest to the fastest.'),
    above: z
      .array(number, { error: 'a list of numbers' })
      .describe('Above which number each but the first begins.'),
    margin: number.optional().describe('How far below it must fall for the one before. Default 0.'),
  },
  'gaits: { by: speed, shows: [walk, run], above: [95], margin: 15 }',
).meta({ examples: [{ by: 'speed', shows: ['walk', 'run'], above: [88], margin: 14 }] });

const rate = z.union(
  [
    z.string(),
    z.number(),
    z.strictObject({
      travel: z.string().describe('Pixels a second that the body travels; the stride makes the rate of it.'),
      least: z.number().optional().describe('The lowest rate. Default 0.'),
      most: z.number().optional().describe('The highest rate. Default 64.'),
    }),
  ],
  { error: 'an expression, a number, or { travel: speed, least, most }' },
);

const scrub = section(
  {
    by: text.describe('The number, such as vy.'),
    from: number.describe('The number at which the beginning of the clip shows.'),
    to: number.describe('The number at which its end shows.'),
  },
  'a scrub: { by: vy, from: -300, to: 300 }',
);

export const state = section(
  {
    shows: text.optional().describe('The clip or flipbook it shows.'),
    gaits: gaits.optional().describe('Instead of "shows": several flipbooks, picked by a number.'),
    priority: number.optional().describe('Higher ranks win. Default 0.'),
    while: text.optional().describe('Makes it a posture: shows as long as this is true.'),
    when: text.optional().describe('Makes it an act: starts when this becomes true and plays to its end.'),
    then: text.optional().describe("The state that follows an act's end."),
    hops: z
      .array(hop, { error: 'a list of hops' })
      .optional()
      .describe('Explicit ways to other states, in order.'),
    yields: z
      .array(givesWay, { error: 'a list of yields' })
      .optional()
      .describe('When and to whom it gives way although it has not ended.'),
    carry: z
      .union([carry, z.record(z.string(), carry)], {
        error: '"none", "phase" or "frame", or these by the state that is left',
      })
      .optional()
      .describe("What is kept of the clip's place when it is entered."),
    rate: rate
      .optional()
      .describe('How fast its time runs: an expression, or { travel: speed } with the stride of the clip.'),
    scrub: scrub.optional().describe('Its frame follows a number instead of time.'),
    bridges: named(z.union([z.string(), z.record(z.string(), z.string())]), 'clips by the state that is left')
      .optional()
      .describe(
        'Clips that show first when it is entered from these states, or from a gait of one: { go: { run: skid } }.',
      ),
    leaves: at
      .optional()
      .describe('Where it gives way when its "while" has turned false: end, a cue, a span, phases.'),
    atLeast: number.optional().describe('Milliseconds for which only a higher rank or a hop ends it.'),
    again: z
      .enum(['ignore', 'restart', 'queue'], { error: '"ignore", "restart" or "queue"' })
      .optional()
      .describe('What a new press does to an act that is playing. Default: ignore.'),
    tags: z
      .array(text, { error: 'a list of names' })
      .optional()
      .describe('Names that conditions can test: true while it shows.'),
    facing: z
      .union(
        [
          z.literal('held'),
          z.strictObject({
            by: vector.describe('The vector it faces by.'),
            deadZone: z.number().optional().describe('Default: that of the compass.'),
          }),
        ],
        {
          error: '"held", or a vector of its own: { by: aim }',
        },
      )
      .optional()
      .describe('Keeps the direction it was entered with, or faces by another vector than the compass.'),
    turns: section(
      {
        shows: text.describe('The clip or flipbook, played once in the new direction.'),
        least: number.optional().describe('From how many degrees on. Default 90.'),
      },
      'turns: { shows: skid, least: 90 }',
    )
      .optional()
      .describe('What shows first when the character turns in this state.'),
    final: flag.optional().describe('No rank cuts it off.'),
    inStep: text
      .optional()
      .describe('The track whose frames it shows; without "shows" its part of the same drawings.'),
    takes: z
      .union([z.array(text), z.record(z.string(), z.string())], {
        error: 'a list of tracks, or a condition for each: { body: "!moving" }',
      })
      .optional()
      .describe('Tracks that show this state too while it shows, always or while a condition holds.'),
  },
  'a state: { shows, priority, while or when }',
).meta({
  examples: [
    { shows: 'stand' },
    { shows: 'run', while: 'grounded && moving', priority: 10, carry: 'phase' },
    { shows: 'takeoff', when: 'jump && grounded', priority: 30, then: 'rise' },
  ],
});

export const track = section(
  {
    draws: z
      .array(text, { error: 'a list of parts of the sheets' })
      .optional()
      .describe('The parts of the sheets that show what this track shows.'),
    states: named(state, 'states by name').describe('What it can be showing, by rank.'),
    rest: text
      .optional()
      .describe('The state that shows when no other of them wants to; default: the first.'),
  },
  'a track: { draws, states, rest }',
).meta({
  examples: [{ draws: ['arms'], states: { along: { inStep: 'body' } }, rest: 'along' }],
});
