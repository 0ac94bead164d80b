import type { Controller } from 'dot-hop';
import { rankText } from 'dot-hop/explain';
import type { Canvas } from '../canvas.js';
import { svgBox, svgLine } from '../canvas.js';
import { svgText } from '../letters.js';
import { theme } from '../theme.js';
import { margin, nameWidth, rankWidth, trackHeight, waysWidth } from './layout.js';
import type { Frame, Section } from './layout.js';

/** The heading of one of several tracks: what it draws. */
export function drawTrack(canvas: Canvas, { tracks }: Controller, { track, y }: Section): void {
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

/** What is around the rungs of a group: its rank, and while what it stands. */
export function drawFrame(canvas: Canvas, { group, depth, y, height }: Frame): void {
  const left = margin + rankWidth - 10 + depth * 7;
  const { name, definition } = group;
  const { while: during, priority = 0 } = definition;
  canvas.fill(
    left,
    y - 2,
    canvas.width - margin - waysWidth - left - 14,
    height,
    depth % 2 === 0 ? theme.panel : theme.ground,
  );
  canvas.draw(
    svgBox(left, y - 2, 3, height, theme.lamp, 'rx="1.5"'),
    svgText(name, margin + rankWidth + 18, y + 18, { size: 14, bold: true, colour: theme.lamp }),
    svgText('while', margin + rankWidth + nameWidth, y + 18, { size: 12, colour: theme.dim }),
    svgText(during, margin + rankWidth + nameWidth + 44, y + 18, { size: 13, colour: theme.text }),
  );
  if (depth === 0) drawStep(canvas, y + 14, String(priority));
  else drawRank(canvas, y + 18, String(priority), theme.lamp);
}

/** A rank that counts within a group. */
function drawRank(canvas: Canvas, y: number, rank: string, colour: string): void {
  canvas.draw(svgText(rank, margin + (rankWidth - 10) / 2, y, { size: 12, colour, align: 'middle' }));
}

/** A step of the ladder, with its rank above it. */
function drawStep(canvas: Canvas, middle: number, rank: string): void {
  canvas.draw(
    svgLine(
      margin + 4,
      middle,
      margin + rankWidth - 14,
      middle,
      theme.lamp,
      'stroke-width="4" stroke-linecap="round"',
    ),
    svgText(rank, margin + (rankWidth - 10) / 2, middle - 9, {
      colour: theme.text,
      bold: true,
      align: 'middle',
    }),
  );
}

/** The two rails of the ladder, and a step wherever the rank changes. */
export function drawRails(canvas: Canvas, controller: Controller, { rungs }: Section): void {
  const { y: top } = rungs[0]!;
  const last = rungs[rungs.length - 1]!;
  for (const x of [margin + 4, margin + rankWidth - 14])
    canvas.draw(
      svgLine(x, top - 6, x, last.y + last.height, theme.line, 'stroke-width="4" stroke-linecap="round"'),
    );
  const steps = rungs.map(({ state }) =>
    state.groups.length > 0
      ? [...state.groups.map(({ name }) => name)].join('.') + rankText(state)
      : String(state.rank),
  );
  rungs.forEach(({ state, y }, place) => {
    if (steps[place - 1] === steps[place]) return;
    const same = rungs.filter((_, i) => steps[i] === steps[place]);
    const middle = y + same.reduce((sum, { height }) => sum + height, 0) / 2;
    const { groups, isGroupRest, priority, takenBy } = state;
    if (groups.length > 0) drawRank(canvas, middle, isGroupRest ? 'rest' : String(priority), theme.text);
    else if (takenBy < 0 || controller.states[takenBy]!.groups.length === 0)
      drawStep(canvas, middle, String(priority));
    if (groups.length === 0 && place > 0 && rungs[place - 1]!.state.groups.length === 0)
      canvas.draw(
        svgLine(margin + rankWidth, y - 4, canvas.width - margin, y - 4, theme.line, 'stroke-width="1"'),
      );
  });
}
