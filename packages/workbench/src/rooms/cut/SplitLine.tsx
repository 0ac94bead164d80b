import type { Cell } from 'dot-hop';
import { useEffect, useRef } from 'react';
import type { View } from './view.js';

/** Where a cell is to be split, while one still looks for the place. */
export interface Split {
  readonly cell: Cell;
  /** `x` for two parts side by side, `y` for one above the other. */
  readonly along: 'x' | 'y';
  /** The first column or row of the second part, in pixels of the image. */
  readonly at: number;
}

/** What one does with the line. */
export interface SplitHandles extends Split {
  readonly onMove: (at: number) => void;
  readonly onTurn: () => void;
  readonly onSplit: (at: number) => void;
  readonly onLeave: () => void;
}

/** The line along which a cell is split: it follows the pointer and splits at a click; arrows move it, Enter splits. */
export function SplitLine({ view, split }: { readonly view: View; readonly split: SplitHandles }) {
  const { cell, along, at, onMove, onTurn, onSplit, onLeave } = split;
  const area = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    area.current!.focus();
    // Where one was is gone back to.
    return () => (before instanceof HTMLElement ? before.focus() : undefined);
  }, []);
  const [from, length] = along === 'x' ? [cell.x, cell.width] : [cell.y, cell.height];
  const within = (place: number): number =>
    Math.min(from + length - 1, Math.max(from + 1, Math.round(place)));
  const pointed = (event: React.PointerEvent): number => {
    const { left, top } = area.current!.getBoundingClientRect();
    return within(from + (along === 'x' ? event.clientX - left : event.clientY - top) / view.scale);
  };
  const key = (event: React.KeyboardEvent): void => {
    const by = { ArrowLeft: -1, ArrowUp: -1, ArrowRight: 1, ArrowDown: 1 }[event.key];
    if (by !== undefined) onMove(within(at + by));
    else if (event.key === 't') onTurn();
    else if (event.key === 'Enter') onSplit(at);
    else if (event.key === 'Escape') onLeave();
    else return;
    event.preventDefault();
  };
  return (
    <div
      ref={area}
      className="split-area"
      tabIndex={0}
      role="slider"
      aria-label={`where cell ${cell.index} is split; Enter splits, T turns the line, Escape leaves it`}
      aria-orientation={along === 'x' ? 'horizontal' : 'vertical'}
      aria-valuemin={1}
      aria-valuemax={length - 1}
      aria-valuenow={at - from}
      style={{
        left: (cell.x - view.x) * view.scale,
        top: (cell.y - view.y) * view.scale,
        width: cell.width * view.scale,
        height: cell.height * view.scale,
      }}
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        onMove(pointed(event));
      }}
      onPointerMove={(event) => onMove(pointed(event))}
      onPointerUp={(event) => onSplit(pointed(event))}
      onKeyDown={key}
    >
      <i className={along} style={{ [along === 'x' ? 'left' : 'top']: (at - from) * view.scale }} />
    </div>
  );
}
