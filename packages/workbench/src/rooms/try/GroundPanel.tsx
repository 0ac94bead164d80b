import type { GroundDefinition } from 'dot-hop/rehearsal';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Button, ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import { IconButton, NumberBox } from '../../parts/ui.js';
import { levelGround, strokesOf, withStroke, withoutStroke } from './ground.js';
import type { GroundKind, Stroke } from './ground.js';

/** What a drag on the stage does. */
export type GroundTool = GroundKind | 'rubber';

const tools: Readonly<Record<GroundTool, string>> = {
  ground: 'ground, wall or pit',
  slope: 'slope',
  plank: 'plank',
  water: 'water',
  rubber: 'rub out',
};

const far = { least: -10_000, most: 10_000 };

/** The ground under a runner: a tool to draw it with, and its pieces by number. */
export function GroundPanel({
  ground,
  tool,
  onTool,
  onChange,
}: {
  readonly ground: GroundDefinition;
  readonly tool: GroundTool | undefined;
  readonly onTool: (tool: GroundTool | undefined) => void;
  readonly onChange: (ground: GroundDefinition) => void;
}) {
  const [kind, setKind] = useState<GroundKind>('plank');
  const strokes = strokesOf(ground);
  const exchange = (before: Stroke, after: Stroke): void =>
    onChange(withStroke(withoutStroke(ground, before), after));
  return (
    <details className="ground" onToggle={(event) => !event.currentTarget.open && onTool(undefined)}>
      <summary>the ground</summary>
      <div className="row">
        <ToggleButtonGroup
          aria-label="what a drag on the stage draws"
          selectionMode="single"
          selectedKeys={tool === undefined ? [] : [tool]}
          onSelectionChange={(keys) => onTool([...keys][0] as GroundTool | undefined)}
        >
          {Object.entries(tools).map(([key, words]) => (
            <ToggleButton key={key} id={key}>
              {words}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Button className="small" isDisabled={strokes.length === 0} onPress={() => onChange(levelGround)}>
          all level
        </Button>
      </div>
      <p className="hint">
        {tool === undefined
          ? 'Pick one, and drag on the stage from where it begins to where it ends. The character then starts over.'
          : tool === 'rubber'
            ? 'Click what you want to remove.'
            : 'Drag on the stage from where it begins to where it ends.'}
      </p>
      {strokes.map((one, i) => (
        <div key={i} className="fieldset piece" role="group" aria-label={`${one.kind} ${i + 1}`}>
          <b>{one.kind}</b>
          <NumberBox
            label="from"
            {...far}
            value={one.from}
            onChange={(from) => exchange(one, { ...one, from })}
          />
          <NumberBox label="to" {...far} value={one.to} onChange={(to) => exchange(one, { ...one, to })} />
          <NumberBox
            label={one.kind === 'slope' ? 'height at first' : 'height'}
            least={-500}
            most={500}
            value={one.height}
            onChange={(height) =>
              exchange(one, { ...one, height, ...(one.kind === 'slope' ? {} : { end: height }) })
            }
          />
          {one.kind === 'slope' ? (
            <NumberBox
              label="height at its end"
              least={-500}
              most={500}
              value={one.end}
              onChange={(end) => exchange(one, { ...one, end })}
            />
          ) : null}
          <IconButton label={`delete this ${one.kind}`} onPress={() => onChange(withoutStroke(ground, one))}>
            <Trash2 size={14} />
          </IconButton>
        </div>
      ))}
      <div className="row">
        <label>
          by number:{' '}
          <select value={kind} onChange={({ target: { value } }) => setKind(value as GroundKind)}>
            {(['ground', 'slope', 'plank', 'water'] as const).map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        </label>
        <Button
          className="small"
          onPress={() => {
            const from = 60 + 100 * strokes.length;
            onChange(
              withStroke(ground, {
                ...{ kind, from, to: from + 80, height: kind === 'slope' ? 0 : 32, end: 32 },
              }),
            );
          }}
        >
          add one
        </Button>
      </div>
    </details>
  );
}
