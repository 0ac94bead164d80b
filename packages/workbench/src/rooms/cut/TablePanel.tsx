import { useState } from 'react';
import { Button, FileTrigger } from 'react-aria-components';
import { guessedColumns } from 'dot-hop/gather';
import type { TableColumns, TableRows } from 'dot-hop/gather';
import { bringTable, readTable } from '../../character/bring.js';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { Choice } from '../../parts/ui.js';

const needed = ['x', 'y', 'width', 'height'] as const;
const none = '(none)';

/** The columns with one of them pointed at, or left out. */
function pointed(columns: TableColumns, field: keyof TableColumns, name: string | undefined): TableColumns {
  const others = Object.fromEntries(Object.entries(columns).filter(([other]) => other !== field));
  return name === undefined ? others : { ...others, [field]: name };
}

/** Cuts by a table of rectangles, whose columns are pointed at. */
export function TablePanel({ sheet }: { readonly sheet: string }) {
  const [table, setTable] = useState<TableRows | undefined>();
  const [columns, setColumns] = useState<TableColumns>({});
  const read = async (files: FileList | null): Promise<void> => {
    const file = files?.[0];
    if (file === undefined) return;
    const rows = await readTable(await file.text());
    if (rows === undefined) {
      tell(
        `${file.name} is not a table, or has no rows: the first line names the columns, each further line is a cell.`,
        true,
      );
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
    const made = bringTable(table, columns, sheet, definition);
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
            label={field === 'name' ? 'name, for clips' : field}
            value={columns[field] ?? none}
            options={options}
            onChange={(name) => setColumns(pointed(columns, field, name === none ? undefined : name))}
          />
        ))}
      </div>
      <div className="row">
        <Button className="main" isDisabled={!isWhole} onPress={cut}>
          Apply
        </Button>
        <Button onPress={() => setTable(undefined)}>Cancel</Button>
      </div>
    </>
  );
}
