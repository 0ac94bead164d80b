import type { ControllerDefinition } from 'dot-hop';
import { setHop } from 'dot-hop/edit';
import { stateIn } from 'dot-hop/explain';
import { useLayoutEffect, useRef, useState } from 'react';
import { act, tell, useWorkbench } from '../../character/store.js';
import { othersOf } from './states.js';

/** How wide the margin is in which hops are drawn, in CSS pixels. */
const margin = 34;

/** Where the middle of each rung lies, in CSS pixels from the top of the ladder. */
type Places = ReadonlyMap<string, number>;

function placesIn(box: HTMLElement): Places {
  const top = box.getBoundingClientRect().top;
  return new Map(
    [...box.querySelectorAll<HTMLElement>('[data-rung]')].map((rung) => {
      const { top: at, height } = rung.getBoundingClientRect();
      return [rung.dataset.rung!, at - top + height / 2];
    }),
  );
}

/** The rung under a place of the page. */
const rungAt = (x: number, y: number): string | undefined =>
  document
    .elementsFromPoint(x, y)
    .flatMap((one) => one.closest('.rung')?.querySelector<HTMLElement>('[data-rung]') ?? [])[0]?.dataset.rung;

/** The hops of the selected state, from rung to rung beside the ladder; a new one is drawn from its knob. */
export function HopLines({
  definition,
  selected,
}: {
  readonly definition: ControllerDefinition;
  readonly selected: string | undefined;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [places, setPlaces] = useState<Places>(new Map());
  /** Where a new hop is drawn to, from the top of the ladder, and the rung under it. */
  const [drawn, setDrawn] = useState<{ readonly y: number; readonly to: string | undefined } | undefined>();
  useLayoutEffect(() => {
    const ladder = box.current?.parentElement;
    if (!ladder) return undefined;
    const measure = (): void => setPlaces(placesIn(ladder));
    const watch = new ResizeObserver(measure);
    // What is in it moves without its size, too.
    const moved = new MutationObserver(measure);
    watch.observe(ladder);
    moved.observe(ladder.querySelector('[role=grid]') ?? ladder, { childList: true, subtree: true });
    measure();
    return () => {
      watch.disconnect();
      moved.disconnect();
    };
  }, [definition]);
  const state = selected === undefined ? undefined : stateIn(definition, selected);
  const from = state === undefined ? undefined : places.get(state.name);
  const others = state === undefined ? [] : othersOf(definition, state);
  const at = (event: React.PointerEvent): { y: number; to: string | undefined } => {
    const to = rungAt(event.clientX - margin, event.clientY);
    return {
      y: event.clientY - box.current!.getBoundingClientRect().top,
      to: to !== undefined && others.includes(to) ? to : undefined,
    };
  };
  const finish = (): void => {
    setDrawn(undefined);
    if (state === undefined || drawn === undefined) return;
    if (drawn.to === undefined)
      tell('A hop leads to another state of the same track: let go on its rung.', true);
    else {
      act(setHop(useWorkbench.getState().definition, state.name, Infinity, { to: drawn.to, at: 'end' }));
      tell(
        `a hop from ${state.name} to ${drawn.to} at its end: say when and on what condition beside the ladder`,
      );
    }
  };
  const ends = (state?.definition.hops ?? []).flatMap(({ to }) => places.get(to) ?? []);
  return (
    <div className="hop-lines" ref={box} style={{ width: margin }}>
      {from === undefined ? null : (
        <>
          <svg aria-hidden="true" width={margin} height="100%">
            {ends.map((end, i) => (
              <Line key={i} from={from} to={end} />
            ))}
            {drawn === undefined ? null : (
              <Line
                from={from}
                to={drawn.to === undefined ? drawn.y : (places.get(drawn.to) ?? drawn.y)}
                isOpen={drawn.to === undefined}
              />
            )}
          </svg>
          {others.length === 0 ? null : (
            <button
              type="button"
              className="hop-knob"
              // By keyboard it is the button “new hop”.
              tabIndex={-1}
              aria-hidden="true"
              title={`drag to another rung: a hop from ${state!.name}`}
              data-testid="hop-knob"
              style={{ top: from - 7 }}
              onPointerDown={(event) => {
                event.currentTarget.setPointerCapture(event.pointerId);
                setDrawn(at(event));
              }}
              onPointerMove={(event) => {
                if (drawn !== undefined) setDrawn(at(event));
              }}
              onPointerUp={finish}
              onPointerCancel={() => setDrawn(undefined)}
            />
          )}
        </>
      )}
    </div>
  );
}

/** One hop, as a bow with its point at the rung that it leads to. */
function Line({
  from,
  to,
  isOpen = false,
}: {
  readonly from: number;
  readonly to: number;
  readonly isOpen?: boolean;
}) {
  const out = Math.min(margin - 4, 12 + Math.abs(to - from) / 14);
  return (
    <>
      <path
        d={`M8 ${from} C${out + 8} ${from} ${out + 8} ${to} 8 ${to}`}
        className={isOpen ? 'open' : undefined}
      />
      <path d={`M12 ${to - 4} L4 ${to} L12 ${to + 4} Z`} className="point" />
    </>
  );
}
