import type { Controller, ControllerDefinition, DirectionDrawing } from 'dot-hop';
import { drawFor } from 'dot-hop/edit';
import { useRef } from 'react';
import { isTextDropItem, useDrop } from 'react-aria-components';
import type { DropItem } from 'react-aria-components';
import { scaleToFit } from '../../parts/CellPicture.js';
import { FramePicture } from '../../parts/FramePicture.js';
import { act, useWorkbench } from '../../character/store.js';
import { rowKind } from './rows.js';
import type { CellRow } from './rows.js';

/** What each flipbook shows in each direction: drawn for it, mirrored, or standing in. */
export function FlipbookTable({
  controller,
  definition,
  onPick,
}: {
  readonly controller: Controller | undefined;
  readonly definition: ControllerDefinition;
  /** Called when a picture is pressed, with its flipbook and where its direction lies. */
  readonly onPick: (name: string, degrees: number) => void;
}) {
  if (controller === undefined || controller.flipbooks.size === 0) return null;
  const { compass, flipbooks } = controller;
  return (
    <section className="pages" aria-label="what shows in each direction">
      <h3>what shows in each direction</h3>
      <div className="scrolls">
        <table>
          <thead>
            <tr>
              <th scope="col">flipbook or clip</th>
              {compass.names.map((direction) => (
                <th key={direction} scope="col">
                  {direction}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {[...flipbooks].map(([name, all]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {all.map((page, i) => (
                  <Shown
                    key={compass.names[i]}
                    name={name}
                    page={page}
                    direction={compass.names[i]!}
                    drawnFor={compass.names[page.drawnFor]!}
                    first={compass.names[compass.start]!}
                    definition={definition}
                    onPick={() => onPick(name, compass.degrees[i]!)}
                  />
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

/** The row of cells that was dropped; `undefined` for something else. */
async function droppedRow(items: readonly DropItem[]): Promise<CellRow | undefined> {
  for (const item of items)
    if (isTextDropItem(item) && item.types.has(rowKind))
      return JSON.parse(await item.getText(rowKind)) as CellRow;
  return undefined;
}

/** What one flipbook shows in one direction. A row of cells that is dropped on it is drawn for that direction from then on. */
function Shown({
  name,
  page: { clip, mirrored, standsIn },
  direction,
  drawnFor,
  first,
  definition,
  onPick,
}: {
  readonly name: string;
  readonly page: DirectionDrawing;
  readonly direction: string;
  readonly drawnFor: string;
  readonly first: string;
  readonly definition: ControllerDefinition;
  readonly onPick: () => void;
}) {
  const place = useRef<HTMLTableCellElement>(null);
  const own = definition.flipbooks?.[name];
  // What is written in rows of a sheet has all its directions from there.
  const isInRows = own === undefined && definition.clips[name]?.rows !== undefined;
  const { dropProps, isDropTarget } = useDrop({
    ref: place,
    isDisabled: isInRows,
    getDropOperation: (types) => (types.has(rowKind) ? 'copy' : 'cancel'),
    onDrop: ({ items }) =>
      void droppedRow(items).then((row) => {
        if (row !== undefined)
          act(drawFor(useWorkbench.getState().definition, name, direction, row.sheet, row.cells, first));
      }),
  });
  const how = standsIn
    ? `stands in, drawn for ${drawnFor}`
    : mirrored
      ? `mirrored from ${drawnFor}`
      : 'drawn';
  const look = standsIn ? 'lacks' : mirrored ? 'mirrored' : '';
  return (
    <td
      ref={place}
      {...dropProps}
      className={isDropTarget ? `${look} over` : look}
      aria-label={`${name}, ${direction}`}
      // Focus comes here while a row is dragged by keyboard, and not else.
      tabIndex={-1}
      data-testid={`page-${name}-${direction}`}
    >
      <button type="button" aria-label={`${name}, ${direction}: ${clip.name}, ${how}`} onClick={onPick}>
        <span
          className="thumb"
          style={{ width: 46, height: 46, ...(mirrored && { transform: 'scaleX(-1)' }) }}
        >
          <FramePicture
            clip={clip}
            frame={0}
            scale={Math.min(1, scaleToFit(clip.frames[0]!, 46))}
            direction={direction}
          />
        </span>
        <small>{standsIn ? 'stands in' : mirrored ? 'mirrored' : 'drawn'}</small>
      </button>
      {own === undefined ? null : (
        <select
          aria-label={`the clip of ${name} for ${direction}`}
          value={own[direction] ?? ''}
          onChange={({ target: { value } }) =>
            act({
              says: `${name} to the ${direction}`,
              changes: [
                value === ''
                  ? { op: 'remove', path: ['flipbooks', name, direction] }
                  : { op: 'set', path: ['flipbooks', name, direction], value },
              ],
            })
          }
        >
          <option value="">none</option>
          {Object.keys(definition.clips).map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
      )}
    </td>
  );
}
