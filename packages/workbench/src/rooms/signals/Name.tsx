import { isReadable } from '../../character/readable.js';
import { renameEverywhere } from '../../character/rehearsals.js';
import { select, tell, useWorkbench } from '../../character/store.js';
import { TextBox } from '../../parts/TextBox.js';

/** The name of a signal; a new one is written wherever it stands. */
export function Name({ name }: { readonly name: string }) {
  const { signals = {}, derived = {} } = useWorkbench((state) => state.definition);
  return (
    <TextBox
      label="name"
      value={name}
      onChange={(to) => {
        if (to === '') return;
        if (to in signals || to in derived) tell(`There is a signal ${to} already.`, true);
        else if (isReadable(to))
          void renameEverywhere({ kind: 'signal', from: name, to }).then(() => select({ signal: to }));
      }}
    />
  );
}
