import { drawDial, drawPose } from '@dot-hop/browser';
import type { ControllerDefinition, Performer } from 'dot-hop';
import { useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { act, useWorkbench } from '../../character/store.js';
import { inPlainMemory } from '../../parts/canvas.js';
import { useEachPicture } from '../../parts/loop.js';
import { drawQuay } from '../../stage/quay.js';
import { moveHand, turnedByHand } from './hand.js';

const size = 264;
const radius = size / 2 - 8;
const ratio = 2;
/** The stage beside it, in its own pixels. */
const [width, height] = [132, 132];
const floor = 106;
/** So many places of the vector are shown as its trail. */
const mostTrail = 160;
/** How near the edge of the dead zone it is taken hold of, in pixels. */
const near = 7;

/** The compass as a dial that is moved by hand, and what shows in the direction it points to. */
export function Dial({
  definition,
  flipbook,
  pointTo,
}: {
  readonly definition: ControllerDefinition;
  readonly flipbook: string;
  /** A direction to point to, in degrees; a new object points there anew. */
  readonly pointTo: { readonly degrees: number } | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const stage = useRef<HTMLCanvasElement>(null);
  const vector = useRef<readonly [number, number]>([0, 0]);
  const trail = useRef<(readonly [number, number])[]>([]);
  const held = useRef<'vector' | 'dead' | undefined>(undefined);
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
    context.fillStyle = 'rgba(255, 246, 230, 0.45)';
    for (const [x, y] of trail.current)
      context.fillRect(size / 2 + (x / longest) * radius - 1, size / 2 + (y / longest) * radius - 1, 2, 2);
    const { drawn } = useWorkbench.getState();
    const images = Object.fromEntries([...drawn].map(([name, { bitmap }]) => [name, bitmap]));
    drawQuay(scene, width, height, floor, 0, 0);
    const { pose } = performer;
    if (pose.layers.every(({ cell }) => cell.image in images))
      drawPose(scene, images, pose, width / 2, floor);
    const now = `${performer.facing}${performer.pointsTo === performer.facing ? '' : `, turning to ${performer.pointsTo}`}`;
    if (now !== says) setSays(now);
  });

  const at = (event: React.PointerEvent): readonly [number, number] => {
    const box = canvas.current!.getBoundingClientRect();
    const part = longest / radius;
    return [
      (event.clientX - box.left - box.width / 2) * part,
      (event.clientY - box.top - box.height / 2) * part,
    ];
  };
  const setDeadZone = (value: number): void => {
    const rounded = Number(value.toFixed(longest > 20 ? 0 : 2));
    act(
      {
        says: `dead zone ${rounded}`,
        changes: [{ op: 'set', path: ['compass', 'deadZone'], value: Math.max(0, rounded) }],
      },
      'dead zone',
    );
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
          const [x, y] = at(event);
          const off = Math.abs(Math.hypot(x, y) - deadZone) * (radius / longest);
          held.current = deadZone > 0 && off < near ? 'dead' : 'vector';
          if (held.current === 'vector') put(x, y);
        }}
        onPointerMove={(event) => {
          const [x, y] = at(event);
          if (held.current === 'vector') put(x, y);
          else if (held.current === 'dead') setDeadZone(Math.min(longest, Math.hypot(x, y)));
        }}
        onPointerUp={() => {
          if (held.current === 'dead') setLongest(Math.max(10, deadZone * 4));
          held.current = undefined;
        }}
        onKeyDown={(event) => {
          const keys: Readonly<Record<string, readonly [number, number]>> = {
            ArrowLeft: [-5, 0],
            ArrowRight: [5, 0],
            ArrowUp: [0, 0.05],
            ArrowDown: [0, -0.05],
          };
          const by = keys[event.key];
          if (by === undefined) return;
          event.preventDefault();
          turn(...by);
        }}
      />
      <figure>
        <canvas
          ref={stage}
          width={width}
          height={height}
          className="crisp"
          style={{ width: size, height: size }}
        />
        <figcaption>
          <output data-testid="dial-says">{performer === undefined ? '' : says}</output>
          <Button className="small" onPress={() => put(0, 0)}>
            let it go
          </Button>
        </figcaption>
      </figure>
    </div>
  );
}
