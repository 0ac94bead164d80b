import type { Controller } from '../controller/controller.js';
import { describeController } from '../explain/describe.js';
import type { SignalFacts } from '../explain/describe.js';
import { signalText } from './signal-text.js';

/** The kind of game: where it draws, or that it does not. */
export type GameKind = 'canvas' | 'webgl' | 'three' | 'server';

/** The kinds of games that code can be made for, each in a few words. */
export const gameKinds: Readonly<Record<GameKind, string>> = {
  canvas: 'a plain canvas',
  webgl: 'a crowd, by WebGL',
  three: 'a three.js scene',
  server: 'a server, without pictures',
};

/** A text as TypeScript writes it. */
const quoted = (text: string): string => `'${text.replace(/[\\']/g, '\\$&').replaceAll('\n', '\\n')}'`;

/** A name for a variable, made of a character's name. */
function variableOf(name: string): string {
  const words = name.split(/[^A-Za-z0-9]+/).filter((word) => word !== '');
  const joined = words.map((word, i) => (i === 0 ? word : word[0]!.toUpperCase() + word.slice(1))).join('');
  const whole = /^[A-Za-z]/.test(joined) ? joined[0]!.toLowerCase() + joined.slice(1) : `character${joined}`;
  return reserved.has(whole) ? `the${whole[0]!.toUpperCase()}${whole.slice(1)}` : whole;
}

/** Names that the code has already, and words of the language. */
const reserved = new Set(
  `canvas context performer player controller images loop painter scene camera renderer upright file step
  break case catch class const continue debugger default delete do else enum export extends false finally for function if import in
  instanceof new null return super switch this throw true try typeof var void while with yield let static await async of`.split(
    /\s+/,
  ),
);

const first = ({ kind, first: value }: SignalFacts): string =>
  kind === 'vector'
    ? `[${(value as readonly number[]).join(', ')}]`
    : typeof value === 'string'
      ? quoted(value)
      : String(value);

/** What a game tells the character, and hears of it, in a step. */
function stepLines(controller: Controller, one: string): string[] {
  const { signals } = describeController(controller);
  const set = signals.filter(({ kind }) => kind !== 'pulse');
  const pulses = signals.filter(({ kind }) => kind === 'pulse');
  const cues = controller.cueNames;
  return [
    ...(set.length > 0
      ? ['// What your game knows, in every step. A value that has not changed costs nothing.']
      : []),
    ...set.map((signal) => `${one}.set(${quoted(signal.name)}, ${first(signal)}); // ${signalText(signal)}`),
    ...(pulses.length > 0 ? ['// Presses, each in the step in which it happens.'] : []),
    ...pulses.map(
      (signal) =>
        `if (pressed.has(${quoted(signal.name)})) ${one}.pulse(${quoted(signal.name)}); // ${signalText(signal)}`,
    ),
    ...(pulses.length > 0 ? ['pressed.clear();'] : []),
    `${one}.step(ms);`,
    ...(cues.length > 0
      ? [
          `for (const { kind, name } of ${one}.reports) {`,
          `  if (kind !== 'cue') continue;`,
          `  // ${cues.join(', ')}`,
          `  console.log(name);`,
          `}`,
        ]
      : []),
  ];
}

const indented = (lines: readonly string[], by: number): string =>
  lines.map((line) => (line === '' ? '' : ' '.repeat(by) + line)).join('\n');

/** The presses that came since the last step. */
const pressedLine = (controller: Controller): string =>
  describeController(controller).signals.some(({ kind }) => kind === 'pulse')
    ? `/** What was pressed since the last step: your buttons and keys add to it. */\nconst pressed = new Set<string>();\n`
    : '';

/**
 * Writes TypeScript code that plays this character in a game: it sets the signals and handles the cues.
 *
 * @param file the document, beside the code; for a server the compiled one
 */
export function gameCode(controller: Controller, kind: GameKind, file: string): string {
  const name = variableOf(controller.name);
  // A packed document may have any name, so that the bundler is told what it is.
  const address = /\.dothop\.\w+$/.test(file) ? `./${file}` : `./${file}?dothop`;
  const imported = `import ${name} from ${quoted(address)};`;
  const lines = stepLines(controller, kind === 'server' ? 'player' : 'performer');
  const pressed = pressedLine(controller);
  if (kind === 'server')
    return `import { readFileSync } from 'node:fs';
import { Player, loadCompiled } from 'dot-hop/play';

const player = new Player(loadCompiled(JSON.parse(readFileSync(${quoted(file)}, 'utf8'))));
${pressed}
/** Passes time in the game. @param ms milliseconds since the last step */
export function step(ms: number): void {
${indented(lines, 2)}
}

/** The state that shows, for those who look on. */
export const state = (): string => player.state;
`;
  const head = {
    canvas: `import { drawPose, openCharacter, startLoop } from '@dot-hop/browser';`,
    webgl: `import { Painter, openCharacter, startLoop } from '@dot-hop/browser';`,
    three: `import { openCharacter, startLoop } from '@dot-hop/browser';\nimport { Upright } from '@dot-hop/three';`,
  }[kind];
  const before = {
    canvas: `const canvas = document.querySelector('canvas')!;
const context = canvas.getContext('2d')!;`,
    webgl: `const canvas = document.querySelector('canvas')!;
const painter = new Painter(canvas, images);`,
    three: `const scene = new THREE.Scene().add(upright.object);
const camera = new THREE.PerspectiveCamera(40, 4 / 3);
camera.position.set(0, 1, 6);
const renderer = new THREE.WebGLRenderer({ canvas: document.querySelector('canvas')! });`,
  }[kind];
  const draw = {
    canvas: [
      'context.clearRect(0, 0, canvas.width, canvas.height);',
      '// Its pivot, where it stands.',
      'drawPose(context, images, performer.pose, canvas.width / 2, canvas.height * 0.8);',
    ],
    webgl: [
      'painter.begin({ x: 0, y: 0, width: canvas.width, height: canvas.height });',
      '// One call of the card for all who follow one another and share an image.',
      'painter.paint(performer.pose, canvas.width / 2, canvas.height * 0.8);',
      'painter.end();',
    ],
    three: ['upright.draw(camera);', 'renderer.render(scene, camera);'],
  }[kind];
  const [needed, made] =
    kind === 'three'
      ? [
          `import * as THREE from 'three';`,
          `// Where a camera goes round, seenByCamera of @dot-hop/three shows the side that is seen. 32 pixels are as long as one unit.
const upright = new Upright(await openCharacter(${name}), { pixelsPerUnit: 32 });
const { performer } = upright;`,
        ]
      : [
          `import { Performer } from 'dot-hop';`,
          `const { controller, images } = await openCharacter(${name});
const performer = new Performer(controller);`,
        ];
  return `${head}
${needed}
${imported}

${made}
${before}
${pressed}
startLoop({
  step(ms) {
${indented(lines, 4)}
  },
  draw() {
${indented(draw, 4)}
  },
});
`;
}
