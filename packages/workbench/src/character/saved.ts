import { openDB } from 'idb';
import type { RoomName } from './rooms.js';

/** A character as it is kept in the browser. */
export interface SavedCharacter {
  readonly id: string;
  readonly file: string;
  readonly text: string;
  readonly files: ReadonlyMap<string, Blob>;
  readonly room: RoomName;
  /** When it was kept, in milliseconds since 1970. */
  readonly when: number;
}

const store = 'characters';
const database = () =>
  openDB('dot-hop-workbench', 1, {
    upgrade: (made) => {
      made.createObjectStore(store, { keyPath: 'id' });
    },
  });

/** The characters that are kept, the latest first. */
export async function savedCharacters(): Promise<SavedCharacter[]> {
  const all = (await (await database()).getAll(store)) as SavedCharacter[];
  return all.sort((a, b) => b.when - a.when);
}

/** @throws when the browser's storage is full or switched off */
export async function saveCharacter(character: SavedCharacter): Promise<void> {
  await (await database()).put(store, character);
}
