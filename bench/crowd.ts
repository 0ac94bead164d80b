// A hundred thousand characters: by hand in a loop, and as a troupe; and a million, in loops over arrays and as a troupe. What is told is
// the same for both.
import { Performer } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { Troupe } from 'dot-hop/troupe';
import { settledMemory } from './bytes.js';
import { load, tick } from './load.js';
import { median } from './median.js';
import type { Way } from './players.js';

const count = 100_000;
const settled = 10;
const measured = 30;
const turns = 5;

/** Of a million, for how many ticks: what is told of them takes nine bytes a tick each. */
const million = { count: 1_000_000, settled: 6, measured: 12, turns: 3 };

/** The median of what each turn of the troupe took against the same turn by hand, once all have begun. */
function against<Hand>(
  hand: Way<Hand>,
  troupe: Way<Troupe>,
  share: number,
  plan = { count, settled, measured, turns },
): number {
  const { settled: begun, turns } = plan;
  const end = begun + plan.measured;
  const given = load(plan.count, share, false, end);
  const take = <All>(way: Way<All>): number => {
    const all = way.make(plan.count);
    way.run(all, given, 0, begun);
    const begin = performance.now();
    way.run(all, given, begun, end);
    return performance.now() - begin;
  };
  take(troupe);
  return median(
    Array.from({ length: turns }, () => {
      const byHand = take(hand);
      return take(troupe) / byHand;
    }),
  );
}

/** Nanoseconds of each of many calls. */
function nanoseconds(times: number, call: () => void): number {
  for (let i = 0; i < times / 4; i++) call();
  const begin = performance.now();
  for (let i = 0; i < times; i++) call();
  return ((performance.now() - begin) * 1e6) / times;
}

/** What a crowd costs: ratios, bytes of a member, and nanoseconds. */
export function crowd<Hand>(hand: Way<Hand>, arrays: Way<void>, troupe: Way<Troupe>, controller: Controller) {
  const calm = against(hand, troupe, 4);
  const busy = against(hand, troupe, 97);
  const ofMillion = against(arrays, troupe, 4, million);
  const before = settledMemory();
  const all = new Troupe(controller, count);
  const bytes = (settledMemory() - before) / count;
  for (let t = 0; t < settled; t++) all.step(tick);
  const asleep = nanoseconds(200, () => all.step(tick)) / count;
  const one = new Performer(controller);
  one.step(tick);
  let saved = one.save();
  let savedAll = all.save();
  return {
    calm,
    busy,
    ofMillion,
    bytes,
    asleep,
    save: nanoseconds(200_000, () => {
      saved = one.save(saved);
    }),
    load: nanoseconds(200_000, () => one.load(saved)),
    saveMember:
      nanoseconds(12, () => {
        savedAll = all.save(savedAll);
      }) / count,
    loadMember: nanoseconds(12, () => all.load(savedAll)) / count,
  };
}
