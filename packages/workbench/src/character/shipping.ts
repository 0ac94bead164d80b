import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import type { Packing, PackingWork, Shipped } from '../worker/packing.js';
import { useWorkbench } from './store.js';

export type { Packing, Shipped } from '../worker/packing.js';

let work: Remote<PackingWork> | undefined;

/** Packs the open character, beside the page. @returns why it cannot be packed, where that is so */
export function packed(options: Packing): Promise<Shipped | string> {
  work ??= wrap<PackingWork>(
    new Worker(new URL('../worker/packing.ts', import.meta.url), { type: 'module' }),
  );
  const { definition, drawn } = useWorkbench.getState();
  return work.pack(
    definition,
    [...drawn].map(([name, { picture }]) => [name, picture]),
    options,
  );
}
