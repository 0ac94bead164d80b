import type { ReactNode } from 'react';
import { lastSwitchText } from 'dot-hop/explain';
import { Scene } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';
import { regions } from '../scene/bindings.js';
import type { Game } from '../scene/game.js';
import { Filmstrip } from './Filmstrip.js';
import { Gear } from './Gear.js';
import { Ladder } from './Ladder.js';
import { Signals } from './Signals.js';

interface PageProps {
  /** The button that stops time. */
  readonly pause: ReactNode;
  readonly game: Game;
  readonly mount: MountCanvas;
  /** Opens the overlay, or closes it. */
  readonly look: () => void;
  readonly isLooking: boolean;
}

const help: readonly (readonly [string, string])[] = [
  ['← →', 'run'],
  ['Shift', 'walk'],
  ['Space', 'hop'],
  ['J', 'swing; in the air somersault'],
  ['K', 'dash in the air'],
  ['↓', 'drop'],
];

const percent = (part: number): string => `${part * 100}%`;

/** The scene with what its performer is told and decides beside it. */
export function Page({ pause, game, mount, look, isLooking }: PageProps) {
  const { performer } = game;
  const whys = performer.controller.tracks.map(({ name }) => performer.why(name as 'body' | 'arms'));
  return (
    <main>
      <header>
        <h1>
          Jetty <small>Dot Hop</small>
        </h1>
        {pause}
        <button type="button" className="plain" aria-pressed={isLooking} onClick={look}>
          {isLooking ? 'close the overlay' : 'look closer'}
        </button>
        <ul className="keys">
          {help.map(([key, does]) => (
            <li key={key}>
              <kbd>{key}</kbd> {does}
            </li>
          ))}
        </ul>
        <p className="lamps">
          {game.lit.filter(Boolean).length} of {game.lit.length} lamps lit
        </p>
      </header>
      <section className="left">
        <Scene mount={mount} label="Wick on the jetty at dusk">
          <div className="regions" aria-hidden>
            {regions.map(({ name, x, y, width, height }) => (
              <span
                key={name}
                style={{ left: percent(x), top: percent(y), width: percent(width), height: percent(height) }}
              >
                {name}
              </span>
            ))}
          </div>
        </Scene>
        <Gear game={game} />
        <Filmstrip game={game} />
        <p className="because" data-testid="because">
          {whys.map((why) => (
            <span key={why.track} data-testid={`because-${why.track}`}>
              <i>{why.track}</i> <b>{why.state}</b>: {lastSwitchText(why)}.
              {why.holding === 'leaves' ? ' It leaves where that suits the feet.' : ''}
            </span>
          ))}
        </p>
        <ol className="trail" aria-label="the states that showed lately" data-testid="trail">
          {game.trail.map((state, i) => (
            <li key={i}>{state}</li>
          ))}
        </ol>
      </section>
      <aside>
        <Signals performer={performer} />
        {whys.map((why) => (
          <Ladder key={why.track} why={why} />
        ))}
      </aside>
    </main>
  );
}
