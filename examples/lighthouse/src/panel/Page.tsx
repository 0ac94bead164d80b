import type { ReactNode } from 'react';
import { Dial, Scene } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';
import type { Game } from '../scene/game.js';

interface PageProps {
  /** The button that stops time. */
  readonly pause: ReactNode;
  readonly game: Game;
  readonly mount: MountCanvas;
  readonly mountDial: MountCanvas;
}

const degrees = (radians: number): number => Math.round((((radians * 180) / Math.PI) % 360) + 360) % 360;

/** The quay, and the compass of the one selected as this camera sees it. */
export function Page({ pause, game, mount, mountDial }: PageProps) {
  const { performer, name } = game.selected;
  const named = game.figures.filter((one, i, all) => all.findIndex((other) => other.name === one.name) === i);
  return (
    <main>
      <header>
        <h1>
          Lighthouse <small>Dot Hop</small>
        </h1>
        {pause}
        <ul className="keys">
          <li>
            <kbd>← →</kbd> go round
          </li>
          <li>
            <kbd>↑ ↓</kbd> higher, lower
          </li>
          <li>or drag; the wheel goes nearer; click a person</li>
        </ul>
      </header>
      <section className="left">
        <Scene mount={mount} label="a small quay with a lighthouse, seen by a camera that goes round it" />
        <p className="hint">
          The people are flat drawings. Each shows the side that this camera sees: the way the body faces,
          turned into the view, is the vector that its compass reads.
        </p>
      </section>
      <aside>
        <section>
          <h2>Selected</h2>
          <div className="people">
            {named.map((figure) => (
              <button
                key={figure.name}
                aria-pressed={figure.name === name}
                onClick={() => (game.selected = figure)}
                data-testid={`select-${figure.name}`}
              >
                <b>{figure.name}</b>
                {figure.name === 'wick' ? 'two sides' : 'eight directions'}
              </button>
            ))}
          </div>
        </section>
        <section className="dial">
          <Dial mount={mountDial} label="the compass of the one selected" />
          <dl>
            <dt>shows</dt>
            <dd data-testid="facing">{performer.facing}</dd>
            <dt>state</dt>
            <dd data-testid="state">{performer.state}</dd>
            <dt>clip</dt>
            <dd>{performer.clip}</dd>
            <dt>picture</dt>
            <dd>
              cell {performer.pose.cell.index}
              {performer.pose.mirrored ? ', mirrored' : ''}
            </dd>
            <dt>camera</dt>
            <dd data-testid="yaw">{degrees(game.camera.yaw)}°</dd>
          </dl>
        </section>
        <section className="one">
          <button
            aria-pressed={game.stands}
            onClick={() => (game.stands = !game.stands)}
            data-testid="stands"
          >
            everybody stands still
          </button>
        </section>
      </aside>
    </main>
  );
}
