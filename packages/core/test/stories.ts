import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { Controller, SignalValue } from 'dot-hop';
import type { Player } from 'dot-hop/play';

/** Something done to the signals, or asked for. */
export type Deed =
  | { readonly set: string; readonly to: SignalValue }
  | { readonly pulse: string }
  | { readonly ask: string }
  | { readonly cut: string }
  | { readonly route: string }
  | { readonly pace: number };

/** What is done, and how long nothing is done after it, in microseconds. */
export interface Scene {
  readonly deeds: readonly Deed[];
  readonly wait: number;
}

/** Does it. @returns what a request gives */
export function act(performer: Player, deed: Deed): boolean | undefined {
  if ('ask' in deed) return performer.ask(deed.ask);
  if ('route' in deed) return performer.route(deed.route);
  if ('cut' in deed) {
    performer.cut(deed.cut);
    return true;
  }
  if ('pulse' in deed) performer.pulse(deed.pulse);
  else if ('pace' in deed) performer.pace = deed.pace;
  else performer.set(deed.set, deed.to);
  return undefined;
}

const someState = fc.nat(2).map((i) => `s${i}`);
const setting: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({
    set: fc.constant('vx'),
    to: fc.constantFrom(-40, -30, -12, -9, -5, 0, 5, 8, 10, 10.000001, 12, 13, 30, 40),
  }),
  fc.record({ set: fc.constant('vy'), to: fc.constantFrom(-30, -0.5, 0, 0.5, 30) }),
  fc.record({ set: fc.constantFrom('a', 'b'), to: fc.boolean() }),
  fc.record({ set: fc.constant('mode'), to: fc.constantFrom('ground', 'ladder', 'water') }),
  fc.record({
    set: fc.constant('aim'),
    to: fc.constantFrom([0, 0] as const, [1, 0] as const, [0.5, 0.5] as const, [2, -3] as const),
  }),
  fc.record({ pulse: fc.constantFrom('o', 'p', 'q') }),
);
const request: fc.Arbitrary<Deed> = fc.oneof(
  fc.record({ ask: someState }),
  fc.record({ cut: someState }),
  fc.record({ route: someState }),
);
const pacing: fc.Arbitrary<Deed> = fc.record({ pace: fc.constantFrom(0, 0.001, 0.25, 0.333, 1, 1, 1.5, 7) });
const deed = fc.oneof(
  { arbitrary: setting, weight: 16 },
  { arbitrary: request, weight: 2 },
  { arbitrary: pacing, weight: 1 },
);

/** More reports than this in one wait, and the rest of it would only be more of the same. */
const mostTold = 400;

/** It is found out in slices, in microseconds: in short ones where much is told, since one microsecond may tell twenty things. */
const [shortest, longest] = [8, 1024];

/**
 * A story whose waits are cut short where a character switches without rest, at worst at every microsecond: millions of reports
 * would be compared.
 * @param others the stories of others who wait as long as the first
 */
export function bearable(
  controller: Controller,
  story: readonly Scene[],
  ...others: (readonly Scene[])[]
): Scene[] {
  const probes = [story, ...others].map((scenes) => ({ scenes, performer: new Performer(controller) }));
  return story.map(({ deeds, wait }, i) => {
    let [waited, told, slice] = [0, 0, shortest];
    try {
      for (const { scenes, performer } of probes)
        for (const deed of scenes[i]?.deeds ?? []) act(performer, deed);
      while (waited < wait && told < mostTold) {
        const before = probes.map(({ performer }) => performer.save());
        let more = 0;
        for (const { performer } of probes) more += performer.step(Math.min(wait - waited, slice) / 1000);
        if (more > mostTold && slice > shortest) {
          // It has begun to switch without rest in the midst of this slice.
          probes.forEach(({ performer }, at) => performer.load(before[at]!));
          slice = shortest;
          continue;
        }
        waited += slice;
        told += more;
        slice = Math.min(longest, 2 * slice);
      }
    } catch {
      // What leads on without taking any time is for the test to meet, but no later than that.
      return { deeds, wait: Math.min(wait, waited + slice) };
    }
    return { deeds, wait: Math.min(wait, waited) };
  });
}

/** What is done to a character over time. */
export const scenes: fc.Arbitrary<Scene[]> = fc.array(
  fc.record({
    deeds: fc.array(deed, { maxLength: 3 }),
    wait: fc.oneof(fc.nat(300_000), fc.constantFrom(0, 1, 1000, 16_667, 40_000, 2_000_000)),
  }),
  { minLength: 1, maxLength: 8 },
);
