import type { DocumentModule, LoadedCharacter } from '@dot-hop/browser';
import type { Performer } from 'dot-hop';
import wick from '../../../../demo/wick.dothop.yaml';

/** Wick's names, as the plugin wrote them down: a signal that he does not have is underlined where it is set. */
type Names = typeof wick extends DocumentModule<infer N> ? N : never;

export type Wick = LoadedCharacter<Names>;
export type WickPerformer = Performer<Names>;

/** Wick's document, and each edit of it while the page runs. */
export { wick };
