import { Row, Strand } from '../controller/layout.js';
import { segmentNow, valueNamed } from '../engine/inspect.js';
import { Mark, catchUp, situationOf, strandAt, timelineOf } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { rememberedBy, usedBy } from './row-snapshot.js';
import { explain } from './why.js';
import type { Why } from './why.js';

/** Why a track shows what it shows. */
export function whyOf(rows: Rows, at: number, track: number): Why {
  const { doubles, ints, controller } = rows;
  catchUp(rows, at);
  const strand = strandAt(rows, at, track);
  const marks = ints[2 * strand + Strand.marks]!;
  const last = ints[2 * strand + Strand.last]!;
  return explain(controller, {
    situation: situationOf(rows, at),
    timeline: timelineOf(rows, strand),
    segment: segmentNow(rows, at, strand),
    ended: (marks & Mark.ended) !== 0,
    queued: (marks & Mark.queued) !== 0,
    remembered: rememberedBy(rows, strand),
    at: doubles[at + Row.now]!,
    entered: doubles[strand + Strand.entered]!,
    from: (last >> 4) - 1,
    rule: last & 15,
    used: usedBy(rows, strand),
    goal: ints[2 * strand + Strand.goal]!,
    value: (name) => valueNamed(rows, at, name),
  });
}
