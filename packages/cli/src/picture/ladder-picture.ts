import { poseOf } from 'dot-hop';
import type { Controller, Outfit, State, Track } from 'dot-hop';
import type { Severity } from 'dot-hop/check';
import { dyedImages } from '../dyed.js';
import type { Image } from '../images.js';
import { dressedAs } from '../worn.js';
import { gaitsOf, kindText, takesText } from '../state-words.js';
import { Canvas, svgBox, svgLine } from './canvas.js';
import { fitText, svgText, textWidth } from './letters.js';
import { reachOf } from './motion.js';
import { markColour, theme } from './theme.js';

const margin = 28;
const heading = 74;
const rung = 66;
const rankWidth = 70;
const nameWidth = 190;
const framesWidth = 190;
const wordsWidth = 460;
/** Room for the ways from state to state, at the right. */
const waysWidth = 260;
/** The line that begins each of several tracks, and that of a state which has taken a track. */
const trackHeight = 44;
const takenHeight = 26;

/** A state where it stands. */
interface Rung {
  readonly state: State;
  readonly y: number;
  readonly height: number;
}

/** A track where it stands, with its states from the highest rank down. */
interface Section {
  readonly track: Track;
  readonly y: number;
  readonly rungs: readonly Rung[];
}

/** Where everything stands. */
interface Layout {
  readonly sections: readonly Section[];
  readonly rungs: readonly Rung[];
  readonly bottom: number;
}

function layOut({ tracks, states }: Controller): Layout {
  let y = heading;
  const sections = tracks.map((track): Section => {
    const top = y;
    if (tracks.length > 1) y += trackHeight;
    const rungs = track.order.map((index): Rung => {
      const state = states[index]!;
      const height = state.takenBy < 0 ? rung : takenHeight;
      y += height;
      return { state, y: y - height, height };
    });
    return { track, y: top, rungs };
  });
  return { sections, rungs: sections.flatMap(({ rungs }) => rungs), bottom: y };
}

/** What the frames of states are drawn with. */
interface Look {
  readonly images: ReadonlyMap<string, Image>;
  readonly outfit: Outfit | undefined;
}

/** A way from one state to another, as an arc. */
interface Way {
  readonly from: number;
  readonly to: number;
  readonly kind: 'hop' | 'then';
  readonly label: string;
}

/** What a check found, to be drawn beside the states that it is about. */
export interface Remark {
  /** The state it is about; `undefined` for what concerns no single one. */
  readonly state: string | undefined;
  readonly severity: Severity;
  /** In bold, such as its code and place. */
  readonly head: string;
  readonly text: string;
}

/**
 * The states from the highest rank down, with their frames, conditions, and the ways between them.
 *
 * @param outfit what they wear in their frames
 * @param remarks numbered, at the states and listed below; a verdict stands in the heading then
 */
export function ladderPicture(
  controller: Controller,
  images: ReadonlyMap<string, Image>,
  outfit: Outfit | undefined,
  remarks?: { readonly list: readonly Remark[]; readonly verdict: string },
): Promise<Buffer> {
  const look = { images: dyedImages(images, outfit === undefined ? [] : [outfit]), outfit };
  const layout = layOut(controller);
  const ladderEnd = layout.bottom + margin;
  const width = margin * 2 + rankWidth + nameWidth + framesWidth + wordsWidth + waysWidth;
  const told = remarks && layOutRemarks(remarks.list, width - margin * 2 - 60);
  const below = told?.reduce((sum, { height }) => sum + height, 0) ?? 0;
  const canvas = new Canvas(width, ladderEnd + below + 26);
  canvas.fill(0, 0, canvas.width, canvas.height, theme.ground);
  canvas.draw(
    svgText(`${controller.name}: ${controller.stateNamed.size} states by rank`, margin, 40, {
      size: 18,
      bold: true,
      colour: theme.text,
    }),
    svgText(
      remarks?.verdict ?? 'a higher rung cuts off every lower one; on equal rungs nobody cuts another off',
      canvas.width - margin,
      40,
      remarks === undefined
        ? { colour: theme.dim, align: 'right', size: 12 }
        : { colour: verdictColour(remarks.list), align: 'right', size: 14, bold: true },
    ),
  );
  for (const section of layout.sections) {
    if (controller.tracks.length > 1) drawTrack(canvas, controller, section);
    drawRails(canvas, section);
    for (const one of section.rungs) drawRung(canvas, controller, look, one);
  }
  drawWays(canvas, controller, layout.rungs);
  if (told !== undefined) drawRemarks(canvas, told, layout.rungs, ladderEnd);
  return canvas.png();
}

const severityColours: Record<Severity, string> = { error: theme.bad, warning: theme.lamp, note: '#8fb8e8' };

function verdictColour(remarks: readonly Remark[]): string {
  const worst = (['error', 'warning', 'note'] as const).find((one) =>
    remarks.some(({ severity }) => severity === one),
  );
  return worst === undefined ? theme.good : severityColours[worst];
}

interface ToldRemark extends Remark {
  readonly lines: readonly string[];
  readonly height: number;
}

const remarkLine = 18;

/** Breaks the words of remarks into lines. @param room how wide a line may be, in pixels */
function layOutRemarks(remarks: readonly Remark[], room: number): ToldRemark[] {
  return remarks.map((remark) => {
    const lines = [''];
    for (const word of remark.text.split(' ')) {
      const longer = `${lines[lines.length - 1]!} ${word}`.trim();
      if (textWidth(longer, { size: 13 }) <= room) lines[lines.length - 1] = longer;
      else lines.push(word);
    }
    return { ...remark, lines, height: (lines.length + 1) * remarkLine + 24 };
  });
}

/** A numbered mark at each state that something was found of, and all of it in words below. */
function drawRemarks(
  canvas: Canvas,
  remarks: readonly ToldRemark[],
  rungs: readonly Rung[],
  top: number,
): void {
  const badge = (x: number, y: number, number: number, severity: Severity): void =>
    canvas.draw(
      `<circle cx="${x}" cy="${y}" r="11" fill="${severityColours[severity]}" stroke="${theme.ground}" stroke-width="2"/>`,
      svgText(String(number), x, y + 4.5, { size: 12, bold: true, colour: theme.ground, align: 'middle' }),
    );
  let y = top;
  remarks.forEach(({ state, severity, head, lines, height }, i) => {
    const at = rungs.find((one) => one.state.name === state && one.state.takenBy < 0);
    // Several of one state stand side by side, from the right.
    const before = remarks.slice(0, i).filter((one) => one.state === state).length;
    const right = margin + rankWidth + nameWidth - 14 - before * 25;
    if (at !== undefined) badge(right, at.y + 18, i + 1, severity);
    canvas.draw(
      svgBox(margin, y, canvas.width - margin * 2, height - 10, theme.panel, 'rx="4"'),
      svgBox(margin, y, 4, height - 10, severityColours[severity], 'rx="2"'),
      svgText(head, margin + 46, y + 22, { size: 13, bold: true, colour: theme.text }),
      ...lines.map((line, j) =>
        svgText(line, margin + 46, y + 22 + (j + 1) * remarkLine, { size: 13, colour: theme.dim }),
      ),
    );
    badge(margin + 24, y + 18, i + 1, severity);
    y += height;
  });
}

/** The heading of one of several tracks: what it draws. */
function drawTrack(canvas: Canvas, { tracks }: Controller, { track, y }: Section): void {
  const others = tracks.flatMap(({ draws }) => draws);
  const draws =
    track.index > 0
      ? `draws ${track.draws.join(', ') || 'nothing: it is for its cues and tags'}`
      : others.length > 0
        ? 'draws what no other track draws'
        : 'draws everything';
  canvas.draw(
    svgBox(margin, y + 2, canvas.width - margin * 2, trackHeight - 14, theme.panel, 'rx="4"'),
    svgText(track.name, margin + 14, y + 22, { size: 15, bold: true, colour: theme.lamp }),
    svgText(draws, margin + rankWidth + nameWidth, y + 22, { size: 12, colour: theme.dim }),
  );
}

/** The two rails of the ladder, and a step wherever the rank changes. */
function drawRails(canvas: Canvas, { rungs }: Section): void {
  const { y: top } = rungs[0]!;
  const last = rungs[rungs.length - 1]!;
  for (const x of [margin + 4, margin + rankWidth - 14])
    canvas.draw(
      svgLine(x, top - 6, x, last.y + last.height, theme.line, 'stroke-width="4" stroke-linecap="round"'),
    );
  rungs.forEach(({ state: { priority }, y }, place) => {
    if (rungs[place - 1]?.state.priority === priority) return;
    const same = rungs.filter(({ state }) => state.priority === priority);
    const middle = y + same.reduce((sum, { height }) => sum + height, 0) / 2;
    canvas.draw(
      svgLine(
        margin + 4,
        middle,
        margin + rankWidth - 14,
        middle,
        theme.lamp,
        'stroke-width="4" stroke-linecap="round"',
      ),
      svgText(String(priority), margin + (rankWidth - 10) / 2, middle - 9, {
        colour: theme.text,
        bold: true,
        align: 'middle',
      }),
    );
    if (place > 0)
      canvas.draw(
        svgLine(margin + rankWidth, y - 4, canvas.width - margin, y - 4, theme.line, 'stroke-width="1"'),
      );
  });
}

function drawRung(canvas: Canvas, controller: Controller, look: Look, { state, y, height }: Rung): void {
  const left = margin + rankWidth;
  const colour = markColour(state.takenBy < 0 ? state.index : state.takenBy);
  canvas.draw(svgBox(left, y, 6, height - 10, colour, 'rx="3"'));
  if (state.takenBy >= 0) {
    const says = `${kindText(controller, state)}: while ${controller.conditionTexts[state.while]!}`;
    canvas.draw(
      svgText(state.name, left + 18, y + 12, { size: 13, bold: true, colour: theme.dim }),
      svgText(says, left + nameWidth, y + 12, { size: 12, colour: theme.dim }),
    );
    return;
  }
  canvas.draw(
    svgText(fitText(state.name, nameWidth - 30, { size: 16, bold: true }), left + 18, y + 23, {
      size: 16,
      bold: true,
      colour: theme.text,
    }),
    svgText(kindOf(controller, state), left + 18, y + 43, { size: 12, colour: theme.dim }),
  );
  drawFrames(canvas, controller, look, state, left + nameWidth, y);
  drawWords(canvas, controller, state, left + nameWidth + framesWidth, y);
}

function kindOf(controller: Controller, state: State): string {
  const { kind, index, rest, final, inStep } = state;
  const isBare = kind === 'bare' && index !== rest && inStep < 0;
  const words = isBare ? 'by a way only' : kindText(controller, state);
  const shows = gaitsOf(state).join(', ');
  return [words, ...(final ? ['final'] : []), ...(shows === '' ? [] : [shows])].join(' · ');
}

/** A few frames of what it shows, as small as they must be. */
function drawFrames(
  canvas: Canvas,
  controller: Controller,
  { images, outfit }: Look,
  state: State,
  x: number,
  y: number,
): void {
  const { compass } = controller;
  // Its part of what another track shows is drawn there.
  if (state.inStep >= 0 && !state.drawsOwn) return;
  const { clip } = state.books[0]![compass.start]!;
  const { mirrored } = state.books[0]![compass.start]!.poses[0]!;
  const step = Math.max(1, clip.frames.length / 3);
  const picked = [0, 1, 2]
    .map((i) => Math.floor(i * step))
    .filter((frame, i, all) => frame < clip.frames.length && all.indexOf(frame) === i);
  const poses = picked.map((frame) => {
    const pose = poseOf(clip.frames[frame]!, mirrored);
    const shown = { states: [state.name], facing: compass.start, clip, frame };
    return outfit === undefined ? pose : dressedAs(controller, outfit, pose, shown);
  });
  const reach = reachOf(poses);
  const scale = Math.min(1, (rung - 10) / (reach.top + reach.bottom), 58 / (reach.left + reach.right));
  poses.forEach((pose, i) => {
    const left = x + i * 60;
    canvas.fill(left, y, 56, rung - 10, theme.stage);
    canvas.pose(
      images,
      pose,
      Math.round(left + 28 + ((reach.left - reach.right) / 2) * scale),
      Math.round(y + rung - 12 - reach.bottom * scale),
      scale,
    );
  });
}

/** Its conditions in the order in which they are asked, and what else decides when it gives way. */
function drawWords(canvas: Canvas, controller: Controller, state: State, x: number, y: number): void {
  const text = (index: number): string => controller.conditionTexts[index]!;
  const lines: [string, string][] = [];
  if (state.while >= 0) lines.push(['while', text(state.while)]);
  if (state.when >= 0) lines.push(['when', text(state.when)]);
  const yields = state.yields.map(
    ({ to }) => [...(to ?? [])].map((one) => controller.states[one]!.name).join(', ') || 'whoever wants in',
  );
  if (yields.length > 0) lines.push(['yields to', yields.join('; ')]);
  const takes = takesText(controller, state);
  if (takes !== '') lines.push(['takes', takes]);
  if (state.while < 0 && state.when < 0 && yields.length === 0)
    lines.unshift(
      state.index === state.rest ? ['when', 'nobody else wants in'] : ['reached', 'by the ways at the right'],
    );
  lines.slice(0, 3).forEach(([what, condition], i) => {
    const line = y + 17 + i * 18;
    const at = x + textWidth(`${what} `, { size: 12 });
    canvas.draw(
      svgText(what, x, line, { size: 12, colour: theme.dim }),
      svgText(fitText(condition, wordsWidth - 90, { size: 13 }), at + 4, line, {
        size: 13,
        colour: theme.text,
      }),
    );
  });
}

/** Hops and follow-ups as arcs at the right, the shorter ones inside. */
function drawWays(canvas: Canvas, controller: Controller, rungs: readonly Rung[]): void {
  const place = (index: number): number => rungs.findIndex(({ state }) => state.index === index);
  const ways = rungs.flatMap(({ state }): Way[] => [
    ...state.hops.map((hop): Way => ({
      from: place(state.index),
      to: place(hop.to),
      kind: 'hop',
      label: hop.if < 0 ? '' : controller.conditionTexts[hop.if]!,
    })),
    ...(state.then < 0
      ? []
      : [{ from: place(state.index), to: place(state.then), kind: 'then' as const, label: '' }]),
  ]);
  ways.sort((one, other) => Math.abs(one.to - one.from) - Math.abs(other.to - other.from));
  const left = canvas.width - margin - waysWidth;
  ways.forEach(({ from, to, kind, label }, i) => {
    const [a, b] = [from, to].map((one) => rungs[one]!.y + (rung - 10) / 2);
    const shift = from === to ? 12 : 0;
    const reach = left + 60 + ((i + 1) / (ways.length + 1)) * (waysWidth - 90);
    const colour = markColour(rungs[from]!.state.index);
    const [y1, y2] = [a! + (from < to ? 7 : -7) - shift, b! + (from < to ? -7 : 7) + shift];
    const dashes = kind === 'then' ? 'stroke-dasharray="7 5"' : '';
    canvas.draw(
      `<path d="M ${left} ${y1} C ${reach} ${y1}, ${reach} ${y2}, ${left + 8} ${y2}" fill="none" stroke="${colour}" stroke-width="2.2" ${dashes}/>`,
      `<circle cx="${left}" cy="${y1}" r="3.5" fill="${colour}"/>`,
      `<path d="M ${left} ${y2} l 10 -5 l 0 10 Z" fill="${colour}"/>`,
    );
    const middle = { x: left + (reach - left) * 0.75 + 6, y: (y1 + y2) / 2 + 4 };
    const words = fitText(label, canvas.width - margin - middle.x, { size: 11 });
    canvas.draw(svgText(words, middle.x, middle.y, { size: 11, colour: theme.text }));
  });
  if (ways.length > 0)
    canvas.draw(
      svgText('a line: a hop; dashed: what follows an end', canvas.width - margin, heading - 12, {
        size: 11,
        colour: theme.dim,
        align: 'right',
      }),
    );
}
