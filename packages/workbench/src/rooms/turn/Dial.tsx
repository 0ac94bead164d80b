import { drawDial, drawPose } from '@dot-hop/browser';
import type { Compass, ControllerDefinition, Performer } from 'dot-hop';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { useWorkbench } from '../../character/store.js';
import { inPlainMemory } from '../../parts/canvas.js';
import { meantBy } from '../../parts/keys.js';
import { useEachPicture } from '../../parts/loop.js';
import { dress, imagesFor } from '../../stage/worn.js';
import { drawQuay } from '../../stage/quay.js';
import { setCompass } from './compass.js';
import { diagonalAt, gripAt, knobsAt, meetingsOf, stickAt } from './grips.js';
import type { Grip } from './grips.js';
import { moveHand, turnedByHand } from './hand.js';
import { Orbit } from './Orbit.js';

const size = 264;
const radius = size / 2 - 8;
const ratio = 2;
/** The stage beside it, in its own pixels. */
const [width, height] = [132, 132];
const floor = 106;
/** By how many degrees each arrow turns the vector, and by which part of the edge it makes it longer. */
const arrows: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-5, 0],
  ArrowRight: [5, 0],
  ArrowUp: [0, 0.05],
  ArrowDown: [0, -0.05],
};
/** How many places of the vector are shown as its trail. */
const mostTrail = 160;

/** The compass as a dial that is moved by hand, and what shows in the direction it points to. */
export function Dial({
  definition,
  flipbook,
  pointTo,
}: {
  readonly definition: ControllerDefinition;
  readonly flipbook: string;
  /** A direction to point to, in degrees; a new object points there again. */
  readonly pointTo: { readonly degrees: number } | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<HTMLCanvasElement>(null);
  const vector = useRef<readonly [number, number]>([0, 0]);
  const trail = useRef<(readonly [number, number])[]>([]);
  const held = useRef<Grip | undefined>(undefined);
  const [says, setSays] = useState('');
  const deadZone = definition.compass?.deadZone ?? 0;
  // A vector of this length reaches the edge. While the dead zone is dragged it stays as it was.
  const [longest, setLongest] = useState(() => Math.max(10, deadZone * 4));
  const performer = useMemo(() => turnedByHand(definition, flipbook), [definition, flipbook]);
  const before = useRef<Performer | undefined>(undefined);
  useEffect(() => {
    // It goes on facing where it faced: an edit of the compass is no turn.
    if (performer !== undefined) moveHand(performer, ...vector.current);
    before.current = performer;
  }, [performer]);
  const put = (x: number, y: number): void => {
    vector.current = [x, y];
    if (performer !== undefined) moveHand(performer, x, y);
    trail.current.push([x, y]);
    if (trail.current.length > mostTrail) trail.current.shift();
  };
  useEffect(() => {
    if (pointTo === undefined) return;
    const angle = (pointTo.degrees * Math.PI) / 180;
    const long = Math.max(longest * 0.7, deadZone * 1.5);
    vector.current = [Math.cos(angle) * long, Math.sin(angle) * long];
    if (before.current !== undefined) moveHand(before.current, ...vector.current);
  }, [pointTo, longest, deadZone]);

  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    const scene = stage.current?.getContext('2d', inPlainMemory);
    if (!context || !scene || performer === undefined) return;
    performer.step(ms);
    context.setTransform(ratio, 0, 0, ratio, 0, 0);
    context.clearRect(0, 0, size, size);
    drawDial(context, performer, size / 2, size / 2, radius, longest);
    drawKnobs(context, performer.controller.compass);
    context.fillStyle = 'rgba(255, 246, 230, 0.45)';
    for (const [x, y] of trail.current)
      context.fillRect(size / 2 + (x / longest) * radius - 1, size / 2 + (y / longest) * radius - 1, 2, 2);
    const { drawn } = useWorkbench.getState();
    const images = imagesFor(drawn);
    dress(performer, images);
    drawQuay(scene, width, height, floor, 0, 0);
    const { pose } = performer;
    if (pose.layers.every(({ cell }) => cell.image in images))
      drawPose(scene, images, pose, width / 2, floor);
    const now = `${performer.facing}${performer.pointsTo === performer.facing ? '' : `, turning to ${performer.pointsTo}`}`;
    if (now !== says) setSays(now);
  });

  /** A place of the pointer, in CSS pixels from the middle of the dial. */
  const at = (event: React.PointerEvent | React.MouseEvent): readonly [number, number] => {
    const box = canvas.current!.getBoundingClientRect();
    return [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
  };
  const unit = longest / radius;
  const gripOf = (x: number, y: number): Grip =>
    performer === undefined
      ? { kind: 'vector' }
      : gripAt(performer.controller.compass, { radius, deadZone: deadZone / unit }, x, y);
  const drag = (grip: Grip, x: number, y: number): void => {
    const angle = (Math.atan2(y, x) * 180) / Math.PI;
    if (grip.kind === 'vector') put(x * unit, y * unit);
    else if (grip.kind === 'stick') setCompass('stick', stickAt(grip.at, angle));
    else if (grip.kind === 'diagonal') setCompass('diagonal', diagonalAt(grip.at, angle));
    else {
      const long = Math.min(longest, Math.hypot(x, y) * unit);
      setCompass('deadZone', Number(long.toFixed(longest > 20 ? 0 : 2)));
    }
  };
  const turn = (degrees: number, longer: number): void => {
    const [x, y] = vector.current;
    const long = Math.min(longest, Math.max(0, Math.hypot(x, y) + longer * longest));
    const angle = Math.atan2(y, x) + (degrees * Math.PI) / 180;
    const reach = long === 0 && longer === 0 ? longest / 2 : long;
    put(Math.cos(angle) * reach, Math.sin(angle) * reach);
  };
  return (
    <div className="dialing">
      <canvas
        ref={canvas}
        width={size * ratio}
        height={size * ratio}
        style={{ width: size, height: size }}
        tabIndex={0}
        role="application"
        aria-label="dial: drag the vector; arrow keys turn it left and right, and make it longer and shorter"
        data-testid="dial"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const grip = gripOf(...at(event));
          held.current = grip;
          if (grip.kind === 'vector') drag(grip, ...at(event));
        }}
        onPointerMove={(event) => {
          if (held.current !== undefined) drag(held.current, ...at(event));
          else event.currentTarget.style.cursor = gripOf(...at(event)).kind === 'vector' ? '' : 'grab';
        }}
        onPointerUp={() => {
          if (held.current?.kind === 'dead zone') setLongest(Math.max(10, deadZone * 4));
          held.current = undefined;
        }}
        onDoubleClick={(event) => {
          if (gripOf(...at(event)).kind !== 'diagonal') return;
          setCompass('diagonal', definition.compass?.diagonal === 'keep' ? 'nearest' : 'keep');
        }}
        onKeyDown={(event) => {
          const meant = meantBy(event, arrows);
          if (meant !== undefined) turn(...meant);
        }}
      />
      <figure>
        <canvas
          ref={stage}
          width={width}
          height={height}
          className="crisp"
          style={{ width: size, height: size }}
          data-testid="dial-stage"
        />
        <figcaption>
          <output data-testid="dial-says">{performer === undefined ? '' : says}</output>
          <Button className="small" onPress={() => put(0, 0)}>
            let it go
          </Button>
        </figcaption>
      </figure>
      <details>
        <summary>as a 3D camera sees it</summary>
        <Orbit longest={longest} onSeen={put} />
      </details>
    </div>
  );
}

/** Where diagonals are taken hold of. */
function drawKnobs(context: CanvasRenderingContext2D, compass: Compass): void {
  for (const { border, leans } of meetingsOf(compass)) {
    if (leans === undefined) continue;
    const angle = (border * Math.PI) / 180;
    const [x, y] = [Math.cos(angle), Math.sin(angle)].map((part) => size / 2 + part * radius * knobsAt);
    context.beginPath();
    context.arc(x!, y!, 5, 0, 2 * Math.PI);
    context.fillStyle = '#fff6e6';
    context.fill();
    context.lineWidth = 2;
    context.strokeStyle = '#1d1930';
    context.stroke();
  }
}
