import { ChevronDown, Crosshair, Pause, Play, SkipForward } from 'lucide-react';
import type { Controller } from 'dot-hop';
import { memo, useState } from 'react';
import {
  Button,
  Menu,
  MenuItem,
  MenuTrigger,
  Popover,
  ToggleButton,
  ToggleButtonGroup,
} from 'react-aria-components';
import { emptyDefinition, useWorkbench } from '../character/store.js';
import { IconButton } from '../parts/ui.js';
import { Clothes } from './Clothes.js';
import { singlesOf } from './single.js';
import type { Single } from './single.js';

const rates = [0.25, 0.5, 1, 2] as const;

/** What plays: the clip that is selected, the whole character, or one flipbook or state of it. */
export type Shown = 'clip' | 'character' | Single;

/** What plays is picked here. */
export const StageHead = memo(function StageHead({
  kind,
  canPlayAll,
  single,
  onPick,
}: {
  readonly kind: 'clip' | 'character' | 'single';
  readonly canPlayAll: boolean;
  readonly single: Single | undefined;
  readonly onPick: (shown: Shown) => void;
}) {
  return (
    <div className="stage-head">
      <ToggleButtonGroup
        aria-label="what plays"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={kind === 'single' ? [] : [kind]}
        onSelectionChange={(picked) => {
          const [first] = picked;
          if (first !== undefined) onPick(first as Shown);
        }}
      >
        <ToggleButton id="clip">this clip</ToggleButton>
        <ToggleButton id="character" isDisabled={!canPlayAll}>
          whole character
        </ToggleButton>
      </ToggleButtonGroup>
      <Singles shown={single} onPick={onPick} />
    </div>
  );
});

/** How it plays. */
export const StageFoot = memo(function StageFoot({
  plays,
  rate,
  marks,
  onPlay,
  onRate,
  onMarks,
  onStep,
  dressed,
}: {
  readonly plays: boolean;
  readonly rate: number;
  readonly marks: boolean;
  readonly onPlay: (plays: boolean) => void;
  readonly onRate: (rate: number) => void;
  readonly onMarks: (marks: boolean) => void;
  readonly onStep: () => void;
  /** The character that may wear something. */
  readonly dressed: Controller | undefined;
}) {
  return (
    <div className="stage-foot">
      <IconButton label={plays ? 'stop' : 'play'} onPress={() => onPlay(!plays)}>
        {plays ? <Pause size={16} /> : <Play size={16} />}
      </IconButton>
      <IconButton label="one picture on" onPress={onStep}>
        <SkipForward size={16} />
      </IconButton>
      <ToggleButtonGroup
        aria-label="how fast"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[String(rate)]}
        onSelectionChange={(picked) => onRate(Number([...picked][0]))}
      >
        {rates.map((one) => (
          <ToggleButton key={one} id={String(one)}>
            {{ 0.25: '¼', 0.5: '½', 1: '1', 2: '2' }[one]}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <IconButton label="pivot, boxes and points" isOn={marks} onPress={() => onMarks(!marks)}>
        <Crosshair size={16} />
      </IconButton>
      {dressed === undefined ? null : <Clothes controller={dressed} />}
    </div>
  );
});

/** One flipbook or state, to be looked at by itself; arrow keys turn it. */
function Singles({
  shown,
  onPick,
}: {
  readonly shown: Single | undefined;
  readonly onPick: (single: Single) => void;
}) {
  const [singles, setSingles] = useState<readonly Single[]>([]);
  const look = (): void =>
    setSingles(singlesOf(useWorkbench.getState().controller?.definition ?? emptyDefinition));
  return (
    <MenuTrigger onOpenChange={(isOpen) => isOpen && look()}>
      <Button
        className={shown === undefined ? 'single' : 'single on'}
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
