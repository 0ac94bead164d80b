import type { Performer } from 'dot-hop';

/** The character that plays on the stage, for rooms that show what it does just now. The stage puts it here. */
export const live: { performer: Performer | undefined } = { performer: undefined };

/** What follows the stage is drawn so often, in milliseconds: more would not be read. */
export const followEvery = 100;
