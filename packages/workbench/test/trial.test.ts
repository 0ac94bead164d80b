import fc from 'fast-check';
import { runRehearsal } from 'dot-hop/rehearsal';
import { levelGround, withStroke } from '../src/rooms/try/ground.js';
import type { Stroke } from '../src/rooms/try/ground.js';
import { Trial, stepsPerSecond } from '../src/rooms/try/trial.js';
import { wick } from './wick.js';
import { lawThatMeets } from '../../core/test/often.js';

test('what is tried passes the same as a rehearsal, whatever is pressed', () => {
  const deeds = fc.array(
    fc.record({
      steps: fc.integer({ min: 0, max: 60 }),
      button: fc.constantFrom('left' as const, 'right' as const, 'jump' as const),
      isDown: fc.boolean(),
      pulse: fc.option(fc.constantFrom('swing', 'splash', 'blow', 'dash'), { nil: undefined, freq: 4 }),
    }),
    { minLength: 3, maxLength: 14 },
  );
  const drawn = fc.array(
    fc
      .record({
        kind: fc.constantFrom('ground' as const, 'slope' as const, 'plank' as const, 'water' as const),
        from: fc.integer({ min: -120, max: 120 }),
        wide: fc.integer({ min: 10, max: 90 }),
        height: fc.integer({ min: -40, max: 40 }),
        end: fc.integer({ min: -40, max: 40 }),
      })
      .map(({ wide, ...stroke }): Stroke => ({ ...stroke, to: stroke.from + wide })),
    { maxLength: 6 },
  );
  let switches = 0;
  lawThatMeets(
    fc.property(deeds, drawn, fc.integer({ min: 60, max: 200 }), (all, strokes, speed) => {
      const ground = strokes.reduce(withStroke, levelGround);
      const trial = new Trial(wick, { kind: 'platformer', leapAt: 'leap', speed, ground });
      const told: string[] = [];
      const step = (): void => {
        trial.step(1000 / stepsPerSecond);
        for (const { kind, at, name, track } of trial.performer.reports)
          if (kind === 'switch' || kind === 'cue') told.push(`${at} ${track} ${name}`);
      };
      for (const { steps, button, isDown, pulse } of all) {
        if (isDown) trial.press(button);
        else trial.release(button);
        if (pulse !== undefined) trial.performer.pulse(pulse);
        for (let i = 0; i < steps; i++) step();
      }
      const { trace } = runRehearsal(wick, trial.rehearsal(trial.time));
      const again = trace.flatMap((one) =>
        one.kind === 'switch' || one.kind === 'cue' ? [`${one.at} ${one.track} ${one.name}`] : [],
      );
      // What is decided at the very last instant belongs to the step after it.
      expect(again.filter((one) => Number.parseFloat(one) < trial.time)).toEqual(
        told.filter((one) => Number.parseFloat(one) < trial.time),
      );
      switches += told.length;
    }),
    { usual: 60, met: () => switches, moreThan: 300 },
  );
});
