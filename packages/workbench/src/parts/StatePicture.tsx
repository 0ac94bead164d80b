import { showsOf, stateIn } from 'dot-hop/explain';
import { useWorkbench } from '../character/store.js';
import { Thumbnail } from './Thumbnail.js';

/** What a state shows first, small. */
export function StatePicture({ name, size }: { readonly name: string; readonly size: number }) {
  const shown = useWorkbench(({ definition }) => {
    const state = stateIn(definition, name)?.definition;
    return state === undefined ? undefined : showsOf(state)[0];
  });
  return shown === undefined ? (
    <span className="thumb" style={{ width: size, height: size }} />
  ) : (
    <Thumbnail name={shown} size={size} />
  );
}
