import { stateIn } from 'dot-hop/explain';
import { useWorkbench } from '../../character/store.js';
import { GroupPanel, TrackPanel } from './HolderPanel.js';
import { Ladder } from './Ladder.js';
import { StatePanel } from './StatePanel.js';

/** States are made, ranked and led from one to another here. */
export function RankRoom() {
  const definition = useWorkbench((state) => state.definition);
  const name = useWorkbench((state) => state.selection.state);
  const holder = useWorkbench((one) => one.selection.holder);
  const state = name === undefined ? undefined : stateIn(definition, name);
  return (
    <div className="rank">
      <Ladder />
      <div className="middle">
        {holder?.kind === 'group' ? (
          <GroupPanel name={holder.name} definition={definition} />
        ) : holder?.kind === 'track' ? (
          <TrackPanel name={holder.name} definition={definition} />
        ) : state === undefined ? (
          <div className="hint empty">
            <p>
              A state is what the character can be showing: standing, walking, a leap. The one that ranks
              higher wins.
            </p>
            <ol>
              <li>Make one for each thing it does, with the + beside the ladder.</li>
              <li>
                Say when it shows: “as long as” for what lasts, “starts when” for what is played to its end.
              </li>
              <li>Drag it up or down until the right one wins.</li>
            </ol>
          </div>
        ) : (
          <StatePanel key={state.path.join('.')} state={state} definition={definition} />
        )}
      </div>
    </div>
  );
}
