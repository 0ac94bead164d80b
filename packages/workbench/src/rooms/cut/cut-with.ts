import type { GridDefinition } from 'dot-hop';
import { cutSheet } from 'dot-hop/edit';
import { act, useWorkbench } from '../../character/store.js';

/** Cuts in a grid; the steps of one drag are undone together. */
export function cutWith(sheet: string, grid: GridDefinition): void {
  act(cutSheet(useWorkbench.getState().definition, sheet, { grid }), `grid of ${sheet}`);
}
