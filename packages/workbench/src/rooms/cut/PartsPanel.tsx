import type { Sheet } from 'dot-hop';
import { hangPart, movePart, partOf, removePart } from 'dot-hop/edit';
import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { act, useWorkbench } from '../../character/store.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { Choice, IconButton, optionsOf } from '../../parts/ui.js';

/** The parts that the drawings of a sheet consist of, from the back to the front, and by which point each hangs. */
export function PartsPanel({ sheet }: { readonly sheet: Sheet }) {
  const definition = useWorkbench((state) => state.definition);
  const { name } = sheet;
  const parts = Object.keys(definition.sheets[name]?.parts ?? {});
  if (parts.length === 0) return null;
  const points = [...new Set(sheet.cells.flatMap((cell) => Object.keys(cell.points)))];
  return (
    <section className="parts" aria-label={`parts of ${name}`}>
      <h2>
        parts <small>back to front</small>
      </h2>
      {parts.map((part, i) => {
        const { joint = '' } = partOf(definition, name, part)!;
        return (
          <div key={part} className="fieldset" role="group" aria-label={`part ${part}`}>
            <b>{part}</b>
            <Choice
              label="hangs by"
              value={joint}
              options={{
                '': 'the pivot',
                ...optionsOf([...new Set([...points, ...(joint === '' ? [] : [joint])])]),
              }}
              onChange={(one) => act(hangPart(definition, name, part, one === '' ? undefined : one))}
            />
            <IconButton
              label={`${part} further back`}
              isDisabled={i === 0}
              onPress={() => act(movePart(name, part, i - 1))}
            >
              <ArrowUp size={14} />
            </IconButton>
            <IconButton
              label={`${part} further in front`}
              isDisabled={i === parts.length - 1}
              onPress={() => act(movePart(name, part, i + 1))}
            >
              <ArrowDown size={14} />
            </IconButton>
            <IconButton
              label={`delete the part ${part}`}
              onPress={() => act(removePart(definition, name, part))}
            >
              <Trash2 size={14} />
            </IconButton>
          </div>
        );
      })}
      <ProblemsAt path={['sheets', name, 'parts']} />
      <p className="hint">
        The same drawings cut in parts: what a track draws while the body does something else. A part hangs by
        a point of the drawing, such as the waist; place it above.
      </p>
    </section>
  );
}
