import type { CompassDefinition } from 'dot-hop';
import { useState } from 'react';
import { act, useWorkbench } from '../../character/store.js';
import { Choice, optionsOf } from '../../parts/ui.js';
import { CompassPanel } from './CompassPanel.js';
import { Dial } from './Dial.js';
import { FlipbookTable } from './FlipbookTable.js';
import { RowTray } from './RowTray.js';

/** The directions a character can face, and what it shows in each. */
export function TurnRoom() {
  const definition = useWorkbench((state) => state.definition);
  const controller = useWorkbench((state) => state.controller);
  const [picked, setPicked] = useState('');
  const [pointTo, setPointTo] = useState<{ readonly degrees: number } | undefined>();
  const { compass } = definition;
  const names = [...(controller?.flipbooks.keys() ?? [])];
  const shown = names.includes(picked) ? picked : (names[0] ?? '');
  const begin = (): void => {
    const vector = Object.entries(definition.signals ?? {}).find(([, one]) => 'vector' in one)?.[0];
    const numbers = Object.entries(definition.signals ?? {}).flatMap(([name, one]) =>
      'number' in one ? [name] : [],
    );
    const first: CompassDefinition = {
      directions: 'sides',
      mirror: { west: 'east' },
      by: vector ?? [numbers.find((name) => name.endsWith('x')) ?? numbers[0] ?? 0, 0],
    };
    act({ says: 'let it turn', changes: [{ op: 'set', path: ['compass'], value: first }] });
  };
  if (compass === undefined)
    return (
      <div className="hint empty">
        <p>The character never turns: it shows every drawing as it is.</p>
        <p>
          <button type="button" className="main" onClick={begin}>
            let it turn
          </button>
        </p>
        <p>
          It faces east and west then, west as the mirror image of east. More directions are chosen after
          that.
        </p>
      </div>
    );
  return (
    <div className="turn">
      <CompassPanel compass={compass} />
      <div className="middle">
        {shown === '' ? (
          <p className="hint">
            No state shows anything yet: see what shows in each direction once there is one.
          </p>
        ) : (
          <>
            <div className="fieldset">
              <Choice label="what is turned" value={shown} options={optionsOf(names)} onChange={setPicked} />
              <p className="hint told">
                drag the vector on the dial. The ring in the middle is the dead zone, the borders stick, the
                knobs lean diagonals to one side: all of them can be dragged; a knob pressed twice keeps the
                direction
              </p>
            </div>
            <Dial definition={definition} flipbook={shown} pointTo={pointTo} />
          </>
        )}
        <FlipbookTable
          controller={controller}
          definition={definition}
          onPick={(name, degrees) => {
            setPicked(name);
            setPointTo({ degrees });
          }}
        />
        <RowTray />
      </div>
    </div>
  );
}
