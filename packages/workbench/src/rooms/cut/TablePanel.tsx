import { useState } from 'react';
import { Button, FileTrigger } from 'react-aria-components';
import { bringTable, guessedColumns, readTable } from '../../character/bring.js';
import type { Table, TableColumns } from '../../character/bring.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { Choice } from '../../parts/ui.js';

const needed = ['x', 'y', 'width', 'height'] as const;
const none = '(none)';

/** Cuts by a table of rectangles, whose columns are pointed at. */
export function TablePanel({ sheet }: { readonly sheet: string }) {
  const [table, setTable] = useState<Table | undefined>();
  const [columns, setColumns] = useState<Partial<TableColumns>>({});
  const read = async (files: FileList | null): Promise<void> => {
    const file = files?.[0];
    if (file === undefined) return;
    const rows = readTable(await file.text());
    if (rows.length === 0) {
      tell(`${file.name} has no rows: the first line names the columns, each further line is a cell.`, true);
      return;
    }
    setTable(rows);
    setColumns(guessedColumns(rows));
  };
  if (table === undefined)
    return (
      <FileTrigger acceptedFileTypes={['.csv']} onSelect={(files) => void read(files)}>
        <Button>Choose a table (CSV) …</Button>
      </FileTrigger>
    );
  const names = Object.keys(table[0]!);
  const options = Object.fromEntries([none, ...names].map((name) => [name, name]));
  const isWhole = needed.every((field) => columns[field] !== undefined);
  const cut = (): void => {
    const { definition } = useWorkbench.getState();
    const made = bringTable(table, columns as TableColumns, sheet, definition);
    if ('trouble' in made) {
      tell(made.trouble, true);
      return;
    }
    act(made.edit);
    select({ cells: [] });
    setTable(undefined);
  };
  return (
    <>
      <p className="hint">{table.length} rows. Which column is what?</p>
      <div className="fields">
        {[...needed, 'name' as const].map((field) => (
          <Choice
            key={field}
            label={field === 'name' ? 'name (makes the clips)' : field}
            value={columns[field] ?? none}
            options={options}
            onChange={(name) => setColumns({ ...columns, [field]: name === none ? undefined : name })}
          />
        ))}
      </div>
      <div className="row">
        <Button className="main" isDisabled={!isWhole} onPress={cut}>
          Cut so
        </Button>
        <Button onPress={() => setTable(undefined)}>Leave it</Button>
      </div>
    </>
  );
}
