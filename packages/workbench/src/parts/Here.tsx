import type { DocumentPath } from 'dot-hop';
import { useFound } from '../character/found.js';
import { useWorkbench } from '../character/store.js';

/** What is wrong at a place of the document, told where it is mended. */
export function Here({ path }: { readonly path: DocumentPath }) {
  const place = path.join('.');
  const isHere = (one: DocumentPath): boolean => `${one.join('.')}.`.startsWith(`${place}.`);
  const troubles = useWorkbench((state) => state.troubles);
  const seen = useFound((state) => state.seen);
  const all = [
    ...troubles.filter((one) => isHere(one.path)).map(({ text }) => ({ text, weight: 'trouble' })),
    ...seen
      .filter((one) => !one.accepted && one.severity !== 'note' && isHere(one.path))
      .map(({ text, severity }) => ({ text, weight: severity })),
  ];
  if (all.length === 0) return null;
  return (
    <ul className="here">
      {all.map(({ text, weight }) => (
        <li key={text} className={weight} role={weight === 'trouble' ? 'alert' : undefined}>
          {text}
        </li>
      ))}
    </ul>
  );
}
