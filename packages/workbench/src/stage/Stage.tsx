import { drawMarks, drawPose } from '@dot-hop/browser';
import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { ButtonName } from 'dot-hop/rehearsal';
import { inPlainMemory } from '../parts/canvas.js';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button } from 'react-aria-components';
import { clipOf } from '../character/clip.js';
import { readData } from '../character/reading.js';
import { sizesOf, useWorkbench } from '../character/store.js';
import { useEachPicture, wantsStill } from '../parts/loop.js';
import { showingOnly, isThere } from './single.js';
import { bodyOf } from './body.js';
import { dress, dressedShowing, imagesFor } from './worn.js';
import { useHeldKeys } from './held-keys.js';
import { live } from './live.js';
import { CharacterPlay, ClipPlay } from './play.js';
import { drawQuay } from './quay.js';
import { StageFoot, StageHead } from './StageControls.js';
import type { Shown } from './StageControls.js';

/** The stage in its own pixels. */
const [width, height] = [150, 100];
const floor = 84;

const keys: Readonly<Record<string, ButtonName>> = {
  ArrowLeft: 'left',
  ArrowRight: 'right',
  ArrowUp: 'up',
  ArrowDown: 'down',
  Space: 'jump',
};

/** The character alive, beside everything that is done to it: it follows every edit in the next picture. */
export function Stage() {
  const controller = useWorkbench((state) => state.controller);
  const isFaulty = useWorkbench((state) => state.troubles.length > 0);
  const clipName = useWorkbench((state) => state.selection.clip);
  // What these rooms do shows on the whole character.
  const room = useWorkbench((state) => state.room);
  const isWhole = room === 'signals' || room === 'rank';
  const [shown, setShown] = useState<Shown>(isWhole ? 'character' : 'clip');
  const [rate, setRate] = useState(1);
  const [plays, setPlays] = useState(!wantsStill());
  const [marks, setMarks] = useState(false);
  const clip = useMemo(() => clipOf(controller, clipName), [controller, clipName]);
  const canPlayAll = controller?.definition.states !== undefined;
  // The same object as long as it is there.
  const single = typeof shown === 'object' && isThere(controller?.definition, shown) ? shown : undefined;
  const kind = single !== undefined || (shown === 'character' && canPlayAll) ? 'character' : 'clip';
  const played = useMemo(() => {
    if (controller === undefined || single === undefined) return controller;
    const { drawn } = useWorkbench.getState();
    return readData(showingOnly(controller.definition, single), sizesOf(drawn)).controller;
  }, [controller, single]);
  const clipPlay = useRef<ClipPlay | undefined>(undefined);
  const wholePlay = useRef<CharacterPlay | undefined>(undefined);
  const canvas = useRef<HTMLCanvasElement>(null);
  const painted = useRef<readonly unknown[]>([]);
  const [says, setSays] = useState('');
  useEffect(() => {
    if (clip === undefined) clipPlay.current = undefined;
    else if (clipPlay.current === undefined) clipPlay.current = new ClipPlay(clip);
    else clipPlay.current.exchange(clip);
  }, [clip]);
  useEffect(() => {
    const before = wholePlay.current;
    if (played === undefined) wholePlay.current = undefined;
    else if (before?.performer.controller.name !== played.name || before.repeats !== single?.name)
      wholePlay.current = new CharacterPlay(played, bodyOf(played), single?.name);
    else before.exchange(played);
  }, [played, single]);
  const [seenRoom, setSeenRoom] = useState(room);
  if (room !== seenRoom) {
    setSeenRoom(room);
    if (isWhole) setShown('character');
  }
  useEffect(
    () => () => {
      live.performer = undefined;
    },
    [],
  );
  useEachPicture((ms) => {
    live.performer = kind === 'character' && single === undefined ? wholePlay.current?.performer : undefined;
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context) return;
    const play = kind === 'clip' ? clipPlay.current : wholePlay.current;
    if (plays) play?.step(ms * rate);
    const { drawn } = useWorkbench.getState();
    const images = imagesFor(drawn);
    if (kind === 'character' && wholePlay.current !== undefined) dress(wholePlay.current.performer, images);
    const isAbove = kind === 'character' && controller !== undefined && bodyOf(controller) === 'walker';
    const [x, y] = play?.ground ?? [0, 0];
    const pose =
      kind === 'character'
        ? wholePlay.current?.performer.pose
        : clip && controller && clipPlay.current
          ? dressedShowing(controller, clip, clipPlay.current.showing, images)
          : undefined;
    if (play !== undefined && play.says !== says) setSays(play.says);
    const picture = [
      pose?.mirrored,
      ...(pose?.layers.flatMap(({ cell, dye }) => [cell, dye]) ?? []),
      Math.round(x),
      Math.round(y),
      marks,
      drawn,
      controller,
      kind,
    ];
    // Nothing has changed since the last picture.
    const before = painted.current;
    if (picture.length === before.length && picture.every((part, i) => part === before[i])) return;
    painted.current = picture;
    drawQuay(context, width, height, floor, x, isAbove ? y : 0);
    const at = [width / 2, floor + (kind === 'character' && !isAbove ? y : 0)] as const;
    if (pose !== undefined && stampsAreThere(pose, images)) {
      drawPose(context, images, pose, at[0], at[1]);
      if (marks) drawMarks(context, pose, at[0], at[1]);
    }
  });
  const stepFrame = useCallback((): void => {
    setPlays(false);
    if (kind === 'clip') clipPlay.current?.step(1000 / 24);
    else wholePlay.current?.step(1000 / 60);
  }, [kind]);
  const keyDown = useHeldKeys((code, isDown) => {
    const button = keys[code];
    if (button === undefined || (isDown && kind !== 'character')) return false;
    if (isDown) wholePlay.current?.press(button);
    else wholePlay.current?.release(button);
    return true;
  });
  return (
    <section className="stage" aria-label="stage">
      <StageHead
        kind={single === undefined ? kind : 'single'}
        canPlayAll={canPlayAll}
        single={single}
        onPick={setShown}
      />
      <div
        className="boards"
        tabIndex={0}
        role="application"
        aria-label={
          kind === 'character' ? 'arrow keys move the character, space is jump' : 'the clip plays here'
        }
        onKeyDown={keyDown}
      >
        <canvas ref={canvas} width={width} height={height} className="crisp" data-testid="stage" />
        <output data-testid="stage-says">{controller === undefined ? '' : says}</output>
        {controller === undefined ? (
          <p className="hint">
            {isFaulty
              ? 'Nothing plays: see what is wrong below.'
              : 'Nothing plays yet. Cut a sheet and make a clip.'}
          </p>
        ) : null}
        {kind === 'character' ? (
          <p className="hint keys">
            click here, then {single === undefined ? '← → and space' : 'arrows turn it'}
          </p>
        ) : null}
      </div>
      <StageFoot
        plays={plays}
        rate={rate}
        marks={marks}
        onPlay={setPlays}
        onRate={setRate}
        onMarks={setMarks}
        onStep={stepFrame}
        dressed={controller}
      />
      {kind === 'character' && controller !== undefined ? (
        <Pulses controller={controller} play={wholePlay} />
      ) : null}
    </section>
  );
}

/** The pulses of a character, to be pressed by hand. */
function Pulses({
  controller,
  play,
}: {
  readonly controller: Controller;
  readonly play: { readonly current: CharacterPlay | undefined };
}) {
  const pulses = describeController(controller).signals.filter(({ kind }) => kind === 'pulse');
  return (
    <div className="pulses">
      {pulses.map(({ name }) => (
        <Button key={name} onPress={() => play.current?.pulse(name)}>
          {name}
        </Button>
      ))}
    </div>
  );
}

const stampsAreThere = (
  pose: { readonly layers: readonly { readonly cell: { readonly image: string } }[] },
  images: object,
): boolean => pose.layers.every(({ cell }) => cell.image in images);
