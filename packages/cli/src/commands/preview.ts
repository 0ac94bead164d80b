import path from 'node:path';
import { poseOf } from 'dot-hop';
import type { DirectionDrawing } from 'dot-hop';
import { durationsOf } from 'dot-hop/explain';
import { loadCharacter } from '../character.js';
import type { Character } from '../character.js';
import { dyedImages } from '../dyed.js';
import { endingOf, needPng } from '../files/kinds.js';
import { writeWhole } from '../files/writing.js';
import type { Image } from '../images.js';
import { Misuse } from '../misuse.js';
import { nearestOf } from '../nearest.js';
import { dialPicture } from '../picture/dial-picture.js';
import { filmFormats } from '../picture/film-files.js';
import { filmOf } from '../picture/motion.js';
import type { Background, Look, Showing } from '../picture/motion.js';
import { loopWords, strip, trimmed } from '../picture/strip.js';
import { together } from '../picture/together.js';
import { gaitsOf } from '../state-words.js';
import { variantShown } from '../variants.js';
import type { VariantValues } from '../variants.js';
import { checkWorn, dressedAs, wornIn } from '../worn.js';
import type { WornOptions } from '../worn.js';
import { exit, printJson } from './command.js';
import type { Output } from './command.js';
import { runFile } from '../rehearsal/runs.js';
import { printTable } from './table.js';

/** The options of `dot-hop preview`. */
export interface PreviewOptions extends WornOptions {
  readonly out?: string;
  readonly scale: number;
  readonly direction?: string;
  readonly rate: number;
  /** Frames a second to be shown side by side. */
  readonly compare?: readonly number[];
  readonly background: Background;
  readonly ghosts?: boolean;
  readonly ground?: boolean;
  readonly marks?: boolean;
  /** What the body shows under a state of another track. */
  readonly over?: string;
  /** Show all directions around the compass. */
  readonly dial?: boolean;
  /** A rehearsal whose vectors are drawn into the dial. */
  readonly trail?: string;
  /** Which variants are shown: values of the signals that pick them. */
  readonly with?: VariantValues;
  readonly json?: boolean;
}

/** Shows a clip, flipbook or state: moving, or side by side in a PNG; without `-o` as a table of frames. */
export async function preview(
  file: string,
  name: string,
  options: PreviewOptions,
  output: Output,
): Promise<number> {
  if (options.trail !== undefined && options.dial !== true)
    throw new Misuse('--trail draws the vectors of a rehearsal into a compass; it needs --dial');
  checkWorn(options);
  if (options.out !== undefined) {
    if (options.dial === true) needPng(options.out, 'a dial');
    else
      endingOf(
        '-o',
        options.out,
        ['.png', ...Object.keys(filmFormats)],
        'a preview is written as .webp, .gif or .apng (moving) or .png (a strip)',
      );
  }
  if (options.dial === true) return dial(file, name, options, output);
  const character = await loadCharacter(file);
  const found = overAnother(
    character,
    findShowing(character, name, options.direction, options),
    name,
    options,
  );
  const { showing, title, images } = dressed(character, found, options);
  const { clip, poses } = showing;
  if (options.out !== undefined) await write(options.out, title, showing, images, options, output);
  const durations = durationsOf(clip).map((duration) => duration / options.rate);
  const frames = clip.frames.map((cell, frame) => ({
    frame,
    cell: cell.index,
    ms: durations[frame]!,
    mirrored: poses[frame]!.mirrored,
    cues: clip.cues[frame]!,
    spans: [...clip.spans]
      .filter(([, { first, last }]) => frame >= first && frame <= last)
      .map(([span]) => span),
  }));
  const total = durations.reduce((sum, duration) => sum + duration, 0);
  const loop = loopWords(clip);
  if (options.json === true)
    printJson(output, { name: title, clip: clip.name, loop, ms: total, stride: clip.stride, frames });
  else {
    output.line(`${title}: ${frames.length} frames, ${trimmed(total)} ms, ${loop}`);
    printTable(
      output,
      ['frame', 'cell', 'ms', 'cues', 'spans'],
      frames.map((f) => [f.frame, f.cell, Number(trimmed(f.ms)), f.cues.join(' '), f.spans.join(' ')]),
    );
  }
  return exit.well;
}

/** Shows what a flipbook or state shows in every direction, around the compass. */
async function dial(file: string, name: string, options: PreviewOptions, output: Output): Promise<number> {
  const trail = options.trail === undefined ? undefined : await runFile(options.trail);
  const character = await loadCharacter(file);
  if (trail !== undefined && path.resolve(trail.character.file) !== path.resolve(file))
    throw new Misuse(`--trail ${options.trail} rehearses ${trail.character.file}, not ${file}`);
  const { controller, images } = character;
  const { compass } = controller;
  if (compass.names.length < 2) throw new Misuse(`${file} has no compass: its character never turns`);
  const drawings = drawingsNamed(character, name, options);
  const title = `${controller.name}: ${name} in ${compass.names.length} directions`;
  const rows = compass.names.map((direction, i) => {
    const { clip, mirrored, standsIn, drawnFor } = drawings[i]!;
    const drawn = standsIn ? 'stands in' : mirrored ? 'mirrored' : 'drawn';
    return {
      direction,
      degrees: compass.degrees[i]!,
      clip: clip.name,
      drawn,
      from: compass.names[drawnFor]!,
    };
  });
  if (options.out !== undefined) {
    const points = trail && { name: path.basename(options.trail!), points: trail.result.trail };
    const outfit = wornIn(controller, options);
    const poses = drawings.map(({ clip, mirrored }, facing) => {
      const pose = poseOf(clip.cells[0]!, mirrored);
      const shown = { states: [name], facing, clip, frame: 0 };
      return outfit === undefined ? pose : dressedAs(controller, outfit, pose, shown);
    });
    const worn = outfit === undefined ? images : dyedImages(images, [outfit]);
    await writeWhole(
      options.out,
      await dialPicture(controller, worn, { title, drawings, poses, trail: points }),
    );
    output.note(`dial of ${rows.length} directions in ${options.out}`);
  }
  if (options.json === true)
    printJson(output, { name, directions: rows, ...(trail && { trail: trail.result.trail }) });
  else {
    output.line(title);
    printTable(
      output,
      ['direction', 'degrees', 'clip', 'drawn', 'for'],
      rows.map((row) => [row.direction, Number(trimmed(row.degrees)), row.clip, row.drawn, row.from]),
    );
  }
  return exit.well;
}

/** What a state, flipbook or clip shows in each direction. */
function drawingsNamed(
  { controller }: Character,
  name: string,
  options: PreviewOptions,
): readonly DirectionDrawing[] {
  const { stateNamed, flipbooks, clips } = controller;
  const found = flipbooks.get(
    variantShown(controller, stateNamed.get(name)?.flipbookNames[0] ?? name, options.with),
  );
  if (found !== undefined) return found;
  throw new Misuse(
    `there is no flipbook or state "${name}" to be shown in every direction${nearestOf(name, [...new Set([...flipbooks.keys(), ...stateNamed.keys()])])}${clips.has(name) ? '; the clip of that name is shown by none' : ''}`,
  );
}

async function write(
  out: string,
  title: string,
  showing: Showing,
  images: ReadonlyMap<string, Image>,
  options: PreviewOptions,
  output: Output,
): Promise<void> {
  const { clip } = showing;
  const look: Look = {
    scale: options.scale,
    background: options.background,
    ghosts: options.ghosts ?? false,
    ground: options.ground ?? false,
    marks: options.marks ?? false,
  };
  const kind = path.extname(out).toLowerCase();
  if (kind === '.png') {
    if (options.compare !== undefined)
      throw new Misuse(`--compare is for a moving preview; ${out} would be a strip`);
    await writeWhole(out, await strip(title, showing, images, look, options.rate));
    output.note(`strip of ${clip.frames.length} frames in ${out}`);
    return;
  }
  const film = await filmOf(showing, images, look, ratesOf(showing, options));
  const { bytes, written } = await filmFormats[kind]!(film);
  await writeWhole(out, bytes);
  output.note(`${clip.frames.length} frames moving in ${out}`);
  const rounded = film.durations.findIndex(
    (duration, i) => film.frames.length === written.length && Math.abs(duration - written[i]!) > 0.005,
  );
  if (rounded >= 0)
    output.note(
      `${kind.slice(1)} cannot hold the true times: picture ${rounded} lasts ${trimmed(film.durations[rounded]!)} ms and is written as ${written[rounded]!}; the whole is ${trimmed(sum(film.durations))} ms, written as ${trimmed(sum(written))}`,
    );
}

const sum = (numbers: readonly number[]): number => numbers.reduce((total, one) => total + one, 0);

/** How many times as fast each picture plays. Frames a second are those of the clip's average frame. */
function ratesOf({ clip }: Showing, { compare, rate }: PreviewOptions): number[] {
  if (compare === undefined) return [rate];
  const own = (clip.ends.length * 1_000_000) / clip.ends[clip.ends.length - 1]!;
  return compare.map((fps) => fps / own);
}

/** What a name shows: a state or flipbook in a direction, or a clip as it is drawn. */
function findShowing(
  { controller }: Character,
  name: string,
  direction: string | undefined,
  options: PreviewOptions,
): Found {
  const { compass, states, stateNamed, clips, flipbooks } = controller;
  const facing = direction === undefined ? compass.start : compass.names.indexOf(direction);
  if (facing < 0) throw new Misuse(`--direction ${direction}: the compass has ${compass.names.join(', ')}`);
  const shownByStates = states.flatMap((state) =>
    state.flipbooks.map((flipbook, i) => ({ name: state.flipbookNames[i]!, flipbook })),
  );
  const own = stateNamed.get(name);
  const wanted = variantShown(controller, own?.flipbookNames[0] ?? name, options.with);
  const flipbook =
    own?.flipbooks[Math.max(0, own.flipbookNames.indexOf(wanted))] ??
    shownByStates.find((one) => one.name === wanted)?.flipbook;
  // Of a state with gaits the slowest is shown; the others are asked for by their own names.
  const state = stateNamed.get(name);
  const gaits = state === undefined ? [] : gaitsOf(state);
  const isVariant = wanted !== (own?.flipbookNames[0] ?? name);
  const shown = gaits.length === 0 && !isVariant ? name : `${name}: ${wanted}`;
  const title = direction === undefined ? shown : `${shown} ${direction}`;
  const timeline = flipbook?.[facing];
  if (timeline !== undefined) {
    const { mirrored } = timeline.poses[0]!;
    const { clip } = timeline;
    const poses = clip.cells.map((cell) => poseOf(cell, mirrored));
    return { showing: { clip, poses }, title, states: [states[timeline.stateIndex]!.name], facing };
  }
  // A flipbook that no state shows, or a clip as it is drawn.
  const drawing = flipbooks.get(wanted)?.[facing];
  const clip = drawing?.clip ?? clips.get(wanted);
  if (clip === undefined) {
    const known = new Set([...clips.keys(), ...stateNamed.keys(), ...flipbooks.keys()]);
    throw new Misuse(`there is no clip, flipbook or state "${name}"${nearestOf(name, [...known])}`);
  }
  const poses = clip.cells.map((cell) => poseOf(cell, drawing?.mirrored ?? false));
  return { showing: { clip, poses }, title, states: [], facing };
}

/** With `--over`: what a track shows over what the body shows. */
function overAnother(character: Character, found: Found, name: string, options: PreviewOptions): Found {
  const { over, direction } = options;
  if (over === undefined) return found;
  const { tracks, stateNamed } = character.controller;
  const track = stateNamed.get(name)?.track ?? 0;
  if (track === 0) {
    const own = [...stateNamed.values()].filter((state) => state.track > 0 && state.drawsOwn);
    throw new Misuse(
      own.length === 0
        ? `--over ${over}: this character has no tracks that draw parts of their own`
        : `--over ${over}: "${name}" is drawn by the body itself; what can be shown over it: ${own.map((one) => one.name).join(', ')}`,
    );
  }
  if (tracks[track]!.draws.length === 0)
    throw new Misuse(`--over ${over}: the track "${tracks[track]!.name}" of "${name}" draws no parts`);
  const under = findShowing(character, over, direction, options);
  const showing = together(character.controller, track, found.showing, under.showing);
  return {
    ...found,
    showing,
    title: `${found.title} over ${under.title}`,
    states: [...under.states, ...found.states],
  };
}

/** What a name shows, and as whose picture. */
interface Found {
  readonly showing: Showing;
  readonly title: string;
  /** The state of the body, and that of another track over it; none of a clip. */
  readonly states: readonly string[];
  readonly facing: number;
}

/** The same in what is worn, with the images for it. */
function dressed(
  { controller, images }: Character,
  { showing, title, states, facing }: Found,
  options: PreviewOptions,
): { showing: Showing; title: string; images: ReadonlyMap<string, Image> } {
  const outfit = wornIn(controller, options);
  if (outfit === undefined) return { showing, title, images };
  const { clip, under = { clip, frames: clip.order } } = showing;
  const poses = showing.poses.map((pose, i) =>
    dressedAs(controller, outfit, pose, { states, facing, clip: under.clip, frame: under.frames[i]! }),
  );
  return { showing: { clip, poses }, title, images: dyedImages(images, [outfit]) };
}
