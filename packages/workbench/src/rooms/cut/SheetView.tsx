import { Maximize, ZoomIn, ZoomOut } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { clipOf } from '../../character/clip.js';
import { useFindings } from '../../character/findings.js';
import { select, useWorkbench } from '../../character/store.js';
import { clipColour } from '../../parts/colours.js';
import { IconButton } from '../../parts/ui.js';
import type { Cell } from 'dot-hop';
import { drawSheet } from './draw-sheet.js';
import type { LaidCell, Layout } from './layout.js';
import { SplitLine } from './SplitLine.js';
import type { SplitHandles } from './SplitLine.js';
import { fit, onSheet, zoomed } from './view.js';
import type { View } from './view.js';

/** Handles of a grid that can be dragged: where it begins, and the size of its cells. */
export interface GridHandles {
  readonly offset: readonly [number, number];
  readonly cell: readonly [number, number];
  readonly move: (what: 'offset' | 'cell', to: readonly [number, number]) => void;
}

type Drag =
  | { readonly kind: 'pan'; readonly x: number; readonly y: number; readonly view: View }
  | { readonly kind: 'select'; readonly x: number; readonly y: number; readonly keeps: readonly number[] }
  | { readonly kind: 'offset' | 'cell'; readonly x: number; readonly y: number };

/** A sheet to look at: panned and zoomed crisply, its cells selected by pointer and by keys. */
export function SheetView({
  name,
  layout,
  proposed,
  handles,
  split,
  onKey,
}: {
  /** The sheet's name: another one is seen whole at first. */
  readonly name: string;
  readonly layout: Layout;
  readonly proposed?: readonly (readonly [number, number, number, number])[] | undefined;
  readonly handles?: GridHandles | undefined;
  readonly split?: SplitHandles | undefined;
  /** Keys that do something to the cells; true for one that did. */
  readonly onKey: (event: React.KeyboardEvent) => boolean;
}) {
  const { cells, missing } = layout;
  const controller = useWorkbench((state) => state.controller);
  const selectedCells = useWorkbench((state) => state.selection.cells);
  const box = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [room, setRoom] = useState({ width: 0, height: 0 });
  const [view, setView] = useState<View | undefined>();
  const drag = useRef<Drag | undefined>(undefined);
  const [marquee, setMarquee] = useState<
    { x: number; y: number; width: number; height: number } | undefined
  >();
  const selected = useMemo(() => new Set(selectedCells), [selectedCells]);
  const colours = useMemo(() => {
    const all: string[][] = cells.map(() => []);
    [...(controller?.clips.values() ?? [])].forEach((clip, i) => {
      for (const cell of new Set(clip.frames)) if (cell.sheet === name) all[cell.index]?.push(clipColour(i));
    });
    return all;
  }, [cells, controller, name]);

  const seen = useFindings((state) => state.seen);
  const off = useMemo(() => {
    const found = new Set<number>();
    for (const { path, cells: own, accepted } of seen) {
      const isHere =
        path[0] === 'sheets'
          ? path[1] === name
          : clipOf(controller, String(path[1]))?.frames[0]?.sheet === name;
      if (isHere && accepted === undefined) for (const cell of own) found.add(cell);
    }
    return found;
  }, [seen, controller, name]);

  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      const { width, height } = entry!.contentRect;
      setRoom({ width: Math.floor(width), height: Math.floor(height) });
    });
    watch.observe(box.current!);
    return () => watch.disconnect();
  }, []);
  const whole = useCallback(() => {
    if (room.width > 0) setView(fit(room, layout));
  }, [layout, room]);
  // Another sheet is seen whole at first.
  const seenAs = useRef('');
  useEffect(() => {
    const size = `${name} ${layout.width} ${layout.height}`;
    if (room.width === 0 || (seenAs.current === size && view !== undefined)) return;
    seenAs.current = size;
    setView(fit(room, layout));
  }, [layout, name, room, view]);

  useEffect(() => {
    const element = canvas.current;
    const context = element?.getContext('2d');
    if (!element || !context || view === undefined) return;
    const ratio = window.devicePixelRatio;
    const [wide, high] = [Math.round(room.width * ratio), Math.round(room.height * ratio)];
    if (element.width !== wide) element.width = wide;
    if (element.height !== high) element.height = high;
    const frame = requestAnimationFrame(() =>
      drawSheet(context, { layout, colours, selected, off, proposed, marquee }, view, { ...room, ratio }),
    );
    return () => cancelAnimationFrame(frame);
  }, [layout, colours, selected, off, proposed, marquee, view, room]);

  const zoom = useCallback(
    (factor: number, at = { x: room.width / 2, y: room.height / 2 }) =>
      setView((now) => (now === undefined ? now : zoomed(now, factor, at))),
    [room],
  );
  useEffect(() => {
    const element = canvas.current!;
    const wheel = (event: WheelEvent): void => {
      event.preventDefault();
      const { left, top } = box.current!.getBoundingClientRect();
      const at = { x: event.clientX - left, y: event.clientY - top };
      if (event.ctrlKey || event.metaKey || !event.shiftKey) zoom(event.deltaY < 0 ? 1.25 : 0.8, at);
      else setView((now) => now && { ...now, x: now.x + event.deltaY / now.scale });
    };
    element.addEventListener('wheel', wheel, { passive: false });
    return () => element.removeEventListener('wheel', wheel);
  }, [zoom]);

  const place = (event: React.PointerEvent) => {
    const { left, top } = box.current!.getBoundingClientRect();
    return { x: event.clientX - left, y: event.clientY - top };
  };
  const cellAt = ({ x, y }: { x: number; y: number }): Cell | undefined =>
    cells.find((one) => x >= one.x && y >= one.y && x < one.x + one.cell.width && y < one.y + one.cell.height)
      ?.cell;

  const down = (event: React.PointerEvent): void => {
    if (view === undefined) return;
    canvas.current!.setPointerCapture(event.pointerId);
    canvas.current!.focus();
    const at = place(event);
    if (event.button === 1 || event.altKey) {
      drag.current = { kind: 'pan', ...at, view };
      return;
    }
    const keeps = event.shiftKey || event.ctrlKey || event.metaKey ? selectedCells : [];
    drag.current = { kind: 'select', ...onSheet(view, at), keeps };
    const hit = cellAt(onSheet(view, at));
    if (hit === undefined) select({ cells: keeps });
    else if (event.ctrlKey || event.metaKey)
      select({
        cells: selected.has(hit.index)
          ? selectedCells.filter((one) => one !== hit.index)
          : [...selectedCells, hit.index],
      });
    else if (event.shiftKey && selectedCells.length > 0) {
      const from = selectedCells[0]!;
      const [low, high] = [Math.min(from, hit.index), Math.max(from, hit.index)];
      select({ cells: Array.from({ length: high - low + 1 }, (_, i) => low + i) });
    } else select({ cells: [hit.index] });
  };
  const move = (event: React.PointerEvent): void => {
    if (view === undefined || drag.current === undefined) return;
    const at = place(event);
    if (drag.current.kind === 'pan') {
      const { x, y, view: before } = drag.current;
      setView({
        ...before,
        x: before.x - (at.x - x) / before.scale,
        y: before.y - (at.y - y) / before.scale,
      });
      return;
    }
    const now = onSheet(view, at);
    const { x, y } = drag.current;
    if (drag.current.kind !== 'select') return;
    const rect = {
      x: Math.min(x, now.x),
      y: Math.min(y, now.y),
      width: Math.abs(now.x - x),
      height: Math.abs(now.y - y),
    };
    if (marquee === undefined && rect.width * view.scale < 5 && rect.height * view.scale < 5) return;
    setMarquee(rect);
    const inside = cells.filter(
      ({ cell, x: left, y: top }) =>
        left < rect.x + rect.width &&
        left + cell.width > rect.x &&
        top < rect.y + rect.height &&
        top + cell.height > rect.y,
    );
    select({ cells: [...new Set([...drag.current.keeps, ...inside.map(({ cell }) => cell.index)])] });
  };
  const up = (): void => {
    drag.current = undefined;
    setMarquee(undefined);
  };
  const key = (event: React.KeyboardEvent): void => {
    const last = selectedCells[selectedCells.length - 1];
    const go = (by: number): void => {
      event.preventDefault();
      const next = last === undefined ? 0 : Math.min(cells.length - 1, Math.max(0, last + by));
      select({
        cells: event.shiftKey && last !== undefined ? [...new Set([...selectedCells, next])] : [next],
      });
    };
    const columns = columnsOf(cells);
    if (event.key === 'ArrowRight') go(1);
    else if (event.key === 'ArrowLeft') go(-1);
    else if (event.key === 'ArrowDown') go(columns);
    else if (event.key === 'ArrowUp') go(-columns);
    else if (event.key === '+' || event.key === '=') zoom(1.25);
    else if (event.key === '-') zoom(0.8);
    else if (event.key === '0') whole();
    else if (event.key === 'a' && (event.ctrlKey || event.metaKey)) {
      event.preventDefault();
      select({ cells: cells.map(({ cell }) => cell.index) });
    } else if (event.key === 'Escape') select({ cells: [] });
    else if (onKey(event)) event.preventDefault();
  };
  return (
    <div className="sheet-view" ref={box}>
      <canvas
        ref={canvas}
        tabIndex={0}
        role="application"
        aria-label={`${cells.length} cells; arrows select, shift adds, + and - zoom, 0 shows all`}
        data-testid="sheet"
        style={{ width: room.width, height: room.height }}
        onPointerDown={down}
        onPointerMove={move}
        onPointerUp={up}
        onPointerCancel={up}
        onKeyDown={key}
      />
      {view === undefined || handles === undefined ? null : <Handles view={view} handles={handles} />}
      {view === undefined || split === undefined ? null : <SplitLine view={view} split={split} />}
      <div className="zoom" hidden={layout.pictures.length === 0}>
        <IconButton label="further away" keys="-" onPress={() => zoom(0.8)}>
          <ZoomOut size={16} />
        </IconButton>
        <output>{view === undefined ? '' : `${Math.round(view.scale * 100)} %`}</output>
        <IconButton label="closer" keys="+" onPress={() => zoom(1.25)}>
          <ZoomIn size={16} />
        </IconButton>
        <IconButton label="the whole sheet" keys="0" onPress={whole}>
          <Maximize size={16} />
        </IconButton>
      </div>
      {missing.length > 0 ? (
        <p className="hint middle">
          {missing.slice(0, 3).join(', ')}
          {missing.length > 3 ? ` and ${missing.length - 3} more are` : ' is'} not among the files. Drop it
          here.
        </p>
      ) : null}
    </div>
  );
}

/** Cells in the first row. */
function columnsOf(cells: readonly LaidCell[]): number {
  const first = cells[0];
  if (first === undefined) return 1;
  const next = cells.findIndex(({ y }, i) => i > 0 && y >= first.y + first.cell.height);
  return next < 0 ? cells.length : next;
}

/** Two handles on the first cell: its upper left corner is where the grid begins, its lower right how large a cell is. */
function Handles({ view, handles }: { readonly view: View; readonly handles: GridHandles }) {
  const { offset, cell, move } = handles;
  const start = useRef<{ x: number; y: number; from: readonly [number, number] } | undefined>(undefined);
  const at = (x: number, y: number) => ({ left: (x - view.x) * view.scale, top: (y - view.y) * view.scale });
  const parts = {
    offset: { label: 'where the first cell begins', value: offset, style: at(offset[0], offset[1]) },
    cell: { label: 'size of a cell', value: cell, style: at(offset[0] + cell[0], offset[1] + cell[1]) },
  };
  return (
    <>
      {(['offset', 'cell'] as const).map((what) => (
        <button
          key={what}
          type="button"
          className={`handle ${what}`}
          style={parts[what].style}
          aria-label={`${parts[what].label}: ${parts[what].value.join(' x ')}; arrows change it`}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            start.current = { x: event.clientX, y: event.clientY, from: parts[what].value };
          }}
          onPointerMove={(event) => {
            if (start.current === undefined) return;
            const { x, y, from } = start.current;
            const by = [(event.clientX - x) / view.scale, (event.clientY - y) / view.scale];
            move(what, [Math.round(from[0] + by[0]!), Math.round(from[1] + by[1]!)]);
          }}
          onPointerUp={() => (start.current = undefined)}
          onKeyDown={(event) => {
            const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[
              event.key
            ];
            if (by === undefined) return;
            event.preventDefault();
            const [x, y] = parts[what].value;
            move(what, [x + by[0]!, y + by[1]!]);
          }}
        />
      ))}
    </>
  );
}
