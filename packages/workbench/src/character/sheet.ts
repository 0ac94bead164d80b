import { DotHopError, compileController } from 'dot-hop';
import type { Sheet } from 'dot-hop';
import { useMemo } from 'react';
import { sizesOf, useWorkbench } from './store.js';

/**
 * A sheet, cut as the document says, also while the rest of the document cannot be compiled. It stays the same while something
 * else is edited.
 */
export function useSheet(name: string | undefined): Sheet | undefined {
  const definition = useWorkbench((state) =>
    name === undefined ? undefined : state.definition.sheets[name],
  );
  const drawn = useWorkbench((state) => state.drawn);
  return useMemo(() => {
    if (name === undefined || definition === undefined) return undefined;
    try {
      const alone = { dotHop: 1 as const, sheets: { [name]: definition }, clips: { one: { cells: 0 } } };
      return compileController(alone, { images: sizesOf(drawn) }).sheets.get(name);
    } catch (error) {
      if (error instanceof DotHopError) return undefined;
      throw error;
    }
  }, [name, definition, drawn]);
}
