import { stateIn } from 'dot-hop/explain';
import type { Cell, Clip } from 'dot-hop';
import type { FoundItem } from '../../character/findings.js';
import { useWorkbench } from '../../character/store.js';
import { CellPicture } from '../../parts/CellPicture.js';
import { StatePicture } from '../../parts/StatePicture.js';
import { Thumbnail } from '../../parts/Thumbnail.js';
import { clipMeant, nameIn } from './clip-of.js';

/** What is found, to be looked at: drawings beside one another, a number line, rungs, or who it is about. */
export function FindingPicture({ finding }: { readonly finding: FoundItem }) {
  const controller = useWorkbench((state) => state.controller);
  const { path, values, frames, cells } = finding;
  const clip = clipMeant(controller, finding);
  if (clip !== undefined && frames.length > 0) return <Frames clip={clip} frames={frames} />;
  if (cells.length > 0) {
    const sheet = controller?.sheets.get(String(path[1]));
    return (
      <div className="drawings">
        {cells.slice(0, 8).map((cell) => (
          <Drawing key={cell} cell={sheet?.cells[cell]} label={`cell ${cell}`} isMeant />
        ))}
      </div>
    );
  }
  if (typeof values.value === 'number' && typeof values.below === 'string')
    return (
      <NumberLine
        name={String(values.name)}
        value={values.value}
        below={values.below}
        above={String(values.above)}
        between={finding.code === 'flicker' ? undefined : (nameIn(values.rest) ?? nameIn(values.first))}
      />
    );
  const own = nameIn(values.state) ?? nameIn(values.to) ?? nameIn(values.from);
  const by = Array.isArray(values.by) ? values.by.map(String) : [];
  if (by.length > 0 && own !== undefined) return <Rungs above={by} below={own} />;
  const states = [own, ...(Array.isArray(values.states) ? (values.states as unknown[]) : [])].flatMap(
    (name) => nameIn(name) ?? [],
  );
  if (states.length > 0) return <Rungs above={states} below={undefined} />;
  const shown = path[0] === 'clips' || path[0] === 'flipbooks' ? String(path[1]) : undefined;
  return shown === undefined ? null : (
    <div className="drawings">
      <Thumbnail name={shown} size={96} />
    </div>
  );
}

/** Frames that were measured, each with those beside it, on the line on which they should stand. */
function Frames({ clip, frames }: { readonly clip: Clip; readonly frames: readonly number[] }) {
  const near = new Set(frames.flatMap((frame) => [frame - 1, frame, frame + 1]));
  const shown = [...near].filter((frame) => clip.frames[frame] !== undefined).sort((a, b) => a - b);
  return (
    <div className="drawings">
      {shown.slice(0, 9).map((frame) => (
        <Drawing
          key={frame}
          cell={clip.frames[frame]}
          label={`frame ${frame + 1}`}
          isMeant={frames.includes(frame)}
        />
      ))}
    </div>
  );
}

/** How large a drawing is shown. */
const zoom = 3;

function Drawing({
  cell,
  label,
  isMeant,
}: {
  readonly cell: Cell | undefined;
  readonly label: string;
  readonly isMeant: boolean;
}) {
  if (cell === undefined) return null;
  return (
    <figure className={isMeant ? 'meant' : ''}>
      <span className="on-line">
        <CellPicture cell={cell} scale={zoom} />
        <i className="foot-line" style={{ top: cell.pivotY * zoom }} />
        <i className="pivot-line" style={{ left: cell.pivotX * zoom }} />
      </span>
      <figcaption>{label}</figcaption>
    </figure>
  );
}

/** Who shows below a value, at it, and above it. */
function NumberLine({
  name,
  value,
  below,
  above,
  between,
}: {
  readonly name: string;
  readonly value: number;
  readonly below: string;
  readonly above: string;
  readonly between: string | undefined;
}) {
  return (
    <div
      className="line-of-states"
      role="img"
      aria-label={`${below} below ${name} = ${value}, ${above} above it`}
    >
      <Side name={below} />
      <span className="at">
        {between === undefined ? (
          <b>⇄</b>
        ) : (
          <>
            <StatePicture name={between} size={56} />
            <b>{between}</b>
          </>
        )}
        <small>
          {name} = {value}
        </small>
      </span>
      <Side name={above} />
    </div>
  );
}

function Side({ name }: { readonly name: string }) {
  return (
    <span className="side">
      <StatePicture name={name} size={56} />
      <b>{name}</b>
    </span>
  );
}

/** Who stands above whom. */
function Rungs({ above, below }: { readonly above: readonly string[]; readonly below: string | undefined }) {
  const definition = useWorkbench((state) => state.definition);
  const rung = (name: string, isMeant: boolean) => (
    <li key={name} className={isMeant ? 'meant' : ''}>
      <span className="number">{stateIn(definition, name)?.definition.priority ?? 0}</span>
      <StatePicture name={name} size={56} />
      <b>{name}</b>
    </li>
  );
  return (
    <ol className="rungs">
      {above.map((name) => rung(name, below === undefined))}
      {below === undefined || above.includes(below) ? null : rung(below, true)}
    </ol>
  );
}
