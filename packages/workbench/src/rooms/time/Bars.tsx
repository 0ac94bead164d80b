import { placeSpan } from 'dot-hop/edit';
import { useRef, useState } from 'react';
import { act, useWorkbench } from '../../character/store.js';
import { frameAt } from './places.js';
import type { Lane } from './places.js';
import { Renaming } from './Renaming.js';

/** Spans, as bars over their frames: their ends are dragged, or moved by arrows (with shift the far end). */
export function Bars({ name, frames, lefts }: Lane) {
  const row = useRef<HTMLDivElement>(null);
  const held = useRef<'first' | 'last' | undefined>(undefined);
  const [renaming, setRenaming] = useState<string | undefined>();
  const spans = [...new Set(frames.flatMap((frame) => frame.spans))].map((span) => {
    const own = frames.flatMap((frame, i) => (frame.spans.includes(span) ? [i] : []));
    return { span, first: own[0]!, last: own[own.length - 1]! };
  });
  const put = (span: string, first: number, last: number): void => {
    if (first < 0 || last >= frames.length || first > last) return;
    act(
      placeSpan(useWorkbench.getState().definition, name, span, { first, last }),
      `span ${span} of ${name}`,
    );
  };
  return (
    <div className="bars" ref={row} style={{ height: spans.length * 20 }}>
      {spans.map(({ span, first, last }, i) =>
        renaming === span ? (
          <Renaming
            key={span}
            kind="span"
            from={span}
            style={{ left: lefts[first]!, top: i * 20 }}
            onDone={() => setRenaming(undefined)}
          />
        ) : (
          <div
            key={span}
            role="slider"
            tabIndex={0}
            className="bar-of"
            data-testid={`span-${span}`}
            aria-label={`span ${span}; arrows move its first frame, shift and arrows its last, F2 renames it, Delete removes it`}
            onDoubleClick={() => setRenaming(span)}
            aria-valuemin={1}
            aria-valuemax={frames.length}
            aria-valuenow={first + 1}
            aria-valuetext={`frames ${first + 1} to ${last + 1}`}
            style={{ left: lefts[first]!, width: lefts[last + 1]! - lefts[first]! - 2, top: i * 20 }}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              const x = event.clientX - row.current!.getBoundingClientRect().left;
              held.current = x < (lefts[first]! + lefts[last + 1]!) / 2 ? 'first' : 'last';
            }}
            onPointerMove={(event) => {
              if (held.current === undefined) return;
              const to = frameAt(lefts, event.clientX - row.current!.getBoundingClientRect().left);
              if (held.current === 'first' && to !== first) put(span, Math.min(to, last), last);
              if (held.current === 'last' && to !== last) put(span, first, Math.max(to, first));
            }}
            onPointerUp={() => (held.current = undefined)}
            onKeyDown={(event) => {
              if (event.key === 'F2') {
                setRenaming(span);
                event.preventDefault();
              }
              const by = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
              if (event.key === 'Delete' || event.key === 'Backspace')
                act(placeSpan(useWorkbench.getState().definition, name, span, undefined));
              else if (by !== 0)
                put(span, event.shiftKey ? first : first + by, event.shiftKey ? last + by : last);
              else return;
              event.preventDefault();
              event.stopPropagation();
            }}
          >
            {span}
          </div>
        ),
      )}
    </div>
  );
}
