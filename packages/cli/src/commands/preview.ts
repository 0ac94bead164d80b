import path from 'node:path';
import { nearestOf } from '../nearest.js';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { writeWhole } from '../files.js';
import { Misuse } from '../misuse.js';
import { animatedWebp, drawFrames, durationsOf, webpDelay } from '../picture/motion.js';
import type { Background, Motion } from '../picture/motion.js';
import { strip, trimmed } from '../picture/strip.js';
import type { Clip, Pose } from 'dot-hop';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { printTable } from './table.js';

/** The options of `dot-hop preview`. */
export interface PreviewOptions {
  readonly out?: string;
  readonly scale: number;
  readonly direction?: string;
  readonly rate: number;
  readonly background: Background;
  readonly json?: boolean;
}

/** Shows a clip, flipbook or state: moving in a WebP, side by side in a PNG; without `-o` as a table of frames. */
export async function preview(
  file: string,
  name: string,
  options: PreviewOptions,
  output: Output,
): Promise<number> {
  const character = await loadCharacter(file);
  const { clip, poses, title } = findMotion(character, name, options.direction);
  const durations = durationsOf(clip).map((duration) => duration / options.rate);
  const motion: Motion = { name: title, poses, durations, loops: clip.loop === 'forever' };
  const { out, scale, background } = options;
  if (out !== undefined) await write(out, motion, clip, character, scale, background, output);
  const frames = poses.map(({ cell, mirrored }, frame) => ({
    frame,
    cell: cell.index,
    ms: durations[frame]!,
    mirrored,
    cues: clip.cues[frame]!,
    spans: [...clip.spans]
      .filter(([, range]) => frame >= range.first && frame <= range.last)
      .map(([span]) => span),
  }));
  const total = durations.reduce((sum, duration) => sum + duration, 0);
  if (options.json === true)
    printJson(output, { name: title, clip: clip.name, loop: clip.loop, ms: total, frames });
  else {
    output.line(`${title}: ${frames.length} frames, ${trimmed(total)} ms, loop ${clip.loop}`);
    printTable(
      output,
      ['frame', 'cell', 'ms', 'cues', 'spans'],
      frames.map((f) => [f.frame, f.cell, Number(trimmed(f.ms)), f.cues.join(' '), f.spans.join(' ')]),
    );
  }
  return exit.well;
}

async function write(
  out: string,
  motion: Motion,
  clip: Clip,
  { images }: Character,
  scale: number,
  background: Background,
  output: Output,
): Promise<void> {
  const kind = path.extname(out).toLowerCase();
  if (kind === '.png') {
    await writeWhole(out, await strip(motion, clip, images, scale, background));
    output.note(`strip of ${motion.poses.length} frames in ${out}`);
    return;
  }
  if (kind !== '.webp')
    throw new Misuse(`-o ${out}: a preview is written as .webp (moving) or .png (a strip)`);
  await writeWhole(
    out,
    await animatedWebp(drawFrames(motion, images, scale, background), motion.durations, motion.loops),
  );
  output.note(`${motion.poses.length} frames moving in ${out}`);
  const off = motion.durations.findIndex((duration) => webpDelay(duration) !== duration);
  if (off >= 0) {
    const [wanted, written] = [motion.durations[off]!, webpDelay(motion.durations[off]!)];
    output.note(
      `WebP holds whole milliseconds, 11 or more: frame ${off} lasts ${trimmed(wanted)} ms and is written as ${written}`,
    );
  }
}

/** What a name shows: a state's flipbook in a direction, or a clip as it is drawn. */
function findMotion(
  { controller, document }: Character,
  name: string,
  direction: string | undefined,
): { clip: Clip; poses: readonly Pose[]; title: string } {
  const { compass, states, stateNamed, clips } = controller;
  const facing = direction === undefined ? compass.start : compass.names.indexOf(direction);
  if (facing < 0) throw new Misuse(`--direction ${direction}: the compass has ${compass.names.join(', ')}`);
  const shows = (what: string): boolean => document.definition.states[what]?.shows === name;
  const state = stateNamed.get(name) ?? states.find((one) => shows(one.name));
  const timeline = state?.timelines[facing];
  const title = direction === undefined ? name : `${name} ${direction}`;
  if (timeline !== undefined) return { clip: timeline.clip, poses: timeline.poses, title };
  const clip = clips.get(name);
  if (clip === undefined) {
    const known = [
      ...new Set([
        ...clips.keys(),
        ...stateNamed.keys(),
        ...Object.keys(document.definition.flipbooks ?? {}),
      ]),
    ];
    throw new Misuse(`there is no clip, flipbook or state "${name}"${nearestOf(name, known)}`);
  }
  const poses = clip.cells.map((cell): Pose => ({ cell, mirrored: false, boxes: {} }));
  return { clip, poses, title };
}
