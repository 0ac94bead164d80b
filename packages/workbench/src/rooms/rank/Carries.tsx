import type { CarryRule, StateDefinition } from 'dot-hop';
import { setState } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { Trash2 } from 'lucide-react';
import { act, tell, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice, IconButton, optionsOf } from '../../parts/ui.js';
import { othersOf } from './states.js';
import { EntryList } from './EntryList.js';

const rules: Readonly<Record<CarryRule, string>> = {
  none: 'starts at its beginning',
  phase: 'keeps the phase',
  frame: 'keeps the frame',
};

type Carry = StateDefinition['carry'];
type ByState = Readonly<Record<string, CarryRule>>;

const byState = (carry: Carry): ByState => (typeof carry === 'object' ? carry : {});

/** What is kept of a clip's place when a state is entered: from whichever state, or from each in its own way. */
export function Carries({ state }: { readonly state: DocumentState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  const rows = Object.entries(byState(said.carry));
  const others = othersOf(definition, state);
  const put = (change: (now: Carry) => Carry): void => {
    const { definition: now } = useWorkbench.getState();
    act(setState(now, name, 'carry', change(stateIn(now, name)?.definition.carry)), `carry of ${name}`);
  };
  // From whichever state it was, from each of those that were named; the last that goes leaves nothing said.
  const edit = (change: (now: ByState) => ByState): void =>
    put((now) => {
      const next = change(byState(now));
      return Object.keys(next).length === 0 ? undefined : next;
    });
  return (
    <>
      {typeof said.carry === 'object' ? null : (
        <div className="fieldset">
          <Choice
            label="when entered, its clip"
            value={said.carry ?? 'none'}
            options={rules}
            onChange={(rule) => put(() => (rule === 'none' ? undefined : rule))}
          />
        </div>
      )}
      <EntryList
        title="keeps its place"
        label={`what ${name} keeps of the clip's place, by state`}
        hint="exceptions, by the state that is left"
        adds="coming from one state"
        onAdd={() => {
          const free = others.find((other) => !(other in byState(said.carry)));
          if (free === undefined) tell('There is no other state to come from.', true);
          else
            put((now) => ({
              // What was said of all of them is said of each.
              ...(typeof now === 'string'
                ? Object.fromEntries(others.map((other) => [other, now]))
                : byState(now)),
              [free]: 'phase',
            }));
        }}
      >
        {rows.map(([from, rule]) => (
          <div className="hop" key={from}>
            <div className="fieldset">
              <Choice
                label="coming from"
                value={from}
                options={optionsOf([from, ...others.filter((other) => !rows.some(([one]) => one === other))])}
                onChange={(other) =>
                  edit((now) =>
                    Object.fromEntries(
                      Object.entries(now).map(([one, kept]) => [one === from ? other : one, kept]),
                    ),
                  )
                }
              />
              <Choice
                label="its clip"
                value={rule}
                options={rules}
                onChange={(next) => edit((now) => ({ ...now, [from]: next }))}
              />
              <IconButton
                label={`say nothing of ${from}`}
                onPress={() =>
                  edit((now) => Object.fromEntries(Object.entries(now).filter(([one]) => one !== from)))
                }
              >
                <Trash2 size={14} />
              </IconButton>
            </div>
          </div>
        ))}
      </EntryList>
      <ProblemsAt path={[...path, 'carry']} />
    </>
  );
}
