import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { Units } from '../controller/timeline.js';
import { DotHopError, ProblemList } from '../problem/problem.js';
import type { DocumentPath } from '../problem/problem.js';
import { checkShape, isMap } from '../shape/check.js';
import {
  allOf,
  any,
  fields,
  flag,
  fromZero,
  list,
  map,
  number,
  one,
  text,
  texts,
  tuple,
} from '../shape/shape.js';
import { ruleNames } from '../controller/rule.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { own } from './picked.js';
import { progressBits } from './snapshot-data.js';
import type { PerformerSnapshot, TrackSnapshot } from './snapshot-data.js';

/** The latest instant, in milliseconds: whole microseconds up to here are exact. */
const latest = 2 ** 53 / 4096 / 1000;

const instant = number('milliseconds from 0', { least: 0, most: latest });
const place = number('a whole number from 0', { least: 0, whole: true });
const progress = Object.keys(progressBits);

const trackRow = {
  state: text(),
  since: instant,
  shows: text(),
  slot: place,
  bridging: flag,
  facing: text(),
  pointsTo: text(),
  phase: number('a number from 0 to 1', { least: 0, most: 1 }),
  place: fromZero(),
  segment: place,
  progress: list(one(`one of ${progress.join(', ')}`, ...progress), 'a list of names such as ended'),
  remembered: list(
    allOf('remembered', '{ hop, to }', { hop: place, to: text() }),
    'a list of hops that are remembered',
  ),
  last: fields(
    'last',
    '{ from, rule, used }',
    { rule: one(`one of ${ruleNames.join(', ')}`, ...ruleNames), used: texts('a list of pulses') },
    { from: text() },
  ),
};
const maybe = { routeTo: text(), overAt: instant, keptUntil: instant, backwards: one('true', true) };

const picked = allOf('picked', '{ shows, place }', { shows: text(), place });

const snapshotShape = fields(
  'snapshot',
  'a snapshot of a performer',
  {
    dotHopSnapshot: one('1 or 2, the version of its form', 2),
    controller: text(),
    version: text(),
    time: instant,
    signals: map(
      any('the value of a signal', number(), flag, text(), tuple([number(), number()], '[x, y]')),
      'signals with their values',
    ),
    timers: map(instant, 'instants by name'),
    on: texts('a list of terms'),
    changed: flag,
    ...trackRow,
  },
  {
    ...maybe,
    pace: number('a number from 0 to 64', { least: 0, most: 64 }),
    paceRest: number('a whole number from 0 to 999', { least: 0, most: 999, whole: true }),
    seed: number('a whole number from 0 to 4294967295', { least: 0, most: 2 ** 32 - 1, whole: true }),
    picks: map(picked, 'what was picked, by state'),
    told: map(picked, 'by which names cues were told, by cue'),
    tracks: map(fields('track', 'what a track plays', trackRow, maybe), 'tracks by name'),
  },
);

/** The fields of a track by the names that they had in version 1. */
const formerly = { book: 'slot', toward: 'pointsTo', marks: 'progress' } as const;

/** Gives the fields of a snapshot of version 1 their present names. Anything else is returned as it is. */
function fromVersion1(snapshot: unknown): unknown {
  if (!isMap(snapshot) || snapshot.dotHopSnapshot !== 1) return snapshot;
  const renamed = (fields: unknown): unknown =>
    isMap(fields)
      ? Object.fromEntries(
          Object.entries(fields).map(([name, value]) => [own(formerly, name) ?? name, value]),
        )
      : fields;
  const { tracks } = snapshot;
  return {
    ...(renamed(snapshot) as object),
    dotHopSnapshot: 2,
    ...(isMap(tracks) && {
      tracks: Object.fromEntries(Object.entries(tracks).map(([name, track]) => [name, renamed(track)])),
    }),
  };
}

/**
 * A snapshot in the present version of its form.
 *
 * @throws {DotHopError} naming each field in which it is no snapshot
 */
export function inPresentForm(given: unknown): PerformerSnapshot {
  const problems = new ProblemList();
  const snapshot = fromVersion1(given);
  const { must } = snapshotShape;
  const isOne = isMap(snapshot) && snapshot.dotHopSnapshot === 2;
  // Of anything else it would be no help to hear all that it lacks.
  const wanted = isOne
    ? snapshotShape
    : { ...snapshotShape, must: { dotHopSnapshot: must.dotHopSnapshot }, open: true };
  checkShape(snapshot, wanted, [], problems);
  if (problems.problems.length === 0) return snapshot as PerformerSnapshot;
  throw new DotHopError([{ code: 'snapshot-form', path: [], values: {} }, ...problems.problems]);
}

/**
 * Checks that everything a snapshot names and counts is there, so that a performer which stands there can go on.
 *
 * @param timerNames what can have a timer
 * @throws {DotHopError} naming each field that does not fit the controller
 */
export function checkFit(
  controller: Controller,
  snapshot: PerformerSnapshot,
  timerNames: readonly string[],
): void {
  const problems = new ProblemList();
  const { tables, tracks } = controller;
  const known = [...tables.signals.keys()];
  for (const signal of tables.signals.values())
    if (!Object.hasOwn(snapshot.signals, signal.name))
      problems.add('field-missing', ['signals', signal.name], { field: signal.name, expected: signal.kind });
    else checkValue(signal, snapshot.signals[signal.name]!, problems);
  for (const name of Object.keys(snapshot.signals))
    if (!tables.signals.has(name)) problems.add('signal-unknown', ['signals', name], { name, known });
  for (const [name, due] of Object.entries(snapshot.timers))
    if (!timerNames.includes(name))
      problems.add('field-unknown', ['timers', name], { field: name, known: timerNames });
    else if (due < snapshot.time) wrong(problems, ['timers', name], `${snapshot.time} ms or later`, due);
  const terms = tables.terms.map((term) => term.text);
  snapshot.on.forEach((name, i) => {
    if (!terms.includes(name)) wrong(problems, ['on', i], 'a term of a condition', name);
  });
  const others = snapshot.tracks ?? {};
  for (const name of Object.keys(others))
    if (!tracks.slice(1).some((track) => track.name === name))
      problems.add('track-unknown', ['tracks', name], {
        name,
        known: tracks.slice(1).map((track) => track.name),
      });
  for (const { name, index } of tracks) {
    const path = index === 0 ? [] : ['tracks', name];
    const saved = index === 0 ? snapshot : Object.hasOwn(others, name) ? others[name] : undefined;
    if (saved === undefined)
      problems.add('field-missing', path, { field: name, expected: 'what the track plays' });
    else checkTrack(controller, index, saved, snapshot.time, path, problems);
  }
  problems.throwIfAny();
}

/** A value is of the right shape, and does not fit the controller. */
function wrong(problems: ProblemList, path: DocumentPath, expected: string, received: unknown): void {
  problems.add('field-kind', path, { expected, received });
}

function checkValue({ name, kind, options }: Signal, value: SignalValue, problems: ProblemList): void {
  const fits = {
    number: typeof value === 'number',
    flag: typeof value === 'boolean',
    pulse: typeof value === 'boolean',
    choice: typeof value === 'string' && options.includes(value),
    vector: Array.isArray(value),
  }[kind];
  if (!fits) wrong(problems, ['signals', name], `the value of a ${kind}`, value);
}

function checkTrack(
  { states, tracks, compass, tables }: Controller,
  track: number,
  saved: TrackSnapshot,
  time: number,
  path: DocumentPath,
  problems: ProblemList,
): void {
  const own = tracks[track]!.order.map((index) => states[index]!);
  const named = (name: string | undefined, field: string): State | undefined => {
    const state = own.find((one) => one.name === name);
    if (state === undefined && name !== undefined)
      problems.add('state-unknown', [...path, field], { name, known: own.map((one) => one.name) });
    return state;
  };
  const state = named(saved.state, 'state');
  named(saved.routeTo, 'routeTo');
  named(saved.last.from, 'last.from');
  for (const field of ['facing', 'pointsTo'] as const)
    if (!compass.names.includes(saved[field]))
      problems.add('direction-unknown', [...path, field], { name: saved[field], known: compass.names });
  for (const name of saved.last.used)
    if (!tables.pulses.some((pulse) => pulse.name === name))
      problems.add('signal-unknown', [...path, 'last', 'used'], {
        name,
        known: tables.pulses.map((one) => one.name),
      });
  if (saved.since > time) wrong(problems, [...path, 'since'], `at most ${time} ms`, saved.since);
  if (state === undefined) return;
  saved.remembered.forEach(({ hop, to }, i) => {
    const way = state.hops[hop];
    if (way === undefined || way.memory < 0 || states[way.to]!.name !== to)
      wrong(problems, [...path, 'remembered', i], 'a hop that remembers', { hop, to });
  });
  const timeline = state.flipbooks[saved.slot]?.[Math.max(0, compass.names.indexOf(saved.facing))];
  if (timeline?.bridge !== saved.bridging || state.flipbookNames[saved.slot] !== saved.shows) {
    const expected = `one of the flipbooks of "${state.name}"`;
    wrong(problems, [...path, 'shows'], expected, saved.shows);
    return;
  }
  const shown = saved.backwards === true ? timeline.reverse : timeline;
  if (shown === undefined) {
    wrong(problems, [...path, 'backwards'], `nothing: time never runs backwards in "${state.name}"`, true);
    return;
  }
  const { ends, length } = shown;
  const ended = saved.progress.includes('ended');
  const fits =
    saved.segment < ends.length &&
    saved.place >= (ends[saved.segment - 1] ?? 0) &&
    saved.place <= ends[saved.segment]! &&
    (!ended || (!shown.loops && saved.place === length));
  if (!fits)
    wrong(
      problems,
      [...path, 'place'],
      `a place of segment ${saved.segment} of the clip, which lasts ${length / Units.perMicrosecond} µs`,
      saved.place,
    );
}
