import type { StateDefinition } from 'dot-hop';
import { setState } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { act, tell, useWorkbench } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice } from '../../parts/ui.js';

const ways = { never: 'goes its own way', always: 'shows this too', if: 'shows this too, if …' };
type Way = keyof typeof ways;

/** By track the condition on which it shows this state too; `true` for always. */
const takesOf = ({ takes = [] }: StateDefinition): Readonly<Record<string, string>> =>
  Array.isArray(takes)
    ? Object.fromEntries((takes as readonly string[]).map((track) => [track, 'true']))
    : (takes as Readonly<Record<string, string>>);

function written(all: readonly (readonly [string, string | undefined])[]): StateDefinition['takes'] {
  const takes = all.flatMap(([track, condition]) => (condition === undefined ? [] : [[track, condition]]));
  if (takes.length === 0) return undefined;
  const isAlways = takes.every(([, condition]) => condition === 'true');
  return isAlways ? takes.map(([track]) => track!) : (Object.fromEntries(takes) as Record<string, string>);
}

/** Which other tracks show a state as well while it shows: the whole body does a blow that the arms begin. */
export function Takes({ state }: { readonly state: DocumentState }) {
  const tracks = useWorkbench((one) => one.definition.tracks);
  const { name, path, definition: said } = state;
  const others = ['body', ...Object.keys(tracks ?? {})].filter((track) => track !== state.track);
  if (others.length === 0) return null;
  const put = (track: string, condition: string | undefined, joins?: string): void => {
    const { definition: now } = useWorkbench.getState();
    const takes = Object.entries({ ...takesOf(stateIn(now, name)?.definition ?? {}), [track]: condition });
    act(setState(now, name, 'takes', written(takes)), joins);
  };
  const become = (track: string, way: Way): void => {
    const { signals = {}, derived = {} } = useWorkbench.getState().definition;
    // A first condition, to be changed.
    const [flag] = [
      ...Object.entries(derived).flatMap(([one, what]) => (typeof what === 'object' ? [one] : [])),
      ...Object.entries(signals).flatMap(([one, what]) => ('flag' in what ? [one] : [])),
    ];
    if (way === 'if' && flag === undefined)
      tell('There is no flag yet to ask for. Make one among the signals.', true);
    else put(track, way === 'never' ? undefined : way === 'always' ? 'true' : flag);
  };
  return (
    <div className="hops" role="group" aria-label={`tracks that show ${name} too`}>
      <div className="row">
        <b>other tracks</b>
        <span className="hint">meanwhile</span>
      </div>
      {others.map((track) => {
        const condition = takesOf(said)[track];
        const way: Way = condition === undefined ? 'never' : condition === 'true' ? 'always' : 'if';
        return (
          <div key={track} className="hop">
            <div className="fieldset">
              <Choice
                label={`the track ${track}`}
                value={way}
                options={ways}
                onChange={(now) => become(track, now)}
              />
            </div>
            {way === 'if' ? (
              <Condition
                label="if"
                value={condition}
                hint="always"
                onChange={(value) => put(track, value ?? 'true', `takes of ${name}`)}
              />
            ) : null}
          </div>
        );
      })}
      <ProblemsAt path={[...path, 'takes']} />
    </div>
  );
}
