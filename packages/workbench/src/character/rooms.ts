import type { DocumentPath } from 'dot-hop';

/** The rooms in the order of the work, with what they are called. */
export const roomTitles = {
  cut: 'Cut',
  time: 'Time',
  turn: 'Turn',
  signals: 'Signals',
  rank: 'Rank',
  try: 'Try',
  check: 'Check',
  ship: 'Ship',
} as const;

export type RoomName = keyof typeof roomTitles;

export const roomNames = Object.keys(roomTitles) as RoomName[];

/** In which room each part of a document is worked on. */
const rooms: Readonly<Record<string, RoomName>> = {
  sheets: 'cut',
  clips: 'time',
  cues: 'time',
  compass: 'turn',
  flipbooks: 'turn',
  signals: 'signals',
  derived: 'signals',
  states: 'rank',
  groups: 'rank',
  tracks: 'rank',
  rest: 'rank',
  variants: 'rank',
};

/** The room in which what stands at a place is worked on; `undefined` for what is written in the text alone. */
export const roomOf = ([part]: DocumentPath): RoomName | undefined =>
  Object.hasOwn(rooms, String(part)) ? rooms[String(part)] : undefined;
