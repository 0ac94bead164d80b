import type { ControllerDefinition, DocumentPath } from 'dot-hop';
import { rename } from 'dot-hop/edit';
import { follow, useWorkbench } from '../../character/store.js';

/** A place that reads a signal. */
interface Reader {
  readonly name: string;
  readonly path: DocumentPath;
}

/** What holds the place at a path: a state, a group, a derived signal, else a part of the document. */
function holderOf(path: DocumentPath): Reader {
  const at = Math.max(path.lastIndexOf('states'), path.lastIndexOf('groups'));
  const last = at >= 0 ? at + 1 : path[0] === 'derived' ? 1 : 0;
  return { name: String(path[last]), path: path.slice(0, last + 1) };
}

/** Everything that names a signal: what would change if it had another name. */
function readersOf(definition: ControllerDefinition, name: string): Reader[] {
  const { changes } = rename(definition, { kind: 'signal', from: name, to: `${name}_` });
  const readers = changes.filter(({ op }) => op === 'set').map(({ path }) => holderOf(path));
  return [...new Map(readers.map((one) => [one.path.join('.'), one])).values()];
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
