import type { Performer } from 'dot-hop';

/** The signals as the game sets them, and what is derived from them. */
export function Signals({ performer }: { readonly performer: Performer }) {
  const { signals, derived } = performer.controller.tables;
  return (
    <section className="signals">
      <h2>Signals</h2>
      <ul>
        {[...signals.values()].map(({ name, kind }) => (
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
        {[...derived.keys()].map((name) => {
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

interface SignalProps {
  readonly name: string;
  readonly kind: 'number' | 'flag' | 'pulse';
  readonly value: number | boolean;
  readonly press?: () => void;
}

function Signal({ name, kind, value, press }: SignalProps) {
  const on = value === true;
  return (
    <li className={on ? 'on' : ''} data-testid={`signal-${name}`}>
      <span>{name}</span>
      {kind === 'number' ? <output>{Math.round(Number(value))}</output> : null}
      {kind === 'flag' ? <output>{on ? 'on' : 'off'}</output> : null}
      {kind === 'pulse' ? (
        <button type="button" onClick={press} title={`press ${name} by hand`}>
          press
        </button>
      ) : null}
    </li>
  );
}
