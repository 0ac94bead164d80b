import type { Controller, Pose, State, Track } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import { inkOf } from 'dot-hop/pixels';
import type { RehearsalResult } from 'dot-hop/rehearsal';
import type { Image } from '../images.js';
import { verdictOf } from '../rehearsal/verdict.js';
import { Canvas, svgBox, svgLine } from './canvas.js';
import { drawExpectations, drawFailures, expectationRows, failuresOf } from './expectations-picture.js';
import { labels, margin } from './drawing.js';
import type { Drawing } from './drawing.js';
import { fitText, svgText, textWidth } from './letters.js';
import { reachOf } from './motion.js';
import { drawSignal, rowsOf, signalHeight } from './signal-rows.js';
import { markColour, theme } from './theme.js';

const width = 1280;
const heading = 62;
const stepHeight = 21;
/** The room above the states of each of several tracks, for its name. */
const laneHeading = 22;
const thumb = { width: 88, widest: 200, height: 116, scale: 2 };

/**
 * What happened in a rehearsal: drawings along the time, the states as steps by rank with each switch, cues, signals,
 * and the expectations where they were met or not.
 */
export function tracePicture(
  name: string,
  result: RehearsalResult,
  controller: Controller,
  images: ReadonlyMap<string, Image>,
): Promise<Buffer> {
  const left = margin + labels;
  const x = (ms: number): number => left + (ms / Math.max(1, result.lasts)) * (width - margin - left);
  const signals = describeController(controller).signals.flatMap((signal) => rowsOf(signal, result.trace));
  const stepsTop = heading + thumb.height + 34;
  const lanes = lanesOf(controller);
  const cuesTop = stepsTop + lanes.height + 12;
  const signalsTop = cuesTop + 34;
  const expectationsTop = signalsTop + signals.length * signalHeight + 8;
  const rows = expectationRows(result, x);
  const failures = failuresOf(result, controller, width - margin * 2 - 60);
  const failuresTop = expectationsTop + rows.height + (failures.length > 0 ? 14 : 0);
  const canvas = new Canvas(
    width,
    failuresTop + failures.reduce((sum, { height }) => sum + height, 0) + margin,
  );
  canvas.fill(0, 0, width, canvas.height, theme.ground);
  const drawing: Drawing = { canvas, result, controller, x };
  drawHeading(drawing, name);
  drawTime(drawing, heading + thumb.height + 8, expectationsTop);
  drawThumbs(drawing, images);
  for (const lane of lanes.all) drawLane(drawing, lane, stepsTop);
  drawCues(drawing, cuesTop);
  signals.forEach((signal, i) => drawSignal(drawing, signal, signalsTop + i * signalHeight));
  drawExpectations(drawing, expectationsTop, rows, heading + thumb.height + 24);
  drawFailures(drawing, failures, failuresTop);
  return canvas.png();
}

function drawHeading({ canvas, result }: Drawing, name: string): void {
  const { text, isMet } = verdictOf(result.outcomes);
  canvas.draw(
    svgText(name, margin, 36, { size: 18, bold: true, colour: theme.text }),
    svgText(text, width - margin, 36, {
      colour: isMet ? theme.good : theme.bad,
      align: 'right',
      bold: true,
    }),
  );
}

function drawTime({ canvas, result, x }: Drawing, top: number, bottom: number): void {
  const every =
    [50, 100, 250, 500, 1000, 2000, 5000, 10_000, 30_000, 60_000].find((ms) => x(ms) - x(0) >= 56) ?? 300_000;
  for (let ms = 0; ms <= result.lasts; ms += every) {
    canvas.draw(svgLine(x(ms), top + 16, x(ms), bottom, theme.line, 'stroke-opacity="0.35"'));
    const label = ms === 0 ? '0 ms' : String(ms);
    canvas.draw(svgText(label, x(ms), top + 10, { size: 11, colour: theme.dim, align: 'middle' }));
  }
}

/** The drawings at even distances, each as it was in the middle of its place. */
function drawThumbs({ canvas, result, x }: Drawing, images: ReadonlyMap<string, Image>): void {
  const left = x(0);
  const ink = inkReach([...new Set(result.samples.map(({ pose }) => pose))], images);
  const [wide, high] = [ink.left + ink.right, ink.top + ink.bottom];
  const fitting = Math.min((thumb.widest - 14) / wide, (thumb.height - 12) / high);
  // Small characters are drawn a whole number of times as large, large ones as small as they must be.
  const scale = fitting >= 1 ? Math.min(thumb.scale, Math.floor(fitting)) : fitting;
  const width = Math.max(thumb.width, Math.ceil(wide * scale) + 14);
  const count = Math.floor((x(result.lasts) - left) / width);
  const shown = Array.from({ length: count }, (_, i) => {
    const middle = left + (i + 0.5) * width;
    const ms = (result.lasts * (middle - left)) / (x(result.lasts) - left);
    return { middle, sample: result.samples.findLast(({ at }) => at <= ms) ?? result.samples[0]! };
  });
  for (const { middle, sample } of shown) {
    const part = new Canvas(width - 6, thumb.height);
    part.check(0, 0, part.width, part.height, 8, theme.checkDark, theme.checkLight);
    const ground = thumb.height - 6 - Math.round(ink.bottom * scale);
    const centre = Math.round(part.width / 2 + ((ink.left - ink.right) / 2) * scale);
    part.pose(images, sample.pose, centre, ground, scale);
    copy(part, canvas, Math.round(middle - part.width / 2), heading - 6);
    canvas.draw(
      svgLine(
        middle,
        heading + thumb.height - 6,
        middle,
        heading + thumb.height + 2,
        theme.lamp,
        'stroke-opacity="0.6"',
      ),
    );
  }
}

/** How far what is drawn of some poses reaches from their pivots, in pixels; at least one each way. */
function inkReach(
  poses: readonly Pose[],
  images: ReadonlyMap<string, Image>,
): { left: number; right: number; top: number; bottom: number } {
  const whole = reachOf(poses);
  const [width, height] = [whole.left + whole.right, whole.top + whole.bottom].map(Math.ceil) as [
    number,
    number,
  ];
  const inks = poses.flatMap((pose) => {
    const canvas = new Canvas(width, height);
    canvas.pose(images, pose, Math.ceil(whole.left), Math.ceil(whole.top), 1);
    return inkOf(canvas, { x: 0, y: 0, width, height }) ?? [];
  });
  const most = (values: readonly number[]): number => Math.max(1, ...values);
  return {
    left: most(inks.map((ink) => Math.ceil(whole.left) - ink.x)),
    right: most(inks.map((ink) => ink.x + ink.width - Math.ceil(whole.left))),
    top: most(inks.map((ink) => Math.ceil(whole.top) - ink.y)),
    bottom: most(inks.map((ink) => ink.y + ink.height - Math.ceil(whole.top))),
  };
}

function copy(from: Canvas, to: Canvas, x: number, y: number): void {
  for (let row = 0; row < from.height; row++) {
    const line = from.pixels.subarray(row * from.width * 4, (row + 1) * from.width * 4);
    to.pixels.set(line, ((y + row) * to.width + x) * 4);
  }
}

/** Where the states of a track stand. */
interface Lane {
  readonly track: Track;
  /** From the first of them. */
  readonly y: number;
  /** The states from the highest rank down, and below them one row for those by which another track has taken this one. */
  readonly rows: readonly (State | 'taken')[];
}

function lanesOf({ tracks, states }: Controller): { all: readonly Lane[]; height: number } {
  let y = 0;
  const all = tracks.map((track): Lane => {
    if (tracks.length > 1) y += laneHeading;
    const own = track.order.map((index) => states[index]!);
    const rows: (State | 'taken')[] = own.filter(({ takenBy }) => takenBy < 0);
    if (rows.length < own.length) rows.push('taken');
    y += rows.length * stepHeight;
    return { track, y: y - rows.length * stepHeight, rows };
  });
  return { all, height: y };
}

/** The states of a track from the highest rank down; the one that shows as a bar, each switch as a line to the next. */
function drawLane(
  { canvas, result, controller, x }: Drawing,
  { track, y: offset, rows }: Lane,
  from: number,
): void {
  const top = from + offset;
  const row = (name: string): number => {
    const own = rows.findIndex((one) => one !== 'taken' && one.name === name);
    return own < 0 ? rows.length - 1 : own;
  };
  if (controller.tracks.length > 1)
    canvas.draw(svgText(track.name, margin + 6, top - 6, { size: 12, bold: true, colour: theme.lamp }));
  rows.forEach((state, i) => {
    const y = top + i * stepHeight;
    if (i % 2 === 0)
      canvas.draw(svgBox(margin, y, width - margin * 2, stepHeight, theme.panel, 'fill-opacity="0.55"'));
    if (state === 'taken') {
      canvas.draw(svgText('taken', margin + 32, y + 15, { colour: theme.dim }));
      return;
    }
    const rank = { size: 11, colour: theme.dim, align: 'right' } as const;
    const text = state.isGroupRest ? 'rest' : String(state.priority);
    canvas.draw(svgText(text, margin + 24, y + 15, rank));
    canvas.draw(
      svgText(fitText(state.name, labels - 34, { size: 13 }), margin + 32, y + 15, { colour: theme.text }),
    );
  });
  const switches = result.trace.filter((entry) => entry.kind === 'switch' && entry.track === track.name);
  const begins = [{ name: result.samples[0]!.tracks[track.index]!.state, at: 0 }, ...switches];
  begins.forEach(({ name, at }, i) => {
    const end = begins[i + 1]?.at ?? result.lasts;
    const y = top + row(name) * stepHeight + 4;
    const colour = markColour(controller.stateNamed.get(name)!.index);
    const wide = Math.max(1.5, x(end) - x(at));
    canvas.draw(svgBox(x(at), y, wide, stepHeight - 8, colour, 'rx="2"'));
    const style = { size: 11, colour: theme.ground, bold: true };
    const label = (text: string, from: number, to: number): void => {
      if (textWidth(text, style) + 6 < x(to) - x(from))
        canvas.draw(svgText(text, x(from) + 4, y + 10, style));
    };
    const state = rows[row(name)];
    const clips = clipsWithin(result, track.index, at, end);
    if (state === 'taken') label(name, at, end);
    else if (clips.length === 1 || state?.inStep !== -1) label(`${Math.round(end - at)}`, at, end);
    else
      clips.forEach((clip, j) => {
        const from = x(clip.at);
        if (j > 0)
          canvas.draw(svgLine(from, y, from, y + stepHeight - 8, theme.ground, 'stroke-width="1.5"'));
        label(clip.name, clip.at, clips[j + 1]?.at ?? end);
      });
    const next = begins[i + 1];
    if (next === undefined) return;
    const to = top + row(next.name) * stepHeight + stepHeight / 2;
    canvas.draw(
      svgLine(
        x(end),
        y + stepHeight / 2 - 4,
        x(end),
        to,
        theme.text,
        'stroke-opacity="0.7" stroke-width="1.2"',
      ),
    );
  });
}

/** The clips that a state showed in turn: its gaits, or a bridge and its own. */
function clipsWithin(
  { samples }: RehearsalResult,
  track: number,
  from: number,
  to: number,
): { name: string; at: number }[] {
  const first = samples.findLastIndex(({ at }) => at <= from);
  const shown = samples
    .slice(Math.max(0, first))
    .filter(({ at }, i) => i === 0 || at < to)
    .map(({ at, tracks }) => ({ at, clip: tracks[track]!.clip }));
  return shown
    .filter(({ clip }, i) => clip !== shown[i - 1]?.clip)
    .map(({ clip, at }) => ({ name: clip, at: Math.max(at, from) }));
}

function drawCues({ canvas, result, x }: Drawing, top: number): void {
  canvas.draw(svgText('cues', margin + 32, top + 15, { colour: theme.lamp }));
  const cues = result.trace.filter((entry) => entry.kind === 'cue');
  cues.forEach(({ at, name }, i) => {
    canvas.draw(`<path d="M${x(at)} ${top + 4} l4 6 l-4 6 l-4 -6 z" fill="${theme.lamp}"/>`);
    // A name that would run into the next mark is left out.
    const room = x(cues[i + 1]?.at ?? result.lasts) - x(at) - 12;
    if (textWidth(name, { size: 11 }) < room)
      canvas.draw(svgText(name, x(at) + 7, top + 14, { size: 11, colour: theme.lamp }));
  });
}
