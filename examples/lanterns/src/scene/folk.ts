import type { LoadedCharacter } from '@dot-hop/browser';
import type folk from '../../../../demo/townsfolk/folk.dothop.yaml';

/** The names of the document: a signal that it does not have is an error of the compiler. */
export type FolkNames = NonNullable<(typeof folk)['names']>;
export type Folk = LoadedCharacter<FolkNames>;
