// The yardstick for crowds: the character of yardstick.ts as a C programmer writes it, in loops over arrays, one array for each of its
// fields. It shows the same at every tick.
import { times as named } from './character.js';
import {
  CROUCH,
  FALL,
  HURT,
  LAND,
  RISE,
  RUN,
  SPLASHED,
  STAND,
  SWING1,
  SWING2,
  TAKEOFF,
  WALK,
  isAct,
} from './by-hand.js';
import { Event, tick } from './load.js';
import type { Way } from './players.js';

const names = Object.keys(named);
/** Every frame of every state in one array, and where those of a state begin and how many there are. */
const times = Float64Array.from(Object.values(named).flat());
const counts = Uint8Array.from(Object.values(named), (list) => list.length);
const firsts = Uint8Array.from(counts, (_, state) =>
  counts.slice(0, state).reduce((sum, one) => sum + one, 0),
);
const acts = Uint8Array.from(isAct, Number);

const doubles = (count: number): Float64Array => new Float64Array(count);
const bytes = (count: number, value = 0): Uint8Array => new Uint8Array(count).fill(value);

// The crowd that plays: one at a time.
let [vx, vy, elapsed, jumpLeft, swingLeft] = [doubles(0), doubles(0), doubles(0), doubles(0), doubles(0)];
let [grounded, wasGrounded, low, state, frame, over] = [
  bytes(0),
  bytes(0),
  bytes(0),
  bytes(0),
  bytes(0),
  bytes(0),
];
let [moving, fast, hurt, splash, queued] = [bytes(0), bytes(0), bytes(0), bytes(0), bytes(0)];
let facing = new Int8Array(0);
let cues = new Int32Array(0);

function makeCrowd(count: number): void {
  [vx, vy, elapsed, jumpLeft, swingLeft] = [
    doubles(count),
    doubles(count),
    doubles(count),
    doubles(count),
    doubles(count),
  ];
  [grounded, wasGrounded, low] = [bytes(count, 1), bytes(count, 1), bytes(count)];
  [state, frame, over] = [bytes(count), bytes(count), bytes(count)];
  [moving, fast, hurt, splash, queued] = [
    bytes(count),
    bytes(count),
    bytes(count),
    bytes(count),
    bytes(count),
  ];
  facing = new Int8Array(count).fill(1);
  cues = new Int32Array(count);
}

function enter(i: number, to: number): void {
  const before = state[i];
  state[i] = to;
  over[i] = queued[i] = 0;
  if (to === RUN && before === WALK) elapsed[i]! *= 0.75;
  else if (to === WALK && before === RUN) elapsed[i]! /= 0.75;
  else {
    frame[i] = 0;
    elapsed[i] = 0;
    if (to === WALK || to === RUN) cues[i]!++;
  }
}

function show(i: number, to: number): void {
  if (state[i] !== to) enter(i, to);
}

function hearFollowUp(i: number, used: number): void {
  if (frame[i]! < 2 || swingLeft[i]! - used <= 0 || queued[i] === 1) return;
  queued[i] = 1;
  swingLeft[i] = 0;
}

function enterFrame(i: number, used: number): void {
  const now = state[i];
  if (now === WALK || now === RUN) {
    if (frame[i] === 0 || frame[i] === 4) cues[i]!++;
  } else if (now === SWING1 || now === SWING2) {
    if (frame[i] === 2) cues[i]!++;
    if (now === SWING1) hearFollowUp(i, used);
  } else if (now === LAND && frame[i] === 1 && grounded[i] === 1 && moving[i] === 1) {
    const left = elapsed[i]!;
    enter(i, fast[i] === 1 ? RUN : WALK);
    elapsed[i] = left;
  }
}

function decide(i: number, used: number): void {
  const now = state[i];
  const acting = acts[now!] === 1 && over[i] === 0;
  const isGrounded = grounded[i] === 1;
  if (splash[i] === 1 && used === 0 && !(acting && now === SPLASHED)) enter(i, SPLASHED);
  else if (acting && now === SPLASHED) return;
  else if (hurt[i] === 1 && used === 0 && !(acting && now === HURT)) enter(i, HURT);
  else if (acting && now === HURT) return;
  else if (now === SWING1 && over[i] === 1 && queued[i] === 1) enter(i, SWING2);
  else if (acting && now === SWING1) hearFollowUp(i, used);
  else if (acting && now === SWING2) return;
  else if (isGrounded && swingLeft[i]! - used > 0) {
    swingLeft[i] = 0;
    enter(i, SWING1);
  } else if (isGrounded && jumpLeft[i]! - used > 0 && !(acting && now === TAKEOFF)) {
    jumpLeft[i] = 0;
    enter(i, TAKEOFF);
  } else if (acting && now === TAKEOFF) return;
  else if (!isGrounded) show(i, vy[i]! < 0 ? RISE : FALL);
  else if (used === 0 && wasGrounded[i] === 0) enter(i, LAND);
  else if (acting && now === LAND) {
    if (frame[i]! > 0 && moving[i] === 1) enter(i, fast[i] === 1 ? RUN : WALK);
  } else if (low[i] === 1 && moving[i] === 0) show(i, CROUCH);
  else if (fast[i] === 1) show(i, RUN);
  else if (moving[i] === 1) show(i, WALK);
  else show(i, STAND);
}

function step(i: number, dt: number): void {
  const speed = Math.abs(vx[i]!);
  moving[i] = moving[i] === 1 ? (speed >= 8 ? 1 : 0) : speed > 12 ? 1 : 0;
  fast[i] = fast[i] === 1 ? (speed >= 80 ? 1 : 0) : speed > 95 ? 1 : 0;
  if (vx[i]! >= 6) facing[i] = 1;
  else if (vx[i]! <= -6) facing[i] = -1;
  decide(i, 0);
  hurt[i] = splash[i] = 0;
  wasGrounded[i] = grounded[i]!;
  elapsed[i]! += dt;
  while (over[i] === 0) {
    const now = state[i];
    const length = times[firsts[now!]! + frame[i]!];
    if (elapsed[i]! < length!) break;
    elapsed[i]! -= length!;
    frame[i]!++;
    if (frame[i] === counts[now!]) {
      if (acts[now!] === 1) {
        over[i] = 1;
        frame[i]!--;
        const left = elapsed[i]!;
        decide(i, dt - left);
        elapsed[i] = left;
        continue;
      }
      frame[i] = 0;
    }
    enterFrame(i, dt - elapsed[i]!);
  }
  if (jumpLeft[i]! > 0) jumpLeft[i]! -= dt;
  if (swingLeft[i]! > 0) swingLeft[i]! -= dt;
}

function tell(i: number, event: number): void {
  if (event === Event.jump) jumpLeft[i] = 120;
  else if (event === Event.swing) swingLeft[i] = 200;
  else if (event === Event.hurt) hurt[i] = 1;
  else if (event === Event.splash) splash[i] = 1;
  else if (event === Event.low || event === Event.high) low[i] = event === Event.low ? 1 : 0;
  else if (event === Event.ground) grounded[i] = 1;
  else {
    grounded[i] = 0;
    vy[i] = event === Event.leave ? -280 : 60;
  }
}

/** Plays a load in loops over arrays. One crowd is there at a time. */
export function byArrays(): Way<void> {
  return {
    make: makeCrowd,
    run(_, { speeds, events, count }, from, to) {
      const { none } = Event;
      const length = tick;
      for (let t = from, k = from * count; t < to; t++)
        for (let i = 0; i < count; i++, k++) {
          const speed = speeds[k]!;
          if (speed === speed) vx[i] = speed;
          const event = events[k]!;
          if (event !== none) tell(i, event);
          step(i, length);
        }
    },
    shown: (_, i) => [names[state[i]!], frame[i], facing[i] === 1 ? 'east' : 'west', cues[i]],
  };
}
