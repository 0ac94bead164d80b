import type { Clip } from '../clip/clip.js';
import type { Pose, PoseLayer } from '../sheet/pose.js';
import type { Cell, Part, Point, Sheet } from '../sheet/sheet.js';

/** Which frame of a clip shows in step with a frame of another: the same one, or the one as far on where they differ in number. */
export function inStepFrame(frame: number, lead: Clip, own: Clip): number {
  const [from, to] = [lead.frames.length, own.frames.length];
  return from === to ? frame : Math.floor((frame * to) / from);
}

/** A pose once it was put together, and those that begin with the same drawings. */
interface PoseNode {
  pose: Pose | undefined;
  readonly next: Map<Pose, PoseNode>;
}

const newNode = (): PoseNode => ({ pose: undefined, next: new Map() });

/**
 * What several tracks show together: each part of the body's sheet from the drawing of the track that draws it. Where all
 * show the same drawing it is shown whole. A part with a joint hangs by it on the body's.
 */
export class ComposedPoses {
  private readonly kept = newNode();
  private readonly cells = new Map<Part, Map<Cell, Cell>>();

  /** @param draws for each track the parts it draws; what nobody draws is drawn as the first shows it */
  constructor(
    private readonly sheets: ReadonlyMap<string, Sheet>,
    private readonly draws: readonly (readonly string[])[],
  ) {}

  /** @param shown what each track shows; the list may be used again */
  pose(shown: readonly Pose[]): Pose {
    let { kept } = this;
    for (const pose of shown) {
      let next = kept.next.get(pose);
      if (next === undefined) kept.next.set(pose, (next = newNode()));
      kept = next;
    }
    return (kept.pose ??= this.compose(shown));
  }

  private compose(shown: readonly Pose[]): Pose {
    const body = shown[0]!;
    const from = (part: string): Pose => shown[this.draws.findIndex((parts) => parts.includes(part))] ?? body;
    const parts = [...this.sheets.get(body.cell.sheet)!.parts.values()];
    if (parts.every(({ name }) => from(name) === body)) return body;
    const boxes = { ...body.boxes };
    const points = { ...body.points };
    const layers = parts.flatMap((part): PoseLayer[] => {
      const pose = from(part.name);
      // The other track may show a drawing of a sheet that has no such part.
      const own = this.sheets.get(pose.cell.sheet)!.parts.get(part.name);
      if (own === undefined) return [];
      const { x, y } = hung(part, pose, body);
      if (pose !== body) {
        for (const name of part.boxes) put(boxes, name, moved(pose.boxes[name], x, y));
        for (const name of part.points) put(points, name, moved(pose.points[name], x, y));
      }
      const cell = this.partOf(own, pose.cell);
      return [{ layer: part.name, piece: undefined, cell, x, y, mirrored: pose.mirrored, dye: '' }];
    });
    return Object.freeze({
      ...body,
      boxes: Object.freeze(boxes),
      points: Object.freeze(points),
      layers: Object.freeze(layers.map((layer) => Object.freeze(layer))),
    });
  }

  /** A part of a cell: the same rectangle of another image. */
  private partOf(part: Part, cell: Cell): Cell {
    let cells = this.cells.get(part);
    if (cells === undefined) this.cells.set(part, (cells = new Map<Cell, Cell>()));
    let own = cells.get(cell);
    if (own === undefined) cells.set(cell, (own = Object.freeze({ ...cell, image: part.image })));
    return own;
  }
}

/** How far a part is moved, so that its joint lies on the body's. */
function hung({ joint }: Part, pose: Pose, body: Pose): { x: number; y: number } {
  const [on, own] = joint === undefined ? [] : [body.points[joint], pose.points[joint]];
  return on === undefined || own === undefined ? { x: 0, y: 0 } : { x: on.x - own.x, y: on.y - own.y };
}

const moved = <T extends Point>(mark: T | undefined, x: number, y: number): T | undefined =>
  mark && Object.freeze({ ...mark, x: mark.x + x, y: mark.y + y });

/** A mark that goes with a part is where the part's drawing has it, or nowhere. */
function put<T>(marks: Record<string, T>, name: string, mark: T | undefined): void {
  // eslint-disable-next-line @typescript-eslint/no-dynamic-delete -- a plain table of marks by name
  if (mark === undefined) delete marks[name];
  else marks[name] = mark;
}
