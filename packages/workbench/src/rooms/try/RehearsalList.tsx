import type { Controller } from 'dot-hop';
import { useEffect, useState } from 'react';
import { useWorkbench } from '../../character/store.js';
import { runRehearsals } from '../../character/rehearsal-runs.js';
import type { RehearsalOutcome } from '../../character/rehearsal-runs.js';

/** How long nothing must change before the rehearsals run again, in milliseconds. */
const pause = 150;

/** The rehearsals beside the document, each with a light; they run again at every edit. */
export function RehearsalList({ controller }: { readonly controller: Controller }) {
  const file = useWorkbench((state) => state.file);
  const files = useWorkbench((state) => state.files);
  const [lights, setLights] = useState<readonly RehearsalOutcome[]>([]);
  useEffect(() => {
    let isWanted = true;
    const timer = setTimeout(() => {
      void runRehearsals(controller, file, files).then((found) => {
        if (isWanted) setLights(found);
      });
    }, pause);
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [controller, file, files]);
  return (
    <section className="lights" aria-label="rehearsals">
      <h2>rehearsals beside it</h2>
      {lights.length === 0 ? (
        <p className="hint">
          None yet. Stop time where something is wrong, say what should have shown, and keep it.
        </p>
      ) : null}
      <ul>
        {lights.map(({ name, kind, says }) => (
          <li key={name} className={kind}>
            <i aria-hidden="true" /> <b>{name}</b> <span>{says}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}
