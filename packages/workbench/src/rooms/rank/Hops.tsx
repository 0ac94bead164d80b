import type { HopDefinition } from 'dot-hop';
import { setHop } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { act, tell, useWorkbench } from '../../character/store.js';
import { Choice, optionsOf } from '../../parts/ui.js';
import { Instant } from './Instant.js';
import { spansOf } from './instants.js';
import { othersOf } from './states.js';
import { Entry, EntryList } from './EntryList.js';

/** The ways from a state to others: where to, at which instant, and on what condition. */
export function Hops({ state }: { readonly state: DocumentState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  const hops = said.hops ?? [];
  const others = othersOf(definition, state);
  const put = (at: number, hop: HopDefinition | undefined, joins?: string): void =>
    act(setHop(useWorkbench.getState().definition, name, at, hop), joins);
  // What is on screen may be a picture behind: a field is changed in the hop as it is now.
  const hopNow = (at: number): HopDefinition | undefined =>
    stateIn(useWorkbench.getState().definition, name)?.definition.hops?.[at];
  const change = (at: number, fields: Partial<HopDefinition>): void => {
    const now = hopNow(at);
    if (now !== undefined) put(at, { ...now, ...fields }, `hop ${at} of ${name}`);
  };
  const spans = spansOf(definition, said);
  return (
    <EntryList
      title="hops"
      term="hop"
      label={`hops of ${name}`}
      hint="ways of its own to other states"
      adds="new hop"
      onAdd={() => {
        const [to] = others;
        if (to === undefined) tell('There is no other state to hop to.', true);
        else put(Infinity, { to, at: 'end' });
      }}
    >
      {hops.map((hop, i) => (
        <Entry
          key={i}
          path={[...path, 'hops', i]}
          condition={hop.if}
          takesAway={`delete the hop to ${hop.to}`}
          onCondition={(value) => change(i, { if: value })}
          onTakeAway={() => put(i, undefined)}
        >
          <Choice
            label="to"
            value={hop.to}
            options={optionsOf([hop.to, ...others])}
            onChange={(to) => change(i, { to })}
          />
          <Instant
            label="when"
            state={said}
            at={hop.at}
            now={() => hopNow(i)?.at}
            onChange={(at) => change(i, { at })}
          />
          {spans.length === 0 ? null : (
            <Choice
              label="its condition counts"
              value={hop.during ?? ''}
              options={{
                '': 'at that instant',
                ...Object.fromEntries(spans.map((span) => [span, `during ${span}, until then`])),
              }}
              onChange={(during) => change(i, { during: during === '' ? undefined : during })}
            />
          )}
        </Entry>
      ))}
    </EntryList>
  );
}
