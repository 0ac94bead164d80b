import { useRef } from 'react';
import type { Target } from '../../character/controls.js';
import { turn } from './turn.js';
import type { Trial } from './trial.js';

const signs: Readonly<Record<string, string>> = { left: '←', right: '→', up: '↑', down: '↓' };

/** The same as the keys, for a finger or a pointer: what is held, and pulses that are pressed. */
export function ScreenButtons({
  targets,
  trial,
}: {
  readonly targets: readonly Target[];
  readonly trial: { readonly current: Trial | undefined };
}) {
  const put = (target: Target, isDown: boolean): void => {
    if (trial.current !== undefined) turn(trial.current, target, isDown);
  };
  return (
    <div className="holds" role="group" aria-label="the same by pointer or finger">
      {targets.map((target) =>
        target.kind === 'pulse' ? (
          <button key={target.name} type="button" onClick={() => put(target, true)}>
            {target.name}
          </button>
        ) : (
          <Held key={target.name} name={target.name} onTurn={(isDown) => put(target, isDown)} />
        ),
      )}
    </div>
  );
}

/** A button that counts as long as it is held. */
function Held({ name, onTurn }: { readonly name: string; readonly onTurn: (isDown: boolean) => void }) {
  const isHeld = useRef(false);
  const become = (isDown: boolean): void => {
    if (isHeld.current === isDown) return;
    isHeld.current = isDown;
    onTurn(isDown);
  };
  return (
    <button
      type="button"
      aria-label={`hold ${name}`}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        become(true);
      }}
      onPointerUp={() => become(false)}
      onPointerCancel={() => become(false)}
      onKeyDown={(event) => event.key === ' ' && become(true)}
      onKeyUp={() => become(false)}
      onBlur={() => become(false)}
    >
      {signs[name] ?? name}
    </button>
  );
}
