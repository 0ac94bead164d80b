import { create } from 'zustand';

/** Whether all characters are looked at, in place of the rooms of one. */
export const useShelf = create<{ readonly isOpen: boolean }>(() => ({
  // The command opens a folder of several characters so.
  isOpen: new URLSearchParams(location.hash.slice(1)).has('shelf'),
}));

export const showShelf = (isOpen: boolean): void => useShelf.setState({ isOpen });
