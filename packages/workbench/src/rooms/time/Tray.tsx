import { memo } from 'react';
import { ListBox, ListBoxItem, useDragAndDrop } from 'react-aria-components';
import { useSheet } from '../../character/sheet.js';
import { CellPicture } from '../../parts/CellPicture.js';

/** What a dragged cell is called while it is dragged. */
export const cellKind = 'x-dot-hop-cell';

/** The cells of the clip's sheet: dragged into the strip, or added by a double click or Enter. */
export const Tray = memo(function Tray({
  sheet,
  onAdd,
}: {
  readonly sheet: string;
  readonly onAdd: (cells: readonly number[]) => void;
}) {
  const cells = useSheet(sheet)?.cells ?? [];
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) =>
      [...keys].map((key) => ({ [cellKind]: String(key), 'text/plain': `cell ${String(key)}` })),
  });
  return (
    <div className="tray">
      <h2>
        cells of {sheet} <small>drag into the strip, or Enter</small>
      </h2>
      <ListBox
        aria-label={`cells of ${sheet}`}
        orientation="horizontal"
        selectionMode="multiple"
        selectionBehavior="replace"
        layout="grid"
        dragAndDropHooks={dragAndDropHooks}
        onAction={(key) => onAdd([Number(key)])}
      >
        {cells.map((cell) => (
          <ListBoxItem
            key={cell.index}
            id={String(cell.index)}
            textValue={`cell ${cell.index}`}
            aria-label={`cell ${cell.index}`}
          >
            <CellPicture cell={cell} size={36} />
            <small>{cell.index}</small>
          </ListBoxItem>
        ))}
      </ListBox>
    </div>
  );
});
