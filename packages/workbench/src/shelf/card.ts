import { wrap } from 'comlink';
import type { Remote } from 'comlink';
import { Performer } from 'dot-hop';
import { toOpen } from '../character/files.js';
import { letGo } from '../character/pictures.js';
import type { Drawn } from '../character/pictures.js';
import type { ShelfEntry } from '../character/place.js';
import { readText } from '../character/reading.js';
import { runRehearsals } from '../character/rehearsal-runs.js';
import { sizesOf } from '../character/store.js';
import type { CheckWorker } from '../worker/check-worker.js';

/** A character as it is shown on the shelf. */
export interface Card {
  readonly name: string;
  readonly file: string;
  /** It plays at rest; `undefined` while it cannot be performed. */
  readonly performer: Performer | undefined;
  readonly drawn: ReadonlyMap<string, Drawn>;
  /** The documents that it builds on, as it names them. */
  readonly builtOn: readonly string[];
  /** What is wrong with it, each in a sentence. */
  readonly problems: readonly string[];
  readonly found: number;
  /** Rehearsals that lie beside it: how many, and how many of them are as expected. */
  readonly rehearsals: number;
  readonly met: number;
}

/** Looks at characters one after the other, beside the page. */
export class Looker {
  private readonly worker = new Worker(new URL('../worker/check-worker.ts', import.meta.url), {
    type: 'module',
  });
  private readonly looking: Remote<CheckWorker> = wrap<CheckWorker>(this.worker);
  private readonly cards: Card[] = [];

  async look(one: ShelfEntry): Promise<Card> {
    const found = await one.load();
    const { opened } = await toOpen(found);
    const { file, text, files, drawn, bases = new Map() } = opened;
    const { definition, controller, troubles } = readText(text, file, sizesOf(drawn), bases);
    // Images of other characters may have the same names: they are handed over again for each.
    for (const [name, { picture }] of drawn) await this.looking.put(name, picture);
    const seen = controller === undefined ? [] : await this.looking.look(controller.definition);
    const lights = controller === undefined ? [] : await runRehearsals(controller, file, files);
    const card: Card = {
      name: definition?.name ?? file,
      file,
      performer: controller && new Performer(controller),
      drawn,
      builtOn: [...bases.keys()],
      problems: troubles.map(({ place, text }) => (place === '' ? text : `${place}: ${text}`)),
      found: seen.filter(({ accepted, severity }) => accepted === undefined && severity !== 'note').length,
      rehearsals: lights.length,
      met: lights.filter(({ kind }) => kind === 'met').length,
    };
    this.cards.push(card);
    return card;
  }

  destroy(): void {
    this.worker.terminate();
    for (const { drawn } of this.cards) letGo(drawn.values());
  }
}
