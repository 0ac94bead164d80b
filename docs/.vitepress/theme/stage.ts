// A document of a page, playing: what the page's component shows and what its controls do.
import { drawPose, continueAfterEdit } from '@dot-hop/browser';
import { Performer } from 'dot-hop';
import type { Controller, Pose } from 'dot-hop';
import { compileDocument, gatherBases, readDocument } from 'dot-hop/document';
import { describeController, lastSwitchText } from 'dot-hop/explain';
import type { SignalFacts } from 'dot-hop/explain';
import { readRehearsal, runRehearsal, unmetText } from 'dot-hop/rehearsal';
import type { ScriptLine } from 'dot-hop/rehearsal';
import wickSheet from '../../../demo/wick.png';

export type { SignalFacts };
type Images = Record<string, HTMLImageElement | HTMLCanvasElement>;

/** What a document begins with on its page. */
export interface Given {
  readonly head: string;
  /** The page's first document, on which it builds; empty where it builds on none. */
  readonly drawings: string;
  readonly rehearsal: string;
}

/** What a control shows of the character. */
export interface Seen {
  readonly state: string;
  readonly why: string;
  readonly frame: string;
}

/** A step of the stage's time, in milliseconds. */
const stepLength = 1000 / 120;
/** Display pixels of the canvas for each of the drawing's own. */
const size = { width: 120, height: 84 };

let wick: Promise<HTMLImageElement> | undefined;
const wickImage = (): Promise<HTMLImageElement> =>
  (wick ??= (async () => {
    const image = new Image();
    image.src = wickSheet;
    await image.decode();
    return image;
  })());

/** Cells without drawings: each in a colour of its own, with its place as a mark that wanders to the right. */
function cards(width: number, height: number, cell: number): HTMLCanvasElement {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [width, height];
  const context = canvas.getContext('2d')!;
  const across = Math.max(1, Math.floor(width / cell));
  const count = across * Math.floor(height / cell);
  for (let i = 0; i < count; i++) {
    const [x, y] = [(i % across) * cell, Math.floor(i / across) * cell];
    context.fillStyle = `hsl(${(i * 47) % 360} 55% 62%)`;
    context.fillRect(x + 1, y + 1, cell - 2, cell - 2);
    context.fillStyle = '#1d1930';
    context.fillRect(x + 1 + (i % (cell - 2)), y + cell - 3, 1, 2);
  }
  return canvas;
}

/** Plays one document. */
export class Stage {
  controller: Controller | undefined;
  performer: Performer | undefined;
  private images: Images = {};
  private before = 0;
  private owed = 0;
  private script: { at: number; act: (performer: Performer) => void }[] = [];
  private scriptTime = Infinity;
  private scriptEnd = 0;

  constructor(private readonly given: Given) {}

  /**
   * Plays a text from now on, in the same state where it has that.
   *
   * @throws {Error} when the text is not sound; what played before plays on
   */
  async take(text: string): Promise<readonly SignalFacts[]> {
    const whole = this.given.head + text;
    const bases = await gatherBases(whole, 'document.yaml', () => Promise.resolve(this.given.drawings));
    const read = readDocument(whole, 'document.yaml', bases);
    const images: Images = {};
    for (const file of read.images.keys())
      images[file] = file === 'wick.png' ? await wickImage() : cards(64, 64, 8);
    const controller = compileDocument(read, { images });
    this.performer =
      this.performer === undefined
        ? new Performer(controller)
        : continueAfterEdit(this.performer, controller);
    this.controller = controller;
    this.images = images;
    return describeController(controller).signals;
  }

  /** What the check says of it, a finding a line. */
  async findings(): Promise<string> {
    const { checkController } = await import('dot-hop/check');
    const { findings } = checkController(this.controller!);
    return findings.map(({ severity, code, message }) => `${severity} ${code}: ${message}`).join('\n');
  }

  /** What became of the page's rehearsal: nothing when all is as expected. */
  rehearsed(): string {
    const { definition } = readRehearsal(this.given.rehearsal, 'rehearsal.yaml');
    return unmetText(runRehearsal(this.controller!, definition));
  }

  /** Plays the rehearsal's script from its beginning. */
  play(): void {
    const { definition } = readRehearsal(this.given.rehearsal, 'rehearsal.yaml');
    this.performer = new Performer(this.controller!);
    this.script = definition.script.flatMap(actsOf);
    this.scriptTime = 0;
    this.scriptEnd = definition.lasts;
  }

  get isPlaying(): boolean {
    return this.scriptTime < this.scriptEnd;
  }

  /** Lets the time pass that a display has, and draws. */
  picture(now: number, canvas: HTMLCanvasElement): void {
    this.owed += Math.min(100, now - this.before);
    this.before = now;
    const { performer } = this;
    if (performer === undefined) return;
    for (; this.owed >= stepLength; this.owed -= stepLength) {
      for (const { act } of this.script.filter(({ at }) => at <= this.scriptTime)) act(performer);
      this.script = this.script.filter(({ at }) => at > this.scriptTime);
      this.scriptTime += stepLength;
      performer.step(stepLength);
    }
    const context = canvas.getContext('2d')!;
    const { pose } = performer;
    const scale = scaleOf(pose);
    [canvas.width, canvas.height] = [size.width / scale, size.height / scale];
    context.fillStyle = '#332c4d';
    context.fillRect(0, canvas.height * 0.82, canvas.width, canvas.height);
    const { frameWidth, frameHeight, pivotX, pivotY } = pose.cell;
    const x = (canvas.width - frameWidth) / 2 + pivotX;
    const y = canvas.height * 0.88 - frameHeight + pivotY;
    drawPose(context, this.images, pose, x, y);
  }

  get seen(): Seen | undefined {
    const { performer } = this;
    if (performer === undefined) return undefined;
    const why = performer.why();
    return {
      state: performer.state,
      why: lastSwitchText(why),
      frame: `${performer.clip}, cell ${performer.pose.cell.index}`,
    };
  }
}

/** Small drawings are shown larger, so that one sees them. */
function scaleOf({ cell }: Pose): number {
  return cell.frameHeight <= 12 ? 4 : 1;
}

/** What a line of a script does to a performer, where it sets and presses at an instant. */
function actsOf({
  at,
  set = {},
  pulse = [],
}: ScriptLine): { at: number; act: (performer: Performer) => void }[] {
  if (at === undefined) return [];
  const act = (performer: Performer): void => {
    for (const [name, value] of Object.entries(set)) performer.set(name, value);
    for (const name of [pulse].flat()) performer.pulse(name);
  };
  return [{ at, act }];
}
