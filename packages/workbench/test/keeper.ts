import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { fileOf } from './workbench-page.js';
import type { FilePayload } from './workbench-page.js';

/** Clips of Wick, and no more: what comes after they are timed is done in the page. */
export const clips = `dotHop: 1
name: keeper
sheets: { wick: { image: wick.png, size: [512, 728], grid: { cell: [64, 56] } } }
clips:
  stand: { cells: 0-7, fps: 8 }
  walk: { cells: 8-15, fps: 11, stride: 23 }
  run: { cells: 16-23, fps: 14, stride: 53 }
  crouch: { cells: 24-25, fps: 12, loop: once, cues: { leap: 1 } }
  rise: { cells: 27-29, fps: 12, loop: once }
  swing: { cells: 38-43, fps: 12, loop: once, spans: { late: 3-5 } }
`;

/** The drawings that they are of. */
export const png = readFileSync(fileURLToPath(new URL('../../../demo/wick.png', import.meta.url)));

/** A character of these drawings, as files that one brings. */
export const keeper = (text: string): FilePayload[] => [
  fileOf('keeper.dothop.yaml', text),
  fileOf('wick.png', png),
];
