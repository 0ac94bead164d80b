import type { Clip, Controller } from 'dot-hop';
import { showingAt } from 'dot-hop/explain';
import { composePoses } from 'dot-hop/view';
import type { Showing } from './motion.js';

const lengthOf = ({ ends }: Clip): number => ends[ends.length - 1]!;

/** Every instant of a pass at which either clip shows another frame, in microseconds; the other begins again as often as it must. */
function bordersOf(own: Clip, under: Clip): number[] {
  const length = lengthOf(own);
  const borders = new Set(own.ends);
  const passes = under.loopFrom < 0 ? 1 : Math.ceil(length / lengthOf(under));
  for (let pass = 0; pass < passes; pass++)
    for (const end of under.ends) borders.add(pass * lengthOf(under) + end);
  return [...borders].filter((border) => border <= length).sort((a, b) => a - b);
}

/**
 * What a track shows over what the body shows, as one clip with a frame for each picture: a pass of the first, while the
 * other goes on beneath it.
 *
 * @param track which of them the first is shown by
 */
export function together(controller: Controller, track: number, own: Showing, under: Showing): Showing {
  const ends = bordersOf(own.clip, under.clip);
  const starts = [0, ...ends.slice(0, -1)];
  const places = starts.map((at) => ({
    own: showingAt(own.clip, at / 1000),
    under: showingAt(under.clip, at / 1000),
  }));
  const poses = places.map((place) =>
    composePoses(
      controller,
      controller.tracks.map(({ index }) =>
        index === track ? own.poses[place.own]! : under.poses[place.under]!,
      ),
    ),
  );
  /** The names on showings that begin with a picture. */
  const begun = (clip: Clip, which: 'own' | 'under', i: number): readonly string[] =>
    i > 0 && places[i - 1]![which] === places[i]![which] ? [] : clip.cues[places[i]![which]]!;
  const spans = [...own.clip.spans].map(([name, { first, last }]) => {
    const within = places.map(({ own: at }) => own.clip.order[at]! >= first && own.clip.order[at]! <= last);
    return [name, { first: within.indexOf(true), last: within.lastIndexOf(true) }] as const;
  });
  const { stride } = under.clip;
  const clip: Clip = {
    of: own.clip.of,
    direction: own.clip.direction,
    name: `${own.clip.name} over ${under.clip.name}`,
    frames: poses.map(({ cell }) => cell),
    order: poses.map((_, i) => i),
    cells: poses.map(({ cell }) => cell),
    ends,
    loopFrom: own.clip.loopFrom < 0 ? -1 : 0,
    cues: poses.map((_, i) => [...begun(own.clip, 'own', i), ...begun(under.clip, 'under', i)]),
    spans: new Map(spans),
    stride: stride && (stride * lengthOf(own.clip)) / lengthOf(under.clip),
  };
  const frames = places.map((place) => under.clip.order[place.under]!);
  return { clip, poses, under: { clip: under.clip, frames } };
}
