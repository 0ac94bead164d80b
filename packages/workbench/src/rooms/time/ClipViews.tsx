import { drawPose } from '@dot-hop/browser';
import type { Clip } from 'dot-hop';
import { showingAt } from 'dot-hop/explain';
import { inPlainMemory } from '../../parts/canvas.js';
import { useRef, useState } from 'react';
import { useWorkbench } from '../../character/store.js';
import { useEachPicture, wantsStill } from '../../parts/loop.js';
import { dressedShowing, imagesFor, outfitOf } from '../../stage/worn.js';

const rates = [1, 0.5, 0.25, 2] as const;
const words: Readonly<Record<number, string>> = { 0.25: '¼', 0.5: '½', 1: 'as in the game', 2: '2 ×' };

/** The clip at several rates side by side, with ghosts and with the ground passing under it. */
export function ClipViews({ clip }: { readonly clip: Clip | undefined }) {
  const [shown, setShown] = useState<readonly number[]>([1, 0.5, 0.25]);
  const [ghosts, setGhosts] = useState(false);
  const [ground, setGround] = useState(true);
  const [plays, setPlays] = useState(!wantsStill());
  const toggle = (rate: number): void =>
    setShown(
      shown.includes(rate)
        ? shown.length > 1
          ? shown.filter((one) => one !== rate)
          : shown
        : rates.filter((one) => one === rate || shown.includes(one)),
    );
  return (
    <div className="looks">
      <div className="row">
        <button type="button" aria-pressed={plays} onClick={() => setPlays(!plays)}>
          {plays ? 'stop' : 'play'}
        </button>
        {rates.map((rate) => (
          <button key={rate} type="button" aria-pressed={shown.includes(rate)} onClick={() => toggle(rate)}>
            {words[rate]}
          </button>
        ))}
        <button type="button" aria-pressed={ghosts} onClick={() => setGhosts(!ghosts)}>
          ghosts
        </button>
        <button type="button" aria-pressed={ground} onClick={() => setGround(!ground)}>
          ground
        </button>
      </div>
      <div className="screens">
        {shown.map((rate) => (
          <Screen
            key={rate}
            clip={clip}
            rate={rate}
            ghosts={ghosts}
            ground={ground}
            plays={plays}
            count={shown.length}
          />
        ))}
      </div>
    </div>
  );
}

function Screen({
  clip,
  rate,
  ghosts,
  ground,
  plays,
  count,
}: {
  readonly clip: Clip | undefined;
  readonly rate: number;
  readonly ghosts: boolean;
  readonly ground: boolean;
  readonly plays: boolean;
  readonly count: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const time = useRef(0);
  const shown = useRef<readonly unknown[]>([]);
  const first = clip?.frames[0];
  const [width, height] = [Math.round((first?.frameWidth ?? 64) * 1.3), (first?.frameHeight ?? 56) + 10];
  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context || clip === undefined || first === undefined) return;
    const lasts = clip.ends[clip.ends.length - 1]! / 1000;
    if (plays) time.current = (time.current + ms * rate) % (lasts + (clip.loopFrom < 0 ? 400 : 0));
    const now = Math.min(time.current, lasts - 0.001);
    const at = showingAt(clip, now);
    const place = canvas.current!.closest('.middle')?.querySelector<HTMLElement>('[data-playhead]');
    if (place && rate === 1) place.style.setProperty('--now', String(now / lasts));
    const { drawn, controller } = useWorkbench.getState();
    if (controller === undefined) return;
    const images = imagesFor(drawn);
    const floor = height - 8;
    const passed = ground ? Math.round(((clip.stride ?? 0) * now) / lasts) : 0;
    // A picture that is the same as the last one is not drawn again: that leaves the machine to what one does.
    const picture = [clip, at, passed, ghosts, ground, drawn, width, height, outfitOf(controller)];
    if (picture.every((part, i) => part === shown.current[i])) return;
    shown.current = picture;
    context.fillStyle = '#221d38';
    context.fillRect(0, 0, width, height);
    if (ground) {
      context.fillStyle = '#4a3a44';
      context.fillRect(0, floor, width, height - floor);
      context.fillStyle = '#8a6a54';
      for (let x = -(((passed % 12) + 12) % 12); x < width; x += 12) context.fillRect(x, floor, 2, 2);
    }
    const show = (showing: number, alpha: number): void => {
      const pose = dressedShowing(controller, clip, showing, images);
      if (!pose.layers.every(({ cell }) => cell.image in images)) return;
      context.globalAlpha = alpha;
      drawPose(context, images, pose, Math.round(width / 2), floor);
      context.globalAlpha = 1;
    };
    if (ghosts) {
      show((at + clip.cells.length - 1) % clip.cells.length, 0.25);
      show((at + 1) % clip.cells.length, 0.25);
    }
    show(at, 1);
  });
  const scale = Math.max(
    1,
    Math.floor(Math.min((window.innerWidth * 0.44) / count / width, (window.innerHeight * 0.21) / height)),
  );
  return (
    <figure>
      <canvas
        ref={canvas}
        className="crisp"
        width={width}
        height={height}
        style={{ width: width * scale, height: height * scale }}
        role="img"
        aria-label={`the clip, ${words[rate]!}`}
      />
      <figcaption>{words[rate]}</figcaption>
    </figure>
  );
}
