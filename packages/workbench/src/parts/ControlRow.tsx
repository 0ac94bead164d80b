import { useEffect, useState } from 'react';
import { Button } from 'react-aria-components';
import { controlsFor, inWords, setControl } from '../character/controls.js';
import type { KnownControls, Target } from '../character/controls.js';

/** Calls back with the button of a gamepad that goes down next, or the key. Escape gives up. */
function useNextPress(isOn: boolean, told: (pressed: string | number | undefined) => void): void {
  useEffect(() => {
    if (!isOn) return undefined;
    const down = (): Set<number> =>
      new Set(
        navigator
          .getGamepads()
          .flatMap((pad) => pad?.buttons.flatMap(({ pressed }, i) => (pressed ? [i] : [])) ?? []),
      );
    // What is held already was not meant.
    const before = down();
    let frame = requestAnimationFrame(function look() {
      frame = requestAnimationFrame(look);
      for (const button of down()) if (!before.has(button)) told(button);
    });
    const key = (event: KeyboardEvent): void => {
      event.preventDefault();
      event.stopPropagation();
      told(event.key === 'Escape' ? undefined : event.code);
    };
    window.addEventListener('keydown', key, true);
    return () => {
      cancelAnimationFrame(frame);
      window.removeEventListener('keydown', key, true);
    };
  }, [isOn, told]);
}

/** What leads one thing while the character is tried: shown, and changed by pressing the key or the button that shall. */
export function ControlRow({
  target: { name, kind },
  targets,
  known,
}: {
  readonly target: Target;
  readonly targets: readonly Target[];
  readonly known: KnownControls;
}) {
  const [isAsking, setIsAsking] = useState(false);
  const binding = controlsFor(targets, known.said)[name] ?? {};
  useNextPress(isAsking, (pressed) => {
    setIsAsking(false);
    if (pressed === undefined) return;
    setControl(
      known,
      targets,
      name,
      typeof pressed === 'number'
        ? { ...binding, buttons: [pressed] }
        : { keys: [pressed], buttons: binding.buttons ?? [] },
    );
  });
  return (
    <div className="control" role="group" aria-label={`keys for ${name}`}>
      <b>{name}</b>
      <kbd>{inWords(binding)}</kbd>
      <Button className={isAsking ? 'small lamp' : 'small'} onPress={() => setIsAsking(!isAsking)}>
        {isAsking ? 'press a key or a button now' : `another key for ${name}`}
      </Button>
      {name in known.said ? (
        <Button className="small" onPress={() => setControl(known, targets, name, undefined)}>
          use the default
        </Button>
      ) : null}
      {kind === 'flag' ? <span className="hint">changed while it is held</span> : null}
    </div>
  );
}
