import type { Controller } from '../controller/controller.js';
import { Rule, ruleNames } from '../controller/rule.js';
import type { RuleName } from '../controller/rule.js';
import { indexAt } from '../clip/clip.js';
import { callError } from '../problem/problem.js';
import { isOn } from '../signal/condition.js';
import type { Words } from '../signal/condition.js';
import type { Signal, SignalValue } from '../signal/definition.js';
import { placeOf } from '../signal/program.js';
import { Mark } from './player.js';

/** Where a performer stands, as plain data: it goes through JSON unchanged. Instants are milliseconds since it began. */
export interface PerformerSnapshot {
  readonly dotHopSnapshot: 1;
  /** The character's name and the version of its document. */
  readonly controller: string;
  readonly version: string;
  readonly time: number;
  /** Every signal as it was set; a pulse is true while it counts. */
  readonly signals: Readonly<Record<string, SignalValue>>;
  /** When pulses expire and lasting flags change, by name. */
  readonly timers: Readonly<Record<string, number>>;
  /** The terms that were on when it decided last. */
  readonly on: readonly string[];
  readonly state: string;
  readonly since: number;
  /** The clip or flipbook that shows, and whether it is a bridge. */
  readonly shows: string;
  readonly bridging: boolean;
  readonly facing: string;
  /** Where the compass points; a state that holds its direction may face elsewhere. */
  readonly toward: string;
  /** From 0 to 1, and exactly in 4096ths of a microsecond. */
  readonly phase: number;
  readonly place: number;
  readonly segment: number;
  readonly marks: readonly (keyof typeof Mark)[];
  readonly remembered: readonly { readonly hop: number; readonly to: string }[];
  readonly heading: string | undefined;
  readonly last: {
    readonly from: string | undefined;
    readonly rule: RuleName;
    readonly used: readonly string[];
  };
  /** Whether something was set that it has not yet decided upon. */
  readonly changed: boolean;
}

/** The same as a performer keeps it: indices, bits and microseconds. */
export interface Standstill {
  time: number;
  setFlags: number;
  words: Words;
  /** The values of number slots and the instants of timers; the rest of a performer's numbers is found anew. */
  values: number[];
  timers: number[];
  state: number;
  entered: number;
  book: number;
  direction: number;
  toward: number;
  place: number;
  segment: number;
  marks: number;
  remembered: number;
  goal: number;
  last: number;
  lastUsed: number;
  changed: boolean;
}

const markNames = Object.keys(Mark) as (keyof typeof Mark)[];
const versions = new WeakMap<Controller, string>();

/** The version of a controller: a hash of its document (FNV-1a, 32 bits, forwards and backwards). */
function versionOf(controller: Controller): string {
  let version = versions.get(controller);
  if (version === undefined) {
    const text = JSON.stringify(controller.definition);
    const hash = (at: (i: number) => number): string => {
      let value = 0x811c9dc5;
      for (let i = 0; i < text.length; i++) value = Math.imul(value ^ text.charCodeAt(at(i)), 0x01000193);
      return (value >>> 0).toString(16).padStart(8, '0');
    };
    version = hash((i) => i) + hash((i) => text.length - 1 - i);
    versions.set(controller, version);
  }
  return version;
}

/** Names what has names, so that a snapshot can be read by people and by another version. */
export function writeSnapshot(
  controller: Controller,
  still: Standstill,
  valueOf: (signal: Signal) => SignalValue,
): PerformerSnapshot {
  const { tables, states, compass } = controller;
  const state = states[still.state]!;
  const timeline = state.books[still.book]![still.direction]!;
  const timers = timed(controller)
    .filter(
      ({ timer, bit }) => still.timers[timer] !== Infinity && (bit === 0 || (still.setFlags & bit) !== 0),
    )
    .map(({ name, timer }) => [name, still.timers[timer]! / 1000] as const);
  const ended = (still.marks & Mark.ended) !== 0;
  return {
    dotHopSnapshot: 1,
    controller: controller.name,
    version: versionOf(controller),
    time: still.time / 1000,
    signals: Object.fromEntries([...tables.signals.values()].map((one) => [one.name, valueOf(one)])),
    timers: Object.fromEntries(timers),
    on: tables.terms.filter((term) => isOn(term, still.words)).map(({ text }) => text),
    state: state.name,
    since: still.entered / 1000,
    shows: state.bookNames[still.book]!,
    bridging: timeline.bridge,
    facing: compass.names[still.direction]!,
    toward: compass.names[still.toward]!,
    phase: ended ? 1 : still.place / timeline.length,
    place: still.place,
    segment: still.segment,
    marks: markNames.filter((name) => (still.marks & Mark[name]) !== 0),
    remembered: state.hops.flatMap(({ to }, hop) =>
      (still.remembered & (1 << hop)) === 0 ? [] : [{ hop, to: states[to]!.name }],
    ),
    heading: states[still.goal]?.name,
    last: {
      from: states[(still.last >> 4) - 1]?.name,
      rule: ruleNames[still.last & 15]!,
      used: tables.pulses.filter(({ bit }) => (bit & still.lastUsed) !== 0).map(({ name }) => name),
    },
    changed: still.changed,
  };
}

/**
 * Finds again what a snapshot names.
 *
 * @throws {DotHopError} when it is no snapshot, or (unless it is adopted) of another version
 */
export function readSnapshot(
  controller: Controller,
  snapshot: PerformerSnapshot,
  adopt: boolean,
): Standstill & { readonly stateIsKnown: boolean } {
  checkForm(snapshot);
  const version = versionOf(controller);
  if (!adopt && snapshot.version !== version) {
    const received = `${snapshot.controller} (version ${snapshot.version})`;
    throw callError('snapshot-version', { received, expected: `${controller.name} (version ${version})` });
  }
  const { tables, states, stateNamed, compass, rest, numbers } = controller;
  const known = stateNamed.get(snapshot.state);
  if (known === undefined && !adopt)
    throw callError('snapshot-form', { detail: `there is no state ${JSON.stringify(snapshot.state)}` });
  const state = known ?? states[rest]!;
  const direction = Math.max(0, compass.names.indexOf(snapshot.facing));
  const bridge = state.books.findIndex(
    (book, i) => book[0]!.bridge === snapshot.bridging && state.bookNames[i] === snapshot.shows,
  );
  const timeline = state.books[Math.max(0, bridge)]![direction]!;
  const { remembered, signals } = snapshot;
  const place = adopt ? Math.floor(Math.min(1, snapshot.phase) * timeline.length) : snapshot.place;
  // What a clip without end has no more is an end.
  const ended = snapshot.marks.includes('ended') && !timeline.loops && known !== undefined;
  const values = tables.regions.map((_, slot) => numbers.first[placeOf(slot)]!);
  let setFlags = tables.firstFlags;
  for (const signal of tables.signals.values()) {
    const value = signals[signal.name];
    if (value === undefined) continue;
    if (typeof value === 'boolean') {
      if (signal.bit !== 0) setFlags = value ? setFlags | signal.bit : setFlags & ~signal.bit;
    } else placeValue(signal, value, values);
  }
  return {
    stateIsKnown: known !== undefined,
    time: microseconds(snapshot.time),
    setFlags,
    words: wordsOf(controller, snapshot, setFlags | state.tagBits),
    values,
    timers: timersOf(controller, snapshot, setFlags),
    state: state.index,
    entered: microseconds(snapshot.since),
    book: Math.max(0, bridge),
    direction,
    toward: Math.max(0, compass.names.indexOf(snapshot.toward)),
    place: ended ? timeline.length : Math.min(place, timeline.length - 1),
    segment: ended ? timeline.ends.length - 1 : adopt ? indexAt(timeline.ends, place) : snapshot.segment,
    marks: snapshot.marks.reduce((bits, name) => bits | (name === 'ended' && !ended ? 0 : Mark[name]), 0),
    remembered: remembered.reduce(
      (bits, { hop, to }) =>
        states[state.hops[hop]?.to ?? -1]?.name === to && state.hops[hop]!.remembers
          ? bits | (1 << hop)
          : bits,
      0,
    ),
    goal: stateNamed.get(snapshot.heading ?? '')?.index ?? -1,
    last: (((stateNamed.get(snapshot.last.from ?? '')?.index ?? -1) + 1) << 4) | Rule[snapshot.last.rule],
    lastUsed: tables.pulses.reduce(
      (bits, { name, bit }) => (snapshot.last.used.includes(name) ? bits | bit : bits),
      0,
    ),
    changed: snapshot.changed || adopt,
  };
}

const microseconds = (ms: number): number => Math.round(ms * 1000);

/** What has a timer: pulses, each with its bit and how long it is kept, lasting flags, and a compass that takes its time. */
function timed({
  tables,
  turnTimer,
}: Controller): { name: string; timer: number; bit: number; keep: number }[] {
  const lasting = tables.computed.flatMap((term) => {
    if (term.kind !== 'lasting') return [];
    const { text } = tables.terms.find(({ word, bit }) => word === term.word && bit === term.bit)!;
    return [{ name: text, timer: term.timer, bit: 0, keep: Infinity }];
  });
  const turning = { name: 'the next turn', timer: turnTimer, bit: 0, keep: Infinity };
  return [...tables.pulses, ...lasting, ...(turnTimer < 0 ? [] : [turning])];
}

/** The instants of the timers. A pulse that is on expires in any case: one without an instant as if set just now. */
function timersOf(controller: Controller, { timers, time }: PerformerSnapshot, setFlags: number): number[] {
  const instants = new Array<number>(controller.tables.timers).fill(Infinity);
  for (const { name, timer, bit, keep } of timed(controller)) {
    const instant = timers[name];
    const isOn = bit === 0 || (setFlags & bit) !== 0;
    if (isOn) instants[timer] = instant === undefined ? microseconds(time) + keep : microseconds(instant);
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
function wordsOf({ tables }: Controller, { on }: PerformerSnapshot, flags: number): Words {
  const words = { flags, terms: 0, more: 0 };
  const names = new Set(on);
  for (const { text, word, bit } of tables.terms)
    words[word] = names.has(text) ? words[word] | bit : words[word] & ~bit;
  return words;
}

function checkForm(snapshot: PerformerSnapshot): void {
  const fault = (detail: string): never => {
    throw callError('snapshot-form', { detail });
  };
  if (typeof snapshot !== 'object' || (snapshot as unknown) === null) fault('it is not an object');
  if ((snapshot.dotHopSnapshot as number) !== 1)
    fault(`"dotHopSnapshot" must be 1, not ${JSON.stringify(snapshot.dotHopSnapshot)}`);
  for (const field of ['time', 'since', 'phase', 'place', 'segment'] as const)
    if (!(snapshot[field] >= 0))
      fault(`"${field}" must be 0 or more, not ${JSON.stringify(snapshot[field])}`);
  for (const field of ['on', 'marks', 'remembered'] as const)
    if (!Array.isArray(snapshot[field])) fault(`"${field}" must be a list`);
  for (const field of ['signals', 'timers', 'last'] as const)
    if (typeof snapshot[field] !== 'object' || (snapshot[field] as unknown) === null)
      fault(`"${field}" is missing`);
  if (!Object.hasOwn(Rule, snapshot.last.rule))
    fault(`there is no rule ${JSON.stringify(snapshot.last.rule)}`);
  if (!Object.values(snapshot.signals).every(isValue)) fault('a signal has a value of no kind');
}

function isValue(value: unknown): boolean {
  if (Array.isArray(value)) return value.length === 2 && value.every(Number.isFinite);
  return typeof value === 'number' ? Number.isFinite(value) : ['boolean', 'string'].includes(typeof value);
}
