import type { AtDefinition, StateDefinition } from 'dot-hop';
import { useWorkbench } from '../../character/store.js';
import { scaleToFit } from '../../parts/CellPicture.js';
import { FramePicture } from '../../parts/FramePicture.js';
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
  now,
  onChange,
}: {
  readonly label: string;
  readonly state: StateDefinition;
  readonly at: AtDefinition | undefined;
  /** The same as the document has it now: what is on screen may be a picture behind. */
  readonly now: () => AtDefinition | undefined;
  readonly onChange: (at: AtDefinition | undefined) => void;
}) {
  const definition = useWorkbench((one) => one.definition);
  const key = atKey(at);
  const phases = phasesOf(at);
  const toggle = (phase: number): void => {
    const picked = phasesOf(now());
    const next = picked.includes(phase) ? picked.filter((one) => one !== phase) : [...picked, phase];
    // One at least: without any it would never be.
    if (next.length > 0) onChange({ phases: next.toSorted((a, b) => a - b) });
  };
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
          <PhaseStrip state={state} phases={phases} onPress={toggle} />
        </>
      ) : null}
    </>
  );
}

/** The frames of a clip, as wide as they last. A press on one picks where it begins, or takes that back. */
function PhaseStrip({
  state,
  phases,
  onPress,
}: {
  readonly state: StateDefinition;
  readonly phases: readonly number[];
  readonly onPress: (phase: number) => void;
}) {
  const clip = useWorkbench(({ controller }) => firstClip(controller, state));
  if (clip === undefined) return null;
  const begins = beginsOf(clip);
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
            onClick={() => onPress(begin)}
          >
            <FramePicture clip={clip} frame={clip.order[i]!} scale={Math.min(1, scaleToFit(cell, face))} />
          </button>
        );
      })}
      {phases.map((phase) => (
        <i key={phase} style={{ left: `${phase * 100}%` }} aria-hidden="true" />
      ))}
    </div>
  );
}
