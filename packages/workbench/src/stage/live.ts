import type { Performer, SignalValue, Why } from 'dot-hop';
import { useRef } from 'react';
import { useEachPicture } from '../parts/loop.js';

/** The character that plays on the stage, for rooms that show what it does just now. The stage puts it here. */
export const live: { performer: Performer | undefined } = { performer: undefined };

/** What follows the stage is drawn so often, in milliseconds: more would not be read. */
const followEvery = 100;

/** Calls back several times a second with the character on the stage, while the component is there. */
export function useStage(draw: (performer: Performer | undefined) => void): void {
  const since = useRef(followEvery);
  useEachPicture((ms) => {
    since.current += ms;
    if (since.current < followEvery) return;
    since.current = 0;
    draw(live.performer);
  });
}

/** What a signal is; nothing for a name that what plays does not have yet. */
export function valueNow(performer: Performer, name: string): SignalValue | undefined {
  const { signals = {}, derived = {} } = performer.controller.definition;
  return name in signals || name in derived ? performer.value(name) : undefined;
}

let asked:
  { readonly performer: Performer; readonly time: number; readonly whys: readonly Why[] } | undefined;

/** Why each track shows what it shows. Several parts of a page ask at the same instant; it is answered once. */
export function whysOf(performer: Performer): readonly Why[] {
  if (asked?.performer !== performer || asked.time !== performer.time)
    asked = {
      performer,
      time: performer.time,
      whys: performer.controller.tracks.map(({ name }) => performer.why(name)),
    };
  return asked.whys;
}
