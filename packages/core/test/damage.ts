import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Small numbers by chance, always the same for a seed. */
export function chance(seed: number): (below: number) => number {
  const generator = xoroshiro128plus(seed);
  return (below) => (below === 0 ? 0 : uniformInt(generator, 0, below - 1));
}

const oddities: readonly unknown[] = [
  null,
  true,
  false,
  '',
  'now',
  'constructor',
  '__proto__',
  'vx > 0 && !',
  '0-99999',
  '3-1',
  0,
  -1,
  0.5,
  1e9,
  -1e300,
  4096.25,
  [],
  [1, 2],
  ['a'],
  {},
  { toString: 3 },
  [[[]]],
  'a'.repeat(300),
  '\u0000\u001b[31m',
];

type Box = Record<string, unknown> | unknown[];

/** Every list and map in some data, itself first. */
function boxesIn(data: unknown, found: Box[] = []): Box[] {
  if (typeof data !== 'object' || data === null) return found;
  found.push(data as Box);
  for (const inner of Object.values(data)) boxesIn(inner, found);
  return found;
}

/** Some data with a few faults put in by chance: values of other kinds, fields renamed, moved, doubled and taken away. */
export function damaged<T>(data: T, pick: (below: number) => number): T {
  const copy = structuredClone(data);
  for (let faults = 1 + pick(3); faults > 0; faults--) {
    const boxes = boxesIn(copy);
    const box = boxes[pick(boxes.length)]! as Record<string, unknown>;
    const keys = Object.keys(box);
    const key = keys[pick(keys.length)];
    if (key === undefined) continue;
    const other = boxes[pick(boxes.length)]! as Record<string, unknown>;
    const otherKeys = Object.keys(other);
    const otherKey = otherKeys[pick(otherKeys.length)] ?? 'other';
    const value = box[key];
    switch (pick(7)) {
      case 0:
        Reflect.deleteProperty(box, key);
        break;
      case 1:
        box[key] = structuredClone(oddities[pick(oddities.length)]);
        break;
      case 2:
        if (typeof value === 'number') box[key] = value * (pick(5) - 2) + pick(3) - 1;
        else if (typeof value === 'string') box[key] = value.slice(0, pick(value.length + 1));
        else if (typeof value === 'boolean') box[key] = !value;
        break;
      case 3:
        if (!Array.isArray(box)) {
          Reflect.deleteProperty(box, key);
          box[['constructor', 'x y', `${key}s`, '', 'toString'][pick(5)]!] = value;
        }
        break;
      case 4:
        box[key] = structuredClone(other[otherKey]);
        break;
      case 5:
        if (Array.isArray(box)) box.push(structuredClone(value));
        else box[otherKey] = structuredClone(value);
        break;
      default:
        if (typeof value === 'string') box[key] = `${value} ${String(other[otherKey]).slice(0, 20)}`;
    }
  }
  return copy;
}
