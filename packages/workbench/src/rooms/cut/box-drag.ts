import type { BoxDefinition } from 'dot-hop';

/** A place in a frame, in its pixels, as exactly as the pointer tells it. */
export type Spot = readonly [number, number];

/** What a drag does to a box: draws a new one, moves it, or drags some of its edges. */
export type BoxDrag =
  | { readonly kind: 'draw'; readonly from: Spot }
  | { readonly kind: 'move'; readonly from: Spot; readonly box: BoxDefinition }
  | {
      readonly kind: 'edges';
      /** -1 for the left or upper edge, 1 for the right or lower one, 0 for neither. */
      readonly across: -1 | 0 | 1;
      readonly down: -1 | 0 | 1;
      readonly box: BoxDefinition;
    };

/**
 * What a drag that begins at a spot does.
 *
 * @param reach how near an edge one must be to drag it, in pixels of the frame
 */
export function dragAt(box: BoxDefinition | undefined, spot: Spot, reach: number): BoxDrag {
  if (box === undefined) return { kind: 'draw', from: spot };
  const [x, y, width, height] = box;
  const isNear =
    spot[0] > x - reach && spot[0] < x + width + reach && spot[1] > y - reach && spot[1] < y + height + reach;
  if (!isNear) return { kind: 'draw', from: spot };
  const edge = (at: number, low: number, high: number): -1 | 0 | 1 =>
    Math.abs(at - high) < reach && at - low > high - at ? 1 : Math.abs(at - low) < reach ? -1 : 0;
  const [across, down] = [edge(spot[0], x, x + width), edge(spot[1], y, y + height)];
  return across === 0 && down === 0
    ? { kind: 'move', from: spot, box }
    : { kind: 'edges', across, down, box };
}

/** The box when the pointer has come to a spot. */
export function boxAfter(drag: BoxDrag, to: Spot): BoxDefinition {
  if (drag.kind === 'draw') {
    const [left, top] = [Math.min(drag.from[0], to[0]), Math.min(drag.from[1], to[1])].map(Math.floor);
    const [right, bottom] = [Math.max(drag.from[0], to[0]), Math.max(drag.from[1], to[1])].map(Math.floor);
    return [left!, top!, right! - left! + 1, bottom! - top! + 1];
  }
  const [x, y, width, height] = drag.box;
  if (drag.kind === 'move')
    return [x + Math.round(to[0] - drag.from[0]), y + Math.round(to[1] - drag.from[1]), width, height];
  const side = (which: -1 | 0 | 1, at: number, low: number, long: number): [number, number] => {
    if (which === 0) return [low, long];
    const place = Math.round(at);
    if (which > 0) return [low, Math.max(1, place - low)];
    const first = Math.min(place, low + long - 1);
    return [first, low + long - first];
  };
  const [left, wide] = side(drag.across, to[0], x, width);
  const [top, high] = side(drag.down, to[1], y, height);
  return [left, top, wide, high];
}

/** The pointer that says what a drag would do. */
export function cursorOf(drag: BoxDrag): string {
  if (drag.kind === 'draw') return 'crosshair';
  if (drag.kind === 'move') return 'move';
  const { across, down } = drag;
  if (across === 0) return 'ns-resize';
  if (down === 0) return 'ew-resize';
  return across === down ? 'nwse-resize' : 'nesw-resize';
}
