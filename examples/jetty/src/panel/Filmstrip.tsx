import { drawPose } from '@dot-hop/browser';
import { poseOf } from 'dot-hop';
import { useEffect, useMemo, useRef } from 'react';
import type { Game } from '../scene/game.js';

const frame = { width: 64, height: 52 };
const gap = 4;

/** The frames of the clip that the body shows; the present one is lit, with the arms as they are. */
export function Filmstrip({ game }: { readonly game: Game }) {
  const ref = useRef<HTMLCanvasElement>(null);
  const { performer, character } = game;
  const { clip, frameIndex, pose, facing, outfit, state } = performer;
  const arms = performer.showing('arms');
  const isFree = arms.inStep === undefined && performer.showing().inStep === undefined;
  const shows = character.controller.clips.get(clip)!;
  const { mirrored } = pose;
  const frames = useMemo(
    () =>
      shows.frames.map((cell, frame) => {
        const bare = poseOf(cell, mirrored);
        const shown = { states: [state], direction: facing, drawnFor: 'east', clip: shows, frame };
        return outfit === undefined ? bare : outfit.dress(bare, shown);
      }),
    [shows, mirrored, outfit, state, facing],
  );
  useEffect(() => {
    const canvas = ref.current!;
    const ratio = window.devicePixelRatio;
    canvas.width = (8 * (frame.width + gap) - gap) * ratio;
    canvas.height = frame.height * ratio;
    const context = canvas.getContext('2d')!;
    context.scale(ratio, ratio);
    context.imageSmoothingEnabled = false;
    frames.forEach((still, i) => {
      const x = i * (frame.width + gap);
      context.fillStyle = i === frameIndex ? '#8a7fa8' : '#4d4569';
      context.fillRect(x, 0, frame.width, frame.height);
      context.globalAlpha = i === frameIndex ? 1 : 0.55;
      drawPose(
        context,
        character.images,
        i === frameIndex ? pose : still,
        x + frame.width / 2,
        frame.height - 3,
      );
      context.globalAlpha = 1;
    });
  }, [frames, frameIndex, pose, character.images]);
  return (
    <figure className="filmstrip">
      <canvas ref={ref} style={{ width: 8 * (frame.width + gap) - gap, height: frame.height }} />
      <figcaption>
        <b data-testid="clip">{clip}</b>
        <span>
          frame <output data-testid="frame">{frameIndex}</output>, cell{' '}
          <output data-testid="cell">{pose.cell.index}</output>
        </span>
        <span data-testid="facing">facing {facing}</span>
        {isFree ? (
          <span className="arms" data-testid="arms">
            arms: {arms.clip}, frame {arms.frameIndex}
          </span>
        ) : null}
      </figcaption>
    </figure>
  );
}
