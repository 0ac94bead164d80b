import { poseOf } from 'dot-hop';
import type { Controller, Outfit, State } from 'dot-hop';
import type { Image } from '../../images.js';
import { gaitsOf, kindText, lengthText, takesText, variantsOf, whileText } from '../../state-words.js';
import { dressedAs } from '../../worn.js';
import type { Canvas } from '../canvas.js';
import { svgBox } from '../canvas.js';
import { fitText, svgText, textWidth } from '../letters.js';
import { reachOf } from '../motion.js';
import { markColour, theme } from '../theme.js';
import { framesWidth, margin, nameWidth, rankWidth, rung, wordsWidth } from './layout.js';
import type { Rung } from './layout.js';

/** What the frames of states are drawn with. */
interface Look {
  readonly images: ReadonlyMap<string, Image>;
  readonly outfit: Outfit | undefined;
}

export function drawRung(
  canvas: Canvas,
  controller: Controller,
  look: Look,
  { state, y, height }: Rung,
): void {
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
  const { clip } = state.flipbooks[0]![compass.start]!;
  const { mirrored } = state.flipbooks[0]![compass.start]!.poses[0]!;
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
  const during = whileText(controller, state);
  if (during !== '') lines.push(['while', during]);
  if (state.when >= 0) lines.push(['when', text(state.when)]);
  const yields = state.yields.map(
    ({ to }) => [...(to ?? [])].map((one) => controller.states[one]!.name).join(', ') || 'whoever wants in',
  );
  if (yields.length > 0) lines.push(['yields to', yields.join('; ')]);
  const length = lengthText(controller, state);
  if (length !== '') lines.push(['lasts', length]);
  const variants = variantsOf(state);
  if (variants.length > 0) lines.push(['also shown as', variants.join(', ')]);
  const takes = takesText(controller, state);
  if (takes !== '') lines.push(['takes', takes]);
  if (during === '' && state.when < 0 && yields.length === 0)
    lines.unshift(
      state.index === state.rest || state.isGroupRest
        ? ['when', 'nobody else wants in']
        : ['reached', 'by the ways at the right'],
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
