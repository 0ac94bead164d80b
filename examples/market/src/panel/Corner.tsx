import { wardrobeOf } from 'dot-hop/wardrobe';
import { Scene } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';
import type { Game } from '../scene/game.js';

interface CornerProps {
  readonly game: Game;
  readonly mount: MountCanvas;
}

/** What the fifth person wears: pieces and colours to pick, and every direction and clip to see at once. */
export function Corner({ game, mount }: CornerProps) {
  const { own, mannequins } = game;
  const wardrobe = wardrobeOf(mannequins.character.controller)!;
  const { pieces = {}, colours = {} } = own;
  /** Colours of what is not worn are not asked for. */
  const isWorn = (name: string): boolean => {
    const [layer = ''] = name.split('.');
    if (!name.includes('.') || layer === 'body') return true;
    const piece = wardrobe.layers.get(layer)?.pieces.get(pieces[layer] ?? 'none');
    return piece?.palettes.some((palette) => name === `${layer}.${palette.name}`) === true;
  };
  return (
    <section className="corner">
      <Scene mount={mount} label="the one that is dressed, in every direction" />
      <div className="picks">
        {[...wardrobe.layers.values()].map(({ name, pieces: known }) => (
          <Pick
            key={name}
            name={name}
            value={pieces[name] ?? 'none'}
            known={['none', ...known.keys()]}
            change={(piece) => game.pick('pieces', name, piece)}
          />
        ))}
        {Object.entries(colours)
          .filter(([name]) => isWorn(name))
          .map(([name, value]) => (
            <Pick
              key={name}
              name={name}
              value={value}
              known={[...wardrobe.palettes.get(name.split('.').at(-1)!)!.colours.keys()]}
              change={(to) => game.pick('colours', name, to)}
            />
          ))}
      </div>
      <button type="button" className="plain" onClick={() => game.wearAny()} data-testid="any">
        as chance has it
      </button>
    </section>
  );
}

interface PickProps {
  readonly name: string;
  readonly value: string;
  readonly known: readonly string[];
  readonly change: (value: string) => void;
}

function Pick({ name, value, known, change }: PickProps) {
  return (
    <label>
      <span>{name}</span>
      <select value={value} onChange={(event) => change(event.target.value)} data-testid={`wear-${name}`}>
        {known.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
    </label>
  );
}
