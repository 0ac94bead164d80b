import type { Sheet } from 'dot-hop';
import { useMemo, useState } from 'react';
import { Button, useDrag } from 'react-aria-components';
import { useSheet } from '../../character/sheet.js';
import { useWorkbench } from '../../character/store.js';
import { CellPicture, scaleToFit } from '../../parts/CellPicture.js';
import { Choice, optionsOf } from '../../parts/ui.js';
import { rowKind, rowsOf } from './rows.js';
import type { CellRow } from './rows.js';

/** How many drawings of a row are shown. */
const mostShown = 8;

/** The rows of a sheet: each is dragged on the direction that it is drawn for. */
export function RowTray() {
  const definition = useWorkbench((state) => state.definition);
  const drawn = useWorkbench((state) => state.drawn);
  const sheets = Object.keys(definition.sheets);
  const [picked, setPicked] = useState('');
  const name = sheets.includes(picked) ? picked : sheets[0];
  const sheet = useSheet(name);
  const cut = name === undefined ? undefined : definition.sheets[name];
  const rows = useMemo(
    () =>
      name === undefined || sheet === undefined || cut === undefined ? [] : rowsOf(name, sheet, cut, drawn),
    [name, sheet, cut, drawn],
  );
  if (name === undefined || sheet === undefined) return null;
  return (
    <section className="rows" aria-label="rows of cells">
      <div className="row">
        <h3>rows of cells</h3>
        {sheets.length > 1 ? (
          <Choice label="of the sheet" value={name} options={optionsOf(sheets)} onChange={setPicked} />
        ) : null}
        <span className="hint">
          drag a row on the direction above that it is drawn for; by keyboard: Enter, then Tab to the place,
          and Enter
        </span>
      </div>
      <ul>
        {rows.map((row, i) => (
          <Row key={row.cells[0]} row={row} number={i} sheet={sheet} />
        ))}
      </ul>
    </section>
  );
}

function Row({
  row,
  number,
  sheet,
}: {
  readonly row: CellRow;
  readonly number: number;
  readonly sheet: Sheet;
}) {
  const { cells } = row;
  const { dragProps, dragButtonProps, isDragging } = useDrag({
    hasDragButton: true,
    getItems: () => [{ [rowKind]: JSON.stringify(row), 'text/plain': `row ${number}` }],
    getAllowedDropOperations: () => ['copy'],
  });
  return (
    <li {...dragProps} className={isDragging ? 'dragged' : ''} data-testid={`row-${number}`}>
      <Button
        {...dragButtonProps}
        className="grip"
        aria-label={`move row ${number}, cells ${cells[0]!} to ${cells.at(-1)!}`}
      >
        ⋮
      </Button>
      <span className="drawings">
        {cells.slice(0, mostShown).map((cell) => {
          const drawing = sheet.cells[cell];
          return drawing === undefined ? null : (
            <CellPicture key={cell} cell={drawing} scale={Math.min(1, scaleToFit(drawing, 34))} />
          );
        })}
      </span>
      <small>
        {cells[0]}
        {cells.length > 1 ? ` to ${cells.at(-1)!}` : ''}
      </small>
    </li>
  );
}
