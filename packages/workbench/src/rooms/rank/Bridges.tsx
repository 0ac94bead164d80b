import type { StateDefinition } from 'dot-hop';
import { setState } from 'dot-hop/edit';
import { stateIn, statesIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { Trash2 } from 'lucide-react';
import { act, tell, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice, IconButton, optionsOf } from '../../parts/ui.js';
import { EntryList } from './EntryList.js';

type Bridges = NonNullable<StateDefinition['bridges']>;

/** A clip that is played first when a state is entered from another one, or from one gait of it. */
interface Bridge {
  readonly from: string;
  readonly gait: string | undefined;
  readonly clip: string;
}

const bridgesOf = (bridges: Bridges | undefined): Bridge[] =>
  Object.entries(bridges ?? {}).flatMap(([from, what]): Bridge[] =>
    typeof what === 'string'
      ? [{ from, gait: undefined, clip: what }]
      : Object.entries(what).map(([gait, clip]) => ({ from, gait, clip })),
  );

function written(all: readonly Bridge[]): Bridges | undefined {
  const found: Record<string, string | Record<string, string>> = {};
  for (const { from, gait, clip } of all) {
    const before = found[from];
    if (gait === undefined) found[from] = clip;
    else found[from] = { ...(typeof before === 'object' && before), [gait]: clip };
  }
  return all.length === 0 ? undefined : found;
}

const keyOf = ({ from, gait }: Bridge): string => (gait === undefined ? from : `${from} / ${gait}`);

/** What is played in between, by the state that is left. */
export function BridgeRows({ state }: { readonly state: DocumentState }) {
  const definition = useWorkbench((one) => one.definition);
  const { name, path, definition: said } = state;
  const rows = bridgesOf(said.bridges);
  const books = [...Object.keys(definition.flipbooks ?? {}), ...Object.keys(definition.clips)];
  const froms = statesIn(definition)
    .filter((one) => one.track === state.track && one.name !== name)
    .flatMap(({ name: from, definition: { gaits } }): Bridge[] => [
      { from, gait: undefined, clip: '' },
      ...(gaits?.shows ?? []).map((gait) => ({ from, gait, clip: '' })),
    ]);
  const put = (change: (now: readonly Bridge[]) => readonly Bridge[], joins?: string): void => {
    const { definition: now } = useWorkbench.getState();
    const bridges = written(change(bridgesOf(stateIn(now, name)?.definition.bridges)));
    act(setState(now, name, 'bridges', bridges), joins);
  };
  return (
    <EntryList
      title="bridges"
      term="bridge"
      label={`bridges into ${name}`}
      hint="a clip in between, played once when it is entered from another state"
      adds="new bridge"
      onAdd={() => {
        const free = froms.find((one) => rows.every((row) => row.from !== one.from));
        // What is played once comes to an end.
        const clip = books.find((book) => definition.clips[book]?.loop === 'once') ?? books[0];
        if (free === undefined || clip === undefined) tell('There is no other state to come from.', true);
        else put((now) => [...now, { ...free, clip }]);
      }}
    >
      {rows.map((row, i) => (
        <div className="hop" key={i}>
          <div className="fieldset">
            <Choice
              label="coming from"
              value={keyOf(row)}
              options={Object.fromEntries(
                [row, ...froms].map((one) => [
                  keyOf(one),
                  one.gait === undefined ? one.from : `${one.from}, while it shows ${one.gait}`,
                ]),
              )}
              onChange={(key) => {
                const from = froms.find((one) => keyOf(one) === key);
                if (from !== undefined)
                  put((now) => now.map((one, at) => (at === i ? { ...from, clip: one.clip } : one)));
              }}
            />
            <Choice
              label="first plays"
              value={row.clip}
              options={optionsOf([row.clip, ...books])}
              onChange={(clip) =>
                put((now) => now.map((one, at) => (at === i ? { ...one, clip } : one)), `bridge of ${name}`)
              }
            />
            <IconButton
              label={`delete the bridge from ${keyOf(row)}`}
              onPress={() => put((now) => now.filter((_, at) => at !== i))}
            >
              <Trash2 size={14} />
            </IconButton>
          </div>
          <ProblemsAt path={[...path, 'bridges', row.from]} />
        </div>
      ))}
    </EntryList>
  );
}
