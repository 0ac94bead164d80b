import type { Controller, Performer, SignalValue } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { SignalFacts } from 'dot-hop/explain';
import type { Recording } from 'dot-hop/rehearsal';
import { element } from './dom.js';
import { colourOf, colours } from './style.js';

const width = 372;
const rowHeight = 15;
const stateHeight = 22;
const labels = 58;

/** The last seconds as a strip: which state showed, cues, and every signal. */
export class Timeline {
  readonly part: HTMLCanvasElement;
  private readonly context: CanvasRenderingContext2D;
  private readonly height: number;
  private readonly statesHeight: number;
  private readonly signals: readonly SignalFacts[];

  constructor(
    private readonly recording: Recording,
    private readonly seconds: number,
  ) {
    this.signals = describeController(this.controller).signals;
    this.statesHeight = this.controller.tracks.length * stateHeight;
    this.height = this.statesHeight + 16 + this.signals.length * rowHeight;
    const ratio = window.devicePixelRatio;
    this.part = element('canvas', { width: width * ratio, height: this.height * ratio });
    this.part.setAttribute('aria-hidden', 'true');
    this.part.style.width = `${width}px`;
    this.part.style.height = `${this.height}px`;
    this.context = this.part.getContext('2d')!;
    this.context.scale(ratio, ratio);
  }

  private get controller(): Controller {
    return this.recording.performer.controller;
  }

  /** @param cursor the instant that is looked at, in milliseconds of the performer */
  draw(cursor: number): void {
    const { context, recording, height } = this;
    const now = recording.performer.time;
    const from = recording.begins;
    const x = (time: number): number =>
      labels + (Math.max(0, time - from) / Math.max(this.seconds * 1000, now - from)) * (width - labels);
    context.clearRect(0, 0, width, height);
    context.font = '11px system-ui, sans-serif';
    context.textBaseline = 'middle';
    const first = recording.at(from);
    for (const { index, name } of this.controller.tracks)
      this.drawStates({ name, top: index * stateHeight }, first.showing(name).state, now, x);
    this.drawCues(x);
    this.drawSignals(first, now, x);
    context.fillStyle = colours.lamp;
    context.fillRect(x(cursor) - 0.75, 0, 1.5, height);
  }

  private drawStates(
    track: { readonly name: string; readonly top: number },
    first: string,
    now: number,
    x: (ms: number) => number,
  ): void {
    const { context, recording, controller } = this;
    this.label(controller.tracks.length === 1 ? 'state' : track.name, track.top + stateHeight / 2);
    const switches = recording.trace.filter((one) => one.kind === 'switch' && one.track === track.name);
    const shown = [{ name: first, at: 0 }, ...switches];
    shown.forEach(({ name, at }, i) => {
      const [left, right] = [x(at), x(shown[i + 1]?.at ?? now)];
      if (right <= labels) return;
      context.fillStyle = colourOf(controller.stateNamed.get(name)!.index);
      context.fillRect(left, track.top + 3, Math.max(1, right - left - 0.5), stateHeight - 6);
      if (context.measureText(name).width + 6 > right - left) return;
      context.fillStyle = colours.ground;
      context.fillText(name, left + 3, track.top + stateHeight / 2);
    });
  }

  private drawCues(x: (ms: number) => number): void {
    const { context } = this;
    const y = this.statesHeight + 6;
    context.fillStyle = colours.lamp;
    for (const { at, kind } of this.recording.trace) {
      if (kind !== 'cue' || x(at) <= labels) continue;
      context.beginPath();
      context.arc(x(at), y, 2.2, 0, Math.PI * 2);
      context.fill();
    }
    this.label('cues', y);
  }

  private drawSignals(first: Performer, now: number, x: (ms: number) => number): void {
    const { context, recording } = this;
    this.signals.forEach(({ name, kind }, row) => {
      const top = this.statesHeight + 16 + row * rowHeight;
      this.label(name, top + rowHeight / 2);
      const entries = recording.trace.filter(
        (one) => (one.kind === 'set' || one.kind === 'pulse') && one.name === name,
      );
      context.fillStyle = kind === 'pulse' ? colours.lamp : colours.good;
      if (kind === 'pulse') {
        for (const { at } of entries)
          if (x(at) > labels) context.fillRect(x(at) - 1, top + 2, 2, rowHeight - 4);
        return;
      }
      const values: { at: number; value: SignalValue }[] = [
        { at: 0, value: first.value(name) },
        ...entries.flatMap((one) => (one.kind === 'set' ? [one] : [])),
      ];
      const size = values.map(({ value }) => sizeOf(value));
      const most = Math.max(1e-9, ...size.map(Math.abs));
      let drawn = -Infinity;
      values.forEach(({ at }, i) => {
        const right = x(values[i + 1]?.at ?? now);
        const left = kind === 'flag' ? x(at) : Math.max(x(at) - 1, drawn);
        // What changes within a pixel is not seen: a moving body changes a hundred times a second.
        if (right <= labels || (kind !== 'flag' && right - drawn < 1)) return;
        drawn = right;
        const half = kind === 'flag' ? size[i]! * (rowHeight - 5) : (size[i]! / most) * (rowHeight / 2 - 1.5);
        const base = kind === 'flag' ? top + rowHeight - 3 : top + rowHeight / 2;
        context.globalAlpha = 0.75;
        context.fillRect(
          left,
          Math.min(base, base - half),
          Math.max(0.7, right - left),
          Math.max(0.7, Math.abs(half)),
        );
        context.globalAlpha = 1;
      });
    });
  }

  private label(text: string, y: number): void {
    const { context } = this;
    context.fillStyle = colours.dim;
    context.fillText(text, 2, y, labels - 6);
  }
}

/** What is drawn of a value: a number, 1 or 0, the length of a vector, the place of an option. */
function sizeOf(value: SignalValue): number {
  if (typeof value === 'number') return value;
  if (typeof value === 'boolean') return value ? 1 : 0;
  return typeof value === 'string' ? 1 : Math.hypot(value[0], value[1]);
}
