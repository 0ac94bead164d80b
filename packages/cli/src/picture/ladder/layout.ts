import type { Controller, State, Track } from 'dot-hop';
import type { PlacedGroup } from 'dot-hop/explain';
import { groupsOf } from '../../state-words.js';

export const margin = 28;
export const heading = 74;
export const rung = 66;
export const rankWidth = 70;
export const nameWidth = 190;
export const framesWidth = 190;
export const wordsWidth = 460;
/** Room for the ways from state to state, at the right. */
export const waysWidth = 260;
/** The line that begins each of several tracks, and that of a state which has taken a track. */
export const trackHeight = 44;
const takenHeight = 26;
/** The line that begins a group, and the room below it. */
export const groupHeight = 34;
const groupFoot = 8;

/** A state where it stands. */
export interface Rung {
  readonly state: State;
  readonly y: number;
  readonly height: number;
}

/** A group where it stands, around its rungs. */
export interface Frame {
  readonly group: PlacedGroup;
  /** In how many other groups it is. */
  readonly depth: number;
  readonly y: number;
  height: number;
}

/** A track where it stands, with its states from the highest rank down. */
export interface Section {
  readonly track: Track;
  readonly y: number;
  readonly rungs: readonly Rung[];
  readonly frames: readonly Frame[];
}

/** Where everything stands. */
export interface Layout {
  readonly sections: readonly Section[];
  readonly rungs: readonly Rung[];
  readonly frames: readonly Frame[];
  readonly bottom: number;
}

export function layOut(controller: Controller): Layout {
  const { tracks, states } = controller;
  let y = heading;
  const sections = tracks.map((track): Section => {
    const top = y;
    if (tracks.length > 1) y += trackHeight;
    const frames: Frame[] = [];
    // States of a group stand together, unless others have its very rank.
    let open: Frame[] = [];
    const rungs = track.order.map((index): Rung => {
      const state = states[index]!;
      const groups = groupsOf(controller, state);
      const same = open.findIndex(({ group }, depth) => groups[depth]?.name !== group.name);
      const kept = same < 0 ? open.length : same;
      if (kept < open.length) y += groupFoot;
      open = open.slice(0, kept);
      for (const group of groups.slice(kept)) {
        const frame = { group, depth: open.length, y, height: 0 };
        y += groupHeight;
        frames.push(frame);
        open.push(frame);
      }
      const height = state.takenBy < 0 ? rung : takenHeight;
      y += height;
      for (const frame of open) frame.height = y - frame.y;
      return { state, y: y - height, height };
    });
    if (open.length > 0) y += groupFoot;
    return { track, y: top, rungs, frames };
  });
  return {
    sections,
    rungs: sections.flatMap(({ rungs }) => rungs),
    frames: sections.flatMap(({ frames }) => frames),
    bottom: y,
  };
}
