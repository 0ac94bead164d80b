import { Performer, compileController } from 'dot-hop';
import type { Controller, ControllerDefinition, Showing, SignalValue } from 'dot-hop';
import type { Player } from 'dot-hop/play';

/** Sixty-four cells of 8x8 pixels, eight to a row: what the made-up characters of these tests are cut from. */
export const sheets = { s: { image: 's.png', size: [64, 64], grid: { cell: [8, 8] } } } as const;

/** What a test says of a character. */
export type Parts = Omit<ControllerDefinition, 'dotHop' | 'sheets'>;

/** Compiles a character from what a test is about. */
export function compile(parts: Parts): Controller {
  return compileController({ dotHop: 1, sheets, ...parts });
}

/** Performs a character from what a test is about. */
export function perform(parts: Parts, first?: Record<string, SignalValue>): Performer {
  return new Performer(compile(parts), first);
}

/** The reports of one step as texts: `300 stand > run`, `445.455 step`, `10 turns west`. */
export function stepTold(performer: Player, ms: number): string[] {
  performer.step(ms);
  return lastTold(performer);
}

/** The reports of the latest step, also of one that failed on its way. */
export function lastTold({ reports }: Pick<Player, 'reports'>): string[] {
  return Array.from({ length: reports.count }, (_, i) => {
    const track = reports.track(i);
    const at = `${reports.at(i)}${track === 'body' ? '' : ` ${track}:`}`;
    const name = reports.name(i);
    if (reports.kind(i) === 'cue') return `${at} ${name}`;
    if (reports.kind(i) === 'flipbook') return `${at} flipbook ${name}`;
    return reports.kind(i) === 'turn' ? `${at} turns ${name}` : `${at} ${reports.from(i)} > ${name}`;
  });
}

/** What each track shows, and how far it is. */
export function shownBy(performer: Player): Showing[] {
  return performer.controller.tracks.map(({ name }) => performer.showing(name));
}
