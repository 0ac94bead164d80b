import type { Controller } from '../controller/controller.js';
import type { SignalValue } from '../signal/definition.js';
import { Body } from './body.js';
import { buttonNames, isButton, quantityNames } from './buttons.js';
import type { ButtonName, QuantityName } from './buttons.js';
import type { BodyDefinition } from './definition.js';

/** A signal that the body feeds. */
interface Feed {
  readonly signal: string;
  readonly from: QuantityName | ButtonName;
  readonly isPulse: boolean;
}

/** The kinds of signals that each quantity and button can feed. */
export function kindsFedBy(from: QuantityName | ButtonName): readonly string[] {
  if (isButton(from)) return ['flag', 'pulse'];
  if (from === 'grounded' || from === 'blocked' || from === 'wet') return ['flag'];
  return from === 'velocity' || from === 'push' ? ['vector'] : ['number'];
}

/** The part of the definition that every kind of body has. */
export const movingOf = (
  definition: BodyDefinition,
): Extract<BodyDefinition, { walker: unknown }>['walker'] =>
  'platformer' in definition ? definition.platformer : definition.walker;

/** A body with the signals that it feeds: those in `feeds`, and those with the name of a quantity. */
export class FeedingBody extends Body {
  /** In the order of the document's signals. Empty if the body feeds none of them. */
  readonly feeds: readonly Feed[];
  private readonly up: 1 | -1;
  private readonly fed = new Map<string, string>();

  constructor(controller: Controller, definition: BodyDefinition) {
    super(definition);
    this.up = controller.compass.isUpward ? -1 : 1;
    const { feeds = {} } = movingOf(definition);
    const named = Object.values(feeds);
    this.feeds = [...controller.tables.signals.values()].flatMap(({ name, kind }): Feed[] => {
      const from =
        feeds[name] ?? [...quantityNames, ...buttonNames].find((one) => one === name && !named.includes(one));
      return from !== undefined && kindsFedBy(from).includes(kind)
        ? [{ signal: name, from, isPulse: kind === 'pulse' }]
        : [];
    });
  }

  /** The signals that have changed since the last call, with their values. At the first call: all of them. */
  changes(): [string, SignalValue][] {
    const found: [string, SignalValue][] = [];
    for (const { signal, from, isPulse } of this.feeds) {
      if (isPulse) continue;
      const value = this.tell(from, this.up);
      if (this.fed.get(signal) === String(value)) continue;
      this.fed.set(signal, String(value));
      found.push([signal, value]);
    }
    return found;
  }

  /** Counts all signals as changed, because the performer has begun again. */
  forget(): void {
    this.fed.clear();
  }

  /** The pulses that happen when a button is pressed. */
  pulsesOf(button: ButtonName): string[] {
    return this.feeds.flatMap(({ signal, from, isPulse }) => (isPulse && from === button ? [signal] : []));
  }
}
