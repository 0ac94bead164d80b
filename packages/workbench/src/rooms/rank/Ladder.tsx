import type { ControllerDefinition, DocumentPath } from 'dot-hop';
import { addState, addTrack, groupIn, rankState, removeState, removeTrack } from 'dot-hop/edit';
import { ChevronDown, ChevronUp, Layers, Plus, Trash2 } from 'lucide-react';
import { stateIn } from 'dot-hop/explain';
import { memo, useDeferredValue, useMemo, useRef } from 'react';
import { Button, GridList, GridListItem, useDragAndDrop } from 'react-aria-components';
import { useFindings } from '../../character/findings.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import type { Selection } from '../../character/store.js';
import { IconButton } from '../../parts/ui.js';
import { useStage, whysOf } from '../../stage/live.js';
import { Thumbnail } from '../../parts/Thumbnail.js';
import { HopLines } from './HopLines.js';
import { besideOf, firstShown, idOf, kindOf, rungsOf } from './states.js';
import type { Rung } from './states.js';

/** The ladder follows an edit right after the stage has. */
export function Ladder() {
  return <Rungs definition={useDeferredValue(useWorkbench((state) => state.definition))} />;
}

/** The states by rank: picked, made, dragged up and down. What shows on the stage is lit. */
const Rungs = memo(function Rungs({ definition }: { readonly definition: ControllerDefinition }) {
  const selected = useWorkbench((state) => state.selection.state);
  const seen = useFindings((state) => state.seen);
  const rungs = useMemo(() => rungsOf(definition), [definition]);
  const holder = useWorkbench((state) => state.selection.holder);
  const picked = holder === undefined ? selected : idOf(holder);
  const box = useRef<HTMLDivElement>(null);
  useShown(box);
  const current = rungs.find(({ id, kind }) => kind === 'state' && id === selected);
  // The body is what the document's own states show, and cannot be deleted.
  const track = holder?.kind === 'track' && holder.name !== 'body' ? holder.name : undefined;
  const siblings = (one: Rung): Rung[] =>
    rungs.filter(({ state }) => state !== undefined && besideOf(state) === besideOf(one.state!));
  const move = (one: Rung, by: number): void => {
    const at = siblings(one).findIndex(({ id }) => id === one.id);
    const edit = rankState(useWorkbench.getState().definition, one.name, at + by);
    act(edit, `rank ${one.name}`);
  };
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const moved = rungs.find(({ id }) => id === [...keys][0]);
      const onto = rungs.findIndex(({ id }) => id === target.key);
      if (moved?.state === undefined || onto < 0) return;
      // How many of those beside it stand above the place where it was let go.
      const above = rungs.slice(0, onto + (target.dropPosition === 'after' ? 1 : 0));
      const to = above.filter(
        ({ id, state }) =>
          id !== moved.id && state !== undefined && besideOf(state) === besideOf(moved.state!),
      ).length;
      const edit = rankState(useWorkbench.getState().definition, moved.name, to);
      if (edit.changes.length === 0)
        tell(`${moved.name} stays where it is among those it can be ranked with.`);
      act(edit);
    },
  });
  const add = (): void => {
    const { selection, definition: now } = useWorkbench.getState();
    const clip = selection.clip ?? Object.keys(now.clips)[0];
    if (clip === undefined) {
      tell('There is no clip yet that it could show. Make one in the first rooms.', true);
      return;
    }
    const isFirst = now.states === undefined;
    const top = Math.max(0, ...rungsOf(now).map(({ priority }) => priority));
    // Beside what is selected: in the same track and group, where its rank counts among few.
    const path = placeOf(now, selection);
    const priority = path.length > 0 ? 10 : top + 10;
    const edit = addState(now, clip, { shows: clip, ...(!isFirst && { priority }) }, path);
    act(edit);
    select({ state: String(edit.changes[0]!.op === 'set' ? edit.changes[0]!.path.at(-1) : clip) });
    if (isFirst) tell(`made state ${clip}: the character rests in it`);
  };
  const countOf = ({ state }: Rung): number =>
    state === undefined
      ? 0
      : seen.filter(
          ({ accepted, severity, path }) =>
            accepted === undefined && severity !== 'note' && path.join('.').startsWith(state.path.join('.')),
        ).length;
  return (
    <div className="panel ladder" ref={box}>
      <div className="row spread">
        <h2>ladder</h2>
        <div className="row">
          <IconButton label="new state" onPress={add}>
            <Plus size={15} />
          </IconButton>
          <IconButton
            label="new track"
            onPress={() => {
              const edit = addTrack(useWorkbench.getState().definition, 'arms');
              act(edit);
              select({ holder: { kind: 'track', name: String(edit.changes[0]!.path[1]) } });
            }}
          >
            <Layers size={15} />
          </IconButton>
          <IconButton
            label="rank it higher"
            keys="Alt+↑"
            isDisabled={current === undefined}
            onPress={() => move(current!, -1)}
          >
            <ChevronUp size={15} />
          </IconButton>
          <IconButton
            label="rank it lower"
            keys="Alt+↓"
            isDisabled={current === undefined}
            onPress={() => move(current!, 1)}
          >
            <ChevronDown size={15} />
          </IconButton>
          <IconButton
            label={track === undefined ? 'delete this state' : 'delete this track'}
            isDisabled={current === undefined && track === undefined}
            onPress={() => {
              const { definition: now } = useWorkbench.getState();
              act(track === undefined ? removeState(now, selected!) : removeTrack(now, track));
              select({ state: undefined });
            }}
          >
            <Trash2 size={15} />
          </IconButton>
        </div>
      </div>
      <p className="hint">highest rank first</p>
      <div
        className="rungs-and-hops"
        onKeyDownCapture={(event) => {
          if (!event.altKey || current === undefined) return;
          if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
          event.preventDefault();
          event.stopPropagation();
          move(current, event.key === 'ArrowUp' ? -1 : 1);
        }}
      >
        <GridList
          aria-label="states, from the highest rank down"
          selectionMode="single"
          selectedKeys={picked === undefined ? [] : [picked]}
          onSelectionChange={(keys) => {
            if (keys === 'all') return;
            for (const key of keys) {
              const one = rungs.find(({ id }) => id === key);
              if (one?.kind === 'state') select({ state: one.name });
              else if (one !== undefined) select({ holder: { kind: one.kind, name: one.name } });
            }
          }}
          dragAndDropHooks={dragAndDropHooks}
          items={rungs}
          dependencies={[seen]}
          renderEmptyState={() => <p className="hint">No state yet: each clip is shown by itself.</p>}
        >
          {(rung: Rung) => <RungRow rung={rung} found={countOf(rung)} />}
        </GridList>
        <HopLines definition={definition} selected={holder === undefined ? selected : undefined} />
      </div>
    </div>
  );
});

/** Where a new state is put: into the group or track that is looked at, or beside the state that is. */
function placeOf(definition: ControllerDefinition, { holder, state }: Selection): DocumentPath {
  if (holder?.kind === 'group') return groupIn(definition, holder.name)?.path ?? [];
  if (holder !== undefined) return holder.name === 'body' ? [] : ['tracks', holder.name];
  return (state === undefined ? undefined : stateIn(definition, state))?.path.slice(0, -2) ?? [];
}

function RungRow({ rung, found }: { readonly rung: Rung; readonly found: number }) {
  const { id, kind, name, depth, priority, state } = rung;
  const style = { marginLeft: depth * 14 };
  if (state === undefined)
    return (
      <GridListItem id={id} textValue={name} className={`rung-${kind}`} style={style}>
        <Button slot="drag" className="grip" isDisabled aria-label={`${name} stays where it is`}>
          {' '}
        </Button>
        <span className="number">{kind === 'group' ? priority : ''}</span>
        <b>{name}</b>
        <small>{kind}</small>
      </GridListItem>
    );
  const { definition } = state;
  const shown = firstShown(definition);
  const condition = definition.when ?? definition.while;
  return (
    <GridListItem id={id} textValue={name} className="rung" style={style}>
      <Button slot="drag" className="grip" aria-label={`move ${name}`}>
        ⋮
      </Button>
      <span className="number">{priority}</span>
      {shown === undefined ? (
        <span className="thumb" style={{ width: 34, height: 34 }} />
      ) : (
        <Thumbnail name={shown} size={34} />
      )}
      <span className="what" data-rung={name}>
        <b>{name}</b>
        <small>
          {kindOf(definition)}
          {condition === undefined ? '' : ` ${condition}`}
        </small>
      </span>
      {found > 0 ? (
        <span className="count" title={`${found} found`}>
          {found}
        </span>
      ) : null}
    </GridListItem>
  );
}

/** Lights the rungs whose states show on the stage, and those that want in. */
function useShown(box: { readonly current: HTMLElement | null }): void {
  useStage((performer) => {
    const how = new Map<string, string>();
    for (const { states } of performer === undefined ? [] : whysOf(performer))
      for (const { name, keptOut, wantsIn, takenBy } of states)
        if (takenBy === undefined) how.set(name, keptOut === 'shows' ? 'shows' : wantsIn ? 'wants' : '');
    for (const rung of box.current?.querySelectorAll<HTMLElement>('[data-rung]') ?? []) {
      const now = how.get(rung.dataset.rung ?? '') ?? '';
      if (rung.dataset.now !== now) rung.dataset.now = now;
    }
  });
}
