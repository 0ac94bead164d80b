import type { ControllerDefinition, DocumentPath } from 'dot-hop';
import { statesIn } from 'dot-hop/explain';
import { follow, useWorkbench } from '../../character/store.js';

/** A place that reads a signal. */
interface Reader {
  readonly name: string;
  readonly path: DocumentPath;
}

/** Every state and derived signal in whose text a name stands. */
function readersOf(definition: ControllerDefinition, name: string): Reader[] {
  const word = new RegExp(`(^|[^\\w.])${name}(?![\\w])`);
  const reads = (value: unknown): boolean => value !== undefined && word.test(JSON.stringify(value));
  return [
    ...Object.entries(definition.derived ?? {}).flatMap(([other, one]) =>
      other !== name && reads(typeof one === 'string' ? one : one.of)
        ? [{ name: other, path: ['derived', other] }]
        : [],
    ),
    ...statesIn(definition).flatMap(({ name: state, path, definition: said, groups }) => {
      const { while: during, when, rate, gaits, scrub, hops, yields, lasts, atLeast } = said;
      const texts = [during, when, rate, gaits?.by, scrub?.by, hops, yields, lasts, atLeast];
      const inGroups = groups.map((group) => group.definition.while);
      return [...texts, ...inGroups].some(reads) ? [{ name: state, path }] : [];
    }),
  ];
}

/** Who reads a signal; each leads to its place. */
export function Readers({ name }: { readonly name: string }) {
  const definition = useWorkbench((state) => state.definition);
  const readers = readersOf(definition, name);
  return (
    <section aria-label="who reads it">
      <h3>read by</h3>
      <p>
        {readers.length === 0 ? <span className="hint">nothing yet</span> : null}
        {readers.map(({ name: reader, path }) => (
          <button key={path.join('.')} type="button" className="small" onClick={() => follow(path)}>
            {reader}
          </button>
        ))}
      </p>
    </section>
  );
}
