import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import type { DecodedTrack, PerformerSnapshot, Picked } from './snapshot-data.js';

// What was picked last, flipbooks by states and names by cues, as a snapshot names it.

/** The states that pick one of several flipbooks, by the numbers of their varieties. */
const varying = ({ states }: Controller): State[] => states.filter(({ variety }) => variety !== undefined);

/** What they have picked, by name. */
export function pickedNames(controller: Controller, picks: readonly number[]): Record<string, Picked> {
  return Object.fromEntries(
    varying(controller).flatMap(({ name, variety, flipbookNames }) => {
      const picked = picks[variety!.index]!;
      return picked < 0 ? [] : [[name, { shows: flipbookNames[picked]!, place: picked }]];
    }),
  );
}

/** The same from names. What shows is what was picked, whatever else a snapshot of another version says. */
export function pickedNow(
  controller: Controller,
  { picks = {} }: PerformerSnapshot,
  decodedTracks: readonly DecodedTrack[],
): number[] {
  return varying(controller).map(({ index, name, flipbookNames, gaitCount, slotOf }) => {
    const decoded = decodedTracks.find(({ state }) => state === index);
    if (decoded !== undefined && slotOf[decoded.flipbook] === 0) return decoded.flipbook % gaitCount;
    const { shows = '', place = -1 } = own(picks, name) ?? {};
    const names = flipbookNames.slice(0, gaitCount);
    return names[place] === shows ? place : names.indexOf(shows);
  });
}

/** By which names cues were told last, by cue. */
export function toldNames(
  { cueNames, cueVarieties }: Controller,
  picks: readonly number[],
): Record<string, Picked> {
  return Object.fromEntries(
    cueVarieties.flatMap((variety, cue) => {
      const place = variety === undefined ? -1 : picks[variety.index]!;
      return place < 0 ? [] : [[cueNames[cue]!, { shows: cueNames[variety!.names[place]!]!, place }]];
    }),
  );
}

/** The same from names, in the order of their varieties. */
export function toldNow({ cueNames, cueVarieties }: Controller, { told = {} }: PerformerSnapshot): number[] {
  const places = cueVarieties.flatMap((variety, cue) => {
    if (variety === undefined) return [];
    const { shows = '', place = -1 } = own(told, cueNames[cue]!) ?? {};
    const names = variety.names.map((name) => cueNames[name]!);
    return [{ index: variety.index, place: names[place] === shows ? place : names.indexOf(shows) }];
  });
  return places.sort((a, b) => a.index - b.index).map(({ place }) => place);
}

/** A field that the data itself has, and not what every object has. */
export const own = <T>(of: Readonly<Record<string, T>>, name: string): T | undefined =>
  Object.hasOwn(of, name) ? of[name] : undefined;
