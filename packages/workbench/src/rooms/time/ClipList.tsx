import type { ControllerDefinition } from 'dot-hop';
import { addClip, duplicateClip, moveClip, removeClip } from 'dot-hop/edit';
import { showsOf, statesIn } from 'dot-hop/explain';
import { Copy, Plus, Trash2 } from 'lucide-react';
import { memo } from 'react';
import { Button, GridList, GridListItem, useDragAndDrop } from 'react-aria-components';
import { useShallow } from 'zustand/shallow';
import { clipOf } from '../../character/clip.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { clipColour } from '../../parts/colours.js';
import { IconButton } from '../../parts/ui.js';
import { Thumbnail } from '../../parts/Thumbnail.js';

/** A clip in the list; the same object as long as it is the same clip, so that the list draws only what changes. */
interface ClipItem {
  readonly id: string;
  readonly colour: string;
}

const items = new Map<string, ClipItem>();

const itemsOf = (names: readonly string[]): ClipItem[] =>
  names.map((id, i) => {
    const key = `${i} ${id}`;
    let item = items.get(key);
    if (item === undefined) items.set(key, (item = { id, colour: clipColour(i) }));
    return item;
  });

/** How many frames a clip has, and how long one pass takes. */
function Facts({ name }: { readonly name: string }) {
  const facts = useWorkbench(({ controller }) => {
    const clip = clipOf(controller, name);
    return clip === undefined
      ? ''
      : `${clip.frames.length} · ${Math.round(clip.ends[clip.ends.length - 1]! / 1000)} ms`;
  });
  return <small>{facts}</small>;
}

/** The clips of the character: picked, made, put in order. It is drawn again when clips come, go or move, and not at each edit. */
export const ClipList = memo(function ClipList() {
  const selected = useWorkbench((state) => state.selection.clip);
  const names = useWorkbench(useShallow((state) => Object.keys(state.definition.clips)));
  const definition = (): ControllerDefinition => useWorkbench.getState().definition;
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    onReorder: ({ keys, target }) => {
      const moved = String([...keys][0]);
      const rest = names.filter((one) => one !== moved);
      const at = rest.indexOf(String(target.key)) + (target.dropPosition === 'after' ? 1 : 0);
      act(moveClip(moved, at));
    },
  });
  const add = (): void => {
    const sheet = useWorkbench.getState().selection.sheet ?? Object.keys(definition().sheets)[0];
    if (sheet === undefined) {
      tell('There is no sheet yet. Bring drawings in the first room.', true);
      return;
    }
    const edit = addClip(definition(), 'clip', sheet, [0]);
    act(edit);
    select({ clip: String(edit.changes[0]!.path[1]), frames: [] });
  };
  return (
    <div className="panel clips">
      <div className="row spread">
        <h2>clips</h2>
        <div className="row">
          <IconButton label="new clip" onPress={add}>
            <Plus size={15} />
          </IconButton>
          <IconButton
            label="duplicate this clip"
            isDisabled={selected === undefined}
            onPress={() => {
              const edit = duplicateClip(definition(), selected!);
              act(edit);
              const [change] = edit.changes;
              if (change?.op === 'insert') select({ clip: change.name, frames: [] });
            }}
          >
            <Copy size={15} />
          </IconButton>
          <IconButton
            label="delete this clip"
            isDisabled={selected === undefined}
            onPress={() => {
              const showing = statesIn(definition()).flatMap((state) =>
                showsOf(state.definition).includes(selected!) ? [state.name] : [],
              );
              act(removeClip(useWorkbench.getState().definition, selected!));
              if (showing.length > 0)
                tell(
                  `Deleted. ${showing.join(', ')} showed it and cannot be performed now; undo brings it back.`,
                  true,
                );
            }}
          >
            <Trash2 size={15} />
          </IconButton>
        </div>
      </div>
      <GridList
        aria-label="clips"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={selected === undefined ? [] : [selected]}
        onSelectionChange={(keys) => {
          if (keys === 'all') return;
          for (const key of keys) select({ clip: String(key), frames: [] });
        }}
        dragAndDropHooks={dragAndDropHooks}
        items={itemsOf(names)}
      >
        {(item: ClipItem) => (
          <GridListItem id={item.id} textValue={item.id}>
            <Button slot="drag" className="grip" aria-label={`move ${item.id}`}>
              ⋮
            </Button>
            <Thumbnail name={item.id} size={38} />
            <i style={{ background: item.colour }} />
            <span>{item.id}</span>
            <Facts name={item.id} />
          </GridListItem>
        )}
      </GridList>
    </div>
  );
});
