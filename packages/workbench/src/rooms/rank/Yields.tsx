import type { YieldDefinition } from 'dot-hop';
import { setState } from 'dot-hop/edit';
import { statesIn } from 'dot-hop/explain';
import type { StatedState } from 'dot-hop/explain';
import { Plus, Trash2 } from 'lucide-react';
import { act, useWorkbench } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { Here } from '../../parts/Here.js';
import { Choice, IconButton } from '../../parts/ui.js';
import { spansOf } from './instants.js';
import { stateNamed } from './states.js';

/** To whom a state gives way before it has ended: to which states, during which span, and on what condition. */
export function Yields({ state }: { readonly state: StatedState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  const others = statesIn(definition)
    .filter((one) => one.track === state.track && one.name !== name)
    .map((one) => one.name);
  const spans = spansOf(definition, said);
  // What is on screen may be a picture behind: a field is changed in what is said now.
  const put = (
    change: (now: readonly YieldDefinition[]) => readonly YieldDefinition[],
    joins?: string,
  ): void => {
    const { definition: whole } = useWorkbench.getState();
    const next = change(stateNamed(whole, name)?.definition.yields ?? []);
    act(setState(whole, name, 'yields', next.length === 0 ? undefined : next), joins);
  };
  const set = (at: number, fields: Partial<YieldDefinition>): void =>
    put((now) => now.map((one, i) => (i === at ? { ...one, ...fields } : one)), `yield ${at} of ${name}`);
  return (
    <div className="hops" role="group" aria-label={`to whom ${name} gives way`}>
      <div className="row">
        <b>gives way</b>
        {said.yields === undefined ? (
          <span className="hint">to nobody below it, before it has ended</span>
        ) : null}
        <IconButton label="give way to somebody" onPress={() => put((now) => [...now, {}])}>
          <Plus size={14} />
        </IconButton>
      </div>
      {(said.yields ?? []).map((one, i) => (
        <div key={i} className="hop">
          <div className="fieldset">
            <Choice
              label="to"
              value={one.to === undefined ? '' : one.to.length === 1 ? one.to[0]! : one.to.join(', ')}
              options={{
                '': 'whoever wants to show',
                ...(one.to !== undefined && one.to.length > 1
                  ? { [one.to.join(', ')]: one.to.join(', ') }
                  : {}),
                ...Object.fromEntries(others.map((other) => [other, other])),
              }}
              onChange={(to) => set(i, { to: to === '' ? undefined : to.split(', ') })}
            />
            {spans.length === 0 ? null : (
              <Choice
                label="during"
                value={one.during ?? ''}
                options={{
                  '': 'any time',
                  ...Object.fromEntries(spans.map((span) => [span, span])),
                }}
                onChange={(during) => set(i, { during: during === '' ? undefined : during })}
              />
            )}
            <IconButton label="take this away" onPress={() => put((now) => now.toSpliced(i, 1))}>
              <Trash2 size={14} />
            </IconButton>
          </div>
          <Condition label="if" value={one.if} hint="always" onChange={(value) => set(i, { if: value })} />
          <Here path={[...path, 'yields', i]} />
        </div>
      ))}
    </div>
  );
}
