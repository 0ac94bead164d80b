import type { AtDefinition, StateDefinition } from 'dot-hop';
import { useEffect, useRef } from 'react';
import { useWorkbench } from '../../character/store.js';
import { CellPicture, scaleToFit } from '../../parts/CellPicture.js';
import { TextBox } from '../../parts/TextBox.js';
import { Choice, namesWritten } from '../../parts/ui.js';
import { atKey, atOf, beginsOf, firstClip, instantsOf, phased, phasesOf } from './instants.js';

/** How wide the strip is, and how tall its drawings are, in CSS pixels. */
const [width, face] = [300, 30];

/** An instant of what a state shows: by its name, or by a press on the strip of its clip. */
export function Instant({
  label,
  state,
  at,
  onChange,
}: {
  readonly label: string;
  readonly state: StateDefinition;
  readonly at: AtDefinition | undefined;
  readonly onChange: (at: AtDefinition | undefined) => void;
}) {
  const definition = useWorkbench((one) => one.definition);
  const key = atKey(at);
  const phases = phasesOf(at);
  return (
    <>
      <Choice
        label={label}
        value={key}
        options={{ [key]: key, now: 'at once', ...instantsOf(definition, state) }}
        onChange={(picked) => onChange(atOf(picked))}
      />
      {key === phased ? (
        <>
          <TextBox
            label="parts of a pass, 0 to under 1"
            value={phases.join(', ')}
            onChange={(text) => {
              const written = namesWritten(text).map(Number);
              if (written.length > 0 && written.every((one) => one >= 0 && one < 1))
                onChange({ phases: written.toSorted((a, b) => a - b) });
            }}
          />
          <PhaseStrip state={state} phases={phases} onChange={(next) => onChange({ phases: next })} />
        </>
      ) : null}
    </>
  );
}

/**
 * The latest of a value that is changed here and comes back later, when the panel is drawn anew: presses that follow one another fast
 * go on from one another, and not from what the panel still shows.
 */
function useLatest<T>(shown: T): { readonly now: T; put(next: T): T } {
  const kept = useRef({ now: shown, put: [] as string[] });
  useEffect(() => {
    const { put } = kept.current;
    const place = put.indexOf(JSON.stringify(shown));
    // What was put here has come back; anything else was changed elsewhere.
    if (place >= 0) put.splice(0, place + 1);
    else kept.current = { now: shown, put: [] };
  }, [shown]);
  return {
    get now() {
      return kept.current.now;
    },
    put(next) {
      kept.current.now = next;
      kept.current.put.push(JSON.stringify(next));
      return next;
    },
  };
}

/** The frames of a clip, as wide as they last. A press on one picks where it begins, or takes that back. */
function PhaseStrip({
  state,
  phases,
  onChange,
}: {
  readonly state: StateDefinition;
  readonly phases: readonly number[];
  readonly onChange: (phases: readonly number[]) => void;
}) {
  const clip = useWorkbench(({ controller }) => firstClip(controller, state));
  const picked = useLatest(phases);
  if (clip === undefined) return null;
  const begins = beginsOf(clip);
  const toggle = (phase: number): void => {
    const { now } = picked;
    const next = now.includes(phase) ? now.filter((one) => one !== phase) : [...now, phase];
    // One at least: without any it would never be.
    if (next.length > 0) onChange(picked.put(next.toSorted((a, b) => a - b)));
  };
  return (
    <div className="phases" role="group" aria-label={`where it may be in ${clip.name}`} style={{ width }}>
      {clip.cells.map((cell, i) => {
        const begin = begins[i]!;
        const end = begins[i + 1] ?? 1;
        return (
          <button
            key={i}
            type="button"
            aria-label={`where frame ${i + 1} begins, at ${begin}`}
            aria-pressed={phases.includes(begin)}
            style={{ left: `${begin * 100}%`, width: `${(end - begin) * 100}%` }}
            onClick={() => toggle(begin)}
          >
            <CellPicture cell={cell} scale={Math.min(1, scaleToFit(cell, face))} />
          </button>
        );
      })}
      {phases.map((phase) => (
        <i key={phase} style={{ left: `${phase * 100}%` }} aria-hidden="true" />
      ))}
    </div>
  );
}
