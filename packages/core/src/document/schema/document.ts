import { z } from 'zod';
import type { ControllerDefinition } from '../../controller/definition.js';
import { named, section, text } from './basics.js';
import { clip, sheet } from './drawings.js';
import { compass, derived, signal } from './signals.js';
import { state, track } from './states.js';
import { palette, wardrobe } from './wardrobe.js';

/** The one schema of a character's document; that what it reads is what the runtime takes, the compiler checks. */
export const documentSchema: z.ZodType<ControllerDefinition> = section(
  {
    $schema: text.optional().describe('The address of the JSON Schema, for editors.'),
    dotHop: z.literal(1, { error: '1, the version of the format' }).describe('The version of the format.'),
    name: text.optional().describe('The name of the character.'),
    sheets: named(sheet, 'sheets by name').describe('Images and how they are cut into cells.'),
    clips: named(clip, 'clips by name').describe('Cells in order with their times.'),
    flipbooks: named(named(text, 'clips by direction'), 'flipbooks by name')
      .optional()
      .describe('A clip for each direction, by name.'),
    compass: compass.optional().describe('The directions it can face, and what turns it.'),
    signals: named(signal, 'signals by name').optional().describe('What the game tells: input and physics.'),
    derived: named(derived, 'derived signals by name')
      .optional()
      .describe('Signals that are computed from others.'),
    states: named(state, 'states by name')
      .optional()
      .describe('What it can be showing, by rank. Without states each clip is one, to be looked at.'),
    rest: text.optional().describe('The state that shows when no other wants to; default: the first.'),
    tracks: named(track, 'tracks by name')
      .optional()
      .describe(
        'Further sets of states beside these (which are the track "body"): arms that act while legs run.',
      ),
    palettes: named(palette, 'palettes by name').optional().describe('Colours that can be exchanged.'),
    wardrobe: wardrobe.optional().describe('What it can wear: layers drawn in step with the body.'),
    accept: z
      .array(
        section(
          {
            finding: text.describe('The code of the finding.'),
            at: text.optional().describe('Where: a path or its beginning, such as states.rise.'),
            because: text.describe('Why it is meant so.'),
          },
          'what is accepted: { finding, at, because }',
        ),
        { error: 'a list of findings that are accepted' },
      )
      .optional()
      .describe('What "dot-hop check" finds and is meant so, each with its reason.'),
  },
  'a document: dotHop, sheets, clips, states, rest',
);
