import type { CompassDefinition } from 'dot-hop';
import { act, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { TextBox } from '../../parts/TextBox.js';
import { Choice, NumberBox, optionsOf } from '../../parts/ui.js';
import { setCompass } from './compass.js';

const directions = {
  sides: 'two sides',
  four: 'four',
  eight: 'eight',
  sixteen: 'sixteen',
  none: 'none: it never turns',
};
const diagonals = {
  nearest: 'the nearest direction',
  keep: 'the one it faces, if it is one of them',
  horizontal: 'the more level one',
  vertical: 'the more upright one',
};
const mirrors = { none: 'nothing', west: 'what points west', east: 'what points east' };
const ups = { '-y': 'grows downwards', '+y': 'grows upwards' };

/** How one says that what points to a side is a mirror image of the other. */
const mirrorOf = (
  side: 'west' | 'east',
  directions: CompassDefinition['directions'],
): CompassDefinition['mirror'] =>
  directions !== 'sides' ? side : side === 'west' ? { west: 'east' } : { east: 'west' };

/** A number or an expression as it was typed. */
const typed = (text: string): string | number => (/^-?\d+(\.\d+)?$/.test(text) ? Number(text) : text);

/** What turns a character, and how soon. */
export function CompassPanel({ compass }: { readonly compass: CompassDefinition }) {
  const definition = useWorkbench((state) => state.definition);
  const names = useWorkbench((state) => state.controller?.compass.names);
  const { by, mirror } = compass;
  const side =
    mirror === undefined ? 'none' : typeof mirror === 'string' ? mirror : 'west' in mirror ? 'west' : 'east';
  // Written out for more directions than two, it is somebody's own.
  const isWritten = typeof mirror === 'object' && Object.keys(mirror).length > 1;
  const vectors = Object.entries(definition.signals ?? {}).flatMap(([name, one]) =>
    'vector' in one ? [name] : [],
  );
  return (
    <div className="panel compass">
      <h2>compass</h2>
      {typeof compass.directions === 'string' ? (
        <Choice
          label="directions"
          value={compass.directions}
          options={directions}
          onChange={(directions) => {
            act(
              {
                says: '“directions” of the compass',
                changes: [
                  { op: 'set', path: ['compass', 'directions'], value: directions },
                  // A side means as many directions as point there.
                  ...(side === 'none' || isWritten
                    ? []
                    : [
                        {
                          op: 'set',
                          path: ['compass', 'mirror'],
                          value: mirrorOf(side, directions),
                        } as const,
                      ]),
                ],
              },
              'compass directions',
            );
          }}
        />
      ) : (
        <p className="told">directions of its own: {Object.keys(compass.directions).join(', ')}</p>
      )}
      {vectors.length > 0 ? (
        <Choice
          label="turned by"
          value={typeof by === 'string' ? by : ''}
          options={{ ...optionsOf(vectors), '': 'two numbers' }}
          onChange={(one) => setCompass('by', one === '' ? [0, 0] : one)}
        />
      ) : null}
      {typeof by === 'string' ? null : (
        <div className="pair">
          {[0, 1].map((i) => (
            <TextBox
              key={i}
              label={i === 0 ? 'to the right' : 'downwards'}
              value={String(by?.[i] ?? 0)}
              onChange={(text) => {
                const [x, y] = by ?? [0, 0];
                setCompass('by', i === 0 ? [typed(text), y] : [x, typed(text)]);
              }}
            />
          ))}
        </div>
      )}
      <Choice
        label="its second number"
        value={compass.up ?? '-y'}
        options={ups}
        onChange={(up) => setCompass('up', up)}
      />
      <Choice
        label="drawn as a mirror image"
        value={side}
        options={mirrors}
        onChange={(one) =>
          setCompass('mirror', one === 'none' ? undefined : mirrorOf(one, compass.directions))
        }
      />
      <NumberBox
        label="dead zone"
        step={0.01}
        value={compass.deadZone ?? 0}
        onChange={(deadZone) => setCompass('deadZone', deadZone)}
      />
      <NumberBox
        label="sticks by"
        unit="°"
        most={90}
        step={0.1}
        value={compass.stick ?? 0}
        onChange={(stick) => setCompass('stick', stick)}
      />
      <NumberBox
        label="each direction on the way"
        unit="ms"
        most={10_000}
        value={compass.through ?? 0}
        onChange={(through) => setCompass('through', through)}
      />
      <Choice
        label="between two directions shows"
        value={compass.diagonal ?? 'nearest'}
        options={diagonals}
        onChange={(diagonal) => setCompass('diagonal', diagonal)}
      />
      {names === undefined || names.length < 2 ? null : (
        <Choice
          label="faces at first"
          value={compass.start ?? names[0]!}
          options={optionsOf(names)}
          onChange={(start) => setCompass('start', start)}
        />
      )}
      {/* At the foot, since what is found changes while one drags beside it, and nothing may move there. */}
      <ProblemsAt path={['compass']} />
      <ProblemsAt path={['flipbooks']} />
    </div>
  );
}
