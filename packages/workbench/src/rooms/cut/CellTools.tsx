import type { ReactNode } from 'react';
import { IconButton } from '../../parts/ui.js';

/** Something that is done to the selected cells: by a button, and by a key while the sheet has the focus. */
export interface CellAction {
  readonly label: string;
  /** As the browser calls it. */
  readonly key: string;
  readonly icon: ReactNode;
  readonly isOn?: boolean;
  readonly isDisabled: boolean;
  readonly run: () => void;
}

const shown: Readonly<Record<string, string>> = { Delete: 'Del' };

/** The buttons over the sheet, and how many cells are selected. */
export function CellTools({
  says,
  hint,
  actions,
}: {
  readonly says: string;
  readonly hint: string;
  readonly actions: readonly CellAction[];
}) {
  return (
    <div className="bar">
      <output data-testid="cells-selected">{says}</output>
      {actions.map(({ label, key, icon, isOn, isDisabled, run }) => (
        <IconButton
          key={label}
          label={label}
          keys={shown[key] ?? key.toUpperCase()}
          isDisabled={isDisabled}
          onPress={run}
          {...(isOn === undefined ? {} : { isOn })}
        >
          {icon}
        </IconButton>
      ))}
      <span className="hint">{hint}</span>
    </div>
  );
}

/** Does what a key says; false where it says nothing. */
export function runKey(actions: readonly CellAction[], event: React.KeyboardEvent): boolean {
  if (event.ctrlKey || event.metaKey || event.altKey) return false;
  const key = event.key === 'Backspace' ? 'Delete' : event.key.toLowerCase();
  const meant = actions.find((one) => one.key.toLowerCase() === key.toLowerCase());
  if (meant === undefined || meant.isDisabled) return false;
  meant.run();
  return true;
}
