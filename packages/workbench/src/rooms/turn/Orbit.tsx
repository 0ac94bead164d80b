import { seenFrom } from 'dot-hop/view';
import { useRef, useState } from 'react';
import { inPlainMemory } from '../../parts/canvas.js';
import { meantBy } from '../../parts/keys.js';
import { useEachPicture } from '../../parts/loop.js';

const [size, ratio] = [200, 2];
const middle = size / 2;
const orbit = middle - 22;
/** How far the end of the arrow lies from the middle, in CSS pixels, at the full length of the vector. */
const reach = 46;
const radians = (degrees: number): number => (degrees * Math.PI) / 180;
/** By how many degrees a key turns. */
const turn = 10;

type Hand = 'camera' | 'way';

/** What each arrow turns, and by how many degrees. */
const arrows: Readonly<Record<string, readonly [Hand, number]>> = {
  ArrowLeft: ['camera', turn],
  ArrowRight: ['camera', -turn],
  ArrowUp: ['way', -turn],
  ArrowDown: ['way', turn],
};

/**
 * The ground of a 3D world from above: a camera that goes round the character, and the way in which it moves. What the dial is
 * given is that way as the camera sees it.
 */
export function Orbit({
  longest,
  onSeen,
}: {
  /** The length of the vector that the dial shows at its edge. */
  readonly longest: number;
  /** Called with the way as the camera sees it, y downwards. */
  readonly onSeen: (x: number, y: number) => void;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  // Degrees clockwise as seen from above, 0 to the right: where the camera stands, and where the character goes.
  const angles = useRef({ camera: 90, way: 0 });
  const held = useRef<Hand | undefined>(undefined);
  const [says, setSays] = useState(words(angles.current));
  const put = (hand: Hand, degrees: number): void => {
    angles.current = { ...angles.current, [hand]: ((degrees % 360) + 360) % 360 };
    const { camera, way } = angles.current;
    const moved = [Math.cos(radians(way)), Math.sin(radians(way))] as const;
    // It looks from where it stands to the middle. In a y-up world the ground is x and z, and seen from above z is downwards.
    const forward = [-Math.cos(radians(camera)), -Math.sin(radians(camera))] as const;
    const [x, y] = seenFrom([0, 0], moved, forward);
    onSeen(x * longest * 0.7, y * longest * 0.7);
    setSays(words(angles.current));
  };
  useEachPicture(() => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (context) draw(context, angles.current);
  });
  const angleOf = (event: React.PointerEvent): { degrees: number; long: number } => {
    const box = canvas.current!.getBoundingClientRect();
    const [x, y] = [event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2];
    return { degrees: (Math.atan2(y, x) * 180) / Math.PI, long: Math.hypot(x, y) };
  };
  return (
    <figure className="orbit">
      <canvas
        ref={canvas}
        width={size * ratio}
        height={size * ratio}
        style={{ width: size, height: size }}
        tabIndex={0}
        role="application"
        data-testid="orbit"
        aria-label="a camera from above: left and right arrow keys move it round, up and down turn where the character goes"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          const { degrees, long } = angleOf(event);
          held.current = long > (orbit + reach) / 2 ? 'camera' : 'way';
          put(held.current, degrees);
        }}
        onPointerMove={(event) => {
          if (held.current !== undefined) put(held.current, angleOf(event).degrees);
        }}
        onPointerUp={() => (held.current = undefined)}
        onKeyDown={(event) => {
          const meant = meantBy(event, arrows);
          if (meant !== undefined) put(meant[0], angles.current[meant[0]] + meant[1]);
        }}
      />
      <figcaption>
        <output data-testid="orbit-says">{says}</output>
      </figcaption>
    </figure>
  );
}

const sides = [
  'right',
  'lower right',
  'lower side',
  'lower left',
  'left',
  'upper left',
  'upper side',
  'upper right',
];
const side = (degrees: number): string => sides[Math.round(degrees / 45) % 8]!;

const words = ({ camera, way }: { readonly camera: number; readonly way: number }): string =>
  `On this map the camera stands at the ${side(camera)}, and the character goes to the ${side(way)}. The dial has that way as the camera sees it.`;

function disc(): Path2D {
  const path = new Path2D();
  path.arc(0, 0, orbit, 0, 2 * Math.PI);
  return path;
}

/** The ground with its planks, the way of the character as an arrow, and the camera with what it sees. */
function draw(
  context: CanvasRenderingContext2D,
  { camera, way }: { readonly camera: number; readonly way: number },
): void {
  context.setTransform(ratio, 0, 0, ratio, 0, 0);
  context.clearRect(0, 0, size, size);
  context.save();
  context.beginPath();
  context.arc(middle, middle, orbit, 0, 2 * Math.PI);
  context.fillStyle = '#4a3a44';
  context.fill();
  context.clip();
  context.fillStyle = '#362b38';
  for (let at = 0; at < size; at += 14) context.fillRect(0, at, size, 1.5);
  context.restore();
  context.strokeStyle = '#6b5349';
  context.lineWidth = 2;
  context.beginPath();
  context.arc(middle, middle, orbit, 0, 2 * Math.PI);
  context.stroke();
  // What the camera sees of it.
  context.save();
  context.translate(middle, middle);
  context.rotate(radians(camera));
  context.save();
  context.clip(disc());
  context.fillStyle = 'rgba(255, 201, 92, 0.16)';
  context.beginPath();
  context.moveTo(orbit, 0);
  context.lineTo(-orbit, -orbit * 0.55);
  context.lineTo(-orbit, orbit * 0.55);
  context.fill();
  context.restore();
  context.fillStyle = '#ffc95c';
  context.fillRect(orbit + 2, -9, 15, 18);
  context.beginPath();
  context.moveTo(orbit - 7, -7);
  context.lineTo(orbit + 3, -3);
  context.lineTo(orbit + 3, 3);
  context.lineTo(orbit - 7, 7);
  context.fill();
  context.restore();
  // Where the character goes.
  context.save();
  context.translate(middle, middle);
  context.fillStyle = '#1d1930';
  context.beginPath();
  context.arc(0, 0, 9, 0, 2 * Math.PI);
  context.fill();
  context.rotate(radians(way));
  context.strokeStyle = '#fff6e6';
  context.lineWidth = 4;
  context.lineCap = context.lineJoin = 'round';
  context.beginPath();
  context.moveTo(0, 0);
  context.lineTo(reach, 0);
  context.moveTo(reach - 11, -8);
  context.lineTo(reach, 0);
  context.lineTo(reach - 11, 8);
  context.stroke();
  context.restore();
}
