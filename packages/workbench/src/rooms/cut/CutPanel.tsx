import type { GridDefinition } from 'dot-hop';
import { cutSheet, newClips } from 'dot-hop/edit';
import { clipsOfRows, cutIslands, gridFit } from 'dot-hop/gather';
import { useState } from 'react';
import { Button, Input, Label, Tab, TabList, TabPanel, Tabs, TextField } from 'react-aria-components';
import { act, select, tell, useWorkbench } from '../../character/store.js';
import { NumberBox } from '../../parts/ui.js';
import { cutWith } from './cut-with.js';
import { TablePanel } from './TablePanel.js';

/** Drawings that were found and are not taken over yet. */
export interface Proposal {
  readonly cells: readonly (readonly [number, number, number, number])[];
  readonly said: string;
}

const pixels = (count: number): string => `${count} ${count === 1 ? 'pixel' : 'pixels'}`;

/** How a sheet is cut: in a grid, by the gaps between its drawings, or by a table. */
export function CutPanel({
  sheet,
  proposal,
  onProposal,
}: {
  readonly sheet: string;
  readonly proposal: Proposal | undefined;
  readonly onProposal: (proposal: Proposal | undefined) => void;
}) {
  const own = useWorkbench((state) => state.definition.sheets[sheet]);
  const picture = useWorkbench((state) => state.drawn.get(own?.image ?? '')?.picture);
  if (own?.images !== undefined)
    return (
      <p className="hint">
        Each image is a cell. Drop more images to add them; a name that fits a clip joins it.
      </p>
    );
  return (
    <Tabs
      className="cutting"
      defaultSelectedKey={own?.cells === undefined ? 'grid' : 'gaps'}
      onSelectionChange={() => onProposal(undefined)}
    >
      <TabList aria-label="how the sheet is cut">
        <Tab id="grid">grid</Tab>
        <Tab id="gaps">gaps</Tab>
        <Tab id="table">table</Tab>
      </TabList>
      <TabPanel id="grid">
        <GridFields sheet={sheet} grid={own?.grid} picture={picture} />
      </TabPanel>
      <TabPanel id="gaps">
        <GapFields sheet={sheet} proposal={proposal} onProposal={onProposal} />
      </TabPanel>
      <TabPanel id="table">
        <TablePanel sheet={sheet} />
      </TabPanel>
    </Tabs>
  );
}

function GridFields({
  sheet,
  grid = { cell: [32, 32] },
  picture,
}: {
  readonly sheet: string;
  readonly grid: GridDefinition | undefined;
  readonly picture: { readonly width: number; readonly height: number } | undefined;
}) {
  const isGrid = useWorkbench((state) => state.definition.sheets[sheet]?.grid !== undefined);
  const fit = picture === undefined ? undefined : gridFit(picture, grid);
  const [x, y] = grid.offset ?? [0, 0];
  const [across, down] = typeof grid.gap === 'object' ? grid.gap : [grid.gap ?? 0, grid.gap ?? 0];
  const put = (some: Partial<GridDefinition>): void => cutWith(sheet, { ...grid, ...some });
  return (
    <>
      <div className="fields four">
        <NumberBox
          label="width"
          least={1}
          value={grid.cell[0]}
          onChange={(value) => put({ cell: [value, grid.cell[1]] })}
        />
        <NumberBox
          label="height"
          least={1}
          value={grid.cell[1]}
          onChange={(value) => put({ cell: [grid.cell[0], value] })}
        />
        <NumberBox label="from x" value={x} onChange={(value) => put({ offset: [value, y] })} />
        <NumberBox label="from y" value={y} onChange={(value) => put({ offset: [x, value] })} />
        <NumberBox label="gap x" value={across} onChange={(value) => put({ gap: [value, down] })} />
        <NumberBox label="gap y" value={down} onChange={(value) => put({ gap: [across, value] })} />
        <NumberBox label="margin" value={grid.margin ?? 0} onChange={(margin) => put({ margin })} />
      </div>
      {fit === undefined ? null : (
        <p className={fit.right + fit.below > 0 ? 'told bad' : 'told good'} data-testid="grid-fit">
          {isGrid ? '' : 'A grid would have '}
          {fit.columns} × {fit.rows} cells
          {fit.right + fit.below === 0
            ? ', nothing left over'
            : `; ${[...(fit.right > 0 ? [`${pixels(fit.right)} at the right`] : []), ...(fit.below > 0 ? [`${pixels(fit.below)} below`] : [])].join(' and ')} left over`}
        </p>
      )}
      <RowsButton sheet={sheet} grid={grid} />
    </>
  );
}

/** Some clips of several, by name. */
const picked = <T,>(all: Readonly<Record<string, T>>, names: readonly string[]): Record<string, T> =>
  Object.fromEntries(names.map((name) => [name, all[name]!]));

/** A clip for each row of the grid. */
function RowsButton({ sheet, grid }: { readonly sheet: string; readonly grid: GridDefinition }) {
  const make = (): void => {
    const { definition, drawn } = useWorkbench.getState();
    const picture = drawn.get(definition.sheets[sheet]?.image ?? '')?.picture;
    if (picture === undefined) return;
    const made = clipsOfRows(picture, grid);
    const rows = Object.keys(made).filter((name) => !(name in definition.clips));
    if (rows.length === 0) {
      tell('Every row has a clip already.');
      return;
    }
    act({
      says: `a clip for each row of ${sheet}`,
      changes: newClips(definition, sheet, picked(made, rows)),
    });
    select({ clip: rows[0]!, frames: [] });
  };
  return <Button onPress={make}>A clip for each row</Button>;
}

function GapFields({
  sheet,
  proposal,
  onProposal,
}: {
  readonly sheet: string;
  readonly proposal: Proposal | undefined;
  readonly onProposal: (proposal: Proposal | undefined) => void;
}) {
  const [near, setNear] = useState(2);
  const [ground, setGround] = useState('');
  const [rows, setRows] = useState(true);
  const isColour = ground === '' || /^#[0-9a-f]{6}$/i.test(ground);
  const look = (distance: number, colour: string): void => {
    const { definition, drawn } = useWorkbench.getState();
    const picture = drawn.get(definition.sheets[sheet]?.image ?? '')?.picture;
    if (picture === undefined) return;
    const found = cutIslands(picture, {
      near: distance,
      ground: colour === '' ? undefined : colour.toLowerCase(),
    });
    if (found === undefined) {
      onProposal(undefined);
      tell(
        'Nothing in it is transparent, and its corners have no colour in common. Write down the colour on which the drawings lie.',
        true,
      );
      return;
    }
    const cells = found.cells as readonly (readonly [number, number, number, number])[];
    const taken = found.ground === undefined ? '' : `, ${found.ground} taken for transparent`;
    const fits = found.grid === undefined ? '' : `; a grid of ${found.grid.cell.join(' × ')} fits too`;
    onProposal({ cells, said: `${cells.length} drawings${taken}${fits}` });
  };
  const takeOver = (): void => {
    if (proposal === undefined) return;
    const { definition, drawn } = useWorkbench.getState();
    const picture = drawn.get(definition.sheets[sheet]?.image ?? '')!.picture;
    const cut = cutIslands(picture, { near, ground: ground === '' ? undefined : ground.toLowerCase() })!;
    const names = rows ? Object.keys(cut.clips).filter((name) => !(name in definition.clips)) : [];
    act({
      says: `cut ${sheet} by its drawings`,
      changes: [
        ...cutSheet(definition, sheet, { cells: cut.cells }).changes,
        ...newClips(definition, sheet, picked(cut.clips, names)),
      ],
    });
    onProposal(undefined);
  };
  return (
    <>
      <div className="fields">
        <NumberBox
          label="join within"
          unit="px"
          value={near}
          most={256}
          onChange={(value) => {
            setNear(value);
            if (proposal !== undefined) look(value, ground);
          }}
        />
        <TextField className="number" value={ground} onChange={setGround} isInvalid={!isColour}>
          <Label>ground colour</Label>
          <Input placeholder="by itself" spellCheck="false" />
        </TextField>
      </div>
      <label className="check">
        <input type="checkbox" checked={rows} onChange={(event) => setRows(event.target.checked)} /> a clip
        for each row
      </label>
      {proposal === undefined ? (
        <Button isDisabled={!isColour} onPress={() => look(near, ground)}>
          Find the drawings
        </Button>
      ) : (
        <>
          <p className="told good" data-testid="proposal">
            {proposal.said}
          </p>
          <div className="row">
            <Button className="main" onPress={takeOver}>
              Apply
            </Button>
            <Button onPress={() => onProposal(undefined)}>Cancel</Button>
          </div>
        </>
      )}
    </>
  );
}
