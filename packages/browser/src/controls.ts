import type { Player } from 'dot-hop/play';

/**
 * What sets one signal. A key is named by its place on the keyboard (`KeyboardEvent.code`), a button or axis of a gamepad by the standard
 * mapping, and a region by the name that the game gives it.
 */
export interface Binding {
  readonly keys?: readonly string[];
  /** Buttons of the standard gamepad, by number. (W3C Gamepad) */
  readonly buttons?: readonly number[];
  /** Regions of the screen that are touched or clicked. */
  readonly regions?: readonly string[];
  /** An axis of the gamepad, for a number. */
  readonly axis?: number;
}

/** The two ways of a number. If both are held, the one that was pressed last counts. */
export interface PairBinding {
  readonly less: Binding;
  readonly more: Binding;
  /** The value of the number when a key or button is held; default 1. */
  readonly full?: number;
}

/**
 * What sets which signal, as plain data that you can save, show and change. A pulse happens at the press. A flag is true while any of its
 * keys, buttons or regions is held. A number is `-full`, 0 or `full`, or the value of an axis.
 */
export type Bindings = Readonly<Record<string, Binding | PairBinding>>;

/** A rectangle of the screen that acts as a button, in parts of the width and height from 0 to 1. */
export interface Region {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** How far a stick must be pushed to count, of 1: sticks at rest are seldom quite at 0. */
const restZone = 0.2;

const isPair = (binding: Binding | PairBinding): binding is PairBinding => 'less' in binding;
const inputsOf = ({ keys = [], buttons = [], regions = [] }: Binding): string[] => [
  ...keys,
  ...buttons.map((button) => `button ${button}`),
  ...regions.map((region) => `region ${region}`),
];

/**
 * Turns keys, gamepad and touch into signals. Several of them can set one signal. When the window loses the focus, everything that is held
 * is released, because the page is not told of releases then.
 */
export class Controls {
  /** What is held now, in the order in which it was pressed. */
  private held: string[] = [];
  private pressed: string[] = [];
  private readonly touches = new Map<number, string>();
  private readonly stop = new AbortController();
  private regions: readonly Region[] = [];
  private bindings: Bindings;

  /** @param target listened to for keys and the loss of the focus; `window` by default */
  constructor(bindings: Bindings, target: EventTarget = window) {
    this.bindings = bindings;
    const { signal } = this.stop;
    target.addEventListener('keydown', (event) => this.keyDown(event as KeyboardEvent), { signal });
    target.addEventListener('keyup', (event) => this.release((event as KeyboardEvent).code), { signal });
    target.addEventListener('blur', () => this.letAllGo(), { signal });
    document.addEventListener('visibilitychange', () => document.hidden && this.letAllGo(), { signal });
  }

  /** Makes regions of an element act as buttons, for a mouse and for several fingers. The page does not scroll there. */
  touchOn(surface: HTMLElement, regions: readonly Region[]): void {
    this.regions = regions;
    const { signal } = this.stop;
    surface.style.touchAction = 'none';
    surface.addEventListener('pointerdown', (event) => this.touch(event, surface), { signal });
    const slide = (event: PointerEvent): void => {
      if (this.touches.has(event.pointerId)) this.touch(event, surface);
    };
    surface.addEventListener('pointermove', slide, { signal });
    for (const kind of ['pointerup', 'pointercancel', 'lostpointercapture'] as const)
      surface.addEventListener(kind, (event) => this.untouch(event.pointerId), { signal });
  }

  /** The present bindings, as plain data. */
  get bound(): Bindings {
    return this.bindings;
  }

  /** Changes the bindings. Whatever is held for a signal with a new binding is released. */
  bind(bindings: Bindings): void {
    this.bindings = bindings;
    this.pressed = [];
  }

  /** Whether anything that sets the signal is held. */
  isHeld(name: string): boolean {
    this.readPad();
    const binding = this.bindings[name];
    return binding !== undefined && !isPair(binding) && this.latest(binding) >= 0;
  }

  /** What a number's binding says now. */
  numberOf(name: string): number {
    this.readPad();
    const binding = this.bindings[name];
    if (binding === undefined) return 0;
    if (!isPair(binding)) return axisOf(binding.axis) || (this.latest(binding) < 0 ? 0 : 1);
    const [less, more] = [this.latest(binding.less), this.latest(binding.more)];
    const { full = 1 } = binding;
    if (less < 0 && more < 0) return full * (axisOf(binding.more.axis) || axisOf(binding.less.axis));
    return more > less ? full : -full;
  }

  /**
   * Sets the signals of a player or performer. Call it once before each step.
   *
   * @param only the signals to set; default: all bound signals that the performer has
   */
  feed(performer: Player, only?: ReadonlySet<string>): void {
    this.readPad();
    const { controller } = performer;
    for (const [name, binding] of Object.entries(this.bindings)) {
      if (!controller.signalNames.includes(name) || (only !== undefined && !only.has(name))) continue;
      const signal = controller.signal(name);
      if (signal.kind === 'pulse') {
        if (!isPair(binding) && inputsOf(binding).some((input) => this.pressed.includes(input)))
          performer.pulse(name);
      } else if (signal.kind === 'flag') performer.set(signal, this.isHeld(name));
      else if (signal.kind === 'number') performer.set(signal, this.numberOf(name));
    }
    this.pressed = [];
  }

  /** Stops listening. */
  destroy(): void {
    this.stop.abort();
    this.letAllGo();
  }

  /** When what is held of a binding was pressed, as its place among all that is held; -1 for nothing. */
  private latest(binding: Binding): number {
    return Math.max(-1, ...inputsOf(binding).map((input) => this.held.lastIndexOf(input)));
  }

  private press(input: string): void {
    if (this.held.includes(input)) return;
    this.held.push(input);
    this.pressed.push(input);
  }

  private release(input: string): void {
    this.held = this.held.filter((one) => one !== input);
  }

  private letAllGo(): void {
    this.held = [];
    this.pressed = [];
    this.touches.clear();
  }

  private keyDown(event: KeyboardEvent): void {
    const isBound = Object.values(this.bindings).some((binding) =>
      (isPair(binding) ? [binding.less, binding.more] : [binding]).some(({ keys }) =>
        keys?.includes(event.code),
      ),
    );
    if (!isBound || event.ctrlKey || event.metaKey || event.altKey || isTaken(event)) return;
    // The page would scroll under the game.
    event.preventDefault();
    if (!event.repeat) this.press(event.code);
  }

  /** A finger that slides from one region into another leaves the first and presses the second. */
  private touch(event: PointerEvent, surface: HTMLElement): void {
    const { left, top, width, height } = surface.getBoundingClientRect();
    const [x, y] = [(event.clientX - left) / width, (event.clientY - top) / height];
    const region = this.regions.find(
      (one) => x >= one.x && x < one.x + one.width && y >= one.y && y < one.y + one.height,
    );
    const input = region === undefined ? '' : `region ${region.name}`;
    if (this.touches.get(event.pointerId) === input) return;
    if (!this.touches.has(event.pointerId)) surface.setPointerCapture(event.pointerId);
    this.untouch(event.pointerId);
    this.touches.set(event.pointerId, input);
    if (input !== '') this.press(input);
  }

  private untouch(pointer: number): void {
    const input = this.touches.get(pointer);
    this.touches.delete(pointer);
    // Another finger may hold the same region.
    if (input !== undefined && ![...this.touches.values()].includes(input)) this.release(input);
  }

  private readPad(): void {
    const pad = padOf();
    const down = new Set(pad?.buttons.flatMap(({ pressed }, i) => (pressed ? [`button ${i}`] : [])) ?? []);
    for (const input of this.held.filter((one) => one.startsWith('button ') && !down.has(one)))
      this.release(input);
    for (const input of down) this.press(input);
  }
}

/** The first gamepad with the standard mapping. */
function padOf(): Gamepad | undefined {
  return (
    navigator.getGamepads().find((one) => one?.connected === true && one.mapping === 'standard') ?? undefined
  );
}

function axisOf(axis: number | undefined): number {
  const value = axis === undefined ? 0 : (padOf()?.axes[axis] ?? 0);
  return Math.abs(value) > restZone ? value : 0;
}

/** Whether a key is meant for what has the focus: a text that is written, a slider, a button that is pressed with it. */
function isTaken({ target, code }: KeyboardEvent): boolean {
  if (!(target instanceof HTMLElement)) return false;
  if (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName)) return true;
  const presses = code === 'Space' || code === 'Enter' || code === 'NumpadEnter';
  return presses && /^(BUTTON|A|SUMMARY)$/.test(target.tagName);
}
