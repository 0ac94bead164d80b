import type { CompassDefinition } from 'dot-hop';
import { act, useWorkbench } from '../../character/store.js';

/** What need not be written, because it is so anyhow. */
const usual: Partial<CompassDefinition> = {
  up: '-y',
  deadZone: 0,
  stick: 0,
  through: 0,
  diagonal: 'nearest',
};

/** What is told when a field is dragged: its value says more than that it was changed. */
const words: Readonly<Partial<Record<keyof CompassDefinition, string>>> = {
  deadZone: 'dead zone',
  stick: 'sticks by',
  diagonal: 'diagonals:',
};

/** Gives a field of the compass another value. Changes of one field that follow each other are undone together. */
export function setCompass<F extends keyof CompassDefinition>(field: F, value: CompassDefinition[F]): void {
  const { compass } = useWorkbench.getState().definition;
  if (value === (compass?.[field] ?? usual[field])) return;
  const path = ['compass', field];
  const word = words[field];
  const says =
    word === undefined || typeof value === 'object' ? `“${field}” of the compass` : `${word} ${value}`;
  const isUsual = value === undefined || value === usual[field];
  act({ says, changes: [isUsual ? { op: 'remove', path } : { op: 'set', path, value }] }, `compass ${field}`);
}
