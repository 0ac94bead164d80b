import type { ReactNode } from 'react';
import { keptOutSentence, lastSwitchText, partText } from 'dot-hop/explain';
import { Scene, Slider } from '../../../common/parts.js';
import type { MountCanvas } from '../../../common/parts.js';
import { mostPeople } from '../scene/crowd.js';
import type { Game } from '../scene/game.js';

interface PageProps {
  /** The button that stops time. */
  readonly pause: ReactNode;
  readonly game: Game;
  /** Whether the one that is led is looked at closer. */
  readonly isCloser: boolean;
  readonly lookCloser: () => void;
  readonly mount: MountCanvas;
  readonly mountLight: MountCanvas;
  readonly mountOverview: MountCanvas;
}

const number = new Intl.NumberFormat('en');
const time = (ms: number): string => `${ms.toFixed(ms < 10 ? 1 : 0)} ms`;

/** The quay, how many are on it, what that costs, and the one that is led. */
export function Page({ pause, game, isCloser, lookCloser, mount, mountLight, mountOverview }: PageProps) {
  const { crowd, zoom } = game;
  return (
    <main>
      <header>
        <h1>
          Lantern night <small>Dot Hop</small>
        </h1>
        {pause}
        {crowd.led >= 0 && (
          <button
            type="button"
            className="plain"
            aria-pressed={isCloser}
            onClick={lookCloser}
            data-testid="closer"
          >
            {isCloser ? 'close the overlay' : 'look closer'}
          </button>
        )}
        <ul className="keys">
          <li>
            <kbd>← ↑ ↓ →</kbd> {crowd.led < 0 ? 'look around' : 'walk'}
          </li>
          <li>drag to look around, tap somebody to lead</li>
        </ul>
      </header>
      <section className="left">
        <Scene mount={mount} label="the quay at night, full of people with lanterns">
          <canvas ref={mountLight} className="light" aria-hidden="true" />
        </Scene>
        <canvas ref={mountOverview} className="overview" aria-label="the whole quay; press to look there" />
      </section>
      <aside>
        <section>
          <h2>On the quay</h2>
          <Slider
            label="people"
            says={number.format(crowd.count)}
            value={placeOf(crowd.count)}
            most={1}
            step="any"
            change={(place) => crowd.resize(peopleOf(place))}
            id="people"
          />
          <div className="choice zooms" role="group" aria-label="how large">
            {[1, 2, 3].map((one) => (
              <button key={one} type="button" aria-pressed={zoom === one} onClick={() => game.zoomTo(one)}>
                ×{one}
              </button>
            ))}
          </div>
        </section>
        <section>
          <h2>What it costs</h2>
          <dl className="costs">
            <dt>a step of everybody</dt>
            <dd data-testid="troupe">{time(game.troupe)}</dd>
            <dt>walking and thinking besides</dt>
            <dd>{time(Math.max(0, game.stepping - game.troupe))}</dd>
            <dt>drawing</dt>
            <dd data-testid="drawing">{time(game.drawing)}</dd>
            <dt>pictures a second</dt>
            <dd>{Math.round(1000 / game.between)}</dd>
            <dt>in view</dt>
            <dd data-testid="seen">{number.format(game.seen)}</dd>
            <dt>told in a step</dt>
            <dd>{number.format(crowd.told)} reports</dd>
          </dl>
        </section>
        {crowd.led < 0 ? (
          <section>
            <h2>Whom you lead</h2>
            <p className="hint">Nobody yet. Tap somebody, or take the first who comes.</p>
            <button type="button" onClick={() => game.leadAny()} data-testid="lead-any">
              lead somebody
            </button>
          </section>
        ) : (
          <Led game={game} />
        )}
      </aside>
    </main>
  );
}

/** Where a number of people is on the slider. */
const placeOf = (count: number): number => Math.log(count / 100) / Math.log(mostPeople / 100);

/** Of a place of the slider: from a hundred to all, ten times as many for each third or so. */
function peopleOf(place: number): number {
  const count = 100 * (mostPeople / 100) ** place;
  const unit = 10 ** Math.max(1, Math.floor(Math.log10(count)) - 1);
  return Math.min(mostPeople, Math.round(count / unit) * unit);
}

/** Asks a member of the troupe why it shows what it shows. */
function Led({ game }: { readonly game: Game }) {
  const { crowd } = game;
  const member = crowd.troupe.member(crowd.led);
  const why = member.why();
  return (
    <section className="led">
      <h2>
        You lead number {number.format(crowd.led + 1)}{' '}
        <button type="button" className="plain" onClick={() => crowd.lead(-1)} data-testid="let-go">
          let go
        </button>
      </h2>
      <p>
        <b data-testid="state">{why.state}</b>, facing <span data-testid="facing">{member.facing}</span>:{' '}
        {lastSwitchText(why)}
      </p>
      <ol>
        {why.states.map((state) => (
          <li key={state.name} className={state.keptOut === 'shows' ? 'shows' : undefined}>
            <b>{state.name}</b> <span>{keptOutSentence(state, why.state)}</span>
            {[state.while, state.when].flatMap((condition) =>
              (condition?.parts ?? []).map((part) => (
                <small key={part.text} className={part.on ? 'on' : undefined}>
                  {partText(part)}
                </small>
              )),
            )}
          </li>
        ))}
      </ol>
      <button type="button" onClick={() => crowd.wave(crowd.led)} data-testid="wave">
        wave
      </button>
    </section>
  );
}
