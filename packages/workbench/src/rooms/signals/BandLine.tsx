import type { DerivedDefinition, Performer } from 'dot-hop';
import { useRef, useState } from 'react';
import { NumberBox } from '../../parts/ui.js';
import { useStage, whysOf } from '../../stage/live.js';

type Band = Extract<DerivedDefinition, { above: number }>;

/** The two ends of a band. */
const ends = [
  ['below', 'off below'],
  ['above', 'on above'],
] as const;

/** A band as a number line: two handles, between which it stays as it was, and where the number is just now. */
export function BandLine({
  name,
  band,
  onChange,
}: {
  readonly name: string;
  readonly band: Band;
  readonly onChange: (band: Band) => void;
}) {
  const line = useRef<HTMLDivElement>(null);
  const now = useRef<HTMLElement>(null);
  const [held, setHeld] = useState<'above' | 'below' | undefined>();
  const { above, below } = band;
  // The line reaches past both; while one is dragged it stays as it was.
  const span = useRef<readonly [number, number]>([0, 1]);
  if (held === undefined) {
    const wide = Math.max(1, Math.abs(above), Math.abs(below)) * 1.7;
    span.current = [Math.min(0, above, below) < 0 ? -wide : 0, Math.max(0, above, below) > 0 ? wide : 0];
  }
  const [from, to] = span.current;
  const placeOf = (value: number): number => ((value - from) / (to - from)) * 100;
  const put = (which: 'above' | 'below', value: number): void => {
    const step = to - from > 20 ? 1 : 0.1;
    const rounded = Number((Math.round(value / step) * step).toFixed(3));
    // One that is pushed past the other takes it along.
    if (which === 'above') onChange({ ...band, above: rounded, below: Math.min(below, rounded) });
    else onChange({ ...band, below: rounded, above: Math.max(above, rounded) });
  };
  useStage((performer) => {
    const mark = now.current;
    if (mark === null) return;
    const value = performer === undefined ? undefined : bandValue(performer, name);
    mark.hidden = value === undefined;
    if (value !== undefined) mark.style.left = `${Math.min(100, Math.max(0, placeOf(value)))}%`;
  });
  return (
    <>
      <div className="band" ref={line} data-testid="band">
        <i className="off" style={{ left: 0, width: `${placeOf(below)}%` }} />
        <i
          className="stays"
          style={{ left: `${placeOf(below)}%`, width: `${placeOf(above) - placeOf(below)}%` }}
        />
        <i className="on" style={{ left: `${placeOf(above)}%`, right: 0 }} />
        <i className="now" ref={now} hidden />
        {ends.map(([which, label]) => (
          <button
            key={which}
            type="button"
            role="slider"
            className={which}
            style={{ left: `${placeOf(band[which])}%` }}
            aria-label={label}
            aria-valuenow={band[which]}
            aria-valuemin={from}
            aria-valuemax={to}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              setHeld(which);
            }}
            onPointerMove={(event) => {
              if (held !== which) return;
              const box = line.current!.getBoundingClientRect();
              put(which, from + ((event.clientX - box.left) / box.width) * (to - from));
            }}
            onPointerUp={() => setHeld(undefined)}
            onKeyDown={(event) => {
              const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
              if (by === undefined) return;
              event.preventDefault();
              put(which, band[which] + by * (to - from > 20 ? 1 : 0.1));
            }}
          >
            {band[which]}
          </button>
        ))}
      </div>
      <div className="fieldset">
        {ends.map(([which, label]) => (
          <NumberBox
            key={which}
            label={label}
            least={-999_999}
            most={999_999}
            step={0.01}
            value={band[which]}
            onChange={(value) => put(which, value)}
          />
        ))}
        <p className="hint">Between the two it stays as it was, so that nothing flickers at the border.</p>
      </div>
    </>
  );
}

/** The number of a band as it was read last: that of a term of any condition that asks for it. */
function bandValue(performer: Performer, name: string): number | undefined {
  const terms = whysOf(performer).flatMap(({ states }) =>
    states.flatMap(({ while: during, when }) => [during, when].flatMap((one) => one?.terms ?? [])),
  );
  const read = terms.find(({ text }) => text === name)?.reads.find(({ value }) => typeof value === 'number');
  return read === undefined ? undefined : Number(read.value);
}
