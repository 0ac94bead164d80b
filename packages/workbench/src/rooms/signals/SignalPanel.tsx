import type { SignalDefinition } from 'dot-hop';
import { setSignal } from 'dot-hop/edit';
import { useMemo } from 'react';
import { targetsOf, useControls } from '../../character/controls.js';
import { act, useWorkbench } from '../../character/store.js';
import { ControlRow } from '../../parts/ControlRow.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { TextBox } from '../../parts/TextBox.js';
import { Check, Choice, NumberBox, namesWritten, optionsOf } from '../../parts/ui.js';
import { bodyOf } from '../../stage/body.js';
import { Curve } from './Curve.js';
import { kindOf } from './kinds.js';
import { Name } from './Name.js';
import { Readers } from './Readers.js';

/** A signal that the game sets: what it begins with, and what it can be. */
export function SignalPanel({ name, signal }: { readonly name: string; readonly signal: SignalDefinition }) {
  const definition = useWorkbench((state) => state.definition);
  const put = (now: SignalDefinition): void => act(setSignal(definition, name, now), `signal ${name}`);
  return (
    <>
      <div className="fieldset">
        <Name name={name} />
        <p className="told">{kindOf(signal)}, set by the game</p>
        {'flag' in signal ? (
          <Check label="on at first" isOn={signal.flag} onChange={(flag) => put({ ...signal, flag })} />
        ) : null}
        {'number' in signal ? <NumberFields signal={signal} put={put} /> : null}
        {'choice' in signal ? (
          <>
            <TextBox
              label="options"
              className="number wide"
              value={signal.choice.join(', ')}
              onChange={(text) => {
                const choice = namesWritten(text);
                put({
                  ...signal,
                  choice,
                  ...(signal.first === undefined || choice.includes(signal.first)
                    ? {}
                    : { first: undefined }),
                });
              }}
            />
            <Choice
              label="at first"
              value={signal.first ?? signal.choice[0] ?? ''}
              options={optionsOf(signal.choice)}
              onChange={(first) => put({ ...signal, first })}
            />
          </>
        ) : null}
        {'vector' in signal
          ? [0, 1].map((i) => (
              <NumberBox
                key={i}
                label={i === 0 ? 'to the right, at first' : 'downwards, at first'}
                least={-99_999}
                most={99_999}
                step={0.01}
                value={signal.vector[i]}
                onChange={(value) =>
                  put({ vector: i === 0 ? [value, signal.vector[1]] : [signal.vector[0], value] })
                }
              />
            ))
          : null}
        {'pulse' in signal ? (
          <NumberBox
            label="is remembered for"
            unit="ms"
            most={3_600_000}
            value={signal.pulse === true ? 0 : (signal.pulse.keep ?? 0)}
            onChange={(keep) => put({ pulse: keep === 0 ? true : { keep } })}
          />
        ) : null}
      </div>
      {'pulse' in signal ? (
        <p className="hint">
          A press counts until a state uses it, for so long at most: who presses a little early is not let
          down.
        </p>
      ) : null}
      {'pulse' in signal || 'flag' in signal ? <Leads name={name} /> : null}
      <ProblemsAt path={['signals', name]} />
      {'number' in signal || 'flag' in signal || 'pulse' in signal ? <Curve name={name} /> : null}
      <Readers name={name} />
    </>
  );
}

/** Which key and button of a gamepad lead a signal while the character is tried. */
function Leads({ name }: { readonly name: string }) {
  const controller = useWorkbench((state) => state.controller);
  const known = useControls();
  const targets = useMemo(
    () => (controller === undefined ? [] : targetsOf(controller, bodyOf(controller))),
    [controller],
  );
  const target = targets.find((one) => one.name === name);
  if (target === undefined) return null;
  return <ControlRow target={target} targets={targets} known={known} />;
}

function NumberFields({
  signal,
  put,
}: {
  readonly signal: Extract<SignalDefinition, { number: number }>;
  readonly put: (signal: SignalDefinition) => void;
}) {
  const far = { least: -999_999, most: 999_999, step: 0.01 };
  return (
    <>
      <NumberBox
        label="at first"
        {...far}
        value={signal.number}
        onChange={(number) => put({ ...signal, number })}
      />
      <NumberBox label="from" {...far} value={signal.from} onChange={(from) => put({ ...signal, from })} />
      <NumberBox label="to" {...far} value={signal.to} onChange={(to) => put({ ...signal, to })} />
      <TextBox
        label="unit"
        value={signal.unit ?? ''}
        placeholder="px/s"
        onChange={(unit) => put({ ...signal, unit: unit === '' ? undefined : unit })}
      />
      <Check
        label="whole numbers only"
        isOn={signal.whole ?? false}
        onChange={(whole) => put({ ...signal, whole: whole ? true : undefined })}
      />
    </>
  );
}
