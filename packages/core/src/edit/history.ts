import { changedText, spliceBetween } from './change.js';
import type { Change, Splice } from './change.js';
import type { TextStyle } from './writing.js';

/** An edit of a document: its changes, and the words for undoing it. */
export interface Edit {
  /** The words that follow "Undo:", such as `stretch frame 3 of run`. */
  readonly says: string;
  readonly changes: readonly Change[];
}

/** A step that can be undone. */
interface Step {
  readonly says: string;
  readonly splice: Splice;
  /** Steps with the same word here that follow one another become one: a drag, a typed word. */
  readonly joins: string | undefined;
}

/** The text of a document and its history of edits. It is immutable: each function returns a new one. */
export interface History {
  readonly text: string;
  readonly style: TextStyle;
  /** The steps that can be undone. The latest one is last. */
  readonly past: readonly Step[];
  /** The steps that can be redone. The next one is last. */
  readonly future: readonly Step[];
}

/** Begins the history of a document that was just opened. */
export const beginHistory = (text: string, style: TextStyle = 'yaml'): History => ({
  text,
  style,
  past: [],
  future: [],
});

/**
 * Applies an edit.
 *
 * @param joins steps with the same word that follow each other are undone together
 * @throws {EditError} for a path that does not exist
 */
export function edited(history: History, { says, changes }: Edit, joins?: string): History {
  return withText(history, changedText(history.text, changes, history.style), says, joins);
}

/** Adds a text that was written by hand to the history. */
export function withText(history: History, text: string, says: string, joins?: string): History {
  if (text === history.text) return history;
  const last = history.past[history.past.length - 1];
  if (joins !== undefined && last?.joins === joins && history.future.length === 0) {
    // From where the joined steps began to where they are now.
    const splice = spliceBetween(without(history.text, last.splice), text);
    const past = history.past.slice(0, -1);
    const isNothing = splice.gone === '' && splice.come === '';
    return { ...history, text, past: isNothing ? past : [...past, { says, splice, joins }] };
  }
  const step = { says, splice: spliceBetween(history.text, text), joins };
  return { ...history, text, past: [...history.past, step], future: [] };
}

/** Adds a step that does not change the text, for something else that is undone in the same history. */
export function beside(history: History, says: string): History {
  const step = { says, splice: { at: 0, gone: '', come: '' }, joins: undefined };
  return { ...history, past: [...history.past, step], future: [] };
}

/** The text as it was before a splice. */
const without = (text: string, { at, gone, come }: Splice): string =>
  text.slice(0, at) + gone + text.slice(at + come.length);

const again = (text: string, { at, gone, come }: Splice): string =>
  text.slice(0, at) + come + text.slice(at + gone.length);

/** Undoes the latest step. Returns the same history if there is none. */
export function undone(history: History): History {
  const last = history.past[history.past.length - 1];
  if (last === undefined) return history;
  const past = history.past.slice(0, -1);
  return { ...history, text: without(history.text, last.splice), past, future: [...history.future, last] };
}

/** Redoes the latest step that was undone. Returns the same history if there is none. */
export function redone(history: History): History {
  const next = history.future[history.future.length - 1];
  if (next === undefined) return history;
  const future = history.future.slice(0, -1);
  // Done again it is a step by itself: what follows does not join it.
  const step = { ...next, joins: undefined };
  return { ...history, text: again(history.text, next.splice), past: [...history.past, step], future };
}

/** The words of the step that would be undone; `undefined` if there is none. */
export const undoSays = ({ past }: History): string | undefined => past[past.length - 1]?.says;

/** The words of the step that would be redone; `undefined` if there is none. */
export const redoSays = ({ future }: History): string | undefined => future[future.length - 1]?.says;
