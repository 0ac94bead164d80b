import type { ControllerDefinition } from 'dot-hop';
import { changedData, setVariant } from 'dot-hop/edit';
import { Trash2 } from 'lucide-react';
import { act, tell, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice, IconButton, optionsOf } from '../../parts/ui.js';
import { EntryList } from './EntryList.js';

/** While a signal says so, one flipbook shows in place of another. */
interface Variant {
  readonly signal: string;
  /** Of a choice; `undefined` for a flag. */
  readonly option: string | undefined;
  readonly from: string;
  readonly to: string;
}

/** What picks variants: an option of a choice, or a flag. */
type Picker = Pick<Variant, 'signal' | 'option'>;

function variantsOf({ variants = {} }: ControllerDefinition): Variant[] {
  return Object.entries(variants).flatMap(([signal, maps]) =>
    Object.entries(maps).flatMap(([key, value]): Variant[] =>
      typeof value === 'string'
        ? [{ signal, option: undefined, from: key, to: value }]
        : Object.entries(value).map(([from, to]) => ({ signal, option: key, from, to })),
    ),
  );
}

const keyOf = ({ signal, option }: Picker): string =>
  option === undefined ? signal : `${signal} is ${option}`;

/** What picks variants: each option of a choice, each flag. */
function pickersOf({ signals = {}, derived = {} }: ControllerDefinition): Picker[] {
  return [
    ...Object.entries(signals).flatMap(([signal, one]): Picker[] => {
      if ('choice' in one) return one.choice.map((option) => ({ signal, option }));
      return 'flag' in one ? [{ signal, option: undefined }] : [];
    }),
    ...Object.entries(derived).flatMap(([signal, one]) =>
      typeof one === 'object' ? [{ signal, option: undefined }] : [],
    ),
  ];
}

/** What shows in place of what a state shows: armed, tired, wet. It counts wherever that would show. */
export function VariantRows({ shown }: { readonly shown: readonly string[] }) {
  const definition = useWorkbench((one) => one.definition);
  const rows = variantsOf(definition).filter(({ from }) => shown.includes(from));
  const pickers = pickersOf(definition);
  const books = [...Object.keys(definition.flipbooks ?? {}), ...Object.keys(definition.clips)];
  const put = ({ signal, option, from }: Omit<Variant, 'to'>, to: string | undefined): void =>
    act(setVariant(useWorkbench.getState().definition, signal, option, from, to));
  const instead = (before: Variant, after: Variant): void => {
    const { definition: now } = useWorkbench.getState();
    const { changes, says } = setVariant(now, after.signal, after.option, after.from, after.to);
    // What is empty once that stands goes too.
    const then = changedData(now, changes);
    const taken = setVariant(then, before.signal, before.option, before.from, undefined);
    act({ says, changes: [...changes, ...taken.changes] });
  };
  return (
    <EntryList
      title="variants"
      term="variant"
      label={`variants of ${shown.join(', ')}`}
      hint="another clip in its place while a flag or a choice says so"
      adds="new variant"
      onAdd={() => {
        const isFree = (one: Picker, from: string): boolean =>
          rows.every((row) => row.from !== from || keyOf(row) !== keyOf(one));
        const found = shown.flatMap((from) =>
          pickers.filter((one) => isFree(one, from)).map((one) => ({ ...one, from })),
        )[0];
        if (found === undefined)
          tell('A variant is picked by a flag or a choice. Make one among the signals.', true);
        else {
          const loopOf = (book: string): string => JSON.stringify(definition.clips[book]?.loop ?? 'forever');
          const others = books.filter((book) => book !== found.from);
          put(found, others.find((book) => loopOf(book) === loopOf(found.from)) ?? others[0] ?? found.from);
        }
      }}
    >
      {rows.map((row, i) => (
        <div className="hop" key={i}>
          <div className="fieldset">
            <Choice
              label="while"
              value={keyOf(row)}
              options={Object.fromEntries(
                [row, ...pickers]
                  .filter(
                    (one) =>
                      keyOf(one) === keyOf(row) ||
                      rows.every((other) => other.from !== row.from || keyOf(other) !== keyOf(one)),
                  )
                  .map((one) => [keyOf(one), keyOf(one)]),
              )}
              onChange={(key) => {
                const picker = pickers.find((one) => keyOf(one) === key);
                if (picker !== undefined && key !== keyOf(row)) instead(row, { ...row, ...picker });
              }}
            />
            <Choice
              label={`instead of ${row.from}`}
              value={row.to}
              options={optionsOf([row.to, ...books])}
              onChange={(to) => put(row, to)}
            />
            <IconButton label={`delete the variant ${row.to}`} onPress={() => put(row, undefined)}>
              <Trash2 size={14} />
            </IconButton>
          </div>
          <ProblemsAt
            path={['variants', row.signal, ...(row.option === undefined ? [] : [row.option]), row.from]}
          />
        </div>
      ))}
    </EntryList>
  );
}
