import type { Performer } from 'dot-hop';
import { conditionText, conditionTree } from 'dot-hop/edit';
import type { ConditionTree } from 'dot-hop/edit';
import { Plus } from 'lucide-react';
import { useRef, useState } from 'react';
import {
  Button,
  Header,
  Menu,
  MenuItem,
  MenuSection,
  MenuTrigger,
  Popover,
  Separator,
} from 'react-aria-components';
import { useWorkbench } from '../character/store.js';
import { useStage, whysOf } from '../stage/live.js';
import { termsFor } from './terms.js';
import type { TermGroup } from './terms.js';
import { TextBox } from './TextBox.js';

/** Where a part stands in a tree: the number of the part at each level. */
type Place = readonly number[];

const otherWord = { all: 'any', any: 'all' } as const;
const words = { all: 'and', any: 'or' } as const;

/** The tree with another part at a place, or without it. */
function replaced(
  tree: ConditionTree,
  place: Place,
  part: ConditionTree | undefined,
): ConditionTree | undefined {
  const [at, ...inner] = place;
  if (at === undefined) return part;
  if (tree.kind === 'term') return tree;
  const now = replaced(tree.parts[at]!, inner, part);
  const parts = tree.parts.flatMap((one, i) => (i !== at ? [one] : now === undefined ? [] : [now]));
  const [only] = parts;
  if (parts.length === 1 && only !== undefined) return tree.not ? { ...only, not: !only.not } : only;
  return parts.length === 0 ? undefined : { ...tree, parts };
}

/** A condition, put together from terms and typed: the same thing, seen two ways. */
export function Condition({
  label,
  value,
  hint,
  onChange,
}: {
  readonly label: string;
  readonly value: string | undefined;
  /** What it does, told where there is none. */
  readonly hint: string;
  readonly onChange: (value: string | undefined) => void;
}) {
  const tree = value === undefined ? undefined : conditionTree(value);
  const [groups, setGroups] = useState<readonly TermGroup[]>([]);
  const box = useRef<HTMLDivElement>(null);
  const put = (now: ConditionTree | undefined): void =>
    onChange(now === undefined ? undefined : conditionText(now));
  const look = (isOpen: boolean): void => {
    if (isOpen) setGroups(termsFor(useWorkbench.getState().definition));
  };
  useLit(box);
  const term = (text: string): ConditionTree => ({ kind: 'term', text, not: false });
  const add = (text: string): void =>
    put(
      tree === undefined
        ? term(text)
        : tree.kind === 'term' || tree.not
          ? { kind: 'all', not: false, parts: [tree, term(text)] }
          : { ...tree, parts: [...tree.parts, term(text)] },
    );

  const draw = (part: ConditionTree, place: Place, within: 'all' | 'any' | undefined): React.ReactNode => {
    const change = (now: ConditionTree | undefined): void =>
      put(tree === undefined ? undefined : replaced(tree, place, now));
    if (part.kind === 'term')
      return (
        <Chip
          part={part}
          word={words[within === undefined ? 'any' : otherWord[within]]}
          groups={groups}
          onLook={look}
          onNot={() => change({ ...part, not: !part.not })}
          onDrop={() => change(undefined)}
          onBeside={(text) =>
            change({
              kind: within === undefined ? 'any' : otherWord[within],
              not: false,
              parts: [part, term(text)],
            })
          }
        />
      );
    return (
      <span className={place.length === 0 && !part.not ? 'joined' : 'joined nested'}>
        {part.not ? (
          <button
            type="button"
            className="word"
            aria-label="not all of this; press to take “not” away"
            onClick={() => change({ ...part, not: false })}
          >
            not
          </button>
        ) : null}
        {part.parts.map((one, i) => (
          <span key={i} className="joined">
            {i > 0 ? (
              <button
                type="button"
                className="word"
                aria-label={`${words[part.kind]}; press for ${words[otherWord[part.kind]]}`}
                onClick={() => change({ ...part, kind: otherWord[part.kind] })}
              >
                {words[part.kind]}
              </button>
            ) : null}
            {draw(one, [...place, i], part.kind)}
          </span>
        ))}
      </span>
    );
  };
  return (
    <div className="condition" ref={box} data-testid={`condition-${label}`}>
      <div className="row">
        <b>{label}</b>
        {tree === undefined ? (
          <span className="hint">{value === undefined ? hint : 'not read as a condition'}</span>
        ) : null}
        {tree === undefined ? null : draw(tree, [], undefined)}
        <MenuTrigger onOpenChange={look}>
          <Button
            className="icon"
            aria-label={`add a term to ${label}`}
            isDisabled={value !== undefined && tree === undefined}
          >
            <Plus size={14} />
          </Button>
          <Popover className="list">
            <Menu aria-label="terms" onAction={(key) => add(String(key))}>
              <TermItems groups={groups} />
            </Menu>
          </Popover>
        </MenuTrigger>
      </div>
      <TextBox
        className="typed"
        label={`${label}, as text`}
        hidesLabel
        value={value ?? ''}
        placeholder="such as grounded and not moving"
        onChange={(text) => onChange(text === '' ? undefined : text)}
      />
    </div>
  );
}

function TermItems({ groups }: { readonly groups: readonly TermGroup[] }) {
  return groups.map(({ title, terms }) => (
    <MenuSection key={title}>
      <Header>{title}</Header>
      {terms.map((text) => (
        <MenuItem key={text} id={text}>
          {text}
        </MenuItem>
      ))}
    </MenuSection>
  ));
}

/** A term, with what can be done to it behind it. */
function Chip({
  part,
  word,
  groups,
  onLook,
  onNot,
  onDrop,
  onBeside,
}: {
  readonly part: Extract<ConditionTree, { kind: 'term' }>;
  /** The word that joins what is put beside it, in brackets. */
  readonly word: string;
  readonly groups: readonly TermGroup[];
  readonly onLook: (isOpen: boolean) => void;
  readonly onNot: () => void;
  readonly onDrop: () => void;
  readonly onBeside: (text: string) => void;
}) {
  const { text, not } = part;
  return (
    <MenuTrigger onOpenChange={onLook}>
      <Button className="chip" data-term={text} data-not={not}>
        {not ? <em>not</em> : null} {text}
      </Button>
      <Popover className="list">
        <Menu
          aria-label={`what to do with ${text}`}
          onAction={(key) => {
            if (key === ' not') onNot();
            else if (key === ' drop') onDrop();
            else onBeside(String(key));
          }}
        >
          <MenuItem id=" not">{not ? `${text}, without “not”` : `not ${text}`}</MenuItem>
          <MenuItem id=" drop">delete it</MenuItem>
          <Separator />
          {groups.map(({ title, terms }) => (
            <MenuSection key={title}>
              <Header>
                {word} … ({title})
              </Header>
              {terms.map((one) => (
                <MenuItem key={one} id={one}>
                  {word} {one}
                </MenuItem>
              ))}
            </MenuSection>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
}

/** Lights the terms that are true on the stage just now. A class on what is there costs less than drawing it again. */
function useLit(box: { readonly current: HTMLElement | null }): void {
  useStage((performer) => {
    const truths = truthsOf(performer);
    for (const chip of box.current?.querySelectorAll<HTMLElement>('[data-term]') ?? []) {
      const on = truths.get(chip.dataset.term ?? '');
      chip.classList.toggle('lit', on !== undefined && on !== (chip.dataset.not === 'true'));
    }
  });
}

/** The terms of all conditions with what they are on the stage, as they are written. */
function truthsOf(performer: Performer | undefined): Map<string, boolean> {
  const found = new Map<string, boolean>();
  if (performer === undefined) return found;
  for (const { states } of whysOf(performer))
    for (const { while: during, when } of states)
      for (const { text, on } of [during, when].flatMap((condition) => condition?.parts ?? [])) {
        const tree = conditionTree(text);
        if (tree?.kind === 'term') found.set(tree.text, on !== tree.not);
      }
  return found;
}
