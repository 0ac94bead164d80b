import { Performer } from 'dot-hop';
import type { Controller, SignalValue, Why } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { SignalFacts } from 'dot-hop/explain';
import { useMemo, useState } from 'react';
import { goTo, select, useWorkbench } from '../../character/store.js';
import { StatePicture } from '../../parts/StatePicture.js';
import { Check, Choice, NumberBox, optionsOf } from '../../parts/ui.js';

type Values = Readonly<Record<string, SignalValue>>;

/** What a signal is in a situation; of a pulse, whether it happens. */
const first = ({ kind, first: value }: SignalFacts): SignalValue => (kind === 'pulse' ? false : value);

/** A situation put together by hand: values on the left, and on the right who wants to show and who does. */
export function WhatIf() {
  const controller = useWorkbench((state) => state.controller);
  const [set, setSet] = useState<Values>({});
  const signals = useMemo(
    () => (controller === undefined ? [] : describeController(controller).signals),
    [controller],
  );
  const whys = useMemo(
    () => (controller === undefined ? [] : situation(controller, signals, set)),
    [controller, signals, set],
  );
  if (controller === undefined) return null;
  const put = (name: string, value: SignalValue): void => setSet({ ...set, [name]: value });
  return (
    <div className="what-if">
      <div className="panel" role="group" aria-label="the situation">
        <h2>the situation</h2>
        {signals.map((signal) => (
          <Field
            key={signal.name}
            signal={signal}
            value={set[signal.name] ?? first(signal)}
            onChange={(value) => put(signal.name, value)}
          />
        ))}
        <p className="hint">
          The character rested before, with everything as it is at first. Then all of this came at once.
        </p>
      </div>
      <div className="middle">
        {whys.map((why, track) => (
          <section key={track} aria-label={`who shows in ${controller.tracks[track]!.name}`}>
            {whys.length > 1 ? <h3>{controller.tracks[track]!.name}</h3> : null}
            <ul className="lit-rungs">
              {why.states
                .filter(({ takenBy }) => takenBy === undefined)
                .map(({ name, rank, wantsIn, keptOut }) => (
                  <li key={name} className={keptOut === 'shows' ? 'shows' : wantsIn ? 'wants' : ''}>
                    <button
                      type="button"
                      className="small"
                      onClick={() => {
                        goTo('rank');
                        select({ state: name });
                      }}
                    >
                      <small>{rank}</small> <StatePicture name={name} size={28} /> {name}
                    </button>{' '}
                    <span>{keptOut === 'shows' ? 'shows' : wantsIn ? 'wants to show' : ''}</span>
                  </li>
                ))}
            </ul>
          </section>
        ))}
      </div>
    </div>
  );
}

/** How each track decides when a situation comes at once, after a while at rest. */
function situation(controller: Controller, signals: readonly SignalFacts[], set: Values): readonly Why[] {
  const performer = new Performer(controller);
  // Long enough for what lingers to have fallen.
  performer.step(1000);
  for (const { name, kind } of signals) {
    const value = set[name];
    if (value === undefined) continue;
    if (kind !== 'pulse') performer.set(name, value);
    else if (value === true) performer.pulse(name);
  }
  performer.step(0);
  return controller.tracks.map(({ name }) => performer.why(name));
}

function Field({
  signal: { name, kind, options },
  value,
  onChange,
}: {
  readonly signal: SignalFacts;
  readonly value: SignalValue;
  readonly onChange: (value: SignalValue) => void;
}) {
  const far = { least: -99_999, most: 99_999, step: 0.01 };
  if (kind === 'flag' || kind === 'pulse')
    return (
      <Check
        label={kind === 'pulse' ? `${name} is pressed` : name}
        isOn={value === true}
        onChange={onChange}
      />
    );
  if (kind === 'choice')
    return <Choice label={name} value={String(value)} options={optionsOf(options)} onChange={onChange} />;
  if (kind === 'number') return <NumberBox label={name} {...far} value={Number(value)} onChange={onChange} />;
  const [x, y] = value as readonly [number, number];
  return (
    <div className="pair">
      <NumberBox label={`${name}.x`} {...far} value={x} onChange={(one) => onChange([one, y])} />
      <NumberBox label={`${name}.y`} {...far} value={y} onChange={(one) => onChange([x, one])} />
    </div>
  );
}
