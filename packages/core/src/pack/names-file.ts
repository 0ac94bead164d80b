import type { Controller } from '../controller/controller.js';
import { describeController } from '../explain/describe.js';
import type { SignalFacts } from '../explain/describe.js';

const one = (text: string): string => JSON.stringify(text);
const anyOf = (names: Iterable<string>): string => [...names].map(one).join(' | ') || 'never';

function valueOf({ kind, options }: SignalFacts): string {
  if (kind === 'choice') return anyOf(options);
  return { number: 'number', flag: 'boolean', vector: 'readonly [number, number]', pulse: 'never' }[kind];
}

/** The name of the declaration file of a document: `wick.dothop.d.yaml.ts`. */
export const namesFileOf = (file: string): string => file.replace(/\.(\w+)$/, '.d.$1.ts');

/**
 * Writes the names of a document for the TypeScript compiler, so that an editor underlines a misspelt signal.
 *
 * @param compiled whether pages import the compiled document
 */
export function namesFile(file: string, controller: Controller, compiled = false): string {
  const module = compiled ? 'CompiledModule' : 'DocumentModule';
  const { states, tracks, compass, clips, cueNames } = controller;
  const { signals, derived } = describeController(controller);
  const tags = states.flatMap((state) => state.tags);
  const readable = [...[...signals, ...derived].map(({ name }) => name), ...tags];
  const values = signals
    .filter(({ kind }) => kind !== 'pulse')
    .map((signal) => `    ${one(signal.name)}: ${valueOf(signal)};`);
  return [
    `// The names of ${file}, for the compiler. Written by "dot-hop names", and by the plugin of @dot-hop/vite whenever the document changes.`,
    `import type { ${module} } from '@dot-hop/browser';`,
    ``,
    `declare const character: ${module}<{`,
    `  values: {`,
    ...values,
    `  };`,
    `  pulses: ${anyOf(signals.filter(({ kind }) => kind === 'pulse').map(({ name }) => name))};`,
    `  states: ${anyOf(new Set(states.map(({ name }) => name)))};`,
    `  tracks: ${anyOf(tracks.map(({ name }) => name))};`,
    `  directions: ${anyOf(compass.names)};`,
    `  clips: ${anyOf(clips.keys())};`,
    `  reports: ${anyOf(new Set([...cueNames, ...states.map(({ name }) => name), ...compass.names, ...states.flatMap(({ flipbookNames }) => flipbookNames.filter((one) => one !== ''))]))};`,
    `  read: ${anyOf(new Set([...readable, ...tracks.map(({ name }) => name)]))} | ` +
      '`${string}.${string}`;',
    `}>;`,
    `export default character;`,
    ``,
  ].join('\n');
}
