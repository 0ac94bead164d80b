import type { Performer, SignalValue } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { SignalFacts } from 'dot-hop/explain';

/** The signals as the game sets them, and what is derived from them. */
export function Signals({ performer }: { readonly performer: Performer }) {
  const { signals, derived } = describeController(performer.controller);
  return (
    <section className="signals">
      <h2>Signals</h2>
      <ul>
        {signals.map(({ name, kind }) => (
          <Signal
            key={name}
            name={name}
            kind={kind}
            value={performer.value(name)}
            press={() => performer.pulse(name)}
          />
        ))}
      </ul>
      <h2>Derived</h2>
      <ul>
        {derived.map(({ name }) => {
          const value = performer.value(name);
          return (
            <Signal
              key={name}
              name={name}
              kind={typeof value === 'number' ? 'number' : 'flag'}
              value={value}
            />
          );
        })}
      </ul>
    </section>
  );
}

function shown(value: SignalValue): string {
  if (typeof value === 'number') return String(Math.round(value));
  if (typeof value === 'boolean') return value ? 'on' : 'off';
  return typeof value === 'string' ? value : value.map(Math.round).join(', ');
}

interface SignalProps {
  readonly name: string;
  readonly kind: SignalFacts['kind'];
  readonly value: SignalValue;
  readonly press?: () => void;
}

function Signal({ name, kind, value, press }: SignalProps) {
  const on = value === true;
  return (
    <li className={on ? 'on' : ''} data-testid={`signal-${name}`}>
      <span>{name}</span>
      {kind === 'pulse' ? null : <output>{shown(value)}</output>}
      {kind === 'pulse' ? (
        <button type="button" onClick={press} title={`press ${name} by hand`}>
          press
        </button>
      ) : null}
    </li>
  );
}
