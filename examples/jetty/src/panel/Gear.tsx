import { wardrobeOf } from 'dot-hop/wardrobe';
import type { Game } from '../scene/game.js';

interface GearProps {
  readonly game: Game;
}

/** What Wick wears over his own clothes, and the colours of what is seen. */
export function Gear({ game }: GearProps) {
  const wardrobe = wardrobeOf(game.character.controller)!;
  const { pieces = {}, colours = {} } = game.worn;
  const isWorn = (layer: string): boolean => (pieces[layer] ?? 'none') !== 'none';
  // Of two coats the outer one is seen.
  const dyes = [
    isWorn('coat') ? 'coat.oil' : 'body.coat',
    'body.scarf',
    ...(isWorn('hat') ? ['hat.oil'] : []),
  ];
  return (
    <div className="gear" aria-label="what Wick wears">
      {[...wardrobe.layers.values()].flatMap(({ name, pieces: known }) =>
        [...known.keys()].map((piece) => (
          <button
            key={piece}
            type="button"
            aria-pressed={pieces[name] === piece}
            data-testid={`wear-${piece}`}
            onClick={() => game.pick('pieces', name, game.worn.pieces?.[name] === piece ? 'none' : piece)}
          >
            {piece}
          </button>
        )),
      )}
      {dyes.map((name) => {
        const palette = wardrobe.palettes.get(name.split('.')[1]!)!;
        return (
          <label key={name}>
            {name === 'body.scarf' ? 'scarf' : name === 'hat.oil' ? 'hat' : 'coat'}
            <select
              value={colours[name] ?? palette.drawn}
              data-testid={`dye-${name}`}
              onChange={({ currentTarget }) => game.pick('colours', name, currentTarget.value)}
            >
              {[...palette.colours.keys()].map((one) => (
                <option key={one}>{one}</option>
              ))}
            </select>
          </label>
        );
      })}
      {game.character.missing?.map(({ message }) => (
        <p key={message} className="missing" role="status">
          {message}. Nothing of it is seen.{' '}
          <button type="button" onClick={() => location.reload()}>
            try again
          </button>
        </p>
      ))}
    </div>
  );
}
