import type { DocumentPath } from 'dot-hop';
import type { Term } from 'dot-hop/explain';
import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Condition } from '../../parts/Condition.js';
import { Help } from '../../parts/Help.js';
import { ProblemsAt } from '../../parts/ProblemsAt.js';
import { IconButton } from '../../parts/ui.js';

/** A list of what a state says several times, such as its hops, with a button for one more. */
export function EntryList({
  title,
  term,
  label,
  hint,
  adds,
  onAdd,
  children,
}: {
  readonly title: string;
  /** The word that is explained beside it. */
  readonly term?: Term;
  readonly label: string;
  /** Told while there is none. */
  readonly hint: string;
  readonly adds: string;
  readonly onAdd: () => void;
  readonly children: readonly ReactNode[];
}) {
  return (
    <div className="hops" role="group" aria-label={label}>
      <div className="row">
        <b>{title}</b>
        {term === undefined ? null : <Help term={term} />}
        {children.length === 0 ? <span className="hint">{hint}</span> : null}
        <IconButton label={adds} onPress={onAdd}>
          <Plus size={14} />
        </IconButton>
      </div>
      {children}
    </div>
  );
}

/** One of the list: its fields, its condition, and what is wrong with it. */
export function Entry({
  path,
  condition,
  takesAway,
  onCondition,
  onTakeAway,
  children,
}: {
  readonly path: DocumentPath;
  readonly condition: string | undefined;
  readonly takesAway: string;
  readonly onCondition: (condition: string | undefined) => void;
  readonly onTakeAway: () => void;
  readonly children: ReactNode;
}) {
  return (
    <div className="hop">
      <div className="fieldset">
        {children}
        <IconButton label={takesAway} onPress={onTakeAway}>
          <Trash2 size={14} />
        </IconButton>
      </div>
      <Condition label="if" value={condition} hint="always" onChange={onCondition} />
      <ProblemsAt path={path} />
    </div>
  );
}
