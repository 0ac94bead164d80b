import type { DocumentPath } from 'dot-hop';
import { remedyOf } from 'dot-hop/edit';
import { Button } from 'react-aria-components';
import { useFindings } from '../character/findings.js';
import { act, useWorkbench } from '../character/store.js';

/** What is wrong at a place of the document, told where it is mended. */
export function ProblemsAt({ path }: { readonly path: DocumentPath }) {
  const place = path.join('.');
  const isHere = (one: DocumentPath): boolean => `${one.join('.')}.`.startsWith(`${place}.`);
  const troubles = useWorkbench((state) => state.troubles);
  const seen = useFindings((state) => state.seen);
  const definition = useWorkbench((state) => state.definition);
  const all = [
    ...troubles
      .filter((one) => isHere(one.path))
      .map(({ text }) => ({ text, weight: 'trouble', remedy: undefined })),
    ...seen
      .filter((one) => one.accepted === undefined && one.severity !== 'note' && isHere(one.path))
      .map((one) => ({ text: one.text, weight: one.severity, remedy: remedyOf(definition, one) })),
  ];
  if (all.length === 0) return null;
  return (
    <ul className="here">
      {all.map(({ text, weight, remedy }) => (
        <li key={text} className={weight} role={weight === 'trouble' ? 'alert' : undefined}>
          {text}
          {remedy === undefined ? null : (
            <Button className="small" onPress={() => act(remedy)}>
              {remedy.says}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
