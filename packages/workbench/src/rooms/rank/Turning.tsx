import { setState } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { act, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice, NumberBox, optionsOf } from '../../parts/ui.js';

/** What is played first when the character turns round in a state, and from how large a turn on. */
export function Turning({ state }: { readonly state: DocumentState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  if (definition.compass === undefined || said.facing === 'held') return null;
  const shown = said.turns?.shows ?? '';
  const books = [...Object.keys(definition.flipbooks ?? {}), ...Object.keys(definition.clips)];
  const set = (turns: typeof said.turns): void =>
    act(setState(useWorkbench.getState().definition, name, 'turns', turns), `turns of ${name}`);
  return (
    <div className="fieldset">
      <Choice
        label="when it turns, first play"
        value={shown}
        options={{ '': 'nothing', ...optionsOf(books) }}
        onChange={(shows) => {
          const now = stateIn(useWorkbench.getState().definition, name)?.definition.turns;
          set(shows === '' ? undefined : { ...now, shows });
        }}
      />
      {said.turns === undefined ? null : (
        <NumberBox
          label="if it turns by at least"
          unit="°"
          least={1}
          most={180}
          value={said.turns.least ?? 90}
          onChange={(least) => set({ ...said.turns!, least: least === 90 ? undefined : least })}
        />
      )}
      <ProblemsAt path={[...path, 'turns']} />
    </div>
  );
}
