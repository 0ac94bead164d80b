import { wrap } from 'comlink';
import { create } from 'zustand';
import type { Remote } from 'comlink';
import type { CheckWorker, Row, FoundItem } from '../worker/check-worker.js';
import type { Drawn } from './pictures.js';
import { useWorkbench } from './store.js';

/** What checking and measuring have found, and whether an answer is on its way. */
export const useFindings = create<{ readonly seen: readonly FoundItem[]; readonly isLooking: boolean }>(
  () => ({
    seen: [],
    isLooking: false,
  }),
);

export type { Row, FoundItem } from '../worker/check-worker.js';

let looks: Remote<CheckWorker> | undefined;

/** Who takes over in which situation, while something is known; `undefined` where that cannot be told. */
export const whoTakesOver = (track: string, known: string): Promise<readonly Row[] | undefined> =>
  looks === undefined
    ? Promise.resolve(undefined)
    : looks.winners(useWorkbench.getState().definition, track, known);

/** How long nothing must change before the character is checked again, in milliseconds. */
const pause = 200;

/** Checks and measures the open character whenever it changes. The answer comes later, and the page does not wait for it. */
export function keepChecking(): void {
  const worker = wrap<CheckWorker>(
    new Worker(new URL('../worker/check-worker.ts', import.meta.url), { type: 'module' }),
  );
  looks = worker;
  const given = new Map<string, Drawn>();
  let asked = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const look = async (): Promise<void> => {
    const mine = ++asked;
    const { definition, drawn } = useWorkbench.getState();
    for (const [name, one] of drawn)
      if (given.get(name) !== one) {
        given.set(name, one);
        await worker.put(name, one.picture);
      }
    const seen = await worker.look(definition);
    // Of two that were asked for in a row only the later one counts.
    if (mine === asked) useFindings.setState({ seen, isLooking: false });
  };
  useWorkbench.subscribe((now, before) => {
    if (now.definition === before.definition && now.drawn === before.drawn) return;
    useFindings.setState({ isLooking: true });
    clearTimeout(timer);
    timer = setTimeout(() => void look(), pause);
  });
}
