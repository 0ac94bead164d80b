import type { NumberBounds, Performer, SignalValue } from 'dot-hop';
import { boundsText, describeController, isWithin } from 'dot-hop/explain';
import type { SignalFacts } from 'dot-hop/explain';
import { element, say, short } from './dom.js';

/** Sets signals; while a hand holds one, what the game sets is not heard. */
export interface HeldSignals {
  hold(name: string, value: SignalValue): void;
  letGo(name: string): void;
  isHeld(name: string): boolean;
  press(name: string): void;
}

/** A row for each signal: what it is, and a control to set it by hand. */
export class SignalRows {
  readonly part = element('div', { className: 'signals' });
  /** The buttons of pulses. */
  readonly presses = element('div', { className: 'presses' });
  private readonly rows: ((performer: Performer) => void)[] = [];

  constructor(performer: Performer, hands: HeldSignals) {
    for (const signal of describeController(performer.controller).signals) this.add(signal, hands);
  }

  /** @param performer as it stands, or as it stood at another instant */
  show(performer: Performer): void {
    for (const row of this.rows) row(performer);
  }

  private add(signal: SignalFacts, hands: HeldSignals): void {
    const { name, kind } = signal;
    const label = element('label', { className: 'name', htmlFor: `signal-${name}`, title: name }, name);
    const shown = element('output', { 'data-signal': name });
    const free = element(
      'button',
      { className: 'free', type: 'button', title: `let the game set ${name} again` },
      'free',
    );
    free.addEventListener('click', () => hands.letGo(name));
    const control = this.control(signal, hands, (show) =>
      this.rows.push((performer) => {
        show(performer.value(name));
        free.classList.toggle('held', hands.isHeld(name));
      }),
    );
    if (kind === 'pulse') this.presses.append(control);
    else {
      const { bounds } = signal;
      const unit = bounds?.unit === undefined ? '' : ` ${bounds.unit}`;
      if (bounds !== undefined) label.title = `${name}: ${boundsText(bounds)}`;
      this.rows.push((performer) => {
        const value = performer.value(name);
        const isOutside = typeof value === 'number' && !isWithin(value, bounds);
        shown.classList.toggle('outside', isOutside);
        shown.title = isOutside ? `outside of ${boundsText(bounds!)}` : '';
        say(shown, text(value) + unit);
      });
      this.part.append(label, control, shown, free);
    }
  }

  private control(
    { name, kind, options, bounds }: SignalFacts,
    hands: HeldSignals,
    each: (show: (value: SignalValue) => void) => void,
  ): HTMLElement {
    const id = `signal-${name}`;
    switch (kind) {
      case 'pulse': {
        const button = element('button', { id, type: 'button', title: `press ${name}` }, name);
        button.addEventListener('click', () => hands.press(name));
        return button;
      }
      case 'flag': {
        const box = element('input', { id, type: 'checkbox' });
        box.addEventListener('change', () => hands.hold(name, box.checked));
        each((value) => (box.checked = value === true));
        return box;
      }
      case 'choice': {
        const select = element('select', { id }, ...options.map((one) => element('option', {}, one)));
        select.addEventListener('change', () => hands.hold(name, select.value));
        each((value) => (select.value = String(value)));
        return select;
      }
      case 'number': {
        const slider = sliderOf(id, (value) => hands.hold(name, value), bounds);
        const field = fieldOf(name, (value) => hands.hold(name, value), bounds);
        each((value) => {
          slider.show(value as number);
          field.show(value as number);
        });
        return element('span', { className: 'pair' }, slider.part, field.part);
      }
      case 'vector': {
        const now: [number, number] = [0, 0];
        const sliders = [0, 1].map((i) =>
          sliderOf(i === 0 ? id : `${id}-y`, (value) => {
            now[i] = value;
            hands.hold(name, [now[0], now[1]]);
          }),
        );
        each((value) =>
          sliders.forEach((slider, i) => {
            now[i] = (value as readonly number[])[i]!;
            slider.show(now[i]);
          }),
        );
        return element('span', { className: 'row' }, ...sliders.map(({ part }) => part));
      }
    }
  }
}

/** A slider over the bounds of a number; without any it grows with the values it has met: how far a number goes only the game knows. */
function sliderOf(
  id: string,
  set: (value: number) => void,
  { from, to, whole = false }: NumberBounds = {},
): { part: HTMLInputElement; show: (value: number) => void } {
  const part = element('input', {
    id,
    type: 'range',
    step: whole ? '1' : 'any',
    min: String(from ?? Math.min(-1, (to ?? 0) - 1)),
    max: String(to ?? Math.max(1, (from ?? 0) + 1)),
  });
  let isHeld = false;
  part.addEventListener('input', () => set(Number(part.value)));
  part.addEventListener('pointerdown', () => (isHeld = true));
  part.addEventListener('pointerup', () => (isHeld = false));
  const show = (value: number): void => {
    const far = Math.ceil(Math.abs(value) * 1.25);
    if (far > Math.max(Math.abs(Number(part.max)), Math.abs(Number(part.min)))) {
      if (to === undefined) part.max = String(far);
      if (from === undefined) part.min = String(-far);
    }
    if (!isHeld) part.value = String(value);
  };
  return { part, show };
}

/** A field in which a number is written; Enter, or leaving it, sets it. */
function fieldOf(
  name: string,
  set: (value: number) => void,
  { from, to, whole = false }: NumberBounds = {},
): { part: HTMLInputElement; show: (value: number) => void } {
  const part = element('input', {
    type: 'number',
    step: whole ? '1' : 'any',
    ...(from !== undefined && { min: String(from) }),
    ...(to !== undefined && { max: String(to) }),
    'aria-label': `${name}, as a number`,
  });
  part.addEventListener('change', () => {
    if (Number.isFinite(part.valueAsNumber)) set(part.valueAsNumber);
  });
  let shown = '';
  return {
    part,
    show: (value) => {
      const now = short(value);
      // Nobody's writing is overwritten.
      if (now === shown || part.matches(':focus')) return;
      part.value = shown = now;
    },
  };
}

function text(value: SignalValue): string {
  if (typeof value === 'number') return short(value);
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return typeof value === 'string' ? value : value.map(short).join(', ');
}
