import type { Controller, ControllerDefinition } from 'dot-hop';
import { CellPicture, scaleToFit } from '../../parts/CellPicture.js';
import { act } from '../../character/store.js';

/** What each flipbook shows in each direction: drawn for it, mirrored, or standing in. */
export function Pages({
  controller,
  definition,
  onPick,
}: {
  readonly controller: Controller | undefined;
  readonly definition: ControllerDefinition;
  /** Is told of a picture that is pressed: its flipbook, and where its direction lies. */
  readonly onPick: (name: string, degrees: number) => void;
}) {
  if (controller === undefined || controller.pages.size === 0) return null;
  const { compass, pages } = controller;
  const clips = Object.keys(definition.clips);
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
            {[...pages].map(([name, all]) => (
              <tr key={name}>
                <th scope="row">{name}</th>
                {all.map(({ clip, mirrored, standsIn, drawnFor }, i) => {
                  const direction = compass.names[i]!;
                  const how = standsIn
                    ? `stands in, drawn for ${compass.names[drawnFor]!}`
                    : mirrored
                      ? `mirrored from ${compass.names[drawnFor]!}`
                      : 'drawn';
                  const cell = clip.cells[0]!;
                  const own = definition.flipbooks?.[name];
                  return (
                    <td key={direction} className={standsIn ? 'lacks' : mirrored ? 'mirrored' : ''}>
                      <button
                        type="button"
                        aria-label={`${name}, ${direction}: ${clip.name}, ${how}`}
                        onClick={() => onPick(name, compass.degrees[i]!)}
                      >
                        <span
                          className="thumb"
                          style={{ width: 46, height: 46, ...(mirrored && { transform: 'scaleX(-1)' }) }}
                        >
                          <CellPicture cell={cell} scale={Math.min(1, scaleToFit(cell, 46))} />
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
                          <option value="">none of its own</option>
                          {clips.map((one) => (
                            <option key={one}>{one}</option>
                          ))}
                        </select>
                      )}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}
