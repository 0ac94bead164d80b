import type { Severity } from 'dot-hop/check';
import type { Canvas } from '../canvas.js';
import { svgBox } from '../canvas.js';
import { svgText, textWidth } from '../letters.js';
import { theme } from '../theme.js';
import { margin, nameWidth, rankWidth } from './layout.js';
import type { Rung } from './layout.js';

/** What a check found, to be drawn beside the states that it is about. */
export interface Remark {
  /** The state it is about; `undefined` for what concerns no single one. */
  readonly state: string | undefined;
  readonly severity: Severity;
  /** In bold, such as its code and place. */
  readonly head: string;
  readonly text: string;
}

const severityColours: Record<Severity, string> = {
  error: theme.bad,
  warning: theme.lamp,
  note: '#8fb8e8',
};

export function verdictColour(remarks: readonly Remark[]): string {
  const worst = (['error', 'warning', 'note'] as const).find((one) =>
    remarks.some(({ severity }) => severity === one),
  );
  return worst === undefined ? theme.good : severityColours[worst];
}

interface ToldRemark extends Remark {
  readonly lines: readonly string[];
  readonly height: number;
}

const remarkLine = 18;

/** Breaks the words of remarks into lines. @param room how wide a line may be, in pixels */
export function layOutRemarks(remarks: readonly Remark[], room: number): ToldRemark[] {
  return remarks.map((remark) => {
    const lines = [''];
    for (const word of remark.text.split(' ')) {
      const longer = `${lines[lines.length - 1]!} ${word}`.trim();
      if (textWidth(longer, { size: 13 }) <= room) lines[lines.length - 1] = longer;
      else lines.push(word);
    }
    return { ...remark, lines, height: (lines.length + 1) * remarkLine + 24 };
  });
}

/** A numbered mark at each state that something was found of, and all of it in words below. */
export function drawRemarks(
  canvas: Canvas,
  remarks: readonly ToldRemark[],
  rungs: readonly Rung[],
  top: number,
): void {
  const badge = (x: number, y: number, number: number, severity: Severity): void =>
    canvas.draw(
      `<circle cx="${x}" cy="${y}" r="11" fill="${severityColours[severity]}" stroke="${theme.ground}" stroke-width="2"/>`,
      svgText(String(number), x, y + 4.5, { size: 12, bold: true, colour: theme.ground, align: 'middle' }),
    );
  let y = top;
  remarks.forEach(({ state, severity, head, lines, height }, i) => {
    const at = rungs.find((one) => one.state.name === state && one.state.takenBy < 0);
    // Several of one state stand side by side, from the right.
    const before = remarks.slice(0, i).filter((one) => one.state === state).length;
    const right = margin + rankWidth + nameWidth - 14 - before * 25;
    if (at !== undefined) badge(right, at.y + 18, i + 1, severity);
    canvas.draw(
      svgBox(margin, y, canvas.width - margin * 2, height - 10, theme.panel, 'rx="4"'),
      svgBox(margin, y, 4, height - 10, severityColours[severity], 'rx="2"'),
      svgText(head, margin + 46, y + 22, { size: 13, bold: true, colour: theme.text }),
      ...lines.map((line, j) =>
        svgText(line, margin + 46, y + 22 + (j + 1) * remarkLine, { size: 13, colour: theme.dim }),
      ),
    );
    badge(margin + 24, y + 18, i + 1, severity);
    y += height;
  });
}
