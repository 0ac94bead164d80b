import { box, paintOnce } from '../../../common/brush.js';
import { chanceAt } from '../../../common/chance.js';
import type { Context } from '../../../common/brush.js';
import { deckTop, grounds, lampPosts, planks, view, waterTop, worldTop, worldWidth } from './world.js';
import type { Ground } from './world.js';

function paintPost(context: Context, x: number, top: number, bottom: number): void {
  box(context, '#2a1c30', x - 4, top, 8, bottom - top);
  box(context, '#5c3a3a', x - 3, top, 6, bottom - top);
  box(context, '#8f5f4a', x + 1, top, 2, bottom - top);
  box(context, '#c98a5a', x - 3, top, 6, 1);
  for (let y = top + 9; y < bottom; y += 13) box(context, '#3e2834', x - 3, y, 5, 1);
}

function paintDeck(context: Context, left: number, right: number): void {
  for (let x = left + 18; x < right; x += 52) paintPost(context, x, deckTop + 6, view.height);
  box(context, '#2a1c30', left, deckTop - 1, right - left, 12);
  box(context, '#8a5a48', left, deckTop, right - left, 6);
  box(context, '#d99a66', left, deckTop, right - left, 1);
  box(context, '#5c3a3a', left, deckTop + 6, right - left, 4);
  for (let x = left + 5, i = 0; x < right; x += 13, i++) {
    box(context, '#4a2f34', x, deckTop, 1, 6);
    if (chanceAt(i + left) > 0.6) box(context, '#74483e', x + 3, deckTop + 2, 6, 1);
    box(context, '#2a1c30', x - 3, deckTop + 8, 1, 1);
  }
}

function paintCrate(context: Context, x: number, y: number, wide: number, high: number): void {
  box(context, '#2a1c30', x - 1, y - 1, wide + 2, high + 1);
  box(context, '#7a4e3e', x, y, wide, high);
  box(context, '#c98a5a', x, y, wide, 2);
  box(context, '#a06a4a', x, y + 2, 2, high - 2);
  box(context, '#5c3a3a', x + wide - 2, y + 2, 2, high - 2);
  for (let i = 0; i < wide - 6; i++)
    box(context, '#5c3a3a', x + 3 + i, y + 4 + (i / (wide - 6)) * (high - 8), 2, 2);
}

function paintBoathouse(context: Context, left: number, right: number, top: number): void {
  box(context, '#2a1c30', left + 7, top + 6, right - left - 14, deckTop - top - 6);
  box(context, '#503450', left + 8, top + 6, right - left - 16, deckTop - top - 6);
  for (let y = top + 14; y < deckTop; y += 7) box(context, '#432b48', left + 8, y, right - left - 16, 1);
  box(context, '#2a1c30', left - 1, top - 1, right - left + 2, 9);
  for (let x = left; x < right; x += 6) {
    box(context, '#a0506a', x, top, 6, 7);
    box(context, '#d07a78', x, top, 5, 2);
    box(context, '#6e3a5a', x + 5, top, 1, 7);
  }
  const door = (left + right) / 2;
  box(context, '#2a1c30', door - 10, deckTop - 27, 20, 27);
  box(context, '#6b4438', door - 9, deckTop - 26, 18, 26);
  box(context, '#3e2834', door - 0.5, deckTop - 26, 1, 26);
  for (const x of [left + 16, right - 26]) {
    box(context, '#2a1c30', x - 1, top + 17, 12, 12);
    box(context, '#ffc95c', x, top + 18, 10, 10);
    box(context, '#fff0bc', x + 5, top + 18, 5, 4);
    box(context, '#2a1c30', x + 4, top + 18, 1, 10);
    box(context, '#2a1c30', x, top + 23, 10, 1);
  }
}

/** Masonry from a line downwards: courses of stones, a lit edge, steps of a pixel where it slopes. */
function paintStone(context: Context, { left, right, top, topRight = top }: Ground): void {
  for (let x = left; x < right; x++) {
    const y = Math.round(top + ((topRight - top) * (x - left)) / (right - left));
    box(context, '#2a1c30', x, y - 1, 1, 1);
    box(context, '#c9a08e', x, y, 1, 1);
    box(context, '#94707c', x, y + 1, 1, 2);
    box(context, '#6a4f6c', x, y + 3, 1, view.height - y);
    for (let row = Math.ceil((y + 8) / 10) * 10, course = row / 10; row < view.height; row += 10, course++) {
      box(context, '#4e3a58', x, row, 1, 1);
      const at = x + (course % 2) * 9;
      if (at % 18 === 0) box(context, '#4e3a58', x, row - 9, 1, 9);
      else if (at % 18 < 12 && chanceAt(course * 31 + Math.floor(at / 18)) > 0.62)
        box(context, '#7d5f78', x, row - 7, 1, 3);
    }
    // Wet, and under water.
    context.globalAlpha = 0.55;
    box(context, '#2b2450', x, waterTop, 1, view.height - waterTop);
    context.globalAlpha = 1;
    box(context, x % 7 < 3 ? '#3f5a58' : '#4e3a58', x, waterTop - 2 - (x % 3), 1, 2 + (x % 3));
  }
}

/** The open end of a wall: a dark edge, and weed where the water reaches. */
function paintEnd(context: Context, x: number, top: number, to: number): void {
  box(context, '#2a1c30', x, top, 1, to - top);
  box(context, '#94707c', x + 1, top + 1, 1, to - top - 1);
}

function paintPlank(context: Context, left: number, right: number, top: number, foot: number): void {
  for (const x of [left + 3, right - 5]) {
    box(context, '#2a1c30', x - 1, top + 4, 4, foot - top - 4);
    box(context, '#5c3a3a', x, top + 4, 2, foot - top - 4);
  }
  box(context, '#2a1c30', left - 1, top - 1, right - left + 2, 7);
  box(context, '#8a5a48', left, top, right - left, 4);
  box(context, '#d99a66', left, top, right - left, 1);
  for (let x = left + 9; x < right - 2; x += 10) box(context, '#4a2f34', x, top, 1, 4);
}

/** The post of a lamp; its lantern is drawn each time. */
function paintLampPost(context: Context, x: number, y: number): void {
  box(context, '#2a1c30', x - 2, y - 58, 4, 58);
  box(context, '#4b4169', x - 1, y - 57, 2, 57);
  box(context, '#2a1c30', x - 3, y - 4, 6, 4);
  box(context, '#2a1c30', x - 1, y - 60, 12, 2);
  box(context, '#4b4169', x, y - 59, 10, 1);
}

/** A narrow house on the terrace: the last lamp but one burns at its door. */
function paintTower(context: Context, x: number, foot: number): void {
  box(context, '#2a1c30', x - 1, foot - 61, 38, 61);
  box(context, '#573a5c', x, foot - 60, 36, 60);
  box(context, '#6e4a6c', x + 28, foot - 60, 8, 60);
  for (let y = foot - 54; y < foot; y += 9)
    for (let i = 0; i < 3; i++) box(context, '#493050', x + 3 + ((y + i * 13) % 28), y, 5, 1);
  for (let step = 0; step < 22; step++)
    box(context, step % 3 === 2 ? '#7d3c58' : '#a0506a', x - 4 + step, foot - 62 - step, 44 - step * 2, 1);
  box(context, '#2a1c30', x + 17, foot - 94, 2, 12);
  box(context, '#f0b850', x + 14, foot - 94, 8, 1);
  for (const [dx, dy] of [
    [8, 48],
    [8, 30],
    [22, 39],
  ] as const) {
    box(context, '#2a1c30', x + dx - 1, foot - dy - 1, 8, 10);
    box(context, '#ffc95c', x + dx, foot - dy, 6, 8);
    box(context, '#fff0bc', x + dx + 3, foot - dy, 3, 3);
    box(context, '#2a1c30', x + dx, foot - dy + 4, 6, 1);
  }
  box(context, '#2a1c30', x + 12, foot - 20, 12, 20);
  box(context, '#6b4438', x + 13, foot - 19, 10, 19);
}

function paintWorld(context: Context): void {
  context.translate(0, -worldTop);
  const roof = planks[0]!;
  paintBoathouse(context, roof.left, roof.right, roof.top);
  paintTower(context, 1140, deckTop - 112);
  for (const { left, right, top } of planks.slice(1)) paintPlank(context, left, right, top, deckTop - 46);
  for (const { x, y } of lampPosts) paintLampPost(context, x, y);
  for (const ground of grounds.filter(({ made }) => made === 'stone')) paintStone(context, ground);
  paintEnd(context, 880, deckTop, view.height);
  paintEnd(context, 1120, deckTop - 112, deckTop - 46);
  for (const { left, right, top, made } of grounds) {
    if (made === 'deck') paintDeck(context, left, right);
    else if (made === 'crate')
      paintCrate(
        context,
        left,
        top,
        right - left,
        deckTop - 22 < top ? deckTop - top : Math.min(22, deckTop - top),
      );
    else if (made === 'post') {
      paintPost(context, (left + right) / 2, top, view.height);
      box(context, '#d9c7a0', (left + right) / 2 - 5, top + 5, 10, 2);
    }
  }
}

/** The level itself, painted once. */
export const paintedWorld = (): HTMLCanvasElement =>
  paintOnce(worldWidth, view.height - worldTop, paintWorld);
