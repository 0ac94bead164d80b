// How a load is played: by hand and by performers, with the same inner loop.
import { Performer } from 'dot-hop';
import { Event, tick, ticks } from './load.mjs';

const facings = ['east', 'west'];

/** @param classes as many as there are kinds of character; they take turns */
export function byHand(classes, names) {
  return {
    make: (count) => Array.from({ length: count }, (_, i) => new classes[i % classes.length]()),
    run(all, { speeds, events, count }, watch) {
      for (let t = 0, k = 0; t < ticks; t++) {
        for (let i = 0; i < count; i++, k++) {
          const one = all[i];
          const speed = speeds[k];
          if (speed === speed) one.vx = speed;
          const event = events[k];
          if (event !== Event.none) tellByHand(one, event);
          one.step(tick);
        }
        watch?.((i) => [
          names[all[i].state],
          all[i].frame,
          all[i].facing === 1 ? 'east' : 'west',
          all[i].cues,
        ]);
      }
    },
  };
}

function tellByHand(one, event) {
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

/** @param controllers as many as there are kinds of character; they take turns */
export function byPerformers(controllers) {
  const handles = controllers.map((controller) =>
    Object.fromEntries(
      ['vx', 'vy', 'grounded', 'low', 'jump', 'swing', 'hurt', 'splash'].map((name) => [
        name,
        controller.signal(name),
      ]),
    ),
  );
  const kinds = controllers.length;
  // A game keeps handles where it makes its characters: one set for one kind, else beside each character.
  const [first] = handles;
  const handlesOf = Array.from({ length: 4000 }, (_, i) => handles[i % kinds]);
  return {
    make: (count) => Array.from({ length: count }, (_, i) => new Performer(controllers[i % kinds])),
    run(all, { speeds, events, count }, watch) {
      const cues = watch && new Array(count).fill(0);
      let heard = 0;
      for (let t = 0, k = 0; t < ticks; t++) {
        for (let i = 0; i < count; i++, k++) {
          const one = all[i];
          const speed = speeds[k];
          const own = kinds === 1 ? first : handlesOf[i];
          if (speed === speed) one.set(own.vx, speed);
          const event = events[k];
          if (event !== Event.none) tell(one, own, event);
          const happened = one.step(tick);
          if (happened === 0) continue;
          const { reports } = one;
          for (let j = 0; j < happened; j++)
            if (reports.kind(j) === 'cue') {
              heard++;
              if (cues) cues[i]++;
            }
        }
        watch?.((i) => [all[i].state, all[i].frameIndex, facings[all[i].facing === 'east' ? 0 : 1], cues[i]]);
      }
      return heard;
    },
  };
}

function tell(one, { vy, grounded, low, jump, swing, hurt, splash }, event) {
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
