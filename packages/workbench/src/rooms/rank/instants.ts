import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { showsOf } from 'dot-hop/explain';

/** The instants of what a state shows at which one can go on: its end, its cues, and the ends of its spans are others. */
export function instantsOf(definition: ControllerDefinition, state: StateDefinition): Record<string, string> {
  const cues = showsOf(state).flatMap((shown) => {
    const book = definition.flipbooks?.[shown];
    const clips = book === undefined ? [shown] : Object.values(book as Readonly<Record<string, unknown>>);
    return clips.flatMap((clip) => Object.keys(definition.clips[String(clip)]?.cues ?? {}));
  });
  return {
    end: 'at its end',
    ...Object.fromEntries([...new Set(cues)].map((cue) => [cue, `at its cue ${cue}`])),
  };
}
