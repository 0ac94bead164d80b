import type { Rows } from '../engine/rows.js';
import type { IntList } from './wheel.js';

/** A copy of a troupe's present moment, to go back to during the same run of the program. Do not write it to a file. */
export interface SavedTroupe {
  /** What marks the controller. */
  readonly owner: object;
  /** One past the highest index. */
  end: number;
  /** How many members there are. */
  count: number;
  /** The rows of its blocks. */
  readonly blocks: Float64Array[];
  isMember: Uint8Array;
  readonly free: { items: Int32Array; length: number };
  readonly clock: Float64Array;
  /** Who was watched. */
  watched: readonly number[];
}

/** The parts of a troupe that are copied. */
interface Parts {
  readonly blocks: readonly Rows[];
  readonly isMember: Uint8Array;
  readonly free: IntList;
  readonly clock: Float64Array;
}

export function copyTroupe(
  from: Parts & {
    readonly owner: object;
    readonly end: number;
    readonly count: number;
    readonly watched: ReadonlyMap<number, unknown>;
  },
  into?: SavedTroupe,
): SavedTroupe {
  const { blocks, isMember, end, count, free, clock, owner, watched } = from;
  const saved =
    into?.owner === owner
      ? into
      : {
          owner,
          end: 0,
          count: 0,
          blocks: [],
          isMember: new Uint8Array(0),
          free: { items: new Int32Array(0), length: 0 },
          clock: new Float64Array(1),
          watched: [],
        };
  saved.end = end;
  saved.count = count;
  if (watched.size > 0 || saved.watched.length > 0) saved.watched = [...watched.keys()];
  saved.clock[0] = clock[0]!;
  if (saved.isMember.length !== isMember.length) saved.isMember = new Uint8Array(isMember.length);
  saved.isMember.set(isMember);
  if (saved.free.items.length < free.length) saved.free.items = new Int32Array(free.items.length);
  for (let i = 0; i < free.length; i++) saved.free.items[i] = free.items[i]!;
  saved.free.length = free.length;
  for (let i = 0; i < blocks.length; i++) {
    const { doubles } = blocks[i]!;
    (saved.blocks[i] ??= new Float64Array(doubles.length)).set(doubles);
  }
  saved.blocks.length = blocks.length;
  return saved;
}

export function pasteTroupe(saved: SavedTroupe, to: Parts): void {
  to.clock[0] = saved.clock[0]!;
  to.isMember.fill(0);
  to.isMember.set(saved.isMember);
  to.free.length = 0;
  for (let i = 0; i < saved.free.length; i++) to.free.push(saved.free.items[i]!);
  for (let i = 0; i < saved.blocks.length; i++) to.blocks[i]!.doubles.set(saved.blocks[i]!);
}
