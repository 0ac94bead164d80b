import { useState } from 'react';
import type { ReactNode } from 'react';
import { Dial, Scene, Slider } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';
import { Corner } from './Corner.js';
import type { CompassWish, Game } from '../scene/game.js';

interface PageProps {
  /** The button that stops time. */
  readonly pause: ReactNode;
  readonly game: Game;
  readonly mount: MountCanvas;
  readonly mountDial: MountCanvas;
  readonly mountCorner: MountCanvas;
}

const people: readonly (readonly [string, string])[] = [
  ['marlis', 'sells fish'],
  ['odde', 'is the pilot'],
  ['pim', 'runs errands'],
  ['sefa', 'mends nets'],
  ['you', 'wear what you like'],
];

const diagonals: readonly (readonly [NonNullable<CompassWish['diagonal']>, string])[] = [
  ['nearest', 'the nearest direction'],
  ['keep', 'stays as it faces'],
  ['horizontal', 'sideways first'],
  ['vertical', 'up and down first'],
];

/** The square, the compass of the one that is led, and what can be changed of everybody's. */
export function Page({ pause, game, mount, mountDial, mountCorner }: PageProps) {
  const [dressing, setDressing] = useState(false);
  const { performer, name } = game.led;
  const { compass } = game;
  const [vx, vy] = performer.vector;
  return (
    <main>
      <header>
        <h1>
          Market <small>Dot Hop</small>
        </h1>
        {pause}
        <ul className="keys">
          <li>
            <kbd>← ↑ ↓ →</kbd> walk
          </li>
          <li>
            <kbd>Shift</kbd> stroll
          </li>
          <li>or hold the mouse, a finger, a gamepad's stick</li>
        </ul>
      </header>
      <section className="left">
        <Scene mount={mount} label="the market square at dusk" />
        <p className="hint">
          A hundred people from one body and its wardrobe, no two alike.{' '}
          <button type="button" className="plain" onClick={() => game.another()} data-testid="another">
            another hundred
          </button>
        </p>
      </section>
      <aside>
        <section>
          <h2>You lead</h2>
          <div className="people">
            {people.map(([one, does]) => (
              <button
                key={one}
                aria-pressed={one === name}
                onClick={() => game.lead(one)}
                title={does}
                data-testid={`lead-${one}`}
              >
                <b>{one}</b>
              </button>
            ))}
          </div>
        </section>
        <div className="choice tabs" role="group" aria-label="what is shown here">
          <button type="button" aria-pressed={!dressing} onClick={() => setDressing(false)}>
            compass
          </button>
          <button
            type="button"
            aria-pressed={dressing}
            onClick={() => setDressing(true)}
            data-testid="dressing"
          >
            dressing corner
          </button>
        </div>
        {dressing ? (
          <Corner game={game} mount={mountCorner} />
        ) : (
          <>
            <section className="dial">
              <Dial mount={mountDial} label="the compass of the one that is led" />
              <dl>
                <dt>faces</dt>
                <dd data-testid="facing">{performer.facing}</dd>
                <dt>turns to</dt>
                <dd data-testid="points-to">{performer.pointsTo}</dd>
                <dt>clip</dt>
                <dd data-testid="clip">{performer.clip}</dd>
                <dt>picture</dt>
                <dd data-testid="mirrored">
                  cell {performer.pose.cell.index}
                  {performer.pose.mirrored ? ', mirrored' : ''}
                </dd>
                <dt>velocity</dt>
                <dd>
                  {Math.round(vx)}, {Math.round(vy)}
                </dd>
              </dl>
            </section>
            <section className="settings">
              <h2>Everybody's compass</h2>
              <div className="choice" role="group" aria-label="directions">
                {(['four', 'eight'] as const).map((directions) => (
                  <button
                    key={directions}
                    aria-pressed={compass.directions === directions}
                    onClick={() => game.turnBy({ directions, stick: Math.min(compass.stick!, 20) })}
                    data-testid={`directions-${directions}`}
                  >
                    {directions} directions
                  </button>
                ))}
              </div>
              <Slider
                label="sticks"
                id="stick"
                says={`${compass.stick!}°`}
                value={compass.stick!}
                most={20}
                change={(stick) => game.turnBy({ stick })}
              />
              <Slider
                label="each shows for"
                says={`${compass.through!} ms`}
                value={compass.through!}
                most={300}
                change={(through) => game.turnBy({ through })}
              />
              <label className="row">
                on a diagonal
                <select
                  value={compass.diagonal}
                  disabled={compass.directions !== 'four'}
                  onChange={(event) =>
                    game.turnBy({ diagonal: event.target.value as CompassWish['diagonal'], stick: 8 })
                  }
                >
                  {diagonals.map(([value, words]) => (
                    <option key={value} value={value}>
                      {words}
                    </option>
                  ))}
                </select>
              </label>
            </section>
          </>
        )}
      </aside>
    </main>
  );
}
