import { z } from 'zod';

const number = z.number({ error: 'a number' });
const milliseconds = z
  .number({ error: 'milliseconds, 0 or more' })
  .min(0, { error: 'milliseconds, 0 or more' });
const text = z.string({ error: 'a text' });
/** The longest rehearsal, in milliseconds. */
const longest = 3_600_000;
const oneOrMore = <T extends z.ZodType>(value: T, error: string) =>
  z.union([value, z.array(value)], { error });

const line = z.strictObject(
  {
    at: milliseconds.describe('The instant, in milliseconds from the beginning.'),
    set: z
      .record(
        z.string(),
        z.union([z.number(), z.boolean(), z.string(), z.tuple([z.number(), z.number()])], {
          error: 'a number, true or false, an option or [x, y]',
        }),
        { error: 'signals with their values' },
      )
      .optional(),
    pulse: oneOrMore(text, 'a pulse or a list of pulses').optional(),
    ask: text.optional().describe('A state that is asked for.'),
    cut: text.optional().describe('A state that is put there without asking.'),
    route: text.optional().describe('A state that is gone to along hops.'),
  },
  { error: 'a line of the script: { at, set }, { at, pulse }, { at, ask }, { at, cut } or { at, route }' },
);

const expectation = z.strictObject(
  {
    at: milliseconds
      .optional()
      .describe('The instant it is expected at; decisions of that instant are made first.'),
    from: milliseconds.optional().describe('The beginning of the time it is expected within.'),
    to: milliseconds.optional().describe('The end of that time, included.'),
    state: text
      .optional()
      .describe('With at: the state that shows. With from and to: it shows all the time.'),
    direction: text.optional().describe('With at: the direction faced.'),
    cell: number.optional().describe('With at: the number of the cell that shows.'),
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

/** The schema of a rehearsal's file. */
export const rehearsalSchema = z.strictObject(
  {
    dotHopRehearsal: z.literal(1, { error: '1, the version of the format' }),
    document: text.describe('The file of the character, relative to this one.'),
    lasts: milliseconds
      .max(longest, { error: `milliseconds, at most ${longest} (an hour)` })
      .describe('How long it runs, in milliseconds.'),
    script: z.array(line, { error: 'a list of lines such as { at: 300, set: { vx: 60 } }' }),
    expect: z.array(expectation, { error: 'a list of expectations' }).optional(),
  },
  { error: 'a rehearsal: dotHopRehearsal, document, lasts, script, expect' },
);

/** A rehearsal as it stands in its file. */
export type RehearsalDefinition = z.infer<typeof rehearsalSchema>;
export type ScriptLine = RehearsalDefinition['script'][number];
export type Expectation = NonNullable<RehearsalDefinition['expect']>[number];
