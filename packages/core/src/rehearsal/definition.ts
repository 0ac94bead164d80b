import { z } from 'zod';
import { buttonNames, quantityNames } from './body.js';

const number = z.number({ error: 'a number' });
const milliseconds = z
  .number({ error: 'milliseconds, 0 or more' })
  .min(0, { error: 'milliseconds, 0 or more' });
const some = z.number({ error: 'milliseconds, more than 0' }).gt(0, { error: 'milliseconds, more than 0' });
const text = z.string({ error: 'a text' });
/** The longest rehearsal, in milliseconds. */
const longest = 3_600_000;
const oneOrMore = <T extends z.ZodType>(value: T, error: string) =>
  z.union([value, z.array(value)], { error });

const shownThen = {
  state: text
    .optional()
    .describe('At an instant: the state that shows. With from and to: it shows all the time.'),
  direction: text.optional().describe('The direction faced at that instant.'),
  cell: number.optional().describe('The number of the cell that shows at that instant.'),
};

const aim = z.union([number, z.tuple([number, number])], { error: 'a number to go to, or [from, to]' });

const line = z.strictObject(
  {
    at: milliseconds.optional().describe('The instant, in milliseconds from the beginning.'),
    after: milliseconds.optional().describe('So many milliseconds after the line above took place.'),
    until: z
      .union(
        [
          text,
          z.strictObject({ state: text.describe('A state that shows.') }),
          z.strictObject({ cue: text.describe('A cue that is heard.') }),
        ],
        {
          error: 'a condition such as "grounded && vy == 0", { state: NAME } or { cue: NAME }',
        },
      )
      .optional()
      .describe(
        'After the line above took place: as soon as a condition is true, a state shows, a cue is heard.',
      ),
    within: some
      .optional()
      .describe('With until: how many milliseconds it is waited at most; past them it counts as not met.'),
    set: z
      .record(
        z.string(),
        z.union([z.number(), z.boolean(), z.string(), z.tuple([z.number(), z.number()])], {
          error: 'a number, true or false, an option or [x, y]',
        }),
        { error: 'signals with their values' },
      )
      .optional()
      .describe('Signals with their values.'),
    pulse: oneOrMore(text, 'a pulse or a list of pulses').optional().describe('Pulses that happen.'),
    ramp: z
      .record(z.string(), aim, { error: 'numbers with where they go: { vx: 140 } or { vy: [-200, 200] }' })
      .optional()
      .describe('Numbers that change evenly over the time that "over" says.'),
    over: some.optional().describe('How long a ramp takes, in milliseconds.'),
    press: oneOrMore(text, 'a button or a list of buttons')
      .optional()
      .describe('Buttons of the body, flags that stay on until they are let go, or pulses.'),
    for: some
      .optional()
      .describe('How long what is pressed is held, in milliseconds; without it until "release".'),
    release: oneOrMore(text, 'a button or a list of buttons').optional().describe('Buttons that are let go.'),
    ask: text.optional().describe('A state that is asked for.'),
    cut: text.optional().describe('A state that is put there without asking.'),
    route: text.optional().describe('A state that is gone to along hops.'),
    every: some
      .optional()
      .describe('With times: it is done again each time so many milliseconds have gone by.'),
    times: z
      .int({ error: 'a whole number from 2 to 1000' })
      .min(2, { error: 'a whole number from 2 to 1000' })
      .max(1000, { error: 'a whole number from 2 to 1000' })
      .optional()
      .describe('How often it is done in all.'),
    expect: z
      .strictObject(shownThen, { error: 'what shows then: { state, direction, cell }' })
      .optional()
      .describe('What shows then; what the line does is decided first.'),
  },
  {
    error:
      'a line of the script: when ("at", "after" or "until") and what, such as { at: 300, set: { vx: 60 } }',
  },
);

const expectation = z.strictObject(
  {
    at: milliseconds
      .optional()
      .describe('The instant it is expected at; decisions of that instant are made first.'),
    from: milliseconds.optional().describe('The beginning of the time it is expected within.'),
    to: milliseconds.optional().describe('The end of that time, included.'),
    ...shownThen,
    passes: z
      .array(text, { error: 'a list of states' })
      .optional()
      .describe('These states show in this order; others may come between.'),
    never: oneOrMore(text, 'a state or a list of states').optional().describe('These states do not show.'),
    cues: z
      .record(z.string(), number, { error: 'cues with their counts' })
      .optional()
      .describe('How often each cue is reported.'),
  },
  { error: 'an expectation: { at, state }, { from, to, passes }, ...' },
);

const positive = z.number({ error: 'a number over 0' }).gt(0, { error: 'a number over 0' });
const moving = {
  speed: positive.optional().describe('The fastest it goes, in pixels a second; 90 by default.'),
  gain: positive
    .optional()
    .describe('How much faster it gets in a second, in pixels a second; 600 by default.'),
  brake: positive
    .optional()
    .describe('How much slower it gets in a second, in pixels a second; 900 by default.'),
  start: z
    .tuple([number, number], { error: '[x, y], in pixels' })
    .optional()
    .describe('Where it stands at first, in pixels; [0, 0] by default.'),
  feeds: z
    .record(
      z.string(),
      z.enum([...quantityNames, ...buttonNames], {
        error: `one of ${[...quantityNames, ...buttonNames].join(', ')}`,
      }),
      { error: 'signals with what feeds them, such as { falling: vy }' },
    )
    .optional()
    .describe('What feeds which signal; signals that are named as a quantity of the body need no word.'),
};
const body = z.union(
  [
    z.strictObject({
      platformer: z
        .strictObject(
          {
            ...moving,
            jump: positive.optional().describe('How fast it leaps up, in pixels a second; 260 by default.'),
            leapAt: text
              .optional()
              .describe('The cue at which it leaps; by default it leaps when "jump" is pressed.'),
            gravity: positive.optional().describe('In pixels a second, every second; 800 by default.'),
            ground: z
              .array(z.tuple([number, number, number]), {
                error: 'pieces of ground, each [from x, to x, height]',
              })
              .optional()
              .describe(
                'Pieces of ground, each from one x to another at a height; without it, level without end.',
              ),
          },
          { error: '{ speed, gain, brake, jump, leapAt, gravity, ground, feeds }, all of them optional' },
        )
        .describe('It runs, leaps and falls.'),
    }),
    z.strictObject({
      walker: z
        .strictObject(moving, { error: '{ speed, gain, brake, feeds }, all of them optional' })
        .describe('It goes in all directions and never falls.'),
    }),
  ],
  { error: '{ platformer: {} } or { walker: {} }' },
);

const steps = z.union(
  [
    z.strictObject({
      perSecond: positive
        .max(1000, { error: 'from over 0 to 1000 steps a second' })
        .describe('How many steps a second.'),
    }),
    z.strictObject({
      from: some.describe('The shortest step, in milliseconds.'),
      to: some.describe('The longest step, in milliseconds.'),
      seed: z.int({ error: 'a whole number' }).describe('The same seed gives the same steps.'),
    }),
  ],
  { error: '{ perSecond: 60 }, or { from: 5, to: 40, seed: 7 } for steps of uneven length in milliseconds' },
);

/** The schema of a rehearsal's file. */
export const rehearsalSchema = z.strictObject(
  {
    $schema: text.optional().describe('The address of the JSON Schema, for editors.'),
    dotHopRehearsal: z
      .literal(1, { error: '1, the version of the format' })
      .describe('The version of the format.'),
    document: text.describe('The file of the character, relative to this one.'),
    lasts: milliseconds
      .max(longest, { error: `milliseconds, at most ${longest} (an hour)` })
      .describe('How long it runs, in milliseconds.'),
    begins: z
      .looseObject(
        { dotHopSnapshot: z.literal(1).describe('The version of its form.') },
        { error: 'a snapshot of a performer' },
      )
      .optional()
      .describe(
        'Where it stands at the beginning: a snapshot, as a recording gives it; instants count from there.',
      ),
    body: body
      .optional()
      .describe('A small body that moves as buttons say and feeds signals, where no game is.'),
    steps: steps
      .optional()
      .describe(
        'The steps of a game: lines take place at the first step that begins at their instant or later.',
      ),
    script: z
      .array(line, { error: 'a list of lines such as { at: 300, set: { vx: 60 } }' })
      .describe('What happens, and when.'),
    expect: z
      .array(expectation, { error: 'a list of expectations' })
      .optional()
      .describe('What is expected of it.'),
  },
  { error: 'a rehearsal: dotHopRehearsal, document, lasts, body, steps, script, expect' },
);

/** A rehearsal as it stands in its file. */
export type RehearsalDefinition = z.infer<typeof rehearsalSchema>;
export type ScriptLine = RehearsalDefinition['script'][number];
export type Expectation = NonNullable<RehearsalDefinition['expect']>[number];
export type BodyDefinition = NonNullable<RehearsalDefinition['body']>;
export type StepsDefinition = NonNullable<RehearsalDefinition['steps']>;

/** One thing or several, as a list. */
export const listOf = (value: string | readonly string[] | undefined): readonly string[] =>
  value === undefined ? [] : typeof value === 'string' ? [value] : value;
