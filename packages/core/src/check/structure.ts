import type { Controller } from '../controller/controller.js';
import type { State } from '../controller/state.js';
import type { ControllerDefinition } from '../controller/definition.js';
import { parseExpression } from '../signal/expression.js';
import { statesIn } from '../controller/groups.js';
import { askedBy, turnedBy, facedBy, madeOf, namesOf, optionsIn, saidIn } from './expressions.js';
import type { Expression } from '../signal/expression.js';
import type { FindingList } from './finding.js';
import { rangeOf, rangesOf } from './ranges.js';
import { checkFeet } from './feet.js';
import { checkVariants } from './variants.js';

/** A display shows a picture for so long, in milliseconds: 60 a second. */
const shortest = 1000 / 60 - 0.1;

/** Finds what needs no situations: names that nothing uses, drawings that are missing. */
export function checkStructure(controller: Controller, found: FindingList): void {
  const { definition } = controller;
  checkSignals(definition, found);
  checkClips(controller, found);
  checkVariants(controller, found);
  if (definition.states !== undefined) checkWays(controller, found);
  checkRates(controller, found);
  checkJoints(controller, found);
  checkFeet(controller, found);
}

/** The signals that expressions read: of `aim.x` it is `aim`; of a state with its track, `arms.swing`, the track, which is none. */
const signalsIn = (expressions: readonly Expression[]): string[] =>
  expressions.flatMap(namesOf).map((name) => name.split('.')[0]!);

function checkSignals(definition: ControllerDefinition, found: FindingList): void {
  const { signals = {}, derived = {} } = definition;
  const optionsOf = optionsIn(definition);
  const asked = saidIn(definition).flatMap((state) => [...askedBy(state, optionsOf), ...facedBy(state)]);
  const read = new Set(signalsIn([...turnedBy(definition), ...asked]));
  for (const name of Object.keys(definition.variants ?? {})) read.add(name);
  // What is read by what is read.
  const waiting = Object.keys(derived).filter((name) => read.has(name));
  for (const name of waiting)
    for (const inner of signalsIn(madeOf(derived[name]!, optionsOf))) {
      if (!read.has(inner) && Object.hasOwn(derived, inner)) waiting.push(inner);
      read.add(inner);
    }
  for (const name of Object.keys(signals))
    if (!read.has(name)) found.add('signal-unused', ['signals', name], { name });
  for (const name of Object.keys(derived))
    if (!read.has(name)) found.add('derived-unused', ['derived', name], { name });
}

function checkClips({ definition, flipbooks, states, compass }: Controller, found: FindingList): void {
  const shown = new Set(states.flatMap(({ flipbookNames }) => flipbookNames));
  const inFlipbooks = new Set(
    Object.values(definition.flipbooks ?? {}).flatMap((flipbook) => Object.values(flipbook)),
  );
  for (const [name, clip] of Object.entries(definition.clips)) {
    if (!shown.has(name) && !inFlipbooks.has(name)) found.add('clip-unused', ['clips', name], { name });
    const times = [clip.ms ?? []].flat();
    const frame = times.findIndex((ms) => ms < shortest);
    if (frame >= 0) found.add('frame-short', ['clips', name, 'ms'], { clip: name, frame, ms: times[frame] });
    else if (clip.fps !== undefined && 1000 / clip.fps < shortest)
      found.add('frame-short', ['clips', name, 'fps'], {
        clip: name,
        frame: 0,
        ms: Number((1000 / clip.fps).toFixed(2)),
      });
  }
  for (const [flipbook, list] of flipbooks) {
    const directions = compass.names.filter((_, i) => list[i]?.standsIn);
    const isFlipbook = Object.hasOwn(definition.flipbooks ?? {}, flipbook);
    if (directions.length > 0)
      found.add('direction-stands-in', [isFlipbook ? 'flipbooks' : 'clips', flipbook], {
        flipbook,
        directions,
      });
  }
}

/** Whether a number says itself that it falls below 0. */
function isSaidSigned({ signals = {} }: ControllerDefinition, name: string): boolean {
  const signal = Object.hasOwn(signals, name) ? signals[name]! : undefined;
  return signal !== undefined && 'number' in signal && (signal.from ?? 0) < 0;
}

/** Rates that fall below 0 while their state shows, and do not look as if they were meant to. */
function checkRates({ definition }: Controller, found: FindingList): void {
  const ranges = rangesOf(definition);
  const turns = new Set(signalsIn([...turnedBy(definition), ...saidIn(definition).flatMap(facedBy)]));
  for (const { name: state, path, definition: own, groups } of statesIn(definition)) {
    const { rate } = own;
    if (typeof rate !== 'string') continue;
    const ofName = ranges(own.while, ...groups.map((group) => group.definition.while));
    const expression = parseExpression(rate);
    if (rangeOf(expression, ofName).low >= 0) continue;
    const signed = [...new Set(signalsIn([expression]))].filter((name) => ofName(name).low < 0);
    // A number that says it goes below 0 is meant to play the clip backwards, unless it turns the character: then he walks backwards.
    const isMeant = signed.every((name) => isSaidSigned(definition, name) && !turns.has(name));
    if (namesOf(expression).length === 0 || (signed.length > 0 && isMeant)) continue;
    found.add('rate-below-zero', [...path, 'rate'], { state, text: rate, signed });
  }
}

/** Parts that hang by a point which drawings of either side do not have. */
function checkJoints({ tracks, states, sheets }: Controller, found: FindingList): void {
  for (const { index, draws } of tracks.slice(1))
    for (const { name: sheet, parts } of sheets.values())
      for (const part of draws) {
        const joint = parts.get(part)?.joint;
        if (joint === undefined) continue;
        // What is in step with everything else shows whole drawings, which need no joint.
        const timelines = states
          .filter(
            (state) => (state.track === 0 || state.track === index) && (state.inStep < 0 || state.drawsOwn),
          )
          .flatMap(({ flipbooks }) => flipbooks.flat());
        const without = timelines
          .filter(({ poses }) => poses.some(({ cell, points }) => cell.sheet === sheet && !(joint in points)))
          .map(({ clip }) => clip.name);
        const clips = [...new Set(without)];
        if (clips.length > 0)
          found.add('joint-missing', ['sheets', sheet, 'parts', part], { part, joint, clips });
      }
}

/** States that nothing leads to, and yields that say nothing. */
function checkWays({ states, tracks }: Controller, found: FindingList): void {
  const rests = tracks.map(({ rest }) => rest);
  const led = new Set([...rests, ...states.flatMap(({ hops, then }) => [...hops.map(({ to }) => to), then])]);
  for (const state of states) {
    const { path } = state;
    if (state.kind === 'bare' && !led.has(state.index))
      found.add('state-unreachable', path, { state: state.name });
    state.yields.forEach(({ to }, i) => {
      for (const one of to ?? [])
        if (outranks(states[one]!, state) && !state.final)
          found.add('yield-needless', [...path, 'yields', i], { state: state.name, to: states[one]!.name });
    });
  }
}

export const outranks = (one: State, other: State): boolean => one.rank > other.rank;
