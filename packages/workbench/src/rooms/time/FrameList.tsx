import type { Cell, Clip, ControllerDefinition } from 'dot-hop';
import { insertFrames, moveFrame } from 'dot-hop/edit';
import type { SheetSize } from 'dot-hop/edit';
import { createContext, memo, useContext } from 'react';
import { ListBox, ListBoxItem, isTextDropItem, useDragAndDrop } from 'react-aria-components';
import { act, select, useWorkbench } from '../../character/store.js';
import { CellPicture, scaleToFit } from '../../parts/CellPicture.js';
import { FramePicture } from '../../parts/FramePicture.js';
import { cellKind } from './CellTray.js';

/** What a frame looks like on the strip. */
export interface FrameLook {
  /** The number of its cell on the sheet. */
  readonly number: number;
  readonly cell: Cell | undefined;
  /** The clip as it was compiled last, which may not have the frame yet. */
  readonly clip: Clip | undefined;
  readonly ms: number;
  readonly isOff: boolean;
  readonly isWide: boolean;
  /** How large its drawing is shown, in CSS pixels. */
  readonly size: number;
}

/**
 * The frames' looks go past the list, straight to what shows them: a list that is given anything new draws all of its items again, and
 * while a border is dragged that takes longer than a picture.
 */
export const FrameLooks = createContext<readonly FrameLook[]>([]);

const now = (): ControllerDefinition => useWorkbench.getState().definition;

/** The frames of a clip, to be picked, moved, and dropped upon. How wide each is stands in the style of what they lie in. */
export const FrameList = memo(function FrameList({
  name,
  size,
  count,
  selected,
}: {
  readonly name: string;
  readonly size: SheetSize;
  readonly count: number;
  readonly selected: readonly number[];
}) {
  const { dragAndDropHooks } = useDragAndDrop({
    acceptedDragTypes: [cellKind, 'x-dot-hop-frame'],
    getItems: (keys) =>
      [...keys].map((key) => ({ 'x-dot-hop-frame': String(key), 'text/plain': `frame ${Number(key) + 1}` })),
    onReorder: ({ keys, target }) => {
      const from = Number([...keys][0]);
      const to = Number(target.key) + (target.dropPosition === 'after' ? 1 : 0);
      const at = to > from ? to - 1 : to;
      act(moveFrame(now(), name, size, from, at));
      select({ frames: [at] });
    },
    onInsert: ({ items, target }) => {
      const at = Number(target.key) + (target.dropPosition === 'after' ? 1 : 0);
      void Promise.all(
        items.flatMap((item) =>
          isTextDropItem(item) && item.types.has(cellKind) ? [item.getText(cellKind)] : [],
        ),
      ).then((cells) => {
        if (cells.length === 0) return;
        act(insertFrames(now(), name, size, at, cells.map(Number)));
        select({ frames: cells.map((_, i) => at + i) });
      });
    },
  });
  const all = Array.from({ length: count }, (_, i) => i);
  return (
    <ListBox
      aria-label={`frames of ${name}`}
      orientation="horizontal"
      selectionMode="multiple"
      selectionBehavior="replace"
      selectedKeys={selected.map(String)}
      onSelectionChange={(keys) =>
        select({ frames: keys === 'all' ? all : [...keys].map(Number).sort((a, b) => a - b) })
      }
      dragAndDropHooks={dragAndDropHooks}
    >
      {all.map((at) => (
        <ListBoxItem
          key={at}
          id={String(at)}
          textValue={`frame ${at + 1}`}
          className="frame"
          style={{ width: `calc(var(--ms-${at}) * var(--per-ms) * 1px)` }}
        >
          <Face at={at} />
        </ListBoxItem>
      ))}
    </ListBox>
  );
});

/** A frame's drawing and time. */
function Face({ at }: { readonly at: number }) {
  const look = useContext(FrameLooks)[at];
  if (look === undefined) return null;
  const { number, clip, cell, ms, isOff, isWide, size } = look;
  const scale = cell === undefined ? 1 : scaleToFit(cell, size);
  return (
    <>
      <span className="hidden">{`frame ${at + 1}, cell ${number}, ${Math.round(ms)} ms`}</span>
      {isOff ? <i className="off" /> : null}
      {clip?.frames[at] === undefined ? (
        <CellPicture cell={cell} scale={scale} />
      ) : (
        <FramePicture clip={clip} frame={at} scale={scale} />
      )}
      <small aria-hidden="true">{isWide ? `${Math.round(ms)} ms` : Math.round(ms)}</small>
    </>
  );
}
