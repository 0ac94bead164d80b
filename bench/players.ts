// How a load is played: by hand and by performers, with the same inner loop. What that loop needs of other modules is at hand
// before it: looking it up at each turn would make both of them dearer, and so more alike.
import { Performer } from 'dot-hop';
import type { Controller, Outfit, Signal } from 'dot-hop';
import { Troupe } from 'dot-hop/troupe';
import { Event, tick } from './load.js';
import type { Load } from './load.js';
import type { HandWritten } from './yardstick.js';

/** One way of playing a load. */
export interface Way<All> {
  /** Makes the characters. */
  make(count: number): All;
  /** Plays the ticks from one up to another. */
  run(all: All, given: Load, from: number, to: number): void;
  /** What one of them shows: its state, frame and direction, and how many cues it has had. */
  shown(all: All, i: number): readonly (string | number | undefined)[];
}

/** @param classes as many as there are kinds of character; they take turns */
export function byHand(
  classes: readonly (new () => HandWritten)[],
  names: readonly string[],
): Way<HandWritten[]> {
  return {
    make: (count) => Array.from({ length: count }, (_, i) => new classes[i % classes.length]!()),
    run(all, { speeds, events, count }, from, to) {
      const { none } = Event;
      const length = tick;
      for (let t = from, k = from * count; t < to; t++)
        for (let i = 0; i < count; i++, k++) {
          const one = all[i]!;
          const speed = speeds[k]!;
          if (speed === speed) one.vx = speed;
          const event = events[k]!;
          if (event !== none) tellByHand(one, event);
          one.step(length);
        }
    },
    shown: (all, i) => [
      names[all[i]!.state],
      all[i]!.frame,
      all[i]!.facing === 1 ? 'east' : 'west',
      all[i]!.cues,
    ],
  };
}

function tellByHand(one: HandWritten, event: number): void {
  if (event === Event.jump) one.jumpLeft = 120;
  else if (event === Event.swing) one.swingLeft = 200;
  else if (event === Event.hurt) one.hurt = true;
  else if (event === Event.splash) one.splash = true;
  else if (event === Event.low || event === Event.high) one.low = event === Event.low;
  else if (event === Event.ground) one.grounded = true;
  else {
    one.grounded = false;
    one.vy = event === Event.leave ? -280 : 60;
  }
}

/** A way whose poses are read. */
interface Reading extends Way<Performer[]> {
  /** How many layers were drawn, so that what is read counts. */
  drawn(): number;
}

/** The same, whose pose is read at every tick, as a game that draws does. @param outfit what all wear, if anything */
export function reading(controller: Controller, outfit: Outfit | undefined): Reading {
  const plain = byPerformers([controller]);
  let drawn = 0;
  return {
    ...plain,
    make: (count) => {
      const all = plain.make(count);
      for (const one of all) one.wear(outfit);
      return all;
    },
    run(all, given, from, to) {
      for (let t = from; t < to; t++) {
        plain.run(all, given, t, t + 1);
        for (let i = 0; i < given.count; i++) drawn += all[i]!.pose.layers.length;
      }
    },
    drawn: () => drawn,
  };
}

/** Handles of what is told. */
type Handles = ReturnType<typeof handlesFor>;

const handlesFor = (controller: Controller) => {
  const number = (name: string): Signal<number> => controller.signal(name) as Signal<number>;
  const flag = (name: string): Signal<boolean> => controller.signal(name) as Signal<boolean>;
  const pulse = (name: string): Signal<never> => controller.signal(name) as Signal<never>;
  return {
    vx: number('vx'),
    vy: number('vy'),
    grounded: flag('grounded'),
    low: flag('low'),
    jump: pulse('jump'),
    swing: pulse('swing'),
    hurt: pulse('hurt'),
    splash: pulse('splash'),
  };
};

/** @param controllers as many as there are kinds of character; they take turns */
export function byPerformers(controllers: readonly Controller[]): Way<Performer[]> {
  const handles = controllers.map(handlesFor);
  const kinds = controllers.length;
  // A game keeps handles where it makes its characters: one set for one kind, else beside each character.
  const first = handles[0]!;
  const handlesOf = Array.from({ length: 4000 }, (_, i) => handles[i % kinds]!);
  let cues = new Int32Array(0);
  return {
    make(count) {
      cues = new Int32Array(count);
      return Array.from({ length: count }, (_, i) => new Performer(controllers[i % kinds]!));
    },
    run(all, { speeds, events, count }, from, to) {
      const { none } = Event;
      const length = tick;
      const only = kinds === 1 ? first : undefined;
      for (let t = from, k = from * count; t < to; t++)
        for (let i = 0; i < count; i++, k++) {
          const one = all[i]!;
          const speed = speeds[k]!;
          const own = only ?? handlesOf[i]!;
          if (speed === speed) one.set(own.vx, speed);
          const event = events[k]!;
          if (event !== none) tell(one, own, event);
          const happened = one.step(length);
          if (happened !== 0) hear(one, happened, i);
        }
    },
    shown: (all, i) => [all[i]!.state, all[i]!.frameIndex, all[i]!.facing, cues[i]],
  };

  function hear({ reports }: Performer, happened: number, i: number): void {
    for (let j = 0; j < happened; j++) if (reports.kind(j) === 'cue') cues[i]!++;
  }
}

/** The same as a troupe: numbers are told all at once, events one by one. */
export function byTroupe(controller: Controller): Way<Troupe> {
  const handles = handlesFor(controller);
  let cues = new Int32Array(0);
  return {
    make(count) {
      cues = new Int32Array(count);
      return new Troupe(controller, count);
    },
    run(troupe, { speeds, events, count }, from, to) {
      const { none } = Event;
      const { reports } = troupe;
      for (let t = from; t < to; t++) {
        troupe.setEach(handles.vx, speeds.subarray(t * count, (t + 1) * count));
        for (let i = 0, k = t * count; i < count; i++, k++)
          if (events[k] !== none) tellMember(troupe, i, handles, events[k]!);
        const happened = troupe.step(tick);
        for (let j = 0; j < happened; j++) if (reports.kind(j) === 'cue') cues[reports.memberAt(j)]!++;
      }
    },
    shown(troupe, i) {
      const one = troupe.member(i);
      return [one.state, one.frameIndex, one.facing, cues[i]];
    },
  };
}

function tellMember(
  troupe: Troupe,
  i: number,
  { vy, grounded, low, jump, swing, hurt, splash }: Handles,
  event: number,
): void {
  if (event === Event.jump) troupe.pulse(i, jump);
  else if (event === Event.swing) troupe.pulse(i, swing);
  else if (event === Event.hurt) troupe.pulse(i, hurt);
  else if (event === Event.splash) troupe.pulse(i, splash);
  else if (event === Event.low || event === Event.high) troupe.set(i, low, event === Event.low);
  else if (event === Event.ground) troupe.set(i, grounded, true);
  else {
    troupe.set(i, grounded, false);
    troupe.set(i, vy, event === Event.leave ? -280 : 60);
  }
}

function tell(
  one: Performer,
  { vy, grounded, low, jump, swing, hurt, splash }: Handles,
  event: number,
): void {
  if (event === Event.jump) one.pulse(jump);
  else if (event === Event.swing) one.pulse(swing);
  else if (event === Event.hurt) one.pulse(hurt);
  else if (event === Event.splash) one.pulse(splash);
  else if (event === Event.low || event === Event.high) one.set(low, event === Event.low);
  else if (event === Event.ground) one.set(grounded, true);
  else {
    one.set(grounded, false);
    one.set(vy, event === Event.leave ? -280 : 60);
  }
}
