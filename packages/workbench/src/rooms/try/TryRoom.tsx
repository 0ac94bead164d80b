import { startLoop } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import { mountOverlay } from '@dot-hop/browser/overlay';
import type { Overlay, OverlaySetup } from '@dot-hop/browser/overlay';
import type { GroundDefinition } from 'dot-hop/rehearsal';
import type { Controller } from 'dot-hop';
import { RotateCcw } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { useWorkbench } from '../../character/store.js';
import { ControlRow } from '../../parts/ControlRow.js';
import { FoundList } from '../../parts/FoundList.js';
import { Choice, NumberBox } from '../../parts/ui.js';
import { controlsFor, keyName, targetsOf, useControls } from '../../character/controls.js';
import type { KnownControls, Target } from '../../character/controls.js';
import { bodyOf } from '../../stage/body.js';
import { Clothes } from '../../stage/Clothes.js';
import { dress, imagesFor } from '../../stage/worn.js';
import type { BodyKind } from '../../stage/body.js';
import { useHeldKeys } from '../../stage/held-keys.js';
import { levelGround, rubbedOut, withStroke } from './ground.js';
import type { Stroke } from './ground.js';
import { GroundPanel } from './GroundPanel.js';
import type { GroundTool } from './GroundPanel.js';
import { RehearsalList } from './RehearsalList.js';
import { Pad } from './pad.js';
import { turn } from './turn.js';
import { Trial, stepsPerSecond, usualSpeed } from './trial.js';
import { draw, height, placeAt, strokeBetween, width } from './view.js';
import { KeepRehearsal } from './KeepRehearsal.js';
import { ScreenButtons } from './ScreenButtons.js';

/** What has been drawn for each document, as long as the page is open. */
const drawnGrounds = new Map<string, GroundDefinition>();

const bodies: Readonly<Record<BodyKind, string>> = {
  platformer: 'runs and leaps',
  walker: 'is seen from above',
  none: 'none: signals by hand',
};

/** The character is led by keys here; what it does and why stands beside it. */
export function TryRoom() {
  const controller = useWorkbench((state) => state.controller);
  const isFaulty = useWorkbench((state) => state.troubles.length > 0);
  const hasStates = controller?.definition.states !== undefined;
  if (controller === undefined || !hasStates)
    return (
      <div className="hint empty">
        {isFaulty ? <FoundList /> : <p>Nothing can be tried yet. Make states in the room before this one.</p>}
      </div>
    );
  return <Trying controller={controller} isFaulty={isFaulty} />;
}

function Trying({ controller, isFaulty }: { readonly controller: Controller; readonly isFaulty: boolean }) {
  const [kind, setKind] = useState<BodyKind>(() => bodyOf(controller));
  const cues = controller.cueNames;
  const [leapAt, setLeapAt] = useState(() => (cues.includes('leap') ? 'leap' : ''));
  const [round, setRound] = useState(0);
  const [speeds, setSpeeds] = useState(usualSpeed);
  const speed = speeds[kind];
  const file = useWorkbench((state) => state.file);
  const [ground, setGround] = useState(() => drawnGrounds.get(file) ?? levelGround);
  const [tool, setTool] = useState<GroundTool | undefined>();
  const [stroke, setStroke] = useState<Stroke | undefined>();
  useEffect(() => {
    drawnGrounds.set(file, ground);
  }, [file, ground]);
  const canvas = useRef<HTMLCanvasElement>(null);
  const panel = useRef<HTMLDivElement>(null);
  const trial = useRef<Trial | undefined>(undefined);
  const overlay = useRef<Overlay | undefined>(undefined);
  const loop = useRef<Loop | undefined>(undefined);
  const setup = useRef<OverlaySetup | undefined>(undefined);
  const known = useControls();
  const { said } = known;
  const targets = useMemo(() => targetsOf(controller, kind), [controller, kind]);
  const controls = useMemo(() => controlsFor(targets, said), [targets, said]);
  const byKey = useMemo(
    () =>
      new Map(
        targets.flatMap((target) => (controls[target.name]?.keys ?? []).map((key) => [key, target] as const)),
      ),
    [targets, controls],
  );
  // The pad is read in each step; another one begins without a pause in what is tried.
  const pad = useRef<Pad | undefined>(undefined);
  useEffect(() => {
    const now = new Pad(targets, controls);
    pad.current = now;
    return () => now.destroy();
  }, [targets, controls]);

  // A new trial for another body, and whenever it begins again; an edit goes on in the same state.
  useEffect(() => {
    trial.current = undefined;
    setup.current = undefined;
  }, [kind, leapAt, speed, ground, round]);
  useEffect(() => {
    if (trial.current === undefined) trial.current = new Trial(controller, { kind, leapAt, speed, ground });
    else trial.current.exchange(controller);
    const now = trial.current;
    const { drawn } = useWorkbench.getState();
    const images = imagesFor(drawn);
    const pace = loop.current?.pace ?? 1;
    const running = startLoop({
      stepsPerSecond,
      step: (ms) => {
        pad.current?.lead(now);
        now.step(ms);
      },
      draw: () => {
        dress(now.performer, images);
        draw(canvas.current, now, overlay.current, images, preview.current);
      },
    });
    running.pace = pace;
    loop.current = running;
    overlay.current = mountOverlay(
      { performer: now.performer, images, loop: running, inline: true, setup: setup.current },
      panel.current!,
    );
    return () => {
      running.stop();
      // Where time stood still it stays so.
      const { pace: now } = running;
      setup.current = overlay.current?.setup;
      overlay.current?.destroy();
      overlay.current = undefined;
      running.pace = now;
    };
  }, [controller, kind, leapAt, speed, ground, round]);

  // What is being drawn shows before it is there.
  const preview = useRef<Stroke | undefined>(undefined);
  useEffect(() => {
    preview.current = stroke;
  }, [stroke]);
  /** The place of the world that lies under the pointer, heights upwards. */
  const placeOf = (event: React.PointerEvent): readonly [number, number] => {
    const box = canvas.current!.getBoundingClientRect();
    return placeAt(
      trial.current!,
      ((event.clientX - box.left) / box.width) * width,
      ((event.clientY - box.top) / box.height) * height,
    );
  };
  const begun = useRef<readonly [number, number] | undefined>(undefined);
  const drawing = {
    onPointerDown: (event: React.PointerEvent) => {
      if (tool === undefined || trial.current === undefined) return;
      const place = placeOf(event);
      if (tool === 'rubber') {
        setGround(rubbedOut(ground, place[0]));
        return;
      }
      event.currentTarget.setPointerCapture(event.pointerId);
      begun.current = place;
    },
    onPointerMove: (event: React.PointerEvent) => {
      const start = begun.current;
      if (tool === undefined || tool === 'rubber' || start === undefined) return;
      setStroke(strokeBetween(tool, start, placeOf(event)));
    },
    onPointerUp: () => {
      begun.current = undefined;
      if (stroke !== undefined) setGround(withStroke(ground, stroke));
      setStroke(undefined);
    },
  };
  const keyDown = useHeldKeys((code, isDown) => {
    const target = byKey.get(code);
    if (target !== undefined && trial.current !== undefined) turn(trial.current, target, isDown);
    return target !== undefined;
  });
  return (
    <div className="try">
      <div className="middle">
        <div className="fieldset">
          <Choice label="body" value={kind} options={bodies} onChange={setKind} />
          {kind === 'platformer' && cues.length > 0 ? (
            <Choice
              label="leaves the ground"
              value={leapAt}
              options={{
                '': 'at the press',
                ...Object.fromEntries(cues.map((cue) => [cue, `at the cue ${cue}`])),
              }}
              onChange={setLeapAt}
            />
          ) : null}
          {kind === 'none' ? null : (
            <NumberBox
              label="speed"
              unit="px/s"
              least={1}
              most={2000}
              value={speed}
              onChange={(value) => setSpeeds({ ...speeds, [kind]: value })}
            />
          )}
          <Button onPress={() => setRound(round + 1)}>
            <RotateCcw size={14} /> start over
          </Button>
          <Clothes controller={controller} />
        </div>
        <div
          className="boards"
          tabIndex={0}
          role="application"
          data-testid="try-stage"
          aria-label="arrow keys move the character, space is jump; letters press pulses"
          onKeyDown={keyDown}
        >
          <canvas
            ref={canvas}
            width={width}
            height={height}
            className={tool === undefined ? 'crisp' : 'crisp drawing-ground'}
            data-testid="try-canvas"
            {...drawing}
          />
          <p className="hint keys">
            click here, then {[...byKey].map(([code, { name }]) => `${keyName(code)} ${name}`).join(', ')}
          </p>
        </div>
        <ScreenButtons targets={targets} trial={trial} />
        <ControlsPanel targets={targets} known={known} />
        {kind === 'platformer' ? (
          <GroundPanel ground={ground} tool={tool} onTool={setTool} onChange={setGround} />
        ) : null}
        <KeepRehearsal controller={controller} trial={trial} overlay={overlay} />
        <RehearsalList controller={controller} />
        {isFaulty ? <FoundList /> : null}
      </div>
      <div className="watching" ref={panel} />
    </div>
  );
}

/** What leads what, and by which key or button; kept beside the document. */
function ControlsPanel({
  targets,
  known,
}: {
  readonly targets: readonly Target[];
  readonly known: KnownControls;
}) {
  return (
    <details className="controls">
      <summary>keys and pad</summary>
      {targets.map((target) => (
        <ControlRow key={target.name} target={target} targets={targets} known={known} />
      ))}
      {known.isReadable ? null : (
        <p className="told bad" role="alert">
          {known.file} cannot be read as controls, so the default keys are used. Mend or delete it.
        </p>
      )}
      <p className="hint">
        Kept in {known.file}, beside the document: a game can read them from there, and need not.
      </p>
    </details>
  );
}
