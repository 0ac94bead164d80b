import { memo } from 'react';
import { GridLayout, ListBox, ListBoxItem, Size, Virtualizer, useDragAndDrop } from 'react-aria-components';
import { useSheet } from '../../character/sheet.js';
import { CellPicture, scaleToFit } from '../../parts/CellPicture.js';

/** What a dragged cell is called while it is dragged. */
export const cellKind = 'x-dot-hop-cell';

const size = new Size(46, 56);
const places = { minItemSize: size, maxItemSize: size, minSpace: new Size(3, 3) };

/** The cells of the clip's sheet: dragged into the strip, or added by a double click or Enter. */
export const CellTray = memo(function CellTray({
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
      {/* Of a thousand cells only those that can be seen are on the page. */}
      <Virtualizer layout={GridLayout} layoutOptions={places}>
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
              <CellPicture cell={cell} scale={scaleToFit(cell, 36)} />
              <small>{cell.index}</small>
            </ListBoxItem>
          ))}
        </ListBox>
      </Virtualizer>
    </div>
  );
});
