import type { Signal } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { signalNamed } from '../signal/signal-named.js';
import type { SignalTables } from '../signal/tables.js';
import type { Controller } from './controller.js';
import { ComposedPoses } from './composed-poses.js';
import { layOut } from './layout.js';
import type { Layout } from './layout.js';
import { ReportNames } from './reports.js';
import { Routes } from './routes.js';
import { Situations } from './situations.js';
import { Units } from './timeline.js';

/** What a controller is made of, however that was found. */
export type ControllerParts = Pick<
  Controller,
  | 'name'
  | 'definition'
  | 'version'
  | 'hasWardrobe'
  | 'sheets'
  | 'clips'
  | 'flipbooks'
  | 'compass'
  | 'tables'
  | 'states'
  | 'tracks'
  | 'timelines'
  | 'conditions'
  | 'conditionTexts'
  | 'questions'
  | 'cueNames'
  | 'cueVarieties'
  | 'turning'
  | 'turnTimer'
>;

/** Puts a controller together: all else that it has follows from its parts. */
export function assemble(parts: ControllerParts): Controller {
  const { tables, states, tracks, compass, sheets, conditions, turning, cueNames, cueVarieties } = parts;
  const orders = tracks.map((track) => track.order);
  const watched = tracks.flatMap((track) => track.watched);
  const places: number[] = states.map(() => 0);
  for (const order of orders) order.forEach((state, place) => (places[state] = place));
  const begins = tracks.map(({ rest }) => states[rest]!.flipbooks[0]![compass.start]!.number);
  const varieties = [...states.map(({ variety }) => variety), ...cueVarieties].filter(
    (one) => one !== undefined,
  );
  const layout = layOut(tables, states, varieties.length, begins, compass.start, Units.perMicrosecond);
  placeSignals(tables, layout);
  return Object.assign(parts, {
    composedPoses: new ComposedPoses(
      sheets,
      tracks.map(({ draws }) => draws),
    ),
    order: orders.flat(),
    places,
    stateNamed: new Map(states.filter(({ takenBy }) => takenBy < 0).map((state) => [state.name, state])),
    rest: tracks[0]!.rest,
    signalNames: [...tables.signals.keys()],
    isTurningRead: turning !== undefined && !turning.inRegions,
    watched,
    situations: new Situations(tables.words, {
      conditions,
      states,
      orders,
      watched: watched.map(({ when }) => when),
    }),
    routes: new Routes(states),
    reportNames: new ReportNames(
      cueNames,
      states.map((state) => state.name),
      compass.names,
      [...new Set(states.flatMap((state) => state.flipbookNames))],
      tracks.map(({ name }) => name),
    ),
    signalOwner: tables.owner,
    layout,
    signal: (name: string) => signalNamed(tables, name) as Signal<never>,
  });
}

/** Tells the handles of signals where their values are in a row, now that this is known. */
function placeSignals({ signals }: SignalTables, { values, set }: Layout): void {
  for (const signal of signals.values())
    (signal as { place: number }).place = signal.slot < 0 ? set + signal.word : values + placeOf(signal.slot);
}
