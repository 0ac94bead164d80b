import { tell } from './store.js';

/** Whether conditions can speak of a signal or a track by a name. If not, the page says why. */
export function isReadable(name: string): boolean {
  const isOne = /^[A-Za-z_]\w*$/.test(name);
  if (!isOne) tell(`“${name}” could not be read in a condition: letters, digits and _ make a name.`, true);
  return isOne;
}
