import { useEffect, useRef } from 'react';
import { renameEverywhere } from '../../character/rehearsals.js';
import { tell, useWorkbench } from '../../character/store.js';

/** Every cue or span that some clip has. */
const namesOf = (kind: 'cue' | 'span'): Set<string> =>
  new Set(
    Object.values(useWorkbench.getState().definition.clips).flatMap((clip) =>
      Object.keys((kind === 'cue' ? clip.cues : clip.spans) ?? {}),
    ),
  );

/** In place of a pin or a bar while its new name is written: everything that hears the cue or asks for the span follows. */
export function Renaming({
  kind,
  from,
  style,
  onDone,
}: {
  readonly kind: 'cue' | 'span';
  readonly from: string;
  readonly style: React.CSSProperties;
  readonly onDone: () => void;
}) {
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current!.select(), []);
  const commit = (): void => {
    const to = field.current!.value.trim();
    onDone();
    if (to === '' || to === from) return;
    if (namesOf(kind).has(to)) tell(`There is a ${kind} ${to} already. Take another name.`, true);
    else void renameEverywhere({ kind, from, to });
  };
  return (
    <input
      ref={field}
      className="renaming"
      style={style}
      defaultValue={from}
      aria-label={`new name of the ${kind} ${from}`}
      onBlur={commit}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') onDone();
      }}
    />
  );
}
