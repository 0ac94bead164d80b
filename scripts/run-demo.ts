// npm run demo: the main job on the demo data, from sheet to a rehearsed character.
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { build, dotHop, root, say } from './run.js';

const out = path.join('out', 'demo');
const file = (name: string): string => path.join(out, name);

build();
mkdirSync(path.join(root, out), { recursive: true });
const wick = path.join('demo', 'wick.dothop.yaml');

say("1. the sheet's cells, numbered");
dotHop('cells', wick, '-o', file('cells.png'));
say('2. clips: moving, and side by side with their cues and spans');
for (const clip of ['stand', 'run', 'swing1']) dotHop('preview', wick, clip, '-o', file(`${clip}.webp`));
dotHop('preview', wick, 'swing1', '--scale', '3', '-o', file('swing1.png'));
say('3. directions: five rows of a sheet, eight directions of a compass');
const marlis = path.join('demo', 'townsfolk', 'marlis.dothop.yaml');
const round = path.join('demo', 'townsfolk', 'round.rehearsal.yaml');
dotHop('preview', marlis, 'walk', '--dial', '--trail', round, '-o', file('dial.png'));
say('4. a check: nothing that can never show, flickers or gets stuck');
dotHop('check', wick, marlis);
dotHop('ladder', wick, '--when', 'grounded and moving');
say('5. rehearsals, without any game: six seconds of signals, and an errand with a body that runs and leaps');
dotHop('rehearse', path.join('demo', 'evening.rehearsal.yaml'), '--quiet', '-o', file('evening.png'));
dotHop('rehearse', path.join('demo', 'errand.rehearsal.yaml'), '-o', file('errand.png'));
dotHop('rehearse', path.join('demo', 'errand.rehearsal.yaml'), '--quiet', '-o', file('errand.webp'));
dotHop(
  'rehearse',
  path.join('demo', 'fishwife', 'hedda.rehearsal.yaml'),
  '--quiet',
  '-o',
  file('hedda.webp'),
);
say('6. many people from one body and its wardrobe');
dotHop('dress', path.join('demo', 'townsfolk', 'folk.dothop.yaml'), '--count', '100', '-o', file('town.png'));
say('7. what a game needs: one image, one document');
dotHop('pack', wick, '-o', file('wick.json'));

console.log(`
The pictures are in ${out}${path.sep}: cells.png, swing1.png, dial.png, evening.png, errand.png, town.png, wick.png (packed),
and moving as .webp: stand, run, swing1, the errand, and Hedda's morning.
To cut and time Wick, Hedda and her cat by hand in the workbench, and to play Wick and the townsfolk:  npm start`);
