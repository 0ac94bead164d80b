// npm run draw:terms: the pictures of words that are easily taken for one another. Each is a small character that is really played; its
// signals and states over time are drawn as bars.
import { mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { ControllerDefinition, Performer as PerformerOf, SignalValue, StateDefinition } from 'dot-hop';
import { build, root } from './run.js';

/** One row of bars: what is true when. */
interface Watched {
  readonly name: string;
  readonly colour: string;
  readonly of: (performer: PerformerOf) => boolean;
}

/** The same once it was played: from when to when it was true, in milliseconds. */
interface Bars extends Pick<Watched, 'name' | 'colour'> {
  readonly spans: [from: number, to: number][];
}

/** What is done at an instant: a press, or a value. */
type Deed = readonly [at: number, signal: string, value?: SignalValue];

interface Story extends Pick<ControllerDefinition, 'signals' | 'derived' | 'states'> {
  readonly script: readonly Deed[];
  /** Milliseconds. */
  readonly lasts: number;
  readonly rows: readonly Watched[];
}

build();
const { Performer, compileController } = await import('dot-hop');

const colours = {
  ground: '#241f3a',
  line: '#4a4266',
  text: '#f0e6da',
  dim: '#a99fbd',
  signal: '#7fc8a0',
  state: '#ffc95c',
  rest: '#55456a',
};
const [labels, long, row, gap] = [150, 560, 22, 8];
const step = 5;

const sheets: ControllerDefinition['sheets'] = {
  s: { image: 's.png', size: [64, 8], grid: { cell: [8, 8] } },
};
const clips: ControllerDefinition['clips'] = {
  rest: { cells: 0 },
  walk: { cells: '1-2', fps: 8 },
  blow: { cells: '3-6', fps: 10, loop: 'once', spans: { late: '2-3' } },
};

const signal = (name: string, shown = name): Watched => ({
  name: shown,
  colour: colours.signal,
  of: (performer) => performer.value(name) === true,
});
const state = (name: string, shown: string): Watched => ({
  name: shown,
  colour: colours.state,
  of: (performer) => performer.state === name,
});

const folder = path.join(root, 'docs/pictures/words');
mkdirSync(folder, { recursive: true });
const write = (name: string, lasts: number, rows: readonly Bars[]): void => {
  writeFileSync(path.join(folder, `${name}.svg`), drawn(rows, lasts));
};

function played({ signals = {}, derived = {}, states = {}, script, lasts, rows }: Story): Bars[] {
  const [rest = ''] = Object.keys(states);
  const performer = new Performer(
    compileController({ dotHop: 1, sheets, clips, signals, derived, states, rest }),
  );
  const told = rows.map(({ name, colour }): Bars => ({ name, colour, spans: [] }));
  for (let time = 0; time < lasts; time += step) {
    for (const [, name, value] of script.filter(([at]) => at >= time && at < time + step))
      if (value === undefined) performer.pulse(name);
      else performer.set(name, value);
    performer.step(time === 0 ? 0 : step);
    rows.forEach(({ of }, i) => {
      if (!of(performer)) return;
      const { spans } = told[i]!;
      const last = spans.at(-1);
      if (last?.[1] === time) last[1] = time + step;
      else spans.push([time, time + step]);
    });
  }
  return told;
}

function drawn(rows: readonly Bars[], lasts: number): string {
  const height = gap + rows.length * (row + gap);
  const x = (time: number): number => labels + (time / lasts) * long;
  const lines = rows.map(({ name, colour, spans }, i) => {
    const y = gap + i * (row + gap);
    const bars = spans.map(
      ([from, to]) =>
        `<rect x="${x(from).toFixed(1)}" y="${y}" width="${(x(to) - x(from)).toFixed(1)}" height="${row}" rx="4" fill="${colour}"/>`,
    );
    return `<text x="10" y="${y + 15}" fill="${colours.text}">${name}</text><rect x="${labels}" y="${y}" width="${long}" height="${row}" rx="4" fill="${colours.rest}" opacity="0.45"/>${bars.join('')}`;
  });
  const width = labels + long + 12;
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="ui-monospace, monospace" font-size="12"><rect width="${width}" height="${height}" rx="8" fill="${colours.ground}"/>${lines.join('')}</svg>\n`;
}

/** A blow while which somebody begins to run, or is hurt: how long it shows. */
function ending(name: string, of: StateDefinition, script: readonly Deed[]): Bars {
  const signals: Story['signals'] = { run: { flag: false }, swing: { pulse: true }, hurt: { pulse: true } };
  const states: Story['states'] = {
    stand: { shows: 'rest' },
    run: { shows: 'walk', while: 'run', priority: 10 },
    blow: { shows: 'blow', when: 'swing', priority: 20, ...of },
    hurt: { shows: 'blow', when: 'hurt', priority: 30 },
  };
  const [told] = played({ signals, states, script, lasts: 1200, rows: [state('blow', name)] });
  return told!;
}

const near: Omit<Story, 'states' | 'rows'> = {
  lasts: 1600,
  signals: { near: { flag: false } },
  script: [
    [200, 'near', true],
    [1300, 'near', false],
  ],
};
const sit = { shows: 'rest' };
const posture = { sit, greet: { shows: 'walk', while: 'near', priority: 10 } };
const act = { sit, greet: { shows: 'blow', when: 'near', priority: 10 } };
write('while-and-when', near.lasts, [
  ...played({ ...near, states: posture, rows: [signal('near'), state('greet', 'while: near')] }),
  ...played({ ...near, states: act, rows: [state('greet', 'when: near')] }),
]);

const ground: Story = {
  lasts: 1600,
  signals: { ground: { flag: false } },
  derived: { lingers: { of: 'ground', linger: 250 }, settles: { of: 'ground', settle: 250 } },
  states: { sit },
  script: [
    [200, 'ground', true],
    [600, 'ground', false],
    [900, 'ground', true],
    [1000, 'ground', false],
  ],
  rows: [signal('ground'), signal('lingers', 'linger: 250'), signal('settles', 'settle: 250')],
};
write('linger-and-settle', ground.lasts, played(ground));

const runs: readonly Deed[] = [
  [100, 'swing'],
  [200, 'run', true],
];
const hurts: readonly Deed[] = [
  [100, 'swing'],
  [250, 'hurt'],
];
write('who-ends-it', 1200, [
  { name: 'he wants to run', colour: colours.signal, spans: [[200, 1200]] },
  ending('nothing said', {}, runs),
  ending('yields, late', { yields: [{ to: ['run'], during: 'late' }] }, runs),
  ending('yields', { yields: [{ to: ['run'] }] }, runs),
  ending('atLeast: 700', { atLeast: 700 }, runs),
  { name: 'he is hurt', colour: colours.signal, spans: [[250, 262]] },
  ending('nothing said', {}, hurts),
  ending('atLeast: 700', { atLeast: 700 }, hurts),
  ending('final: true', { final: true }, hurts),
]);
