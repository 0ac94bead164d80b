import { useEffect, useState } from 'react';
import { useFindings, whoTakesOver } from '../../character/findings.js';
import type { Row } from '../../character/findings.js';
import { select, useWorkbench } from '../../character/store.js';

/** Who can cut a state off, whom it cuts off, and in which situations it shows. */
export function Rivals({ name }: { readonly name: string }) {
  const controller = useWorkbench((state) => state.controller);
  const isCurrent = useWorkbench((state) => state.isCurrent);
  const isLooking = useFindings((state) => state.isLooking);
  const [situations, setSituations] = useState<readonly Row[] | undefined>();
  const track = controller?.tracks[controller.stateNamed.get(name)?.track ?? 0]?.name ?? 'body';
  useEffect(() => {
    let isWanted = true;
    if (isCurrent && !isLooking)
      void whoTakesOver(track, '').then((rows) => {
        if (isWanted) setSituations(rows?.filter((one) => one.state === name) ?? []);
      });
    return () => {
      isWanted = false;
    };
  }, [name, track, controller, isCurrent, isLooking]);
  const state = controller?.stateNamed.get(name);
  if (controller === undefined || state === undefined) return null;
  // Also states of other tracks that take this one.
  const wanting = controller.states.filter(
    (one) => one.track === state.track && one !== state && (one.takenBy >= 0 || one.kind !== 'bare'),
  );
  const above = state.final ? [] : wanting.filter((one) => one.rank > state.rank);
  const below = controller.states.filter(
    (one) => one.track === state.track && one.takenBy < 0 && one.rank < state.rank && !one.final,
  );
  return (
    <section className="around" aria-label="who wins">
      <h3>who wins</h3>
      <p>
        <Names label="can be cut off by" names={above.map((one) => one.name)} none="nobody" />
      </p>
      {state.kind === 'bare' ? (
        <p className="hint">It has no condition, so it cuts nobody off: hops lead to it, or it is at rest.</p>
      ) : (
        <p>
          <Names label="cuts off" names={below.map((one) => one.name)} none="nobody" />
        </p>
      )}
      {situations === undefined ? (
        <p className="hint">looking in which situations it shows …</p>
      ) : situations.length === 0 ? (
        <p className="hint">No situation of signals alone brings it about.</p>
      ) : (
        <ul className="situations">
          {situations.slice(0, 8).map(({ terms, once, example }, i) => (
            <li key={i}>
              {once ? <em>at the moment of </em> : null}
              {terms.length === 0 ? 'whenever nothing above wants in' : null}
              {terms.map(({ text, on }) => (
                <code key={text} className={on ? 'on' : ''}>
                  {on ? '' : 'not '}
                  {text}
                </code>
              ))}
              {example === '' ? null : <small> such as {example}</small>}
            </li>
          ))}
          {situations.length > 8 ? <li className="hint">and {situations.length - 8} more</li> : null}
        </ul>
      )}
    </section>
  );
}

function Names({
  label,
  names,
  none,
}: {
  readonly label: string;
  readonly names: readonly string[];
  readonly none: string;
}) {
  return (
    <>
      <b>{label}</b>{' '}
      {names.length === 0
        ? none
        : names.map((name) => (
            <button key={name} type="button" className="small" onClick={() => select({ state: name })}>
              {name}
            </button>
          ))}
    </>
  );
}
