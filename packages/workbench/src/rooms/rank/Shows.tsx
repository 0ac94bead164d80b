import type { ControllerDefinition, GaitsDefinition, StateDefinition, VarietyDefinition } from 'dot-hop';
import { showsOf, stateIn } from 'dot-hop/explain';
import type { DocumentState } from 'dot-hop/explain';
import { Plus, Trash2 } from 'lucide-react';
import { act, useWorkbench } from '../../character/store.js';
import { ExpressionValues } from '../../parts/ExpressionValues.js';
import { TextBox } from '../../parts/TextBox.js';
import { Choice, IconButton, NumberBox, optionsOf } from '../../parts/ui.js';

const kinds = {
  one: 'one clip or flipbook',
  gaits: 'gaits, by a number',
  any: 'one of several',
};
type Kind = keyof typeof kinds;

const picks = { turn: 'one after the other', chance: 'by chance' };
const rates = { drawn: 'as drawn', travel: 'so that no foot slides', other: 'by an expression' };

const kindOf = ({ gaits, shows }: StateDefinition): Kind =>
  gaits !== undefined ? 'gaits' : typeof shows === 'object' ? 'any' : 'one';

/** A state as it is now: what is on screen may be a picture behind. */
const current = (name: string): StateDefinition | undefined =>
  stateIn(useWorkbench.getState().definition, name)?.definition;

/** What a state shows: one flipbook, gaits picked by a number, or one of several; and how fast its time runs. */
export function Shows({
  state,
  definition,
}: {
  readonly state: DocumentState;
  readonly definition: ControllerDefinition;
}) {
  const { name, path, definition: said } = state;
  const books = [...Object.keys(definition.flipbooks ?? {}), ...Object.keys(definition.clips)];
  const [first = books[0] ?? ''] = showsOf(said);
  const numbers = Object.entries(definition.signals ?? {}).flatMap(([one, signal]) =>
    'number' in signal ? [one] : [],
  );
  const put = (fields: Partial<StateDefinition>, says = `what ${name} shows`): void =>
    act(
      {
        says,
        changes: Object.entries(fields).map(([field, value]) =>
          value === undefined
            ? { op: 'remove', path: [...path, field] }
            : { op: 'set', path: [...path, field], value },
        ),
      },
      `shows of ${name}`,
    );
  const become = (kind: Kind): void => {
    if (kind === 'one') put({ gaits: undefined, shows: first });
    else if (kind === 'any') put({ gaits: undefined, shows: { any: [first, nextOf(books, first)] } });
    else
      put({
        shows: undefined,
        gaits: {
          by: `abs(${numbers[0] ?? '0'})`,
          shows: [first, nextOf(books, first)],
          above: [90],
          margin: 10,
        },
      });
  };
  const kind = kindOf(said);
  return (
    <>
      <Choice label="shows" value={kind} options={kinds} onChange={become} />
      {kind === 'one' ? (
        <Choice
          label="which one"
          value={first}
          options={optionsOf([first, ...books])}
          onChange={(shows) => put({ shows })}
        />
      ) : null}
      {said.gaits === undefined ? null : (
        <Gaits
          gaits={said.gaits}
          books={books}
          onChange={(fields) => {
            const now = current(name)?.gaits;
            if (now !== undefined) put({ gaits: { ...now, ...fields } }, `gaits of ${name}`);
          }}
        />
      )}
      {typeof said.shows === 'object' ? (
        <Variety
          variety={said.shows}
          books={books}
          onChange={(shows) => put({ shows }, `what ${name} picks from`)}
        />
      ) : null}
      <Rate
        rate={said.rate}
        travels={numbers[0] ?? '0'}
        onChange={(rate) => put({ rate }, `rate of ${name}`)}
      />
    </>
  );
}

/** The one behind a name in a list, for a first guess. */
const nextOf = (names: readonly string[], name: string): string =>
  names[(names.indexOf(name) + 1) % names.length] ?? name;

/** Gaits from the slowest to the fastest, with the numbers above which each begins. */
function Gaits({
  gaits,
  books,
  onChange,
}: {
  readonly gaits: GaitsDefinition;
  readonly books: readonly string[];
  readonly onChange: (fields: Partial<GaitsDefinition>) => void;
}) {
  const { by, shows, above, margin = 0 } = gaits;
  const last = above[above.length - 1] ?? 0;
  return (
    <div className="gaits">
      <div className="fieldset">
        <TextBox label="by the number" value={by} onChange={(one) => onChange({ by: one })} />
        <NumberBox
          label="margin for falling back"
          step={0.01}
          value={margin}
          onChange={(value) => onChange({ margin: value })}
        />
        <IconButton
          label="a faster gait"
          onPress={() =>
            onChange({
              shows: [...shows, nextOf(books, shows[shows.length - 1]!)],
              above: [...above, last + Math.max(10, Math.round(last / 2))],
            })
          }
        >
          <Plus size={14} />
        </IconButton>
      </div>
      {shows.map((one, i) => (
        <div key={i} className="fieldset">
          <Choice
            label={i === 0 ? 'slowest' : `gait ${i + 1}`}
            value={one}
            options={optionsOf([one, ...books])}
            onChange={(book) => onChange({ shows: shows.with(i, book) })}
          />
          {i === 0 ? null : (
            <NumberBox
              label={`gait ${i + 1} above`}
              least={-999_999}
              most={999_999}
              step={0.01}
              value={above[i - 1]}
              onChange={(value) => onChange({ above: above.with(i - 1, value) })}
            />
          )}
          {i === 0 || shows.length < 3 ? null : (
            <IconButton
              label={`delete gait ${i + 1}`}
              onPress={() => onChange({ shows: shows.toSpliced(i, 1), above: above.toSpliced(i - 1, 1) })}
            >
              <Trash2 size={14} />
            </IconButton>
          )}
        </div>
      ))}
    </div>
  );
}

/** Several, of which one is picked each time the state is entered. */
function Variety({
  variety,
  books,
  onChange,
}: {
  readonly variety: VarietyDefinition;
  readonly books: readonly string[];
  readonly onChange: (variety: VarietyDefinition) => void;
}) {
  const { any, pick = 'turn', weights } = variety;
  const put = (names: readonly string[], i?: number): void =>
    onChange({
      ...variety,
      any: names,
      // A weight goes with what it weighs.
      weights:
        weights === undefined ? undefined : i === undefined ? [...weights, 1] : weights.toSpliced(i, 1),
    });
  return (
    <div className="gaits">
      <div className="fieldset">
        <Choice
          label="picked"
          value={pick}
          options={picks}
          onChange={(now) => {
            const { weights: gone, repeats: too, ...plain } = variety;
            onChange(now === 'turn' ? plain : { ...plain, pick: now, weights: gone, repeats: too });
          }}
        />
        <IconButton
          label="one more to pick from"
          onPress={() => put([...any, nextOf(books, any[any.length - 1]!)])}
        >
          <Plus size={14} />
        </IconButton>
      </div>
      {any.map((one, i) => (
        <div key={i} className="fieldset">
          <Choice
            label={`pick ${i + 1}`}
            value={one}
            options={optionsOf([one, ...books])}
            onChange={(book) => onChange({ ...variety, any: any.with(i, book) })}
          />
          {pick === 'chance' ? (
            <NumberBox
              label={`weight ${i + 1}`}
              step={0.01}
              value={weights?.[i] ?? 1}
              onChange={(value) =>
                onChange({ ...variety, weights: (weights ?? any.map(() => 1)).with(i, value) })
              }
            />
          ) : null}
          {any.length < 3 ? null : (
            <IconButton label={`delete pick ${i + 1}`} onPress={() => put(any.toSpliced(i, 1), i)}>
              <Trash2 size={14} />
            </IconButton>
          )}
        </div>
      ))}
    </div>
  );
}

/** How fast its time runs: as drawn, by the way that the body goes, or by any expression. */
function Rate({
  rate,
  travels,
  onChange,
}: {
  readonly rate: StateDefinition['rate'];
  /** The number that says how fast the body goes, as a first guess. */
  readonly travels: string;
  readonly onChange: (rate: StateDefinition['rate']) => void;
}) {
  const kind = rate === undefined ? 'drawn' : typeof rate === 'object' ? 'travel' : 'other';
  return (
    <>
      <Choice
        label="playback speed"
        value={kind}
        options={rates}
        onChange={(now) =>
          onChange(now === 'drawn' ? undefined : now === 'travel' ? { travel: travels } : '1')
        }
      />
      {rate === undefined ? null : (
        <>
          <TextBox
            label={typeof rate === 'object' ? 'pixels a second' : 'times as fast'}
            value={typeof rate === 'object' ? rate.travel : String(rate)}
            onChange={(text) => onChange(typeof rate === 'object' ? { ...rate, travel: text } : text)}
          />
          <ExpressionValues expression={typeof rate === 'object' ? rate.travel : String(rate)} />
        </>
      )}
    </>
  );
}
