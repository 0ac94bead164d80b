import { showingAt } from 'dot-hop/explain';
import { useEffect, useRef, useState } from 'react';
import { clipOf } from '../character/clip.js';
import { useWorkbench } from '../character/store.js';
import { CellPicture, scaleToFit, looksSame } from './CellPicture.js';
import { useEachPicture, wantsStill } from './loop.js';

/** A clip, small; it moves while it can be seen. */
export function Thumbnail({ name, size }: { readonly name: string; readonly size: number }) {
  const box = useRef<HTMLSpanElement>(null);
  const time = useRef(0);
  const [isSeen, setIsSeen] = useState(false);
  const [cell, setCell] = useState(() => clipOf(useWorkbench.getState().controller, name)?.cells[0]);
  useEffect(() => {
    const watch = new IntersectionObserver((entries) => {
      setIsSeen(entries[entries.length - 1]!.isIntersecting);
    });
    watch.observe(box.current!);
    return () => watch.disconnect();
  }, []);
  useEachPicture((ms) => {
    const clip = clipOf(useWorkbench.getState().controller, name);
    if (clip === undefined) return;
    const lasts = clip.ends[clip.ends.length - 1]! / 1000;
    if (!wantsStill()) time.current = (time.current + ms) % (lasts + (clip.loopFrom < 0 ? 600 : 0));
    const next = clip.cells[showingAt(clip, Math.min(time.current, lasts - 0.001))];
    setCell((before) => (looksSame(before, next) ? before : next));
  }, isSeen);
  return (
    <span ref={box} className="thumb" style={{ width: size, height: size }}>
      <CellPicture cell={cell} scale={cell === undefined ? 1 : Math.min(1, scaleToFit(cell, size))} />
    </span>
  );
}
