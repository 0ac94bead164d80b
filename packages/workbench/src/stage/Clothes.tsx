import type { Controller, OutfitDefinition, Wardrobe } from 'dot-hop';
import { wardrobeOf } from 'dot-hop/wardrobe';
import { Shirt } from 'lucide-react';
import {
  Button,
  Dialog,
  DialogTrigger,
  Popover,
  ToggleButton,
  ToggleButtonGroup,
} from 'react-aria-components';
import { tell, useWorkbench } from '../character/store.js';
import { Choice } from '../parts/ui.js';
import { choose, chooseByChance, outfitOf, useClothes } from './worn.js';

type Palette = Wardrobe['bodyPalettes'][number];

/** What the character wears on the stages is chosen here. Nothing is there for a character without a wardrobe. */
export function Clothes({ controller }: { readonly controller: Controller }) {
  const wardrobe = wardrobeOf(controller);
  const file = useWorkbench((state) => state.file);
  const isChosen = useClothes(({ chosen }) => chosen.has(file));
  if (wardrobe === undefined) return null;
  return (
    <DialogTrigger>
      <Button className={isChosen ? 'icon on' : 'icon'} aria-label="clothes">
        <Shirt size={16} />
      </Button>
      <Popover className="list clothes" placement="bottom end">
        <Dialog aria-label="clothes">
          <Pieces controller={controller} wardrobe={wardrobe} />
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Pieces({ controller, wardrobe }: { readonly controller: Controller; readonly wardrobe: Wardrobe }) {
  const file = useWorkbench((state) => state.file);
  // Follows what is chosen.
  useClothes(({ chosen }) => chosen.get(file));
  const { pieces, colours } = outfitOf(controller) ?? wardrobe.outfit({});
  const put = (change: OutfitDefinition): void =>
    choose({ pieces: { ...pieces, ...change.pieces }, colours: { ...colours, ...change.colours } });
  const worn = [...wardrobe.layers.values()].map((layer) => ({
    layer,
    palettes: layer.pieces.get(pieces[layer.name]!)?.palettes ?? [],
  }));
  // What several pieces share is picked once, above.
  const shared = worn.flatMap(({ palettes }) => palettes.filter((palette) => palette.shared));
  const common = [...new Set([...wardrobe.bodyPalettes, ...shared])];
  const colour = (layer: string, palette: Palette) => {
    const name = palette.shared ? palette.name : `${layer}.${palette.name}`;
    return (
      <Colours
        key={name}
        label={name}
        palette={palette}
        value={colours[name]!}
        onChange={(list) => put({ colours: { [name]: list } })}
      />
    );
  };
  return (
    <>
      <div className="row">
        <Button className="small" onPress={() => chooseByChance(wardrobe)}>
          by chance
        </Button>
        <Button className="small" onPress={() => choose('bare')}>
          bare
        </Button>
        <Button
          className="small"

          onPress={() => {
            navigator.clipboard.writeText(JSON.stringify({ pieces, colours }, undefined, 2)).then(
              () => tell('The outfit is copied: wardrobe.outfit takes it in your game.'),
              () => tell('The browser does not let it be copied.', true),
            );
          }}
        >
          copy
        </Button>
      </div>
      {common.map((palette) => (
        <div className="layer" key={palette.name}>
          <span className="hint">{palette.name}</span>
          {colour('body', palette)}
        </div>
      ))}
      {worn.map(({ layer, palettes }) => (
        <div className="layer" key={layer.name}>
          <Choice
            label={layer.name}
            value={pieces[layer.name]!}
            options={Object.fromEntries(['none', ...layer.pieces.keys()].map((one) => [one, one]))}
            onChange={(one) => put({ pieces: { [layer.name]: one } })}
          />
          {palettes.filter((palette) => !palette.shared).map((palette) => colour(layer.name, palette))}
        </div>
      ))}
    </>
  );
}

/** The lists of a palette as chips, each in its colours. */
function Colours({
  label,
  palette,
  value,
  onChange,
}: {
  readonly label: string;
  readonly palette: Palette;
  readonly value: string;
  readonly onChange: (list: string) => void;
}) {
  return (
    <ToggleButtonGroup
      className="chips"
      aria-label={label}
      selectionMode="single"
      disallowEmptySelection
      selectedKeys={[value]}
      onSelectionChange={(picked) => onChange(String([...picked][0]))}
    >
      {[...palette.colours].map(([name, list]) => (
        <ToggleButton key={name} id={name} aria-label={name} style={{ background: stripes(list) }} />
      ))}
    </ToggleButtonGroup>
  );
}

/** Colours side by side. */
const stripes = (list: readonly number[]): string => {
  const each = 100 / list.length;
  const stops = list.map((colour, i) => {
    const text = `#${colour.toString(16).padStart(6, '0')}`;
    return `${text} ${i * each}% ${(i + 1) * each}%`;
  });
  return `linear-gradient(90deg, ${stops.join(', ')})`;
};
