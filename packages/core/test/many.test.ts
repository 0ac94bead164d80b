import { Performer } from 'dot-hop';
import { compile, lastTold, perform, stepTold } from './characters.js';
import { walker } from './walker.js';

// Characters with more of everything than a word has bits.

const names = (count: number, of: string): string[] => Array.from({ length: count }, (_, i) => `${of}${i}`);

test('a fighter of a hundred moves, each with a pulse, a flag and a comparison of its own', () => {
  const moves = names(100, 'move');
  const fighter = perform({
    clips: { idle: { cells: 0 }, blow: { cells: '1-2', ms: 50, loop: 'once' } },
    signals: {
      ...Object.fromEntries(moves.map((name) => [`do_${name}`, { pulse: true as const }])),
      ...Object.fromEntries(moves.map((name) => [`may_${name}`, { flag: false }])),
      near: { number: 0 },
    },
    states: {
      idle: { shows: 'idle' },
      ...Object.fromEntries(
        moves.map((name, i) => [
          name,
          {
            shows: 'blow',
            when: `do_${name} && may_${name} && near > ${i}`,
            priority: i,
            tags: ['busy', name],
          },
        ]),
      ),
    },
    rest: 'idle',
  });
  for (const [i, name] of moves.entries()) {
    fighter.set('near', i);
    fighter.set(`may_${name}`, true);
    fighter.pulse(`do_${name}`);
    expect(stepTold(fighter, 10)).toEqual([]);
    fighter.set('near', i + 0.5);
    fighter.pulse(`do_${name}`);
    expect(stepTold(fighter, 110)).toEqual([
      `${fighter.time - 110} idle > ${name}`,
      `${fighter.time - 10} ${name} > idle`,
    ]);
    fighter.set(`may_${name}`, false);
  }
});

test('forty hops of which each remembers its own press, and the first that was pressed is taken', () => {
  const ways = names(40, 'way');
  const controller = compile({
    clips: {
      hold: { cells: '0-1', ms: [100, 100], loop: 'once', spans: { early: '0' } },
      go: { cells: 2, ms: 50 },
    },
    signals: Object.fromEntries(ways.map((name) => [`to_${name}`, { pulse: true as const }])),
    states: {
      hold: {
        shows: 'hold',
        hops: ways.map((to) => ({ to, if: `to_${to}`, during: 'early', at: 'end' as const })),
      },
      ...Object.fromEntries(ways.map((name) => [name, { shows: 'go' }])),
    },
    rest: 'hold',
  });
  for (const [i, name] of ways.entries()) {
    const one = new Performer(controller);
    one.step(10);
    // Of two that are remembered the first in the document is taken.
    const later = ways[i + 1] ?? name;
    one.pulse(`to_${later}`);
    one.pulse(`to_${name}`);
    one.step(10);
    const { remembered } = one.snapshot();
    expect(remembered.map(({ to }) => to)).toEqual([...new Set([name, later])]);
    // What is remembered is there again after a snapshot.
    const other = new Performer(controller);
    other.restore(one.snapshot());
    for (const each of [one, other]) {
      each.step(200);
      expect(lastTold(each)).toEqual([`200 hold > ${name}`]);
    }
  }
});

test('of forty yields the open ones give way', () => {
  const states = names(40, 'other');
  const one = perform({
    clips: { c: { cells: '0-1', ms: 100, spans: { open: '1' } } },
    signals: Object.fromEntries(states.map((name) => [`on_${name}`, { flag: false }])),
    states: {
      still: { shows: 'c' },
      held: {
        shows: 'c',
        while: '!on_other0',
        priority: -1,
        final: true,
        yields: states.slice(1).map((to) => ({ to: [to], during: 'open' as const })),
      },
      ...Object.fromEntries(
        states.map((name, i) => [name, { shows: 'c', while: `on_${name}`, priority: i }]),
      ),
    },
    rest: 'still',
  });
  one.step(10);
  expect(one.state).toBe('held');
  one.set('on_other39', true);
  one.step(50);
  expect(one.state).toBe('held');
  one.step(45);
  expect(one.state).toBe('other39');
});

test('characters with few words and with many do not mind one another', () => {
  const pulses = names(70, 'p');
  const wide = compile({
    clips: { c: { cells: 0 }, blow: { cells: '1-2', ms: 50, loop: 'once' } },
    signals: Object.fromEntries(pulses.map((name) => [name, { pulse: { keep: 300 } }])),
    states: {
      still: { shows: 'c' },
      ...Object.fromEntries(
        pulses.map((name, i) => [`on-${name}`, { shows: 'blow', when: name, priority: i }]),
      ),
    },
    rest: 'still',
  });
  const play = (performer: Performer, tick: number, of: readonly string[]): string[] => {
    performer.pulse(of[(tick * 13) % of.length]!);
    const speed = (tick % 5) * 20.1 - 40.3;
    const isNarrow = of.length === 1;
    if (isNarrow) performer.set('speed', speed);
    const told = stepTold(performer, 30);
    if (isNarrow) expect(performer.value('speed')).toBe(speed);
    return [...told, JSON.stringify(performer.snapshot())];
  };
  const alone = (make: () => Performer, of: readonly string[]): string[] => {
    const performer = make();
    return Array.from({ length: 60 }, (_, tick) => play(performer, tick, of)).flat();
  };
  const narrow = walker();
  const expected = [alone(() => new Performer(narrow), ['wave']), alone(() => new Performer(wide), pulses)];
  const both = [new Performer(narrow), new Performer(wide)];
  const told: string[][] = [[], []];
  for (let tick = 0; tick < 60; tick++)
    both.forEach((performer, i) => told[i]!.push(...play(performer, tick, i === 0 ? ['wave'] : pulses)));
  expect(told).toEqual(expected);
  expect(told[1]!.filter((text) => text.includes('> on-')).length).toBeGreaterThan(30);
});

test('tags that nothing asks for take no place, and are true all the same', () => {
  const tags = names(300, 'tag');
  const one = perform({
    clips: { c: { cells: 0 } },
    signals: { on: { flag: false } },
    states: { rest: { shows: 'c', tags }, other: { shows: 'c', while: 'on', priority: 1 } },
    rest: 'rest',
  });
  expect(one.controller.layout.size).toBe(perform({ clips: { c: { cells: 0 } } }).controller.layout.size);
  expect(one.value('tag299')).toBe(true);
  one.set('on', true);
  one.step(1);
  expect(one.value('tag299')).toBe(false);
});
