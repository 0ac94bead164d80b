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

/** What kinds of signal each thing that a body tells can feed. */
export function kindsFedBy(from: QuantityName | ButtonName): readonly string[] {
  if (isButton(from)) return ['flag', 'pulse'];
  if (from === 'grounded' || from === 'blocked' || from === 'wet') return ['flag'];
  return from === 'velocity' || from === 'push' ? ['vector'] : ['number'];
}

/** What of the definition is the same for every kind of body. */
export const movingOf = (
  definition: BodyDefinition,
): Extract<BodyDefinition, { walker: unknown }>['walker'] =>
  'platformer' in definition ? definition.platformer : definition.walker;

/** A body with the signals that it feeds: those that `feeds` names, and those that are named as what it tells. */
export class FeedingBody extends Body {
  /** In the order of the document's signals; none where the body has nothing to say to this character. */
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

  /** The signals whose values have changed since it was asked last, with these values; at first all of them. */
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

  /** Has all signals count as changed: whom it feeds has begun anew. */
  forget(): void {
    this.fed.clear();
  }

  /** The pulses that happen when a button is pressed. */
  pulsesOf(button: ButtonName): string[] {
    return this.feeds.flatMap(({ signal, from, isPulse }) => (isPulse && from === button ? [signal] : []));
  }
}
