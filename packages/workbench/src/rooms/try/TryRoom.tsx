import { drawPose, startLoop } from '@dot-hop/browser';
import type { Loop } from '@dot-hop/browser';
import { mountOverlay } from '@dot-hop/browser/overlay';
import type { Overlay, OverlaySetup } from '@dot-hop/browser/overlay';
import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { ButtonName } from 'dot-hop/rehearsal';
import { RotateCcw } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { addFiles, tell, useWorkbench } from '../../character/store.js';
import { inPlainMemory } from '../../parts/canvas.js';
import { FoundList } from '../../parts/FoundList.js';
import { Choice, optionsOf } from '../../parts/ui.js';
import type { BodyKind } from '../../stage/play.js';
import { bodyOf } from '../../stage/body.js';
import { drawQuay } from '../../stage/quay.js';
import { Lights } from './Lights.js';
import { Pad } from './pad.js';
import { freeFile, rehearsalText } from './rehearsals.js';
import { Trial, stepsPerSecond } from './trial.js';

const [width, height] = [300, 144];
const floor = 120;

const bodies: Readonly<Record<BodyKind, string>> = {
  platformer: 'runs and leaps',
  walker: 'is seen from above',
  none: 'none: signals by hand',
};

const buttons: Readonly<Record<string, ButtonName>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
  Space: 'jump',
};

/** The keys of pulses that no button of the body brings about, in the order of the document. */
const pulseKeys = ['KeyJ', 'KeyK', 'KeyL', 'KeyU', 'KeyI', 'KeyO'];

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
  const canvas = useRef<HTMLCanvasElement>(null);
  const panel = useRef<HTMLDivElement>(null);
  const trial = useRef<Trial | undefined>(undefined);
  const overlay = useRef<Overlay | undefined>(undefined);
  const loop = useRef<Loop | undefined>(undefined);
  const setup = useRef<OverlaySetup | undefined>(undefined);
  const keys = useMemo(() => keysOf(controller), [controller]);

  // A new trial for another body, and whenever it begins anew; an edit goes on in the same state.
  useEffect(() => {
    trial.current = undefined;
    setup.current = undefined;
  }, [kind, leapAt, round]);
  useEffect(() => {
    if (trial.current === undefined) trial.current = new Trial(controller, { kind, leapAt });
    else trial.current.exchange(controller);
    const now = trial.current;
    const { drawn } = useWorkbench.getState();
    const images = Object.fromEntries([...drawn].map(([name, { bitmap }]) => [name, bitmap]));
    const pace = loop.current?.pace ?? 1;
    const pad = new Pad([...keys.values()]);
    const running = startLoop({
      stepsPerSecond,
      step: (ms) => {
        pad.lead(now);
        now.step(ms);
      },
      draw: () => draw(canvas.current, now, overlay.current, images),
    });
    running.pace = pace;
    loop.current = running;
    overlay.current = mountOverlay(
      { performer: now.performer, images, loop: running, inline: true, setup: setup.current },
      panel.current!,
    );
    return () => {
      running.stop();
      pad.destroy();
      // Where time stood still it stays so.
      const { pace: now } = running;
      setup.current = overlay.current?.setup;
      overlay.current?.destroy();
      overlay.current = undefined;
      running.pace = now;
    };
  }, [controller, kind, leapAt, round, keys]);

  const press = (event: React.KeyboardEvent, isDown: boolean): void => {
    const button = buttons[event.code];
    const pulse = keys.get(event.code);
    if ((button === undefined && pulse === undefined) || event.ctrlKey || event.altKey || event.metaKey)
      return;
    event.preventDefault();
    if (button !== undefined) {
      if (isDown) trial.current?.press(button);
      else trial.current?.release(button);
    } else if (isDown && !event.repeat) trial.current?.performer.pulse(pulse!);
  };
  return (
    <div className="try">
      <div className="middle">
        <div className="fieldset">
          <Choice label="its body" value={kind} options={bodies} onChange={setKind} />
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
          <Button onPress={() => setRound(round + 1)}>
            <RotateCcw size={14} /> begin anew
          </Button>
        </div>
        <div
          className="boards"
          tabIndex={0}
          role="application"
          data-testid="try-stage"
          aria-label="arrow keys move the character, space is jump; letters press pulses"
          onKeyDown={(event) => press(event, true)}
          onKeyUp={(event) => press(event, false)}
          onBlur={() => trial.current?.letGoOfAll()}
        >
          <canvas ref={canvas} width={width} height={height} className="crisp" />
          <p className="hint keys">
            click here, then arrows and space
            {[...keys].map(([code, pulse]) => `, ${code.slice(3)} ${pulse}`).join('')}
          </p>
        </div>
        <Holds kind={kind} pulses={[...keys.values()]} trial={trial} />
        <Wrong controller={controller} trial={trial} overlay={overlay} />
        <Lights controller={controller} />
        {isFaulty ? <FoundList /> : null}
      </div>
      <div className="watching" ref={panel} />
    </div>
  );
}

const walking = { left: '←', right: '→' } as const;
const holdable: Readonly<Record<BodyKind, Readonly<Partial<Record<ButtonName, string>>>>> = {
  platformer: { ...walking, jump: 'jump' },
  walker: { ...walking, up: '↑', down: '↓' },
  none: {},
};

/** The same as the keys, for a finger or a pointer: buttons that are held, and pulses that are pressed. */
function Holds({
  kind,
  pulses,
  trial,
}: {
  readonly kind: BodyKind;
  readonly pulses: readonly string[];
  readonly trial: { readonly current: Trial | undefined };
}) {
  return (
    <div className="holds" role="group" aria-label="the same by pointer or finger">
      {Object.entries(holdable[kind]).map(([name, sign]) => {
        const letGo = (): void => trial.current?.release(name as ButtonName);
        return (
          <button
            key={name}
            type="button"
            aria-label={`hold ${name}`}
            onPointerDown={(event) => {
              event.currentTarget.setPointerCapture(event.pointerId);
              trial.current?.press(name as ButtonName);
            }}
            onPointerUp={letGo}
            onPointerCancel={letGo}
            onKeyDown={(event) => event.key === ' ' && trial.current?.press(name as ButtonName)}
            onKeyUp={letGo}
            onBlur={letGo}
          >
            {sign}
          </button>
        );
      })}
      {pulses.map((pulse) => (
        <button key={pulse} type="button" onClick={() => trial.current?.performer.pulse(pulse)}>
          {pulse}
        </button>
      ))}
    </div>
  );
}

/** The keys of pulses that the body has no button for. */
function keysOf(controller: Controller): Map<string, string> {
  const named = new Set<string>(Object.values(buttons));
  const pulses = describeController(controller).signals.filter(
    ({ kind, name }) => kind === 'pulse' && !named.has(name),
  );
  return new Map(pulses.slice(0, pulseKeys.length).map(({ name }, i) => [pulseKeys[i]!, name]));
}

/** What is drawn: the instant that is looked at, where it was then. */
function draw(
  canvas: HTMLCanvasElement | null,
  trial: Trial,
  overlay: Overlay | undefined,
  images: Readonly<Record<string, ImageBitmap>>,
): void {
  const context = canvas?.getContext('2d', inPlainMemory);
  if (!context) return;
  const now = trial.performer.time;
  const at = overlay?.instant ?? now;
  const { x, y } = trial.placeAt(at);
  const isAbove = trial.setup.kind === 'walker';
  drawQuay(context, width, height, floor, x, isAbove ? y : 0);
  const then = overlay !== undefined && at < now ? overlay.recording.at(at) : trial.performer;
  const { pose } = then;
  if (pose.layers.every(({ cell }) => cell.image in images))
    drawPose(context, images, pose, width / 2, floor + (isAbove ? 0 : y));
}

/** Marks an instant that was wrong: what was done until then becomes a rehearsal that expects what should have shown. */
function Wrong({
  controller,
  trial,
  overlay,
}: {
  readonly controller: Controller;
  readonly trial: { readonly current: Trial | undefined };
  readonly overlay: { readonly current: Overlay | undefined };
}) {
  const states = controller.states.filter(({ takenBy }) => takenBy < 0).map(({ name }) => name);
  const [wanted, setWanted] = useState('');
  const state = states.includes(wanted) ? wanted : states[0]!;
  const keep = (): void => {
    const [now, panel] = [trial.current, overlay.current];
    if (now === undefined || panel === undefined) return;
    const { file, files } = useWorkbench.getState();
    const back = now.performer.time - panel.instant;
    const at = Math.max(0, Math.round(now.time - back));
    const name = freeFile(file, files);
    const text = rehearsalText(file, now.rehearsal(at + 100), { at, state });
    addFiles(new Map([[name, new Blob([text], { type: 'text/yaml' })]]), new Map());
    tell(`kept as ${name}: ${state} is expected at ${at} ms`);
  };
  return (
    <div className="fieldset wrong">
      <Choice
        label="wrong at this instant: it should have shown"
        value={state}
        options={optionsOf(states)}
        onChange={setWanted}
      />
      <Button className="main" onPress={keep}>
        keep as a rehearsal
      </Button>
    </div>
  );
}
