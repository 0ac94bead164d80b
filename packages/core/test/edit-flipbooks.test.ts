import fc from 'fast-check';
import { compileController } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { readDocument } from 'dot-hop/document';
import { beginHistory, beside, changedData, changedText, drawFor, undoSays, undone } from 'dot-hop/edit';
import { ferryman } from './ferryman.js';
import { often } from './often.js';

const after = (
  on: ControllerDefinition,
  ...drawn: Parameters<typeof drawFor> extends [unknown, ...infer R] ? R : never
) => changedData(on, drawFor(on, ...drawn).changes);

test('a row of cells becomes what a flipbook shows in a direction, timed as what showed there', () => {
  const turning: ControllerDefinition = {
    ...ferryman,
    clips: { ...ferryman.clips, far: { cells: '2-3', fps: 7, loop: 'once', stride: 12, cues: { step: 1 } } },
    flipbooks: { going: { east: 'far' } },
  };
  const made = after(turning, 'going', 'west', 'all', [11, 12, 13], 'east');
  expect(made.flipbooks).toEqual({ going: { east: 'far', west: 'going-west' } });
  // Its cues stand on drawings, and those are others.
  expect(made.clips['going-west']).toEqual({ cells: '11-13', fps: 7, loop: 'once', stride: 12 });
  const again = after(made, 'going', 'west', 'all', [14], 'east');
  expect(again.flipbooks!.going!.west).toBe('going-west-2');
  // Times that are said for each frame fit as many frames only.
  const timed = { ...turning, clips: { ...turning.clips, far: { cells: '2-3', ms: [40, 80] } } };
  expect(after(timed, 'going', 'west', 'all', [11, 12], 'east').clips['going-west']).toMatchObject({
    ms: [40, 80],
  });
  expect(after(timed, 'going', 'west', 'all', [11, 12, 13], 'east').clips['going-west']).toEqual({
    cells: '11-13',
    fps: 10,
  });
});

test('a clip of just these cells that nobody shows becomes it; one that is shown stays', () => {
  const rows: ControllerDefinition = {
    ...ferryman,
    clips: { ...ferryman.clips, row7: { cells: '11-12', fps: 10 } },
  };
  const made = after(rows, 'stroll', 'west', 'all', [11, 12], 'east');
  expect(Object.keys(made.clips)).toContain('stroll-west');
  expect(Object.keys(made.clips)).not.toContain('row7');
  // A longer name that is shown is another one.
  const longer = {
    ...rows,
    clips: { ...rows.clips, row70: { cells: '3-4' } },
    states: { ...rows.states, seventy: { shows: 'row70' } },
  };
  expect(Object.keys(after(longer, 'stroll', 'west', 'all', [11, 12], 'east').clips)).not.toContain('row7');
  const shown = { ...rows, states: { ...rows.states, seven: { shows: 'row7' } } };
  expect(Object.keys(after(shown, 'stroll', 'west', 'all', [11, 12], 'east').clips)).toContain('row7');
});

test('a clip that stood alone becomes a flipbook of its name; whoever showed it shows that', () => {
  const made = after(ferryman, 'stroll', 'west', 'all', [11, 12], 'east');
  expect(Object.keys(made.clips)).toEqual(
    Object.keys(ferryman.clips)
      .flatMap((name) => (name === 'stroll' ? ['stroll-east'] : [name]))
      .concat('stroll-west'),
  );
  expect(made.flipbooks).toEqual({ stroll: { east: 'stroll-east', west: 'stroll-west' } });
  const pages = compileController(made).flipbooks.get('stroll')!;
  expect(pages.map(({ clip, mirrored }) => [clip.name, mirrored])).toEqual([
    ['stroll-east', false],
    ['stroll-west', false],
  ]);
  const text =
    '# He waits.\ndotHop: 1\nsheets: { all: { image: a.png, size: [160, 10], grid: { cell: [10, 10] } } }\n'.concat(
      'clips:\n  stand: { cells: 0 }   # on his feet\ncompass: { directions: sides, by: [0, 0] }\nstates: { stand: { shows: stand } }\n',
    );
  const { definition } = readDocument(text, 'f.yaml');
  const written = changedText(text, drawFor(definition, 'stand', 'west', 'all', [4], 'east').changes);
  expect(written).toBe(
    `${text.replace('  stand: { cells: 0 }   # on his feet\n', '  stand-east: { cells: 0 }   # on his feet\n  stand-west: { cells: 4 }\n')}flipbooks:\n  stand: { east: stand-east, west: stand-west }\n`,
  );
});

test('whatever is drawn for whichever direction, the character stays sound', () => {
  const four: ControllerDefinition = {
    ...ferryman,
    compass: { directions: 'four', by: ['vx', '0'] },
    flipbooks: { other: { east: 'stroll', south: 'stand' } },
  };
  const one = fc.record({
    shown: fc.constantFrom('stand', 'stroll', 'wave', 'other'),
    direction: fc.constantFrom('east', 'south', 'west', 'north'),
    cells: fc.array(fc.integer({ min: 0, max: 15 }), { minLength: 1, maxLength: 5 }),
  });
  fc.assert(
    fc.property(fc.array(one, { maxLength: 6 }), (drops) => {
      let now = four;
      for (const { shown, direction, cells } of drops)
        now = after(now, shown, direction, 'all', cells, 'east');
      const { flipbooks, compass } = compileController(now);
      for (const { shown, direction, cells } of drops.slice(-1)) {
        const page = (flipbooks.get(shown) ?? [])[compass.names.indexOf(direction)];
        // What no state shows has no page; of what shows it is the latest that was dropped.
        if (page !== undefined) expect(page.clip.frames.map(({ index }) => index)).toEqual(cells);
      }
    }),
    { numRuns: often(200) },
  );
});

test('a step beside the text is undone in its turn and leaves the text alone', () => {
  const begun = beginHistory('a: 1\n');
  const kept = beside(begun, 'kept as a rehearsal');
  expect([kept.text, undoSays(kept)]).toEqual(['a: 1\n', 'kept as a rehearsal']);
  expect(undone(kept)).toMatchObject({ text: 'a: 1\n', past: [], future: [{ says: 'kept as a rehearsal' }] });
});
