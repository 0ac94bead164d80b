// What happens to the bench's characters: the same for everybody who plays it, tick by tick.

export const ticks = 120;
export const tick = 1000 / 60;

/** The same numbers for everybody, whatever the order in which they are asked; from 0 to under 1. */
function chance(seed: number): number {
  let value = Math.imul(seed ^ 0x9e3779b1, 0x85ebca6b);
  value = Math.imul(value ^ (value >>> 13), 0xc2b2ae35);
  return ((value ^ (value >>> 16)) >>> 0) / 2 ** 32;
}

/** What may happen in a tick besides a new speed. */
export const Event = {
  none: 0,
  jump: 1,
  leave: 2,
  top: 3,
  ground: 4,
  swing: 5,
  hurt: 6,
  low: 7,
  high: 8,
  splash: 9,
};

/** One round in ticks: a hop with its way up and down, two swings in a row, now and then more. */
function eventAt(tickOf: number, one: number, round: number): number {
  const at = (tickOf + Math.floor(chance(one + 1_000_000) * round)) % round;
  if (at === 10) return Event.jump;
  if (at === 17) return Event.leave;
  if (at === 34) return Event.top;
  if (at === 52) return Event.ground;
  if (one % 3 === 0 && (at === 80 || at === 96)) return Event.swing;
  if (one % 17 === 0 && at === 70) return Event.hurt;
  if (one % 23 === 0 && at === 90) return Event.splash;
  if (one % 5 === 0 && at === 62) return Event.low;
  if (one % 5 === 0 && at === 78) return Event.high;
  return Event.none;
}

const cruises = [0, 50, 130, -50, -130];

/** A body that stands, walks or runs for some seconds, then makes for another speed; its physics trembles a little. */
function steadySpeeds(one: number): (tickOf: number) => number {
  const lasts = 150 + Math.floor(chance(one + 5_000_000) * 150);
  const shift = Math.floor(chance(one + 6_000_000) * lasts);
  const aimAt = (t: number): number =>
    cruises[Math.floor(chance(one * 31 + Math.floor((t + shift) / lasts)) * cruises.length)]!;
  let speed = aimAt(0);
  return (t) => {
    const most = 420 / 60;
    speed += Math.max(-most, Math.min(most, aimAt(t) - speed));
    return speed + (chance(one * 131 + t) - 0.5) * 2;
  };
}

/** A body that goes back and forth without rest, from run to run in a second and a half to three. */
function restlessSpeeds(one: number): (tickOf: number) => number {
  const period = 90 + chance(one + 3_000_000) * 90;
  return (t) => 140 * Math.sin((t / period + chance(one + 7_000_000)) * 2 * Math.PI);
}

/** What happens to some characters, tick by tick: those of a tick lie side by side. */
export interface Load {
  /** How many characters. */
  readonly count: number;
  /** The new speed of each, or NaN where that stays. */
  readonly speeds: Float64Array;
  /** What else happens to each: an {@link Event}. */
  readonly events: Uint8Array;
  /** The share of ticks in which a character is told anything. */
  readonly changing: number;
}

/**
 * Makes a load.
 *
 * @param share how many of 100 characters tell a new speed in a tick
 * @param length how many ticks
 * @param restless whether every body turns, hops and swings within two seconds; else within six
 */
export function load(count: number, share: number, restless = false, length = ticks): Load {
  const size = length * count;
  const speeds = new Float64Array(size);
  const events = new Uint8Array(size);
  const bodies = Array.from({ length: count }, (_, i) => (restless ? restlessSpeeds(i) : steadySpeeds(i)));
  let changes = 0;
  for (let t = 0, k = 0; t < length; t++)
    for (let i = 0; i < count; i++, k++) {
      const speed = bodies[i]!(t);
      speeds[k] = chance(k) < share / 100 ? speed : NaN;
      events[k] = eventAt(t, i, restless ? 120 : 360);
      if (!Number.isNaN(speeds[k]) || events[k] !== Event.none) changes++;
    }
  return { count, speeds, events, changing: changes / size };
}
