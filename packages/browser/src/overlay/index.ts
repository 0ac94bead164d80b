import { Performer } from 'dot-hop';
import type { SignalValue } from 'dot-hop';
import type { Player } from 'dot-hop/play';
import { lastSwitchText, takerOf } from 'dot-hop/explain';
import { Recording, shortened } from 'dot-hop/rehearsal';
import type { RehearsalScript } from 'dot-hop/rehearsal';
import { drawPose } from '../draw.js';
import type { Loop } from '../loop.js';
import { element, say } from './dom.js';
import { LadderRows } from './ladder.js';
import { SignalRows } from './signals.js';
import type { HeldSignals } from './signals.js';
import { colours, style } from './style.js';
import { Timeline } from './timeline.js';

/** What an overlay is told of the game. */
export interface OverlayOptions {
  readonly performer: Player;
  /** The images by file, as {@link loadCharacter} gives them. */
  readonly images: Readonly<Record<string, CanvasImageSource>>;
  /** The game's loop, so that it can be slowed down, stopped and stepped. Without it these buttons are left out. */
  readonly loop?: Loop;
  /** The file of the document, for the rehearsals that are copied; by default made from the character's name. */
  readonly document?: string;
  /** Whether it stands in the page's own flow, and not at the edge of the window. Default false. */
  readonly inline?: boolean;
  /** How far back one can look, in seconds; 10 by default. */
  readonly seconds?: number;
  /** How another one was set up by hand, as its `setup` tells: so it goes on after an edit of the document. */
  readonly setup?: OverlaySetup | undefined;
}

/** How an overlay is set up by hand. */
export interface OverlaySetup {
  /** What a hand holds, by signal. */
  readonly held: Readonly<Record<string, SignalValue>>;
  /** The state that is asked about; `undefined` for none. */
  readonly asked: string | undefined;
  /** Whether only its head shows. */
  readonly isFolded: boolean;
}

/** How long it is told that something was copied, in milliseconds. */
const toldFor = 2000;
/** How often the panel is brought up to date while nobody touches it, in milliseconds. */
const every = 100;
/** One press of the buttons that go frame by frame, in milliseconds: a picture of a usual display. */
const frameTime = 1000 / 60;
/** How fast the game's time can go. */
const paces = [
  { pace: 0, label: 'stop', title: 'stop time' },
  { pace: 0.1, label: '1/10', title: 'time runs at a tenth of its speed' },
  { pace: 0.25, label: '1/4', title: 'time runs at a quarter of its speed' },
  { pace: 1, label: 'run', title: 'let time run' },
] as const;
const stage = { width: 132, height: 128, scale: 2 };

/** An overlay that is mounted. */
export interface Overlay {
  /** Takes it away; the performer goes on as if there had been none. */
  destroy(): void;
  readonly recording: Recording;
  /** How it is set up by hand, to be given to the one that comes after an edit. */
  readonly setup: OverlaySetup;
  /** The instant that is looked at, in milliseconds of the performer: the present one, or one gone back to. */
  readonly instant: number;
}

/**
 * Shows a panel beside a game. In it you set signals by hand while the game runs, read the ladder with its lit terms, slow time
 * down, look at the last seconds again frame by frame, and copy what just happened as a rehearsal.
 *
 * The panel lives in a shadow root of its own. It needs nothing of the page, and costs nothing while it is not mounted.
 */
export function mountOverlay(options: OverlayOptions, into: HTMLElement = document.body): Overlay {
  const panel = new Panel(options);
  into.append(panel.host);
  return panel;
}

class Panel implements Overlay, HeldSignals {
  readonly host = element('div', { 'data-overlay': '' });
  readonly recording: Recording;
  private readonly performer: Performer;
  private readonly held = new Set<string>();
  private readonly signals: SignalRows;
  private readonly ladder: LadderRows;
  private readonly timeline: Timeline;
  private readonly time = element('input', {
    className: 'time',
    type: 'range',
    step: 'any',
    'aria-label': 'instant looked at',
  });
  private readonly canvas = element('canvas', {
    width: stage.width * stage.scale,
    height: stage.height * stage.scale,
  });
  private readonly state = element('b', { 'data-shows': '' });
  private readonly facts = element('small');
  private readonly because = element('div', { className: 'because' });
  private readonly copied = element('textarea', {
    readOnly: true,
    hidden: true,
    'aria-label': 'what happened as a rehearsal',
  });
  private readonly copyButton = button(
    'copy',
    'what happened lately, as a file that plays it again',
    () => void this.copy(),
  );
  private readonly panel = element('section');
  private readonly foldButton = button('fold', 'show the head of this panel alone', () =>
    this.fold(!this.isFolded),
  );
  private readonly live: HTMLButtonElement;
  private readonly end: () => void;
  /** Whether it is the hand itself that sets now. */
  private isByHand = false;
  /** The instant that is looked at; `undefined` while it follows the game. */
  private cursor: number | undefined;
  private drawn = 0;
  /** How far it reaches back, in milliseconds. */
  private readonly reach: number;
  private frame: number;

  constructor(private readonly options: OverlayOptions) {
    const { seconds = 10 } = options;
    const performer = Performer.of(options.performer);
    this.performer = performer;
    this.reach = seconds * 1000;
    this.recording = new Recording(performer, this.reach);
    // What a hand holds the game does not set.
    this.end = performer.observe({ holds: (signal) => !this.isByHand && this.held.has(signal) });
    this.signals = new SignalRows(performer, this);
    this.ladder = new LadderRows(performer.controller);
    this.timeline = new Timeline(this.recording, seconds);
    this.live = button('live', 'follow the game', () => this.look(undefined));
    this.time.addEventListener('input', () => this.look(Number(this.time.value)));
    this.build();
    this.setUp(options.setup);
    this.frame = requestAnimationFrame((now) => this.tick(now));
  }

  get setup(): OverlaySetup {
    const held = [...this.held].map((name) => [name, this.performer.value(name)] as const);
    return { held: Object.fromEntries(held), asked: this.ladder.asked, isFolded: this.isFolded };
  }

  /** What an edit has taken away, or made something else of, is let go. */
  private setUp({ held = {}, asked, isFolded = false }: Partial<OverlaySetup> = {}): void {
    const { signalNames } = this.performer.controller;
    for (const [name, value] of Object.entries(held))
      if (signalNames.includes(name) && typeof this.performer.value(name) === typeof value)
        try {
          this.hold(name, value);
        } catch {
          // An option that is gone.
          this.letGo(name);
        }
    this.ladder.ask(asked);
    this.fold(isFolded);
  }

  private get isFolded(): boolean {
    return this.panel.classList.contains('folded');
  }

  private fold(isFolded: boolean): void {
    this.panel.classList.toggle('folded', isFolded);
    this.foldButton.setAttribute('aria-expanded', String(!isFolded));
    say(this.foldButton, isFolded ? 'unfold' : 'fold');
  }

  destroy(): void {
    cancelAnimationFrame(this.frame);
    this.recording.stop();
    this.end();
    if (this.options.loop !== undefined) this.options.loop.pace = 1;
    this.host.remove();
  }

  hold(name: string, value: SignalValue): void {
    this.held.add(name);
    this.look(undefined);
    this.isByHand = true;
    this.performer.set(name, value);
    this.isByHand = false;
  }

  letGo(name: string): void {
    this.held.delete(name);
  }

  isHeld(name: string): boolean {
    return this.held.has(name);
  }

  press(name: string): void {
    this.look(undefined);
    this.performer.pulse(name);
  }

  private build(): void {
    const { performer, canvas } = this;
    canvas.style.width = `${stage.width}px`;
    canvas.style.height = `${stage.height}px`;
    canvas.setAttribute('aria-label', `${performer.controller.name} as it stands at the instant looked at`);
    const steps = [
      button('‹', 'one frame back', () => this.look(this.instant - frameTime)),
      button('›', 'one frame on', () => this.onward()),
    ];
    const { panel } = this;
    panel.className = this.options.inline === true ? 'overlay inline' : 'overlay';
    panel.setAttribute('aria-label', `${performer.controller.name}: signals, states and the last seconds`);
    panel.append(
      element(
        'div',
        { className: 'stage' },
        canvas,
        element('div', { className: 'facts' }, this.state, this.facts, this.because),
      ),
      element(
        'div',
        { className: 'row' },
        ...this.paces(),
        ...steps,
        this.live,
        this.copyButton,
        this.foldButton,
      ),
      element('div', {}, this.timeline.part, this.time),
      this.copied,
      element('h2', {}, 'Signals, by hand'),
      this.signals.part,
      this.signals.presses,
      element('h2', {}, 'States by rank: click one to ask why'),
      this.ladder.answer,
      this.ladder.part,
    );
    panel.addEventListener('keydown', (event) => {
      if (event.key === 'Escape') this.close();
      if (isOwn(event)) event.stopPropagation();
    });
    panel.addEventListener('keyup', (event) => {
      if (isOwn(event)) event.stopPropagation();
    });
    const root = this.host.attachShadow({ mode: 'open' });
    // Made by a program and not written into the page: a strict content policy allows it.
    const sheet = new CSSStyleSheet();
    sheet.replaceSync(style);
    root.adoptedStyleSheets = [sheet];
    root.append(panel);
  }

  /** The buttons of how fast time goes. */
  private paces(): HTMLButtonElement[] {
    const { loop } = this.options;
    if (loop === undefined) return [];
    const buttons = paces.map(({ pace, label, title }) => {
      const one = button(label, title, () => {
        loop.pace = pace;
        if (pace !== 0) this.look(undefined);
        for (const [i, other] of buttons.entries())
          other.setAttribute('aria-pressed', String(paces[i]!.pace === loop.pace));
      });
      one.setAttribute('aria-pressed', String(loop.pace === pace));
      return one;
    });
    return buttons;
  }

  get instant(): number {
    return this.cursor ?? this.performer.time;
  }

  /** @param time of the performer; `undefined` to follow the game */
  private look(time: number | undefined): void {
    // Whoever moves it sees it at the next picture.
    this.drawn = 0;
    this.cursor =
      time === undefined ? undefined : Math.min(Math.max(time, this.recording.begins), this.performer.time);
  }

  /** One frame on: of what is recorded, and at its end of the game. */
  private onward(): void {
    const { loop } = this.options;
    if (this.cursor !== undefined && this.cursor + frameTime < this.performer.time)
      this.look(this.cursor + frameTime);
    else {
      this.look(undefined);
      loop?.stepOnce();
    }
  }

  private tick(now: number): void {
    this.frame = requestAnimationFrame((next) => this.tick(next));
    if (now - this.drawn < every) return;
    this.drawn = now;
    this.show();
  }

  private show(): void {
    const { recording, performer, time } = this;
    // What lies too far back is forgotten under the eyes of whoever looks at it.
    if (this.cursor !== undefined && this.cursor < recording.begins) this.look(recording.begins);
    time.min = String(recording.begins);
    time.max = String(Math.max(performer.time, recording.begins + this.reach));
    if (this.cursor === undefined) time.value = String(performer.time);
    this.live.setAttribute('aria-pressed', String(this.cursor === undefined));
    this.timeline.draw(this.instant);
    const then = this.cursor === undefined ? performer : recording.at(this.cursor);
    const { tracks } = then.controller;
    const whys = tracks.map(({ name }) => then.why(name));
    const shown = tracks.map(({ name }) => then.showing(name)).filter(({ inStep }) => inStep === undefined);
    say(this.state, shown.map(({ state }) => state).join(' + '));
    const frames = shown.map(({ clip, frameIndex }) => `${clip}, frame ${frameIndex}`).join('; ');
    say(this.facts, `${frames}, facing ${then.facing}, ${(then.time / 1000).toFixed(2)} s`);
    say(this.because, lastSwitchText(whys.find((why) => takerOf(why) === undefined) ?? whys[0]!));
    this.drawStage(then);
    this.signals.show(then);
    this.ladder.show(whys);
  }

  private drawStage(then: Performer): void {
    const context = this.canvas.getContext('2d')!;
    context.setTransform(stage.scale, 0, 0, stage.scale, 0, 0);
    context.imageSmoothingEnabled = false;
    context.clearRect(0, 0, stage.width, stage.height);
    context.fillStyle = colours.line;
    context.fillRect(0, stage.height - 12, stage.width, 1);
    const { cell } = then.pose;
    const scale = Math.max(1, Math.floor((stage.height - 12) / cell.frameHeight));
    context.setTransform(stage.scale * scale, 0, 0, stage.scale * scale, 0, 0);
    drawPose(context, this.options.images, then.pose, stage.width / 2 / scale, (stage.height - 12) / scale);
  }

  /** Closes what was opened: the answer to why, and the text that can be copied. */
  private close(): void {
    this.copied.hidden = true;
    this.ladder.close();
  }

  /** What happened, with numbers as short as they can be. */
  private shortest(): RehearsalScript {
    const exact = this.recording.rehearsal();
    try {
      return shortened(this.performer.controller, exact);
    } catch {
      // States that lead to one another without taking time end every run.
      return exact;
    }
  }

  /** Shows what happened as a rehearsal, and puts it where it can be pasted from. */
  private async copy(): Promise<void> {
    const { name } = this.performer.controller;
    const file = { dotHopRehearsal: 1, document: this.options.document ?? `${name}.dothop.yaml` };
    const text = JSON.stringify({ ...file, ...this.shortest() }, null, 1);
    this.copied.value = text;
    this.copied.hidden = false;
    this.copied.select();
    // Where the browser does not allow it, the text is there to be copied by hand.
    const isCopied = await navigator.clipboard.writeText(text).then(
      () => true,
      () => false,
    );
    say(this.copyButton, isCopied ? 'copied' : 'copy it below');
    setTimeout(() => say(this.copyButton, 'copy'), toldFor);
  }
}

/** Whether a key is for the control that has the focus, and not for the game: what slides, is typed into or chosen takes all, a button what presses it. */
function isOwn({ target, key }: KeyboardEvent): boolean {
  if (target instanceof HTMLButtonElement) return key === ' ' || key === 'Enter';
  return (
    target instanceof HTMLInputElement ||
    target instanceof HTMLSelectElement ||
    target instanceof HTMLTextAreaElement
  );
}

function button(label: string, title: string, act: () => void): HTMLButtonElement {
  const made = element('button', { type: 'button', title }, label);
  made.addEventListener('click', act);
  return made;
}
