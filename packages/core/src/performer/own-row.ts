import type { Rows } from '../engine/rows.js';
import { takeRow } from './row-pool.js';
import type { Performer } from './performer.js';
import { loadRow, saveRow } from './saved.js';

/** Where a performer has its row. It never changes, except here. */
interface Place {
  rows: Rows;
  at: number;
  waits: Int32Array;
  index: number;
}

/**
 * Gives the performer of a member a row of its own, as it stands, because the member is removed. If it kept its row, it would
 * read and set whichever member gets that row next.
 */
export function giveOwnRow(performer: Performer): void {
  const place = performer as unknown as Place;
  const { rows, at } = takeRow(performer.controller);
  loadRow(rows, at, saveRow(place.rows, place.at));
  [place.rows, place.at, place.waits, place.index] = [rows, at, rows.waits, rows.indexOf(at)];
}
