import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import { versionOf } from '../controller/version.js';
import { Rule, ruleNames } from '../controller/rule.js';
import { indexAt } from '../clip/clip.js';
import { callError } from '../problem/problem.js';
import { isOn } from '../signal/condition.js';
import type { BitPlace, BitWords } from '../signal/condition.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { gamePace } from '../engine/pace.js';
import { StateBit } from '../engine/rows.js';
import { own, pickedNames, pickedNow, toldNames, toldNow } from './picked.js';
import { checkFit, inPresentForm } from './snapshot-form.js';
import type {
  TrackSnapshot,
  PerformerSnapshot,
  DecodedTrack,
  DecodedSnapshot,
  ProgressName,
} from './snapshot-data.js';
import { progressBits } from './snapshot-data.js';
const progressNames = Object.keys(progressBits) as ProgressName[];

/** Names what has names, so that a snapshot can be read by people and by another version. */
export function writeSnapshot(
  controller: Controller,
  still: DecodedSnapshot,
  valueOf: (signal: Signal) => SignalValue,
): PerformerSnapshot {
  const { tables, tracks } = controller;
  const timers = timed(controller)
    .filter((one) => still.timers[one.timer] !== Infinity && (one.bit === 0 || isOn(one, still.set)))
    .map(({ name, timer }) => [name, still.timers[timer]! / 1000] as const);
  const [first, ...others] = still.tracks.map((decoded) => writeTrack(controller, decoded));
  return {
    dotHopSnapshot: 2,
    controller: controller.name,
    version: versionOf(controller),
    time: still.time / 1000,
    signals: Object.fromEntries([...tables.signals.values()].map((one) => [one.name, valueOf(one)])),
    timers: Object.fromEntries(timers),
    on: tables.terms.filter((term) => isOn(term, still.words)).map(({ text }) => text),
    ...first!,
    changed: still.changed,
    ...(still.pace !== gamePace && { pace: still.pace / gamePace, paceRest: still.paceRest }),
    ...(still.picks.length > 0 && { seed: still.seed, picks: pickedNames(controller, still.picks) }),
    ...(controller.cueVarieties.length > 0 && { told: toldNames(controller, still.picks) }),
    ...(others.length === 0
      ? {}
      : { tracks: Object.fromEntries(others.map((one, i) => [tracks[i + 1]!.name, one])) }),
  };
}

function writeTrack({ tables, states, compass }: Controller, decoded: DecodedTrack): TrackSnapshot {
  const state = states[decoded.state]!;
  const timeline = state.flipbooks[decoded.flipbook]![decoded.direction]!;
  const ended = (decoded.stateBits & StateBit.ended) !== 0;
  const passed = ended ? 1 : decoded.place / timeline.length;
  const from = states[decoded.from];
  return {
    state: state.name,
    since: decoded.entered / 1000,
    shows: state.flipbookNames[decoded.flipbook]!,
    slot: decoded.flipbook,
    bridging: timeline.bridge,
    ...(decoded.backwards && { backwards: true }),
    facing: compass.names[decoded.direction]!,
    pointsTo: compass.names[decoded.targetDirection]!,
    phase: decoded.backwards ? 1 - passed : passed,
    place: decoded.place,
    segment: decoded.segment,
    progress: progressNames.filter((name) => (decoded.stateBits & progressBits[name]) !== 0),
    remembered: decoded.remembered.map((hop) => ({ hop, to: states[state.hops[hop]!.to]!.name })),
    ...(decoded.goal >= 0 && { routeTo: states[decoded.goal]!.name }),
    ...(decoded.over !== undefined && { overAt: decoded.over / 1000 }),
    ...(decoded.kept !== undefined && { keptUntil: decoded.kept / 1000 }),
    last: {
      ...(from !== undefined && { from: from.name }),
      rule: ruleNames[decoded.rule]!,
      used: tables.pulses.filter((pulse) => isOn(pulse, decoded.used)).map(({ name }) => name),
    },
  };
}

/**
 * Finds again what a snapshot names.
 *
 * @throws {DotHopError} when it is no snapshot, or (unless it is adopted) of another version
 */
export function readSnapshot(
  controller: Controller,
  given: PerformerSnapshot,
  adopt: boolean,
): DecodedSnapshot & { readonly unknown: readonly number[] } {
  const snapshot = inPresentForm(given);
  const version = versionOf(controller);
  if (!adopt && snapshot.version !== version) {
    const received = `${snapshot.controller} (version ${snapshot.version})`;
    throw callError('snapshot-version', { received, expected: `${controller.name} (version ${version})` });
  }
  if (!adopt)
    checkFit(
      controller,
      snapshot,
      timed(controller).map(({ name }) => name),
    );
  const { tables, tracks, layout } = controller;
  const decodedTracks = tracks.map(({ name }, track) =>
    readTrack(controller, track, track === 0 ? snapshot : own(snapshot.tracks ?? {}, name)),
  );
  const values = tables.regions.map((_, slot) => layout.first[layout.values + placeOf(slot)]!);
  const set = tables.firstBits.slice();
  for (const signal of tables.signals.values()) {
    const value = own(snapshot.signals, signal.name);
    if (value === undefined) continue;
    if (typeof value === 'boolean') {
      if (signal.bit !== 0) putBit(set, signal, value);
    } else placeValue(signal, value, values);
  }
  const shown = set.slice();
  for (const { state } of decodedTracks)
    controller.states[state]!.tagBits.forEach((bits, word) => (shown[word]! |= bits));
  return {
    unknown: tracks.flatMap(({ name, index }) => {
      const saved = index === 0 ? snapshot : own(snapshot.tracks ?? {}, name);
      return stateOf(controller, index, saved?.state) === undefined ? [index] : [];
    }),
    time: microseconds(snapshot.time),
    set,
    words: wordsOf(controller, snapshot, shown),
    values,
    timers: timersOf(controller, snapshot, set),
    tracks: decodedTracks,
    changed: snapshot.changed || adopt,
    pace: Math.round((snapshot.pace ?? 1) * gamePace),
    paceRest: snapshot.paceRest ?? 0,
    seed: snapshot.seed ?? 1,
    picks: [...pickedNow(controller, snapshot, decodedTracks), ...toldNow(controller, snapshot)],
  };
}

/** A state that can show in a track, by name: one of its own, or one of another track that takes it. */
function stateOf({ states, tracks }: Controller, track: number, name: string | undefined): State | undefined {
  const index = tracks[track]!.order.find((one) => states[one]!.name === name);
  return index === undefined ? undefined : states[index];
}

/** @param saved nothing for a track that the snapshot does not have: it rests then, if it is adopted */
function readTrack(controller: Controller, track: number, saved: TrackSnapshot | undefined): DecodedTrack {
  const { tables, states, compass, tracks } = controller;
  const known = stateOf(controller, track, saved?.state);
  const state = known ?? states[tracks[track]!.rest]!;
  if (saved === undefined)
    return {
      ...{
        state: state.index,
        entered: 0,
        flipbook: 0,
        direction: compass.start,
        targetDirection: compass.start,
      },
      ...{
        place: 0,
        segment: 0,
        stateBits: 0,
        backwards: false,
        remembered: [],
        goal: -1,
        from: -1,
        rule: 0,
      },
      ...{ used: new Int32Array(tables.words), over: undefined, kept: undefined },
    };
  const direction = Math.max(0, compass.names.indexOf(saved.facing));
  const isMeant = (flipbook: number): boolean =>
    state.flipbooks[flipbook]?.[0]!.bridge === saved.bridging &&
    state.flipbookNames[flipbook] === saved.shows;
  const flipbook = isMeant(saved.slot)
    ? saved.slot
    : Math.max(
        0,
        state.flipbooks.findIndex((_, i) => isMeant(i)),
      );
  const forwards = state.flipbooks[flipbook]![direction]!;
  const backwards = saved.backwards === true && forwards.reverse !== undefined;
  const timeline = backwards ? forwards.reverse! : forwards;
  const phase = backwards ? 1 - saved.phase : saved.phase;
  // Another version may show another clip there, which the same phase is looked up in.
  const { ends } = timeline;
  const fits = saved.place <= ends[saved.segment]! && saved.place >= (ends[saved.segment - 1] ?? 0);
  const isSame = fits && Math.abs(saved.place / timeline.length - phase) < 1e-9;
  const place = isSame ? saved.place : Math.floor(phase * timeline.length);
  // What a clip without end has no more is an end.
  const ended = saved.progress.includes('ended') && !timeline.loops && known !== undefined;
  const indexOf = (name: string | undefined): number => stateOf(controller, track, name)?.index ?? -1;
  const used = new Int32Array(tables.words);
  for (const pulse of tables.pulses) if (saved.last.used.includes(pulse.name)) putBit(used, pulse, true);
  return {
    state: state.index,
    entered: microseconds(saved.since),
    flipbook,
    direction,
    targetDirection: Math.max(0, compass.names.indexOf(saved.pointsTo)),
    place: ended ? timeline.length : Math.min(place, timeline.length - 1),
    backwards,
    segment: ended ? ends.length - 1 : isSame ? saved.segment : indexAt(ends, place),
    stateBits: saved.progress.reduce(
      (bits, name) => bits | (name === 'ended' && !ended ? 0 : progressBits[name]),
      0,
    ),
    remembered: saved.remembered.flatMap(({ hop, to }) =>
      states[state.hops[hop]?.to ?? -1]?.name === to && state.hops[hop]!.memory >= 0 ? [hop] : [],
    ),
    goal: indexOf(saved.routeTo),
    from: indexOf(saved.last.from),
    rule: Rule[saved.last.rule],
    used,
    over: saved.overAt === undefined ? undefined : microseconds(saved.overAt),
    kept: saved.keptUntil === undefined ? undefined : microseconds(saved.keptUntil),
  };
}

const microseconds = (ms: number): number => Math.round(ms * 1000);

/** What has a timer: pulses, each with its bit and how long it is kept, lasting flags, and a compass that takes its time. */
function timed({
  tables,
  tracks,
  turnTimer,
}: Controller): { name: string; timer: number; word: number; bit: number; keep: number }[] {
  const lasting = tables.computed.flatMap((term) => {
    if (term.kind !== 'lasting') return [];
    const { text } = tables.terms.find(({ word, bit }) => word === term.word && bit === term.bit)!;
    return [{ name: text, timer: term.timer, word: 0, bit: 0, keep: Infinity }];
  });
  const turning = tracks.map(({ name }, i) => ({
    name: i === 0 ? 'the next turn' : `the next turn of ${name}`,
    ...{ timer: turnTimer + i, word: 0, bit: 0, keep: Infinity },
  }));
  return [...tables.pulses, ...lasting, ...(turnTimer < 0 ? [] : turning)];
}

/** The instants of the timers. A pulse that is on expires in any case: one without an instant as if set just now. */
function timersOf(controller: Controller, { timers, time }: PerformerSnapshot, set: BitWords): number[] {
  const instants = new Array<number>(controller.tables.timers).fill(Infinity);
  for (const one of timed(controller)) {
    const { name, timer, bit, keep } = one;
    const instant = own(timers, name);
    if (bit === 0 || isOn(one, set))
      instants[timer] =
        instant === undefined ? microseconds(time) + keep : microseconds(Math.max(time, instant));
  }
  return instants;
}

function placeValue({ kind, slot, options }: Signal, value: SignalValue, values: number[]): void {
  if (kind === 'number' && typeof value === 'number') values[slot] = value;
  else if (kind === 'choice' && options.includes(String(value)))
    values[slot] = options.indexOf(String(value));
  else if (kind === 'vector' && typeof value === 'object') [values[slot], values[slot + 1]] = value;
}

/** The words of the last decision: every term by name, and what no condition tests as it is now. */
function wordsOf({ tables }: Controller, { on }: PerformerSnapshot, shown: BitWords): BitWords {
  const words = shown.slice();
  const names = new Set(on);
  for (const term of tables.terms) putBit(words, term, names.has(term.text));
  return words;
}

function putBit(words: BitWords, { word, bit }: BitPlace, on: boolean): void {
  words[word] = on ? words[word]! | bit : words[word]! & ~bit;
}
