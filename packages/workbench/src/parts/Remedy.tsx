import type { Clip } from 'dot-hop';
import { placePivots } from 'dot-hop/edit';
import { feetOf } from 'dot-hop/gather';
import { Button } from 'react-aria-components';
import { act, useWorkbench } from '../character/store.js';

/** The mechanical remedy of what was measured, where there is one. */
export function Remedy({
  clip,
  code,
  frames,
}: {
  readonly clip: Clip | undefined;
  readonly code: string;
  readonly frames: readonly number[];
}) {
  if (clip === undefined || !code.includes('foot-line')) return null;
  const mend = (): void => {
    const { definition, drawn, controller } = useWorkbench.getState();
    const cells = [...new Set(frames.map((frame) => clip.frames[frame]!))];
    const pivots: Record<number, [number, number]> = {};
    for (const cell of cells) {
      const picture = drawn.get(cell.image)?.picture;
      const feet = picture && feetOf(picture, cell);
      if (feet !== undefined) pivots[cell.index] = [cell.pivotX, feet[1] + cell.offsetY];
    }
    const sheet = cells[0]!.sheet;
    act(placePivots(definition, sheet, pivots, controller?.sheets.get(sheet)?.cells.length ?? 0));
  };
  return (
    <Button className="small" onPress={mend}>
      Stand {frames.length === 1 ? 'it' : 'them'} on the line
    </Button>
  );
}
