import { Row } from '../controller/layout.js';
import type { Names } from '../controller/names.js';
import { bodyTrack } from '../controller/groups.js';
import { Attention, stopWaiting } from '../engine/rows.js';
import type { Rows } from '../engine/rows.js';
import { trackNamed } from './named.js';
import { addObserver } from './observing.js';
import type { Observer } from './observing.js';
import { Player } from './player.js';
import { restoreRow, snapshotOf } from './row-snapshot.js';
import type { PerformerSnapshot } from './snapshot-data.js';
import { watch } from './watch.js';
import { whyOf } from './why.js';
import type { Why } from './why.js';

/**
 * One running character, with everything that tools and saved games need: it can say why it shows what it shows, be observed, and be saved
 * to a file. A {@link Player} is the part of it that a game plays.
 *
 * @typeParam N the names of its controller, for the compiler only
 */
export class Performer<N extends Names = Names> extends Player<N> {
  /**
   * Makes a performer for a character that a {@link Player} plays. Both are the same character: what you do to one of them counts for both.
   * Put its outfit on again.
   */
  static of<N extends Names>(player: Player<N>): Performer<N> {
    if (player instanceof Performer) return player as Performer<N>;
    // Which row it plays a player keeps to itself.
    return new Performer<N>(player.controller, {}, player as unknown as { rows: Rows; at: number });
  }

  /**
   * Calls an observer with everything that the game does to this performer, and with the reports. Without an observer, this costs one
   * comparison a step. For a member of a troupe it ends when the member is removed.
   *
   * @returns a function that ends it
   */
  observe(observer: Observer): () => void {
    const { rows, at } = this;
    const attention = 2 * at + Row.attention;
    const index = rows.firstIndex + this.index;
    rows.ints[attention]! |= Attention.watched;
    if (rows.crowd === null) stopWaiting(rows, at);
    else rows.crowd.watch(index, true);
    const end = addObserver(rows, at, observer);
    return () => {
      if (end()) return;
      rows.ints[attention]! &= ~Attention.watched;
      rows.crowd?.watch(index, false);
    };
  }

  /** Saves the present moment as plain data. A performer that restores it goes on as if it had never stopped. */
  snapshot(): PerformerSnapshot {
    return snapshotOf(this.rows, this.at);
  }

  /**
   * Goes back to a snapshot of this performer, or of another one of the same document.
   *
   * @throws {DotHopError} for anything that is not a snapshot, and for a snapshot of another version of the document; then nothing changes
   */
  restore(snapshot: PerformerSnapshot): void {
    this.stand(snapshot, false);
  }

  /**
   * Takes over a snapshot of another version of the document, by names: the state with its phase, signals, pulses and bands. What this
   * document does not have is left out. If it does not have the state, it begins as a new performer would. The next step decides by what this
   * document says; a `when` that is true already starts no act.
   *
   * @throws {DotHopError} when it is no snapshot; nothing is changed then
   */
  adopt(snapshot: PerformerSnapshot): void {
    this.stand(snapshot, true);
  }

  /**
   * Says why it shows what it shows. For every state of a track: whether it wants in, which terms are true, and what keeps it out.
   *
   * @param track default: the track of the document's own states
   * @throws {DotHopError} for an unknown track
   */
  why(track: N['tracks'] = bodyTrack): Why {
    return whyOf(this.rows, this.at, trackNamed(this.controller, track));
  }

  private stand(snapshot: PerformerSnapshot, adopt: boolean): void {
    this.checkAlone();
    restoreRow(this.rows, this.at, snapshot, adopt);
    // Its row knows no more whether the latest step told anything.
    this.rows.reportsOf(this.at).clear();
    if (this.isWatched) watch.moved(this.rows, this.at);
  }
}
