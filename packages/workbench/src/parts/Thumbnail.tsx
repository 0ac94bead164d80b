import { showingAt } from 'dot-hop/explain';
import { useEffect, useRef, useState } from 'react';
import { clipOf } from '../character/clip.js';
import { useWorkbench } from '../character/store.js';
import { scaleToFit } from './CellPicture.js';
import { FramePicture } from './FramePicture.js';
import { useEachPicture, wantsStill } from './loop.js';

/** A clip, small; it moves while it can be seen. */
export function Thumbnail({ name, size }: { readonly name: string; readonly size: number }) {
  const box = useRef<HTMLSpanElement>(null);
  const time = useRef(0);
  const [isSeen, setIsSeen] = useState(false);
  const [shown, setShown] = useState(() => ({
    clip: clipOf(useWorkbench.getState().controller, name),
    frame: 0,
  }));
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
    const frame = clip.order[showingAt(clip, Math.min(time.current, lasts - 0.001))]!;
    setShown((before) => (before.clip === clip && before.frame === frame ? before : { clip, frame }));
  }, isSeen);
  const { clip, frame } = shown;
  const cell = clip?.frames[frame];
  return (
    <span ref={box} className="thumb" style={{ width: size, height: size }}>
      {clip === undefined || cell === undefined ? null : (
        <FramePicture clip={clip} frame={frame} scale={Math.min(1, scaleToFit(cell, size))} />
      )}
    </span>
  );
}
