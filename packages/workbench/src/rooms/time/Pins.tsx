import { placeCue } from 'dot-hop/edit';
import { useRef, useState } from 'react';
import { act, useWorkbench } from '../../character/store.js';
import { frameAt } from './places.js';
import type { Lane } from './places.js';
import { Renaming } from './Renaming.js';

/** Cues, as pins on their frames: dragged along the strip, moved by arrows. */
export function Pins({ name, frames, lefts }: Lane) {
  const row = useRef<HTMLDivElement>(null);
  const held = useRef<number | undefined>(undefined);
  const [renaming, setRenaming] = useState<string | undefined>();
  const put = (cue: string, from: number, to: number): void => {
    const { definition } = useWorkbench.getState();
    const before = [definition.clips[name]!.cues?.[cue] ?? []].flat();
    if (to === from || to < 0 || to >= frames.length) return;
    act(
      placeCue(
        definition,
        name,
        cue,
        before.map((one) => (one === from ? to : one)),
      ),
      `cue ${cue} of ${name}`,
    );
  };
  const pins = frames.flatMap(({ cues }, frame) => cues.map((cue) => ({ cue, frame })));
  return (
    <div className="pins" ref={row}>
      {pins.map(({ cue, frame }, i) =>
        renaming === `${cue} ${i}` ? (
          <Renaming
            key={`${cue} ${i}`}
            kind="cue"
            from={cue}
            style={{ left: lefts[frame]! }}
            onDone={() => setRenaming(undefined)}
          />
        ) : (
          <button
            key={`${cue} ${i}`}
            type="button"
            className="pin"
            data-testid={`cue-${cue}-${frame}`}
            style={{ left: lefts[frame]! }}
            aria-label={`cue ${cue} on frame ${frame + 1}; arrows move it, F2 renames it, Delete removes it`}
            onDoubleClick={() => setRenaming(`${cue} ${i}`)}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              held.current = frame;
            }}
            onPointerMove={(event) => {
              if (held.current === undefined) return;
              const to = frameAt(lefts, event.clientX - row.current!.getBoundingClientRect().left);
              put(cue, held.current, to);
              held.current = to;
            }}
            onPointerUp={() => (held.current = undefined)}
            onKeyDown={(event) => {
              if (event.key === 'ArrowLeft') put(cue, frame, frame - 1);
              else if (event.key === 'ArrowRight') put(cue, frame, frame + 1);
              else if (event.key === 'F2') setRenaming(`${cue} ${i}`);
              else if (event.key === 'Delete' || event.key === 'Backspace') {
                const { definition } = useWorkbench.getState();
                const before = [definition.clips[name]!.cues?.[cue] ?? []].flat();
                act(
                  placeCue(
                    definition,
                    name,
                    cue,
                    before.filter((one) => one !== frame),
                  ),
                );
              } else return;
              event.preventDefault();
              event.stopPropagation();
            }}
          >
            {cue}
          </button>
        ),
      )}
    </div>
  );
}
