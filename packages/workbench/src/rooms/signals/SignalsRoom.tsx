import { addDerived, addSignal, removeSignal } from 'dot-hop/edit';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useRef } from 'react';
import { Button, GridList, GridListItem, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { act, select, useWorkbench } from '../../character/store.js';
import { IconButton } from '../../parts/ui.js';
import { useStage } from '../../stage/live.js';
import { DerivedPanel } from './DerivedPanel.js';
import { kinds, signalsOf, valueText } from './kinds.js';
import type { NewKind, SignalItem } from './kinds.js';
import { SignalPanel } from './SignalPanel.js';

/** What the game tells, and what follows from it. */
export function SignalsRoom() {
  const definition = useWorkbench((state) => state.definition);
  const selected = useWorkbench((state) => state.selection.signal);
  const items = useMemo(() => signalsOf(definition), [definition]);
  const one = items.find(({ id }) => id === selected);
  const box = useRef<HTMLDivElement>(null);
  useValues(box);
  const add = (kind: NewKind): void => {
    const { wanted, value } = kinds[kind];
    const { definition: now } = useWorkbench.getState();
    const edit =
      kind === 'band' || kind === 'linger' || kind === 'settle' || kind === 'expression'
        ? addDerived(now, wanted, value(now) as Parameters<typeof addDerived>[2])
        : addSignal(now, wanted, value(now) as Parameters<typeof addSignal>[2]);
    act(edit);
    const [change] = edit.changes;
    if (change?.op === 'set') select({ signal: String(change.path[1]) });
  };
  return (
    <div className="signals" ref={box}>
      <div className="panel">
        <div className="row spread">
          <h2>signals</h2>
          <div className="row">
            <MenuTrigger>
              <Button className="icon" aria-label="new signal">
                <Plus size={15} />
              </Button>
              <Popover className="list">
                <Menu aria-label="new signal" onAction={(key) => add(key as NewKind)}>
                  {(Object.keys(kinds) as NewKind[]).map((kind) => (
                    <MenuItem key={kind} id={kind} textValue={kind}>
                      {kinds[kind].title} <small>{kinds[kind].says}</small>
                    </MenuItem>
                  ))}
                </Menu>
              </Popover>
            </MenuTrigger>
            <IconButton
              label="delete this signal"
              isDisabled={one === undefined}
              onPress={() => {
                act(removeSignal(definition, selected!));
                select({ signal: undefined });
              }}
            >
              <Trash2 size={15} />
            </IconButton>
          </div>
        </div>
        <GridList
          aria-label="signals"
          selectionMode="single"
          selectedKeys={one === undefined ? [] : [one.id]}
          onSelectionChange={(keys) => {
            if (keys === 'all') return;
            for (const key of keys) select({ signal: String(key) });
          }}
          items={items}
          renderEmptyState={() => <p className="hint">None yet. The game tells the character nothing.</p>}
        >
          {(item: SignalItem) => (
            <GridListItem id={item.id} textValue={item.id}>
              <b>{item.id}</b>
              <small>{item.kind}</small>
              <output data-value={item.id} />
            </GridListItem>
          )}
        </GridList>
      </div>
      <div className="middle">
        {one === undefined ? (
          <div className="hint empty">
            <p>
              Signals are what the game tells the character: how fast it goes, whether it stands on the
              ground, what is pressed.
            </p>
            <ol>
              <li>Make one for each thing that the game knows, with the + beside the list.</li>
              <li>Let others follow from them: “moving” while the speed is above 12.</li>
              <li>Use their names in the next room, to say when states show.</li>
            </ol>
          </div>
        ) : one.signal !== undefined ? (
          <SignalPanel key={one.id} name={one.id} signal={one.signal} />
        ) : (
          <DerivedPanel key={one.id} name={one.id} derived={one.derived!} />
        )}
      </div>
    </div>
  );
}

/** Writes what each signal is on the stage beside its name. */
function useValues(box: { readonly current: HTMLElement | null }): void {
  useStage((performer) => {
    for (const output of box.current?.querySelectorAll<HTMLElement>('[data-value]') ?? []) {
      const text = performer === undefined ? '' : valueText(performer, output.dataset.value ?? '');
      if (output.textContent !== text) output.textContent = text;
    }
  });
}
