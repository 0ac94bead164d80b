import type { Controller, State } from 'dot-hop';
import { definitionOf } from '../../state-words.js';
import type { Canvas } from '../canvas.js';
import { fitText, svgText } from '../letters.js';
import { markColour, theme } from '../theme.js';
import { groupHeight, heading, margin, rung, waysWidth } from './layout.js';
import type { Layout } from './layout.js';

/** A way from one state to another, as an arc. */
interface Way {
  /** The state that it leads on from, and where it begins and ends. */
  readonly of: State;
  readonly from: number;
  readonly to: number;
  readonly kind: 'hop' | 'then';
  readonly label: string;
}

/** Hops and follow-ups as arcs at the right, the shorter ones inside. */
export function drawWays(canvas: Canvas, controller: Controller, { rungs, frames }: Layout): void {
  const middleOf = (index: number): number =>
    rungs.find(({ state }) => state.index === index)!.y + (rung - 10) / 2;
  const ways = rungs.flatMap(({ state }): Way[] => {
    const said = definitionOf(controller, state)?.hops ?? [];
    // A hop into a group is one way, to the group.
    const hops = state.hops.filter(({ place }, i) => state.hops[i - 1]?.place !== place);
    const from = middleOf(state.index);
    return [
      ...hops.map((hop): Way => {
        const frame = frames.find(({ group }) => group.name === said[hop.place]?.to);
        const to = frame === undefined ? middleOf(hop.to) : frame.y + groupHeight / 2 - 3;
        const label = hop.if < 0 ? '' : controller.conditionTexts[hop.if]!;
        return { of: state, from, to, kind: 'hop', label };
      }),
      ...(state.then < 0
        ? []
        : [{ of: state, from, to: middleOf(state.then), kind: 'then' as const, label: '' }]),
    ];
  });
  ways.sort((one, other) => Math.abs(one.to - one.from) - Math.abs(other.to - other.from));
  const left = canvas.width - margin - waysWidth;
  ways.forEach(({ of, from, to, kind, label }, i) => {
    const shift = from === to ? 12 : 0;
    const reach = left + 60 + ((i + 1) / (ways.length + 1)) * (waysWidth - 90);
    const colour = markColour(of.index);
    const [y1, y2] = [from + (from < to ? 7 : -7) - shift, to + (from < to ? -7 : 7) + shift];
    const dashes = kind === 'then' ? 'stroke-dasharray="7 5"' : '';
    canvas.draw(
      `<path d="M ${left} ${y1} C ${reach} ${y1}, ${reach} ${y2}, ${left + 8} ${y2}" fill="none" stroke="${colour}" stroke-width="2.2" ${dashes}/>`,
      `<circle cx="${left}" cy="${y1}" r="3.5" fill="${colour}"/>`,
      `<path d="M ${left} ${y2} l 10 -5 l 0 10 Z" fill="${colour}"/>`,
    );
    const middle = { x: left + (reach - left) * 0.75 + 6, y: (y1 + y2) / 2 + 4 };
    const words = fitText(label, canvas.width - margin - middle.x, { size: 11 });
    canvas.draw(svgText(words, middle.x, middle.y, { size: 11, colour: theme.text }));
  });
  if (ways.length > 0)
    canvas.draw(
      svgText('a line: a hop; dashed: what follows an end', canvas.width - margin, heading - 12, {
        size: 11,
        colour: theme.dim,
        align: 'right',
      }),
    );
}
