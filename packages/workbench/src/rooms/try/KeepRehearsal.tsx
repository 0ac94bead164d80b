import type { Overlay } from '@dot-hop/browser/overlay';
import type { Controller } from 'dot-hop';
import { useState } from 'react';
import { Button } from 'react-aria-components';
import { putBeside, useWorkbench } from '../../character/store.js';
import { Choice, optionsOf } from '../../parts/ui.js';
import { unusedFileName, rehearsalText } from '../../character/rehearsal-runs.js';
import type { Trial } from './trial.js';

/** Marks an instant that was wrong: what was done until then becomes a rehearsal that expects what should have shown. */
export function KeepRehearsal({
  controller,
  trial,
  overlay,
}: {
  readonly controller: Controller;
  readonly trial: { readonly current: Trial | undefined };
  readonly overlay: { readonly current: Overlay | undefined };
}) {
  const states = controller.states.filter(({ takenBy }) => takenBy < 0).map(({ name }) => name);
  const [wanted, setWanted] = useState('');
  const state = states.includes(wanted) ? wanted : states[0]!;
  const keep = (): void => {
    const [now, panel] = [trial.current, overlay.current];
    if (now === undefined || panel === undefined) return;
    const { file, files } = useWorkbench.getState();
    const back = now.performer.time - panel.instant;
    const at = Math.max(0, Math.round(now.time - back));
    const name = unusedFileName(file, files);
    const text = rehearsalText(file, now.rehearsal(at + 100), { at, state });
    putBeside(
      `kept as ${name}: ${state} is expected at ${at} ms`,
      new Map([[name, new Blob([text], { type: 'text/yaml' })]]),
    );
  };
  return (
    <div className="fieldset wrong">
      <Choice
        label="wrong at this instant: it should have shown"
        value={state}
        options={optionsOf(states)}
        onChange={setWanted}
      />
      <Button className="main" onPress={keep}>
        keep as a rehearsal
      </Button>
    </div>
  );
}
