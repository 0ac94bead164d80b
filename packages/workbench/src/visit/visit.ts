import { create } from 'zustand';
import { goTo } from '../character/store.js';
import { steps } from './steps.js';

/** Under which it is kept that somebody has been here before. */
const key = 'dot-hop-visited';

/** A browser without storage is told each time. */
function wasHere(): boolean {
  try {
    return localStorage.getItem(key) !== null;
  } catch {
    return false;
  }
}

/** Where one is on the way through the rooms, and whether it is still offered. */
export const useVisit = create<{ readonly step: number | undefined; readonly isOffered: boolean }>(() => ({
  step: undefined,
  isOffered: !wasHere(),
}));

/** Not offered any more; the help goes on to have it. */
export function decline(): void {
  try {
    localStorage.setItem(key, 'yes');
  } catch {
    // It is offered again the next time.
  }
  useVisit.setState({ isOffered: false });
}

/** Goes to a step of the way, and so to its room. */
export function visit(step: number): void {
  decline();
  const next = steps[step];
  if (next !== undefined) goTo(next.room);
  useVisit.setState({ step: next === undefined ? undefined : step });
}

export const leave = (): void => useVisit.setState({ step: undefined });
