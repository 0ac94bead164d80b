import type { ControllerDefinition, StateDefinition } from 'dot-hop';
import { showsOf, stateIn } from 'dot-hop/explain';
import { freeName, groupState, groupsOf, setState } from 'dot-hop/edit';
import type { DocumentState } from 'dot-hop/explain';
import { Fragment, memo, useDeferredValue } from 'react';
import { renameEverywhere } from '../../character/rehearsals.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { TextBox } from '../../parts/TextBox.js';
import { Check, Choice, NumberBox, optionsOf } from '../../parts/ui.js';
import { Rivals } from './Rivals.js';
import { BridgeRows } from './Bridges.js';
import { Carries } from './Carries.js';
import { Hops } from './Hops.js';
import { Instant } from './Instant.js';
import { Shows } from './Shows.js';
import { othersOf } from './states.js';
import { TagsBox } from './TagsBox.js';
import { Takes } from './Takes.js';
import { Turning } from './Turning.js';
import { VariantRows } from './Variants.js';
import { Yields } from './Yields.js';

const agains = { ignore: 'is ignored', restart: 'restarts it', queue: 'plays it once more afterwards' };
const facings = { turns: 'follows the compass', held: 'stays as it is' };

/** The conditions of a state, as one says them. */
const conditions = [
  ['while', 'as long as', 'a condition: it shows while that is true'],
  ['when', 'starts when', 'a press, or what becomes true: it plays to its end'],
] as const;

/** Gives a field of a state another value; changes of one field that follow each other are undone together. */
function setField<F extends keyof StateDefinition>(name: string, field: F, value: StateDefinition[F]): void {
  act(setState(useWorkbench.getState().definition, name, field, value), `${field} of ${name}`);
}

interface PanelProps {
  readonly state: DocumentState;
  readonly definition: ControllerDefinition;
}

/** What a state shows, when it may, and how one gets out of it. */
export function StatePanel({ state, definition }: PanelProps) {
  // A condition counts in the next picture; what else is said of the state follows right after.
  const later = useDeferredValue(state);
  const whole = useDeferredValue(definition);
  const { name, definition: said, path } = state;
  return (
    <>
      <Showing state={later} definition={whole} />
      <section aria-label="when it shows">
        <h3>when it shows</h3>
        {conditions.map(([field, label, hint]) => (
          <Fragment key={field}>
            <Condition
              label={label}
              value={said[field]}
              hint={hint}
              onChange={(value) => setField(name, field, value)}
            />
            <ProblemsAt path={[...path, field]} />
          </Fragment>
        ))}
      </section>
      <Going state={later} definition={whole} />
      <Rivals name={name} />
    </>
  );
}

/** Its name, what it shows, and its rank. */
const Showing = memo(function Showing({ state, definition }: PanelProps) {
  const { name, definition: said, path } = state;
  const set = <F extends keyof StateDefinition>(field: F, value: StateDefinition[F]): void =>
    setField(name, field, value);
  const rename = (to: string): void => {
    if (to === '') return;
    if (stateIn(definition, to) !== undefined) tell(`There is a state ${to} already.`, true);
    else void renameEverywhere({ kind: 'state', from: name, to }).then(() => select({ state: to }));
  };
  const isRest = (definition.rest ?? Object.keys(definition.states ?? {})[0]) === name;
  const all = groupsOf(definition).map((chain) => chain.at(-1)!);
  // Those of its own track.
  const isBeside = ({ path: at }: (typeof all)[number]): boolean =>
    state.track === 'body' ? at[0] === 'groups' : at[1] === state.track;
  const groups = all.filter(isBeside).map((one) => one.name);
  const newGroup = freeName('group', Object.fromEntries(all.map((one) => [one.name, true])));
  return (
    <>
      <div className="fieldset">
        <TextBox label="name" value={name} onChange={rename} />
        <NumberBox
          label="rank"
          least={-9999}
          value={said.priority ?? 0}
          onChange={(priority) => set('priority', priority)}
        />
        {isRest ? null : (
          <Choice
            label="in the group"
            value={state.groups.at(-1)?.name ?? ''}
            options={{
              '': 'none',
              ...optionsOf(groups),
              // It rests in the first of its states, and nobody rests in what starts on a press.
              ...(said.when === undefined && { [newGroup]: 'a new one' }),
            }}
            onChange={(group) =>
              act(groupState(useWorkbench.getState().definition, name, group || undefined))
            }
          />
        )}
        <Check
          label="rests here when nothing else wants to show"
          isOn={isRest}
          isDisabled={isRest || path.length > 2}
          onChange={() =>
            act({ says: `rest in ${name}`, changes: [{ op: 'set', path: ['rest'], value: name }] })
          }
        />
      </div>
      <div className="fieldset">
        <Shows state={state} definition={definition} />
      </div>
      <VariantRows shown={showsOf(said)} />
      {(['shows', 'gaits', 'rate'] as const).map((field) => (
        <ProblemsAt key={field} path={[...path, field]} />
      ))}
    </>
  );
});

/** What follows it, what is kept, and the ways of its own. */
const Going = memo(function Going({ state, definition }: PanelProps) {
  const { name, definition: said } = state;
  const set = <F extends keyof StateDefinition>(field: F, value: StateDefinition[F]): void =>
    setField(name, field, value);
  const isAct = said.when !== undefined;
  const isPosture = !isAct && said.while !== undefined;
  const beside = othersOf(definition, state);
  return (
    <section aria-label="how it goes on">
      <h3>how it goes on</h3>
      <div className="fieldset">
        {isPosture ? null : (
          <Choice
            label="at its end follows"
            value={said.then ?? ''}
            options={{ '': 'what wants to show', ...optionsOf(beside) }}
            onChange={(then) => set('then', then === '' ? undefined : then)}
          />
        )}
        {isPosture ? (
          <Instant
            label="is left"
            state={said}
            at={said.leaves}
            now={() => stateIn(useWorkbench.getState().definition, name)?.definition.leaves}
            onChange={(at) => set('leaves', at)}
          />
        ) : null}
        {isAct ? (
          <Choice
            label="a new press"
            value={said.again ?? 'ignore'}
            options={agains}
            onChange={(again) => set('again', again === 'ignore' ? undefined : again)}
          />
        ) : null}
        {typeof said.atLeast === 'string' ? null : (
          <NumberBox
            label="at least"
            unit="ms"
            most={3_600_000}
            value={said.atLeast ?? 0}
            onChange={(ms) => set('atLeast', ms === 0 ? undefined : ms)}
          />
        )}
        {isPosture || typeof said.lasts === 'string' ? null : (
          <NumberBox
            label="lasts (0: its clip)"
            unit="ms"
            most={3_600_000}
            value={said.lasts ?? 0}
            onChange={(ms) => set('lasts', ms === 0 ? undefined : ms)}
          />
        )}
        {typeof said.facing === 'object' || definition.compass === undefined ? null : (
          <Choice
            label="direction"
            value={said.facing ?? 'turns'}
            options={facings}
            onChange={(facing) => set('facing', facing === 'held' ? 'held' : undefined)}
          />
        )}
        <TagsBox label="tags" tags={said.tags} onChange={(tags) => set('tags', tags)} />
        <Check
          label="nothing cuts it off"
          isOn={said.final ?? false}
          onChange={(final) => set('final', final ? true : undefined)}
        />
      </div>
      <Turning state={state} />
      <Carries state={state} />
      <BridgeRows state={state} />
      <Takes state={state} />
      <Hops state={state} />
      <Yields state={state} />
    </section>
  );
});
