import fc from 'fast-check';
import { Performer } from 'dot-hop';
import type { ClipDefinition, Controller } from 'dot-hop';
import { compiledOf } from 'dot-hop/compiled';
import { Player, loadCompiled } from 'dot-hop/play';
import { compile, stepTold } from './characters.js';

const climb = { number: 0, from: -1, to: 1 };

const withClip = (clip: ClipDefinition): Controller =>
  compile({
    clips: { climb: clip },
    signals: { climb },
    states: { ladder: { shows: 'climb', rate: 'climb' } },
  });

const rung = { cells: '0-3', fps: 10, cues: { hand: [0, 2], foot: 1 } } as const;

test('below 0 the frames are entered in the other order, each cue once, and a loop goes round', () => {
  const performer = new Performer(withClip(rung), { climb: 1 });
  expect(stepTold(performer, 250)).toEqual(['0 hand', '100 foot', '200 hand']);
  expect([performer.frameIndex, performer.phase, performer.speed]).toEqual([2, 0.625, 1]);
  performer.set('climb', -1);
  expect(stepTold(performer, 0)).toEqual([]);
  expect([performer.frameIndex, performer.phase, performer.speed]).toEqual([2, 0.625, -1]);
  expect(stepTold(performer, 260)).toEqual(['300 foot', '400 hand']);
  expect([performer.frameIndex, performer.phase]).toEqual([3, 0.975]);
  performer.set('climb', -0.5);
  expect(stepTold(performer, 400)).toEqual(['690 hand', '890 foot']);
  // Standing still, it stays where it is, and goes on either way.
  performer.set('climb', 0);
  expect(stepTold(performer, 500)).toEqual([]);
  expect(performer.speed).toBe(0);
  performer.set('climb', 1);
  expect(stepTold(performer, 100)).toEqual(['1420 hand']);
});

test('a clip that is played once begins at its end, and ends at its first frame; spans and phases are met from there', () => {
  const performer = new Performer(
    compile({
      clips: {
        stand: { cells: 0, fps: 1 },
        door: {
          ...{ cells: '4-7', fps: 10, loop: 'once' as const },
          ...{ cues: { click: 0, creak: 3 }, spans: { ajar: '1-2' } },
        },
      },
      signals: { shut: { pulse: true }, kick: { flag: true } },
      states: {
        stand: { shows: 'stand' },
        shut: {
          ...{ shows: 'door', when: 'shut', rate: -1 },
          hops: [
            { to: 'late', if: 'kick', at: { start: 'ajar' } },
            { to: 'later', at: { end: 'ajar' } },
          ],
        },
        late: { shows: 'door', rate: -2, then: 'shut', hops: [{ to: 'stand', at: { phases: [0.25] } }] },
        later: { shows: 'door', carry: 'phase' },
      },
    }),
  );
  performer.pulse('shut');
  expect(stepTold(performer, 50)).toEqual(['0 stand > shut', '0 creak']);
  expect([performer.frameIndex, performer.phase]).toEqual([3, 0.875]);
  // The span begins with its last frame, and phases count from the end.
  expect(stepTold(performer, 200)).toEqual(['100 shut > late', '100 creak', '250 click', '250 late > stand']);
  performer.set('kick', false);
  performer.pulse('shut');
  // It ends as its first frame would end it, and goes on forwards from there.
  expect(stepTold(performer, 300)).toEqual(['250 stand > shut', '250 creak', '550 shut > later']);
  expect([performer.frameIndex, performer.phase, performer.speed]).toEqual([1, 0.25, 1]);
});

test('an end that was reached is left by going the other way', () => {
  const once = new Performer(withClip({ ...rung, loop: 'once' }), { climb: 1 });
  once.step(1000);
  expect([once.frameIndex, once.phase]).toEqual([3, 1]);
  once.set('climb', -1);
  expect(stepTold(once, 1000)).toEqual(['1100 hand', '1200 foot', '1300 hand']);
  expect([once.frameIndex, once.phase]).toEqual([0, 0]);
  once.set('climb', 1);
  expect(stepTold(once, 150)).toEqual(['2100 foot']);
});

const loops = fc.constantFrom<NonNullable<ClipDefinition['loop']>>(
  ...['forever' as const, 'once' as const, 'back-and-forth' as const, 3, { from: 2 }],
);

test('whatever its loop, going back from an instant shows what showed before it', () => {
  fc.assert(
    fc.property(
      loops,
      fc.array(fc.integer({ min: 2, max: 300 }), { minLength: 3, maxLength: 6 }),
      fc.array(fc.integer({ min: 1, max: 900 }), { minLength: 1, maxLength: 12 }),
      fc.constantFrom(1, 0.5, 2),
      (loop, ms, parts, pace) => {
        const controller = withClip({ cells: `0-${ms.length - 1}`, ms, loop });
        const whole = ms.reduce((sum, one) => sum + one, 0);
        // What has an intro goes back through it, and knows nothing of passes before; what is over knows not since when.
        const passes =
          loop === 'once' ? 1 : typeof loop === 'number' ? loop : loop === 'forever' ? Infinity : 1;
        const sum = parts.reduce((all, one) => all + one, 0);
        const scale = Math.min(1, (whole * passes - 1) / sum / pace);
        const times = parts.map((one) => Math.floor(one * scale));
        const forth = new Performer(controller, { climb: pace });
        const shown = [forth.frameIndex];
        for (const one of times) {
          // Half a millisecond beside every border, since at a border both frames are.
          forth.step(one);
          shown.push(forth.frameIndex);
        }
        forth.step(0.5);
        forth.set('climb', -pace);
        for (const [i, one] of times.toReversed().entries()) {
          forth.step(i === 0 ? one + 0.25 : one);
          expect(forth.frameIndex).toBe(shown[shown.length - 2 - i]);
        }
      },
    ),
  );
});

test('a compiled document and a snapshot go on backwards', () => {
  const controller = withClip({ ...rung, loop: { from: 1 } });
  const performer = new Performer(controller, { climb: 1 });
  performer.step(650);
  performer.set('climb', -0.75);
  performer.step(130);
  const again = new Performer(controller);
  again.restore(JSON.parse(JSON.stringify(performer.snapshot())) as ReturnType<Performer['snapshot']>);
  const player = new Player(loadCompiled(JSON.parse(JSON.stringify(compiledOf(controller))) as never), {
    climb: 1,
  });
  player.step(650);
  player.set('climb' as never, -0.75 as never);
  player.step(130);
  for (const one of [again, player])
    expect([one.frameIndex, one.phase]).toEqual([performer.frameIndex, performer.phase]);
  const told = stepTold(performer, 900);
  expect(stepTold(again, 900)).toEqual(told);
  expect(stepTold(player, 900)).toEqual(told);
  // Back through the intro it has come to its first frame.
  expect([performer.frameIndex, performer.phase]).toEqual([0, 0]);
  expect(told.length).toBeGreaterThan(1);
  const bad = { ...performer.snapshot(), state: 'ladder', backwards: false };
  expect(() => again.restore(bad as never)).toThrow('backwards: expected true, not false');
});

test.each([
  [65, 'states.ladder.rate: a rate lies between -64 and 64, not at 65'],
  [-64.5, 'states.ladder.rate: a rate lies between -64 and 64, not at -64.5'],
])('a rate of %d is refused', (rate, words) => {
  const ladder = { shows: 'climb', rate };
  expect(() => compile({ clips: { climb: rung }, states: { ladder } })).toThrow(words);
});

test('what is put back forgets what was told before it', () => {
  const performer = new Performer(withClip(rung), { climb: 1 });
  performer.step(0);
  const snapshot = performer.snapshot();
  performer.step(150);
  performer.restore(snapshot);
  expect(performer.reports.count).toBe(0);
  expect(performer.step(50)).toBe(0);
  expect(performer.step(100)).toBe(1);
});
