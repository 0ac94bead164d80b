import type { ControllerDefinition, DerivedDefinition, Performer, SignalDefinition } from 'dot-hop';
import { valueNow } from '../../stage/live.js';

/** A line of the list: a signal that the game sets, or one that follows from others. */
export interface SignalItem {
  readonly id: string;
  readonly kind: string;
  readonly signal?: SignalDefinition;
  readonly derived?: DerivedDefinition;
}

export const kindOf = (signal: SignalDefinition): string =>
  ['number', 'flag', 'choice', 'vector', 'pulse'].find((kind) => kind in signal)!;

/** What a derived signal is, in a word. */
export const derivedKind = (derived: DerivedDefinition): 'expression' | 'band' | 'linger' | 'settle' =>
  typeof derived === 'string'
    ? 'expression'
    : 'above' in derived
      ? 'band'
      : 'linger' in derived
        ? 'linger'
        : 'settle';

export const derivedTitles = {
  expression: 'expression',
  band: 'band',
  linger: 'lingers',
  settle: 'settles',
} as const;

export const signalsOf = ({ signals = {}, derived = {} }: ControllerDefinition): SignalItem[] => [
  ...Object.entries(signals).map(([id, signal]) => ({ id, kind: kindOf(signal), signal })),
  ...Object.entries(derived).map(([id, one]) => ({
    id,
    kind: derivedTitles[derivedKind(one)],
    derived: one,
  })),
];

export type NewKind =
  'number' | 'flag' | 'choice' | 'vector' | 'pulse' | 'band' | 'linger' | 'settle' | 'expression';

const firstOf = ({ signals = {} }: ControllerDefinition, kind: string): string | undefined =>
  Object.entries(signals).find(([, one]) => kind in one)?.[0];

/** A number to begin with: the size of the first one that there is. */
const numberOf = (definition: ControllerDefinition): string => {
  const name = firstOf(definition, 'number');
  return name === undefined ? '0' : `abs(${name})`;
};

const flagOf = (definition: ControllerDefinition): string => firstOf(definition, 'flag') ?? 'false';

/** What can be made, with what it begins as. */
export const kinds: Readonly<
  Record<
    NewKind,
    {
      readonly title: string;
      readonly says: string;
      readonly wanted: string;
      readonly value: (definition: ControllerDefinition) => SignalDefinition | DerivedDefinition;
    }
  >
> = {
  number: { title: 'number', says: 'a speed, a height', wanted: 'speed', value: () => ({ number: 0 }) },
  flag: {
    title: 'flag',
    says: 'on or off: stands on the ground',
    wanted: 'grounded',
    value: () => ({ flag: false }),
  },
  pulse: {
    title: 'pulse',
    says: 'a press: jump, swing',
    wanted: 'press',
    value: () => ({ pulse: { keep: 120 } }),
  },
  choice: {
    title: 'choice',
    says: 'one of several: ground, ladder',
    wanted: 'mode',
    value: () => ({ choice: ['ground', 'ladder'] }),
  },
  vector: { title: 'vector', says: 'two numbers: a stick', wanted: 'aim', value: () => ({ vector: [0, 0] }) },
  band: {
    title: 'band',
    says: 'on above one number, off below another',
    wanted: 'moving',
    value: (definition) => ({ of: numberOf(definition), above: 12, below: 8 }),
  },
  linger: {
    title: 'lingers',
    says: 'stays on for a while',
    wanted: 'lately',
    value: (definition) => ({ of: flagOf(definition), linger: 80 }),
  },
  settle: {
    title: 'settles',
    says: 'on once it has been so for a while',
    wanted: 'settled',
    value: (definition) => ({ of: flagOf(definition), settle: 500 }),
  },
  expression: {
    title: 'expression',
    says: 'worked out from others',
    wanted: 'fast',
    value: (definition) => `${numberOf(definition)} > 90`,
  },
};

/** What a signal is just now, in short. Of one that is not in what plays, nothing. */
export function valueText(performer: Performer, name: string): string {
  const value = valueNow(performer, name);
  if (value === undefined) return '';
  if (typeof value === 'number') return String(Number(value.toFixed(1)));
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return typeof value === 'string' ? value : value.map((one) => Number(one.toFixed(1))).join(', ');
}
