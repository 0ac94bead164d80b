import type { Controller, Outfit } from 'dot-hop';
import { dyedImages } from '../dyed.js';
import type { Image } from '../images.js';
import { Canvas } from './canvas.js';
import { framesWidth, layOut, margin, nameWidth, rankWidth, waysWidth, wordsWidth } from './ladder/layout.js';
import { drawFrame, drawRails, drawTrack } from './ladder/rails.js';
import { drawRemarks, layOutRemarks, verdictColour } from './ladder/remarks.js';
import type { Remark } from './ladder/remarks.js';
import { drawRung } from './ladder/rungs.js';
import { drawWays } from './ladder/ways.js';
import { svgText } from './letters.js';
import { theme } from './theme.js';

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
    for (const frame of section.frames) drawFrame(canvas, frame);
    drawRails(canvas, controller, section);
    for (const one of section.rungs) drawRung(canvas, controller, look, one);
  }
  drawWays(canvas, controller, layout);
  if (told !== undefined) drawRemarks(canvas, told, layout.rungs, ladderEnd);
  return canvas.png();
}
