import { Row } from '../controller/layout.js';
import { catchUp, Attention } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { callError } from '../problem/error.js';

/** A copy of a performer's present moment, to go back to during the same run of the program. Do not write it to a file. */
export interface SavedPerformer {
  /** What marks the controller. */
  readonly owner: object;
  /** Its row. Integers, because a double that is copied by itself may not be the same to the last bit. */
  readonly row: Int32Array;
}

/** Copies a row. @param into a copy that is not needed any more */
export function saveRow(rows: Rows, at: number, into?: SavedPerformer): SavedPerformer {
  const { ints, size, controller } = rows;
  const { owner } = controller.tables;
  catchUp(rows, at);
  const saved = into?.owner === owner ? into : { owner, row: new Int32Array(2 * size) };
  const { row } = saved;
  for (let i = 0, from = 2 * at; i < row.length; i++) row[i] = ints[from + i]!;
  return saved;
}

/** @throws {DotHopError} for a copy of another controller; nothing is changed then */
export function loadRow(rows: Rows, at: number, saved: SavedPerformer): void {
  const { ints, waits, controller } = rows;
  if (saved.owner !== controller.tables.owner) throw callError('saved-other', {});
  const place = 2 * at + Row.attention;
  const kept = ints[place]! & (Attention.watched | Attention.member);
  const { row } = saved;
  for (let i = 0, to = 2 * at; i < row.length; i++) ints[to + i] = row[i]!;
  ints[place] = (row[Row.attention]! & ~(Attention.watched | Attention.member | Attention.told)) | kept;
  waits[rows.indexOf(at)] = 0;
}
