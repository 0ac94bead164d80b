import { drawMarks, drawPose } from '@dot-hop/browser';
import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import type { ButtonName } from 'dot-hop/rehearsal';
import { ChevronDown, Crosshair, Pause, Play, SkipForward } from 'lucide-react';
import { inPlainMemory } from '../parts/canvas.js';
import { useEffect, useMemo, useRef, useState } from 'react';
import {
  Button,
  Menu,
  MenuItem,
  MenuTrigger,
  Popover,
  ToggleButton,
  ToggleButtonGroup,
} from 'react-aria-components';
import { clipOf } from '../character/clip.js';
import { readData } from '../character/reading.js';
import { emptyDefinition, sizesOf, useWorkbench } from '../character/store.js';
import { IconButton } from '../parts/ui.js';
import { useEachPicture, wantsStill } from '../parts/loop.js';
import { alone, singlesOf } from './alone.js';
import type { Single } from './alone.js';
import { CharacterPlay, ClipPlay } from './play.js';
import { drawQuay } from './quay.js';

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
const rates = [0.25, 0.5, 1, 2] as const;

/** What plays: the clip that is selected, the whole character, or one flipbook or state of it. */
type Shown = 'clip' | 'character' | Single;

/** The character alive, beside everything that is done to it: it follows every edit in the next picture. */
export function Stage() {
  const controller = useWorkbench((state) => state.controller);
  const isFaulty = useWorkbench((state) => state.troubles.length > 0);
  const clipName = useWorkbench((state) => state.selection.clip);
  const [shown, setShown] = useState<Shown>('clip');
  const [rate, setRate] = useState(1);
  const [plays, setPlays] = useState(!wantsStill());
  const [marks, setMarks] = useState(false);
  const clip = useMemo(() => clipOf(controller, clipName), [controller, clipName]);
  const canPlayAll = controller?.definition.states !== undefined;
  const singles = useMemo(() => singlesOf(controller?.definition ?? emptyDefinition), [controller]);
  const single =
    typeof shown === 'object'
      ? singles.find(({ kind, name }) => kind === shown.kind && name === shown.name)
      : undefined;
  const kind = single !== undefined || (shown === 'character' && canPlayAll) ? 'character' : 'clip';
  const played = useMemo(() => {
    if (controller === undefined || single === undefined) return controller;
    const { drawn } = useWorkbench.getState();
    return readData(alone(controller.definition, single), sizesOf(drawn)).controller;
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
  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context) return;
    const play = kind === 'clip' ? clipPlay.current : wholePlay.current;
    if (plays) play?.step(ms * rate);
    const { drawn } = useWorkbench.getState();
    const images = Object.fromEntries([...drawn].map(([name, { bitmap }]) => [name, bitmap]));
    const isAbove = kind === 'character' && controller !== undefined && bodyOf(controller) === 'walker';
    const [x, y] = play?.ground ?? [0, 0];
    const pose = play?.pose;
    if (play !== undefined && play.says !== says) setSays(play.says);
    const picture = [
      pose?.mirrored,
      ...(pose?.layers.map(({ cell }) => cell) ?? []),
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
  const stepFrame = (): void => {
    setPlays(false);
    if (kind === 'clip') clipPlay.current?.step(1000 / 24);
    else wholePlay.current?.step(1000 / 60);
  };
  const press = (event: React.KeyboardEvent, isDown: boolean): void => {
    const button = keys[event.code];
    if (button === undefined || kind !== 'character') return;
    event.preventDefault();
    if (isDown) wholePlay.current?.press(button);
    else wholePlay.current?.release(button);
  };
  return (
    <section className="stage" aria-label="stage">
      <div className="stage-head">
        <ToggleButtonGroup
          aria-label="what plays"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={single === undefined ? [kind] : []}
          onSelectionChange={(picked) => {
            const [first] = picked;
            if (first !== undefined) setShown(first as Shown);
          }}
        >
          <ToggleButton id="clip">this clip</ToggleButton>
          <ToggleButton id="character" isDisabled={!canPlayAll}>
            whole character
          </ToggleButton>
        </ToggleButtonGroup>
        <Singles singles={singles} shown={single} onPick={setShown} />
      </div>
      <div
        className="boards"
        tabIndex={0}
        role="application"
        aria-label={
          kind === 'character' ? 'arrow keys move the character, space is jump' : 'the clip plays here'
        }
        onKeyDown={(event) => press(event, true)}
        onKeyUp={(event) => press(event, false)}
        onBlur={() => Object.values(keys).forEach((button) => wholePlay.current?.release(button))}
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
      <div className="stage-foot">
        <IconButton label={plays ? 'stop' : 'play'} onPress={() => setPlays(!plays)}>
          {plays ? <Pause size={16} /> : <Play size={16} />}
        </IconButton>
        <IconButton label="one picture on" onPress={stepFrame}>
          <SkipForward size={16} />
        </IconButton>
        <ToggleButtonGroup
          aria-label="how fast"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[String(rate)]}
          onSelectionChange={(picked) => setRate(Number([...picked][0]))}
        >
          {rates.map((one) => (
            <ToggleButton key={one} id={String(one)}>
              {{ 0.25: '¼', 0.5: '½', 1: '1', 2: '2' }[one]}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <IconButton label="pivot, boxes and points" isOn={marks} onPress={() => setMarks(!marks)}>
          <Crosshair size={16} />
        </IconButton>
      </div>
      {kind === 'character' && controller !== undefined ? (
        <Pulses controller={controller} play={wholePlay} />
      ) : null}
    </section>
  );
}

/** One flipbook or state, to be looked at by itself; arrow keys turn it. */
function Singles({
  singles,
  shown,
  onPick,
}: {
  readonly singles: readonly Single[];
  readonly shown: Single | undefined;
  readonly onPick: (single: Single) => void;
}) {
  return (
    <MenuTrigger>
      <Button
        className={shown === undefined ? 'single' : 'single on'}
        isDisabled={singles.length === 0}
        aria-label={shown === undefined ? 'one state or flipbook' : `${shown.kind} ${shown.name} plays`}
      >
        {shown?.name ?? 'state'} <ChevronDown size={13} />
      </Button>
      <Popover className="list">
        <Menu
          onAction={(key) => {
            const picked = singles[Number(key)];
            if (picked !== undefined) onPick(picked);
          }}
        >
          {singles.map(({ kind, name }, i) => (
            <MenuItem key={`${kind} ${name}`} id={i} textValue={name}>
              {name} <small>{kind}</small>
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
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

/** A body of the kind that a character's signals are made for. */
function bodyOf({ definition }: Controller): 'platformer' | 'walker' {
  const signals = definition.signals ?? {};
  return 'grounded' in signals || !('vy' in signals || 'velocity' in signals) ? 'platformer' : 'walker';
}

const stampsAreThere = (
  pose: { readonly layers: readonly { readonly cell: { readonly image: string } }[] },
  images: object,
): boolean => pose.layers.every(({ cell }) => cell.image in images);
