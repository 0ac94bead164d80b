import { pathText } from 'dot-hop';
import { useFindings } from '../character/findings.js';
import { roomOf } from '../character/rooms.js';
import { follow, useWorkbench } from '../character/store.js';
import { useMissingImages } from './MissingImages.js';

/** How many are shown. The rest is counted. */
const most = 40;

/** Problems and findings, first those of what is on screen; each leads to its place. */
export function FoundList() {
  const troubles = useWorkbench((state) => state.troubles);
  const plays = useWorkbench((state) => state.controller !== undefined);
  const room = useWorkbench((state) => state.room);
  const { sheet, clip, state: shown, signal } = useWorkbench((state) => state.selection);
  const { seen, isLooking } = useFindings();
  // Those whose size nobody says are problems already.
  const missing = useMissingImages().filter(
    ([, path]) => !troubles.some((one) => one.path.join('.') === path.join('.')),
  );
  const open = seen.filter(({ accepted, severity }) => accepted === undefined && severity !== 'note');
  const inView = { cut: sheet, time: clip, signals: signal, rank: shown };
  /** Whether something is about what is looked at in this room. */
  const concerns = (path: readonly (string | number)[]): boolean => {
    if (roomOf(path) !== room) return false;
    const name = room in inView ? inView[room as keyof typeof inView] : undefined;
    return room === 'turn' || (name !== undefined && path.includes(name));
  };
  const near = open.filter(({ path }) => concerns(path));
  const far = open.filter(({ path }) => !concerns(path));
  const all = [
    ...troubles.map(({ path, place, text, line, file }) => ({
      path,
      place: file === undefined ? place : `${file}: ${place}`,
      text,
      line: file === undefined ? line : undefined,
      weight: 'trouble',
    })),
    ...missing.map(([file, path]) => ({
      path,
      place: pathText(path),
      text: `${file} is not among the files. Drop it on this page.`,
      line: undefined,
      weight: 'trouble',
    })),
    ...[...near, ...far].map(({ path, text, severity }) => ({
      path,
      place: pathText(path),
      text,
      line: undefined,
      weight: severity,
    })),
  ];
  return (
    <section className="found" aria-label="problems and findings">
      <h2>
        {troubles.length > 0
          ? `${troubles.length} ${troubles.length === 1 ? 'problem' : 'problems'}`
          : all.length === 0
            ? 'Nothing wrong'
            : `${all.length} found`}
        <small>{isLooking ? 'looking …' : ''}</small>
      </h2>
      {troubles.length > 0 ? (
        <p className="hint">
          {plays
            ? 'The stage plays the last version that could be performed.'
            : `Nothing is played until ${troubles.length === 1 ? 'it is' : 'they are'} mended.`}
        </p>
      ) : null}
      <ul>
        {all.slice(0, most).map(({ path, place, text, line, weight }, i) => (
          <li key={`${place} ${i}`} className={weight}>
            <button type="button" onClick={() => follow(path, line)}>
              <b>{place}</b> {text}
            </button>
          </li>
        ))}
      </ul>
      {all.length > most ? <p className="hint">and {all.length - most} more</p> : null}
    </section>
  );
}
