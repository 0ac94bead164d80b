import type { ControllerDefinition, TrackDefinition } from 'dot-hop';
import { groupIn, setGroup } from 'dot-hop/edit';
import { stateIn, statesIn } from 'dot-hop/explain';
import type { ReactNode } from 'react';
import { isReadable } from '../../character/readable.js';
import { renameEverywhere } from '../../character/rehearsals.js';
import { act, select, tell } from '../../character/store.js';
import { Condition } from '../../parts/Condition.js';
import { Help } from '../../parts/Help.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { TextBox } from '../../parts/TextBox.js';
import { Check, Choice, NumberBox, optionsOf } from '../../parts/ui.js';
import { TagsBox } from './TagsBox.js';

/** A group or a track: what it is, and what is said of it. */
function Holder({
  term,
  name,
  hint,
  children,
}: {
  readonly term: 'group' | 'track';
  readonly name: string;
  readonly hint: string;
  readonly children: ReactNode;
}) {
  return (
    <section className="holder" aria-label={`the ${term} ${name}`}>
      <div className="row">
        <h3>
          the {term} {name}
        </h3>
        <Help term={term} />
      </div>
      <p className="hint">{hint}</p>
      {children}
    </section>
  );
}

/** What a group says for all of its states. */
export function GroupPanel({
  name,
  definition,
}: {
  readonly name: string;
  readonly definition: ControllerDefinition;
}) {
  const group = groupIn(definition, name);
  if (group === undefined) return null;
  const { path, definition: said } = group;
  const rename = (to: string): void => {
    if (to === '') return;
    if (stateIn(definition, to) !== undefined || groupIn(definition, to) !== undefined)
      tell(`There is a state or a group ${to} already.`, true);
    // Groups have their names beside those of states.
    else
      void renameEverywhere({ kind: 'state', from: name, to }).then(() =>
        select({ holder: { kind: 'group', name: to } }),
      );
  };
  return (
    <Holder
      term="group"
      name={name}
      hint="Its states show only while its condition is true, and rank among themselves. The whole group ranks among the states beside it."
    >
      <div className="fieldset">
        <TextBox label="name of the group" value={name} onChange={rename} />
        <NumberBox
          label="rank of the group"
          least={-9999}
          value={said.priority ?? 0}
          onChange={(priority) => act(setGroup(path, 'priority', priority), `priority of ${name}`)}
        />
        <Choice
          label="at rest shows"
          value={said.rest}
          options={optionsOf([said.rest, ...Object.keys(said.states)])}
          onChange={(rest) => act(setGroup(path, 'rest', rest))}
        />
        <TagsBox
          label="tags of all its states"
          tags={said.tags}
          onChange={(tags) => act(setGroup(path, 'tags', tags))}
        />
      </div>
      <Condition
        label="as long as"
        value={said.while}
        hint="a condition: while it is true the group stands"
        onChange={(value) => act(setGroup(path, 'while', value ?? 'true'), `while of ${name}`)}
      />
      <ProblemsAt path={path} />
    </Holder>
  );
}

/** What a track draws, and in which state it rests. */
export function TrackPanel({
  name,
  definition,
}: {
  readonly name: string;
  readonly definition: ControllerDefinition;
}) {
  const track: TrackDefinition | undefined = definition.tracks?.[name];
  if (track === undefined)
    return (
      <p className="hint empty">
        The body: what the document’s own states show. Further tracks run beside it, with states of their own.
      </p>
    );
  const path = ['tracks', name];
  const own = statesIn(definition).filter((one) => one.track === name && one.groups.length === 0);
  const parts = [
    ...new Set(Object.values(definition.sheets).flatMap((sheet) => Object.keys(sheet.parts ?? {}))),
  ];
  const set = (field: 'rest' | 'draws', value: unknown): void =>
    act({
      says: `“${field}” of ${name}`,
      changes: [
        value === undefined
          ? { op: 'remove', path: [...path, field] }
          : { op: 'set', path: [...path, field], value },
      ],
    });
  const draws = track.draws ?? [];
  const rename = (to: string): void => {
    if (to === '') return;
    const { tracks = {}, signals = {}, derived = {} } = definition;
    if (to === 'body' || Object.hasOwn(tracks, to)) tell(`There is a track ${to} already.`, true);
    else if (Object.hasOwn(signals, to) || Object.hasOwn(derived, to))
      tell(`There is a signal ${to} already, and conditions could not tell it from the track.`, true);
    else if (isReadable(to))
      void renameEverywhere({ kind: 'track', from: name, to }).then(() =>
        select({ holder: { kind: 'track', name: to } }),
      );
  };
  return (
    <Holder
      term="track"
      name={name}
      hint={`Its states run beside those of the body, on the same signals. ${
        parts.length === 0
          ? 'The sheets have no parts yet, so it draws nothing: it is for its cues and tags.'
          : 'It draws the parts that are picked here.'
      }`}
    >
      <div className="fieldset">
        <TextBox label="name of the track" value={name} onChange={rename} />
        <Choice
          label="at rest shows"
          value={track.rest ?? own[0]?.name ?? ''}
          options={optionsOf(own.map((one) => one.name))}
          onChange={(rest) => set('rest', rest)}
        />
        {parts.map((part) => (
          <Check
            key={part}
            label={`draws ${part}`}
            isOn={draws.includes(part)}
            onChange={(isOn) => {
              const now = isOn ? [...draws, part] : draws.filter((one) => one !== part);
              set('draws', now.length === 0 ? undefined : now);
            }}
          />
        ))}
      </div>
      <ProblemsAt path={path} />
    </Holder>
  );
}
