import { useEffect, useRef } from 'react';
import UPlot from 'uplot';
import 'uplot/dist/uPlot.min.css';
import { useEachPicture } from '../../parts/loop.js';
import { live, valueNow } from '../../stage/live.js';

const [width, height] = [560, 120];
/** How many seconds are shown, and how often a value is taken. */
const seconds = 6;
const perSecond = 30;
const most = seconds * perSecond;

/** The value of a signal over the last seconds, as it was on the stage; a flag is 0 or 1. */
export function Curve({ name }: { readonly name: string }) {
  const box = useRef<HTMLDivElement>(null);
  const plot = useRef<UPlot | undefined>(undefined);
  const values = useRef<number[]>([]);
  const owed = useRef(0);
  useEffect(() => {
    values.current = [];
    const dim = '#b3a8c6';
    const grid = { stroke: '#45395f', width: 1 };
    const made = new UPlot(
      {
        width,
        height,
        cursor: { show: false },
        legend: { show: false },
        scales: { x: { time: false, range: [-seconds, 0] } },
        axes: [
          { stroke: dim, grid, ticks: grid, size: 26, values: (_, all) => all.map((one) => `${one} s`) },
          { stroke: dim, grid, ticks: grid, size: 46 },
        ],
        series: [{}, { stroke: '#86d0a6', width: 2, paths: UPlot.paths.stepped!({ align: 1 }) }],
      },
      [[], []],
      box.current!,
    );
    plot.current = made;
    return () => made.destroy();
  }, [name]);
  useEachPicture((ms) => {
    owed.current += (ms * perSecond) / 1000;
    if (owed.current < 1) return;
    owed.current %= 1;
    const value = live.performer && valueNow(live.performer, name);
    if (typeof value !== 'number' && typeof value !== 'boolean') return;
    const all = values.current;
    all.push(Number(value));
    if (all.length > most) all.shift();
    plot.current?.setData([all.map((_, i) => (i - all.length + 1) / perSecond), all]);
  });
  return (
    <div className="curve" ref={box} role="img" aria-label={`${name} over the last ${seconds} seconds`} />
  );
}
