import type { YieldDefinition } from 'dot-hop';
import { setState } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { act, useWorkbench } from '../../character/store.js';
import { Choice } from '../../parts/ui.js';
import { spansOf } from './instants.js';
import { othersOf } from './states.js';
import { Entry, EntryList } from './EntryList.js';

/** To whom a state gives way before it has ended: to which states, during which span, and on what condition. */
export function Yields({ state }: { readonly state: DocumentState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  const others = othersOf(definition, state);
  const spans = spansOf(definition, said);
  // What is on screen may be a picture behind: a field is changed in what is said now.
  const put = (
    change: (now: readonly YieldDefinition[]) => readonly YieldDefinition[],
    joins?: string,
  ): void => {
    const { definition: whole } = useWorkbench.getState();
    const next = change(stateIn(whole, name)?.definition.yields ?? []);
    act(setState(whole, name, 'yields', next.length === 0 ? undefined : next), joins);
  };
  const set = (at: number, fields: Partial<YieldDefinition>): void =>
    put((now) => now.map((one, i) => (i === at ? { ...one, ...fields } : one)), `yield ${at} of ${name}`);
  return (
    <EntryList
      title="gives way"
      term="gives way"
      label={`to whom ${name} gives way`}
      hint="to nobody below it, before it has ended"
      adds="give way to somebody"
      onAdd={() => put((now) => [...now, {}])}
    >
      {(said.yields ?? []).map(({ to = [], during = '', if: condition }, i) => (
        <Entry
          key={i}
          path={[...path, 'yields', i]}
          condition={condition}
          takesAway="delete this"
          onCondition={(value) => set(i, { if: value })}
          onTakeAway={() => put((now) => now.toSpliced(i, 1))}
        >
          <Choice
            label="to"
            value={to.join(', ')}
            options={{
              [to.join(', ')]: to.join(', '),
              ...Object.fromEntries(others.map((other) => [other, other])),
              '': 'whoever wants to show',
            }}
            onChange={(names) => set(i, { to: names === '' ? undefined : names.split(', ') })}
          />
          {spans.length === 0 ? null : (
            <Choice
              label="during"
              value={during}
              options={{ '': 'any time', ...Object.fromEntries(spans.map((span) => [span, span])) }}
              onChange={(span) => set(i, { during: span === '' ? undefined : span })}
            />
          )}
        </Entry>
      ))}
    </EntryList>
  );
}
