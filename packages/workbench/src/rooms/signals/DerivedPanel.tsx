import type { DerivedDefinition } from 'dot-hop';
import { setSignal } from 'dot-hop/edit';
import { act, useWorkbench } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { ExpressionValues } from '../../parts/ExpressionValues.js';
import { TextBox } from '../../parts/TextBox.js';
import { NumberBox } from '../../parts/ui.js';
import { BandLine } from './BandLine.js';
import { Curve } from './Curve.js';
import { derivedKind, derivedTitles } from './kinds.js';
import { Name } from './Name.js';
import { Readers } from './Readers.js';

/** A signal that follows from others. */
export function DerivedPanel({
  name,
  derived,
}: {
  readonly name: string;
  readonly derived: DerivedDefinition;
}) {
  const definition = useWorkbench((state) => state.definition);
  const put = (now: DerivedDefinition): void => act(setSignal(definition, name, now), `signal ${name}`);
  const lasting = (field: 'linger' | 'settle', value: number | string, of: string): void =>
    put(field === 'linger' ? { of, linger: value } : { of, settle: value });
  return (
    <>
      <div className="fieldset">
        <Name name={name} />
        <p className="told">{derivedTitles[derivedKind(derived)]}, follows from others</p>
      </div>
      {typeof derived === 'string' ? (
        <Condition
          label="is"
          value={derived}
          hint="an expression"
          onChange={(text) => put(text ?? 'false')}
        />
      ) : 'above' in derived ? (
        <>
          <TextBox
            className="typed"
            label="number"
            value={derived.of}
            placeholder="such as abs(vx)"
            onChange={(of) => put({ ...derived, of })}
          />
          <BandLine name={name} band={derived} onChange={put} />
        </>
      ) : (
        <>
          <Condition
            label="of"
            value={derived.of}
            hint="a condition"
            onChange={(of) =>
              'linger' in derived
                ? lasting('linger', derived.linger, of ?? 'false')
                : lasting('settle', derived.settle, of ?? 'false')
            }
          />
          <div className="fieldset">
            {(['linger', 'settle'] as const).map((field) => {
              const value = (derived as Readonly<Record<string, number | string>>)[field];
              return value === undefined ? null : typeof value === 'string' ? (
                <TextBox
                  key={field}
                  label={field === 'linger' ? 'stays on for' : 'comes on after'}
                  value={value}
                  onChange={(text) => lasting(field, text, derived.of)}
                />
              ) : (
                <NumberBox
                  key={field}
                  label={field === 'linger' ? 'stays on for' : 'comes on after'}
                  unit="ms"
                  most={3_600_000}
                  value={value}
                  onChange={(ms) => lasting(field, ms, derived.of)}
                />
              );
            })}
          </div>
        </>
      )}
      <ExpressionValues expression={typeof derived === 'string' ? derived : derived.of} />
      <ProblemsAt path={['derived', name]} />
      <Curve name={name} />
      <Readers name={name} />
    </>
  );
}
