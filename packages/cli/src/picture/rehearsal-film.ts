import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type {
  GroundDefinition,
  LevelPiece,
  RehearsalDefinition,
  RehearsalResult,
  TraceEntry,
} from 'dot-hop/rehearsal';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { verdictOf } from '../rehearsal/verdict.js';
import { Canvas, mostPixels, svgBox, svgLine } from './canvas.js';
import { labels, margin } from './drawing.js';
import type { Drawing } from './drawing.js';
import { fitText, svgText, textWidth } from './letters.js';
import { reachOf } from './motion.js';
import type { Film } from './motion.js';
import { drawSignal, rowsOf, signalHeight } from './signal-rows.js';
import type { SignalRow } from './signal-rows.js';
import { markColour, theme } from './theme.js';
import { isFromAbove, wayOf } from './way.js';
import type { Way } from './way.js';

const width = 640;
const heading = 40;
const stageHeight = 232;
const ribbonHeight = 24;
/** A drawing is at most so high on the stage. */
const highest = 120;
/** The most times that a small character is enlarged. */
const largest = 3;
/** How many signals there is room for. */
const mostSignals = 8;

/** A picture each so many milliseconds, and fewer where these would be too many. */
const every = 40;
const mostPictures = 600;
/** How long the last picture stays, before it begins again. */
const pause = 900;
/** How long what was told and what was heard can be read, in milliseconds. */
const readable = 700;
/** How far the character may be from the middle of the stage before the view follows, in pixels of the stage. */
const lead = 90;
/** The view ends this part of the stage below the feet. */
const feet = 0.76;

/** A rehearsal that was run, with what its film shows. */
export interface Filmed {
  readonly name: string;
  readonly definition: RehearsalDefinition;
  readonly result: RehearsalResult;
  readonly controller: Controller;
  readonly images: ReadonlyMap<string, Image>;
}

/** How far apart the pictures of a film are, in milliseconds. */
export const pictureEvery = (lasts: number): number => Math.max(every, Math.ceil(lasts / mostPictures));

/**
 * A rehearsal as a moving picture: the character on its way over the ground, and below it the states and the signals that
 * change, with a line that runs through them.
 *
 * @throws {Misuse} when it would be too large
 */
export async function rehearsalFilm(filmed: Filmed): Promise<Film> {
  const { result, controller } = filmed;
  const signals = describeController(controller)
    .signals.flatMap((signal) => rowsOf(signal, result.trace))
    .filter((row) => changes(row, result.trace))
    .slice(0, mostSignals);
  const ribbonsTop = heading + stageHeight + 14;
  const signalsTop = ribbonsTop + controller.tracks.length * ribbonHeight + 10;
  const height = signalsTop + signals.length * signalHeight + 12;
  const apart = pictureEvery(result.lasts);
  const times = Array.from({ length: Math.floor(result.lasts / apart) + 1 }, (_, i) => i * apart);
  if (times[times.length - 1] !== result.lasts) times.push(result.lasts);
  if (width * height * times.length > mostPixels)
    throw new Misuse(
      `a moving picture of ${filmed.name} would be too large: ${times.length} times ${width}x${height} pixels; shorten "lasts", or draw it as .png`,
    );
  const left = margin + labels;
  const x = (ms: number): number => left + (ms / Math.max(1, result.lasts)) * (width - margin - left);
  const board = new Canvas(width, height);
  board.fill(0, 0, width, height, theme.ground);
  const drawing: Drawing = { canvas: board, result, controller, x };
  drawHeading(drawing, filmed.name);
  drawRibbons(drawing, ribbonsTop);
  signals.forEach((signal, i) => drawSignal(drawing, signal, signalsTop + i * signalHeight));
  const { pixels } = await board.image();
  const stage = stageOf(filmed);
  const frames: Uint8Array[] = [];
  for (const time of times) {
    const canvas = new Canvas(width, height);
    canvas.pixels.set(pixels);
    canvas.pixels.set((await stage(time).image()).pixels, heading * width * 4);
    const line = Math.round(x(time));
    canvas.fill(line - 1, ribbonsTop - 4, 2, height - ribbonsTop - 4, theme.lamp);
    frames.push(canvas.pixels);
  }
  const durations = times.map((time, i) => (times[i + 1] ?? time + pause) - time);
  return { width, height, frames, durations, loops: true };
}

/** Whether a row has anything to show: what stays as it is would only take room. */
const changes = ({ name, kind, values }: SignalRow, trace: readonly TraceEntry[]): boolean =>
  kind === 'pulse'
    ? trace.some((entry) => entry.kind === 'pulse' && entry.name === name)
    : values.some(({ value }) => value !== values[0]!.value);

function drawHeading({ canvas, result, controller }: Drawing, name: string): void {
  const { text, isMet } = verdictOf(result.outcomes);
  const style = { size: 12, colour: isMet ? theme.good : theme.bad, bold: true };
  const room = width - 2 * margin - textWidth(text, style) - 20;
  canvas.draw(
    svgText(fitText(name || controller.name, room, { size: 15, bold: true }), margin, 26, {
      ...{ size: 15, bold: true, colour: theme.text },
    }),
    svgText(text, width - margin, 26, { ...style, align: 'right' }),
  );
}

/** For each track one bar after the other, a state each; a red line where something was not as expected. */
function drawRibbons({ canvas, result, controller, x }: Drawing, top: number): void {
  for (const track of controller.tracks) {
    const y = top + track.index * ribbonHeight;
    const name = controller.tracks.length > 1 ? track.name : 'state';
    canvas.draw(svgText(fitText(name, labels - 34, {}), margin + 32, y + 14, { colour: theme.text }));
    const shown = result.samples
      .map(({ at, tracks }) => ({ at, state: tracks[track.index]!.state }))
      .filter(({ state }, i, all) => state !== all[i - 1]?.state);
    shown.forEach(({ at, state }, i) => {
      const end = shown[i + 1]?.at ?? result.lasts;
      const wide = Math.max(1.5, x(end) - x(at) - 1);
      const colour = markColour(controller.stateNamed.get(state)!.index);
      canvas.draw(svgBox(x(at), y + 1, wide, ribbonHeight - 6, colour, 'rx="2"'));
      const style = { size: 11, colour: theme.ground, bold: true };
      const label = fitText(state, wide - 7, style);
      if (label === state || label.length > 2) canvas.draw(svgText(label, x(at) + 4, y + 14, style));
    });
  }
  const bottom = top + controller.tracks.length * ribbonHeight;
  for (const { failedAt } of result.outcomes)
    if (failedAt !== undefined)
      canvas.draw(svgLine(x(failedAt), top - 4, x(failedAt), bottom, theme.bad, 'stroke-width="2"'));
}

/** Draws the stage at an instant. Instants are asked for in turn: the view follows the character. */
function stageOf({ definition, result, controller, images }: Filmed): (ms: number) => Canvas {
  const way = wayOf(result, controller);
  const reach = reachOf(result.samples.map(({ pose }) => pose));
  const scale = Math.max(1, Math.min(largest, Math.floor(highest / (reach.top + reach.bottom))));
  const fromAbove = isFromAbove(controller);
  const body = definition.body;
  const ground = body && 'platformer' in body ? body.platformer : {};
  const view = { ...way(0) };
  return (ms) => {
    const place = way(ms);
    view.x = followed(view.x, place.x, lead / scale);
    view.y = followed(view.y, place.y, (lead * 0.6) / scale);
    const part = new Canvas(width, stageHeight);
    part.fill(0, 0, width, stageHeight, theme.stage);
    const across = (world: number): number => Math.round(width / 2 + (world - view.x) * scale);
    const down = (world: number): number =>
      Math.round(stageHeight * (fromAbove ? 0.62 : feet) + (world - view.y) * scale);
    if (fromAbove) drawFloor(part, across, down, scale);
    else drawGround(part, across, down, scale, ground);
    drawSteps(part, way, ms, across, down, scale);
    const sample = result.samples.findLast(({ at }) => at <= ms) ?? result.samples[0]!;
    part.pose(images, sample.pose, across(place.x), down(place.y), scale);
    drawWords(part, result, controller, ms);
    return part;
  };
}

/** Where the view goes: it stays until what it follows is further off than it may be. */
const followed = (view: number, place: number, most: number): number =>
  Math.min(Math.max(view, place - most), place + most);

/** Pieces of ground with posts in them, so that one sees how fast it goes by; planks, and water in front of what is under it. */
function drawGround(
  canvas: Canvas,
  across: (x: number) => number,
  down: (y: number) => number,
  scale: number,
  { ground = [[-Infinity, Infinity, 0]], planks = [], water = [] }: GroundDefinition,
): void {
  const post = 32 * scale;
  const origin = ((across(0) % post) + post) % post;
  // What is wider than the picture is drawn as wide as that.
  const near = (x: number): number => Math.max(-width, Math.min(2 * width, across(x)));
  for (const [from, to, height, other = height] of ground) {
    const [left, right, top, end] = [near(from), near(to), down(-height), down(-other)];
    if (right <= 0 || left >= width) continue;
    const surface = `M${left} ${top} L${right} ${end}`;
    canvas.draw(
      `<path d="${surface} V${stageHeight} H${left} Z" fill="${theme.panel}"/>` +
        `<path d="${surface} v${scale} L${left} ${top + scale} Z" fill="${theme.lamp}"/>`,
    );
    if (top !== end) continue;
    for (let x = origin; x < Math.min(right, width); x += post)
      if (x >= left) canvas.fill(x, top + 3 * scale, scale, 4 * scale, theme.dim);
  }
  const box = ([from, to, height]: LevelPiece): readonly [number, number, number] => {
    const left = Math.max(0, near(from));
    return [left, Math.min(width, near(to)) - left, down(-height)];
  };
  for (const [left, wide, top] of planks.map(box))
    if (wide > 0) {
      canvas.fill(left, top, wide, 3 * scale, theme.panel);
      canvas.fill(left, top, wide, scale, theme.lamp);
    }
  for (const [left, wide, top] of water.map(box))
    if (wide > 0)
      canvas.draw(
        `<rect x="${left}" y="${top}" width="${wide}" height="${Math.max(0, stageHeight - top)}" fill="#4d7fa8" fill-opacity="0.35"/>` +
          `<rect x="${left}" y="${top}" width="${wide}" height="${scale}" fill="#a9d3ea"/>`,
      );
}

/** The floor of a character seen from above: dots at even distances. */
function drawFloor(
  canvas: Canvas,
  across: (x: number) => number,
  down: (y: number) => number,
  scale: number,
): void {
  const apart = 24 * scale;
  const first = (origin: number): number => ((origin % apart) + apart) % apart;
  for (let y = first(down(0)); y < stageHeight; y += apart)
    for (let x = first(across(0)); x < width; x += apart) canvas.fill(x, y, scale, scale, theme.dim);
}

/** Where it was in the last seconds, as dots at its feet. */
function drawSteps(
  canvas: Canvas,
  way: Way,
  ms: number,
  across: (x: number) => number,
  down: (y: number) => number,
  scale: number,
): void {
  const apart = 80;
  for (let at = Math.ceil(Math.max(0, ms - 2400) / apart) * apart; at < ms; at += apart) {
    const { x, y } = way(at);
    canvas.fill(across(x), down(y) - scale, scale, scale, theme.lamp);
  }
}

/** The state that shows, the time, and what was told and heard just now. */
function drawWords(canvas: Canvas, result: RehearsalResult, controller: Controller, ms: number): void {
  const sample = result.samples.findLast(({ at }) => at <= ms) ?? result.samples[0]!;
  const top = 22;
  const texts = sample.tracks.map(({ state }, i) => ({
    text: controller.tracks.length > 1 ? `${controller.tracks[i]!.name}: ${state}` : state,
    colour: markColour(controller.stateNamed.get(state)!.index),
  }));
  texts.forEach(({ text, colour }, i) =>
    canvas.draw(svgText(text, margin, top + i * 18, { size: 14, bold: true, colour })),
  );
  const recent = result.trace.filter(({ at }) => at <= ms && at > ms - readable);
  const told = recent.flatMap((entry) => toldText(entry) ?? []);
  const heard = new Set(recent.filter(({ kind }) => kind === 'cue').map(({ name }) => name));
  const right = { align: 'right', size: 12 } as const;
  canvas.draw(
    svgText(`${(ms / 1000).toFixed(2)} s`, width - margin, top, { ...right, colour: theme.text }),
    // What is pressed happens at once: it is told once.
    ...[...new Set(told)]
      .slice(-4)
      .map((text, i) => svgText(text, width - margin, top + 18 + i * 16, { ...right, colour: theme.good })),
    ...[...heard].map((cue, i) =>
      svgText(cue, margin, top + (texts.length + i) * 18, { size: 13, colour: theme.lamp }),
    ),
  );
}

/** What the game or a player did, in few words; what follows from it by itself is left out. */
function toldText(entry: TraceEntry): string | undefined {
  switch (entry.kind) {
    case 'press':
      return entry.name;
    case 'release':
    case 'ask':
    case 'cut':
    case 'route':
      return `${entry.kind === 'release' ? 'let go' : entry.kind} ${entry.name}`;
    case 'pulse':
      return entry.name;
    case 'pace':
      return `pace ${entry.value}`;
    case 'reset':
      return 'reset';
    case 'set':
      return entry.by === undefined && typeof entry.value !== 'object'
        ? `${entry.name} ${String(entry.value)}`
        : undefined;
    default:
      return undefined;
  }
}
