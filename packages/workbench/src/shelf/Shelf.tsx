import { drawPose } from '@dot-hop/browser';
import { useEffect, useRef, useState } from 'react';
import { resolved } from '../character/files.js';
import { shelfEntries } from '../character/place.js';
import type { ShelfEntry } from '../character/place.js';
import { tell } from '../character/store.js';
import { inPlainMemory } from '../parts/canvas.js';
import { useEachPicture, wantsStill } from '../parts/loop.js';
import { Looker } from './card.js';
import type { Card } from './card.js';
import { dress, imagesFor } from '../stage/worn.js';
import { showShelf } from './shown.js';

/** The picture of a card, in its own pixels. */
const [width, height] = [96, 72];
const floor = 64;

/** All characters of a folder, or of the browser: each plays, and says how it is. */
export function Shelf() {
  const [all, setAll] = useState<readonly ShelfEntry[] | undefined>();
  const [cards, setCards] = useState<ReadonlyMap<string, Card | string>>(new Map());
  useEffect(() => {
    const looker = new Looker();
    const left = new AbortController();
    const isLeft = (): boolean => left.signal.aborted;
    void (async () => {
      const found = await shelfEntries();
      if (isLeft()) return;
      setAll(found);
      for (const one of found) {
        const card = await looker
          .look(one)
          .catch((error: unknown) => (error instanceof Error ? error.message : String(error)));
        if (isLeft()) return;
        setCards((before) => new Map([...before, [one.key, card]]));
      }
    })().catch((error: unknown) => tell(String(error), true));
    return () => {
      left.abort();
      looker.destroy();
    };
  }, []);
  const open = (one: ShelfEntry): void => {
    void one.open().then(
      () => showShelf(false),
      (error: unknown) => tell(error instanceof Error ? error.message : String(error), true),
    );
  };
  // Who builds on whom, by file.
  const above = new Map<string, string[]>();
  for (const one of all ?? []) {
    const card = cards.get(one.key);
    if (typeof card !== 'object') continue;
    for (const base of card.builtOn) {
      const file = resolved(one.file, encodeURI(base));
      above.set(file, [...(above.get(file) ?? []), card.name]);
    }
  }
  return (
    <main className="shelf" data-testid="shelf">
      <h2>
        {all === undefined ? 'Looking through the characters …' : `${all.length} characters`}
        {all !== undefined && cards.size < all.length ? <small> looked at {cards.size}</small> : null}
      </h2>
      <ul>
        {(all ?? []).map((one) => {
          const card = cards.get(one.key);
          return (
            <li key={one.key}>
              <button type="button" onClick={() => open(one)}>
                {card === undefined || typeof card === 'string' ? (
                  <span className="board" />
                ) : (
                  <Playing card={card} />
                )}
                <b>{typeof card === 'object' ? card.name : one.file}</b>
                <small>
                  {one.file} · {one.from}
                </small>
                {typeof card === 'object' ? <Lights card={card} above={above.get(one.file) ?? []} /> : null}
                {typeof card === 'string' ? <span className="told bad">{card}</span> : null}
              </button>
            </li>
          );
        })}
      </ul>
    </main>
  );
}

/** The character at rest, alive. */
function Playing({ card: { performer, drawn, file } }: { readonly card: Card }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const isDrawn = useRef(false);
  useEachPicture((ms) => {
    const context = canvas.current?.getContext('2d', inPlainMemory);
    if (!context || performer === undefined || (isDrawn.current && wantsStill())) return;
    performer.step(ms);
    const images = imagesFor(drawn);
    dress(performer, images, file);
    const { pose } = performer;
    if (!pose.layers.every(({ cell }) => cell.image in images)) return;
    context.clearRect(0, 0, width, height);
    drawPose(context, images, pose, width / 2, floor);
    isDrawn.current = true;
  });
  return <canvas ref={canvas} width={width} height={height} className="board crisp" aria-hidden="true" />;
}

/** How a character is, in words with a colour. */
function Lights({
  card,
  above,
}: {
  readonly card: Card;
  /** Those that build on it. */
  readonly above: readonly string[];
}) {
  const { problems, found, rehearsals, met, builtOn } = card;
  return (
    <span className="states">
      {builtOn.length > 0 ? <i className="plain">builds on {builtOn.join(', ')}</i> : null}
      {above.length > 0 ? <i className="plain">a base: {above.join(', ')} build on it</i> : null}
      {problems.length === 0 ? (
        <i className={found > 0 ? 'look' : 'good'}>{found > 0 ? `${found} to look at` : 'nothing found'}</i>
      ) : above.length > 0 ? (
        // A base need not be whole by itself.
        <i className="plain">not whole by itself</i>
      ) : (
        <>
          <i className="bad">{problems.length === 1 ? '1 problem' : `${problems.length} problems`}</i>
          <i className="plain">{problems[0]}</i>
        </>
      )}
      {rehearsals > 0 ? (
        <i className={met === rehearsals ? 'good' : 'bad'}>
          {met} of {rehearsals} {rehearsals === 1 ? 'rehearsal' : 'rehearsals'} as expected
        </i>
      ) : null}
    </span>
  );
}
