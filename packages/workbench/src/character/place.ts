import { demo, demoNames, demoTitles } from './demo.js';
import type { DemoName } from './demo.js';
import { sheetOf } from 'dot-hop/edit';
import { bringIn } from './bring.js';
import { claim } from './claim.js';
import { basesAmong, characterIn, decoded, download, isBeside, toOpen, unpacked, zipOf } from './files.js';
import type { Found, NamedFiles } from './files.js';
import { keepChecking } from './findings.js';
import { saveCharacter, savedCharacters } from './saved.js';
import type { SavedCharacter } from './saved.js';
import {
  act,
  addFiles,
  exchangeBases,
  emptyText,
  exchangeFiles,
  open,
  select,
  setSaved,
  takeOver,
  tell,
  useWorkbench,
  writeDown,
} from './store.js';
import { ChangedMeanwhile, Folder } from './folder.js';

/** Under which the open character is kept in the browser. */
let id = 'first';
/** The folder that a server hands over; `undefined` where the page is alone. The shelf may ask for it before it has answered. */
let serving: Promise<Folder | undefined> | undefined;
const served = (): Promise<Folder | undefined> => (serving ??= Folder.here());
/** The same with the open character, where that is one of it; `undefined` for one that the browser keeps. */
let folder: Folder | undefined;

const { getState: state } = useWorkbench;

/** Opens what was open last, or else a character to play with. */
export async function begin(): Promise<void> {
  keepChecking();
  keepUp();
  window.addEventListener('beforeunload', (event) => {
    writeDown();
    if (state().saved === 'unsaved' || state().saved === 'refused') event.preventDefault();
  });
  try {
    folder = await served();
    if (folder !== undefined) {
      await openFolder(folder);
      return;
    }
    const [last] = await savedCharacters().catch(() => []);
    if (last !== undefined) await openKept(last);
    else await openDemo('wick');
  } catch (error) {
    tell(error instanceof Error ? error.message : String(error), true);
  }
}

/** A character that can be opened: on the shelf. */
export interface ShelfEntry {
  /** One for each, so that a list of them stays in order. */
  readonly key: string;
  readonly file: string;
  /** What is told of where it comes from. */
  readonly from: string;
  load(): Promise<Found>;
  open(): Promise<void>;
}

/** The characters of the folder that is served; without one those that the browser keeps, and those that come along. */
export async function shelfEntries(): Promise<ShelfEntry[]> {
  const here = await served();
  if (here !== undefined)
    return (await here.characters()).map((name) => ({
      key: name,
      file: name,
      from: 'of this folder',
      load: () => here.at(name).read(),
      open: async () => {
        await flushed();
        folder?.leave();
        folder = here.at(name);
        await openFolder(folder);
      },
    }));
  const kept = await savedCharacters().catch(() => []);
  return [
    ...kept.map((one): ShelfEntry => ({
      key: one.id,
      file: one.file,
      from: `saved ${new Date(one.when).toLocaleString()}`,
      load: () => Promise.resolve(one),
      open: () => openKept(one),
    })),
    ...demoNames.map((name): ShelfEntry => ({
      key: `comes along: ${name}`,
      file: demoTitles[name],
      from: 'comes with the workbench',
      load: () => demo(name),
      open: () => openDemo(name),
    })),
  ];
}

/** What was done to the open character is kept before another one takes its place. */
async function flushed(): Promise<void> {
  if (state().saved === 'unsaved') await save();
}

async function openFolder(from: Folder): Promise<void> {
  const { file, text, files } = await from.read();
  const { opened, refused } = await toOpen({
    file,
    text: text === '' ? emptyText('character') : text,
    files,
  });
  open(opened);
  from.shows(files);
  // A folder of drawings without a document: they are taken in as if they had been dropped. Beside other characters they are theirs.
  if (text === '' && files.size > 0 && (await from.characters()).every((name) => name === file))
    await bring(files);
  for (const one of refused) tell(one, true);
  from.follow({
    // Nothing of one's own to lose: what another program wrote is taken over.
    changed: () => void changed(from),
    gone: () =>
      tell('The command that opened this page has ended. Your changes stay here; save them as a zip.', true),
  });
}

/** Another program has changed the folder. Where one has nothing of one's own to lose it is shown as it is now. */
async function changed(from: Folder): Promise<void> {
  const now = await from.read();
  if (now.text === '') {
    setSaved('refused');
    tell(
      `${now.file} was deleted by another program. It is all here still. Your next change writes it again.`,
      true,
    );
    return;
  }
  if (state().history.text !== now.text && state().saved !== 'saved') {
    clash(now.text);
    return;
  }
  const { drawn } = await decoded(now.files);
  exchangeFiles(now.files, drawn, await basesAmong(now.file, now.text, now.files));
  from.shows(now.files);
  if (state().history.text !== now.text) takeOver(now.text);
  // It is what the disk has: there is nothing to write.
  setSaved('saved');
  tell('Another program has changed the files; they are shown as they are now.');
}

/** Another program has written while there are changes here that are not saved. */
function clash(theirs: string): void {
  useWorkbench.setState({ clash: theirs });
  setSaved('refused');
  tell('Another program has changed the document, and you have too. Choose which one to keep.', true);
}

/** How often one has chosen: a writing that began before that says nothing any more. */
let choices = 0;

/** Keeps one's own text, or takes the other over (which can be undone). */
export function settle(keepsOwn: boolean): void {
  choices++;
  const { clash: theirs } = state();
  useWorkbench.setState({ clash: undefined });
  folder?.forceNext();
  if (!keepsOwn && theirs !== undefined) takeOver(theirs);
  else void save();
}

export async function openDemo(name: DemoName): Promise<void> {
  // A name of its own each time: what was changed on it before stays kept.
  await claimed(`demo ${name} ${Date.now()}`);
  const { opened, refused } = await toOpen(await demo(name));
  open(opened);
  for (const one of refused) tell(one, true);
}

async function openKept({ id: known, ...kept }: SavedCharacter): Promise<void> {
  const isOwn = await claimed(known);
  const { opened } = await toOpen(kept);
  open({ ...opened, room: kept.room });
  if (!isOwn)
    tell(`${kept.file} is open on another page too. What you change here is kept as a copy of its own.`);
}

/**
 * Keeps what is open in the browser under a name from now on; under another one where another page has that. A folder that is served is
 * left alone: it is not the place of a character that comes from elsewhere.
 */
async function claimed(wanted: string): Promise<boolean> {
  await flushed();
  folder?.leave();
  folder = undefined;
  id = wanted;
  if (await claim(wanted)) return true;
  id = `${wanted}, copy ${Date.now()}`;
  await claim(id);
  return false;
}

/** Opens a character that is kept in the browser. */
export const reopen = (kept: SavedCharacter): Promise<void> => openKept(kept);

/** Begins a character with the bare sheet of Wick's drawings, to be cut and timed. */
export async function beginWithDrawings(): Promise<void> {
  const { files } = await demo('wick');
  await beginNew();
  await take(new Map([['wick.png', files.get('wick.png')!]]));
}

/**
 * Gives the open character a name. Where the browser keeps it, its file is called after it, unless rehearsals or controls name that file
 * already; in a folder the file is what it is.
 */
export function nameCharacter(name: string): void {
  const { definition, file, files } = state();
  if (name === '' || name === definition.name) return;
  act({ says: `name ${name}`, changes: [{ op: 'set', path: ['name'], value: name }] }, 'name');
  const isFree = folder === undefined && ![...files.keys()].some(isBeside);
  const end = '.dothop.yaml';
  if (isFree && file === `${definition.name ?? ''}${end}` && /^[\w-]+$/.test(name))
    useWorkbench.setState({ file: `${name}${end}` });
}

/** Begins a character with nothing. */
export async function beginNew(): Promise<void> {
  await claimed(`new ${Date.now()}`);
  open({
    file: 'character.dothop.yaml',
    text: emptyText('character'),
    files: new Map(),
    drawn: new Map(),
    room: 'cut',
  });
  tell('An empty character. Drop its drawings on the page.');
}

/** Takes files that were dropped or chosen: a character, or pictures for the one that is open. */
export async function take(given: NamedFiles): Promise<void> {
  try {
    const files = await unpacked(given);
    const found = await characterIn(files);
    if (found !== undefined) {
      await claimed(`opened ${found.file} ${Date.now()}`);
      const { opened, refused } = await toOpen(found);
      open(opened);
      if (refused.length > 0) tell(refused.join(' '), true);
      else tell(`${found.file} is open.`);
      return;
    }
    await bring(files);
  } catch (error) {
    tell(error instanceof Error ? error.message : String(error), true);
  }
}

/** Takes pictures into the open character. */
async function bring(files: NamedFiles): Promise<void> {
  const brought = await bringIn(files, state().definition);
  addFiles(brought.files, brought.drawn);
  act(brought.edit);
  if (brought.sheet !== undefined) {
    const clips = state().definition.clips;
    const clip = Object.keys(clips).find(
      (name) => sheetOf(state().definition, clips[name]!) === brought.sheet,
    );
    select({ sheet: brought.sheet, cells: [], clip: clip ?? state().selection.clip });
  }
  tell(brought.told.join(' '), brought.edit.changes.length === 0 && brought.sheet === undefined);
}

/** Saves the character as one zip, with all of its files. */
export async function saveZip(): Promise<void> {
  writeDown();
  const { file, history, files } = state();
  download(file.replace(/(?:\.dothop)?\.\w+$/, '.zip'), await zipOf(file, history.text, files));
}

/** Saves the document alone. */
export function saveDocument(): void {
  writeDown();
  const { file, history } = state();
  download(file, new Blob([history.text], { type: 'text/yaml' }));
}

/** How long nothing must have been changed before it is kept, in milliseconds. */
const pause = 400;

let timer: ReturnType<typeof setTimeout> | undefined;

/** One writing at a time: two that cross would each take the other for another program's. */
const saving = { isOn: false, isAskedAgain: false };

const wasAskedAgain = (): boolean => saving.isAskedAgain;

/** Keeps the open character where it came from. */
async function save(): Promise<void> {
  clearTimeout(timer);
  if (saving.isOn) {
    saving.isAskedAgain = true;
    return;
  }
  saving.isOn = true;
  saving.isAskedAgain = false;
  await saveOnce();
  saving.isOn = false;
  if (wasAskedAgain()) await save();
}

async function saveOnce(): Promise<void> {
  writeDown();
  const { file, history, files, room, clash: theirs } = state();
  // While one chooses between two texts, neither is written over.
  if (theirs !== undefined) return;
  setSaved('saving');
  const before = choices;
  try {
    if (folder === undefined)
      await saveCharacter({ id, file, text: history.text, files, room, when: Date.now() });
    else {
      await folder.write(file, history.text, files);
      await takeMissingBases(folder);
    }
    setSaved(state().history === history ? 'saved' : 'unsaved');
  } catch (error) {
    if (error instanceof ChangedMeanwhile && folder !== undefined) {
      setSaved('unsaved');
      // Who has chosen since then has said what counts.
      if (choices === before) await changed(folder);
      else saving.isAskedAgain = true;
      return;
    }
    setSaved('refused');
    const reason = error instanceof Error ? error.message : String(error);
    tell(
      folder === undefined
        ? `The browser does not keep it (${reason}). Save it as a zip, so that nothing is lost.`
        : reason,
      true,
    );
  }
}

/** Reads the documents that the text builds on now. */
async function followBases(): Promise<void> {
  const { file, history, files } = state();
  const found = await basesAmong(file, history.text, files);
  const now = state();
  // Another text or other files may have come meanwhile, and are looked at by a call of their own.
  if (now.history !== history || now.files !== files) return;
  if (JSON.stringify([...found]) !== JSON.stringify([...now.bases])) exchangeBases(found);
}

/** The command hands over what the document builds on once the folder's document names it. */
async function takeMissingBases(from: Folder): Promise<void> {
  const missing = [...state().bases].flatMap(([address, base]) => ('trouble' in base ? [address] : []));
  if (missing.length === 0) return;
  const { file, text, files } = await from.read();
  if (!missing.some((address) => files.has(address))) return;
  const { drawn } = await decoded(files);
  exchangeFiles(files, drawn, await basesAmong(file, text, files));
  from.shows(files);
}

/** Keeps it whenever it changes. */
function keepUp(): void {
  useWorkbench.subscribe((now, before) => {
    if (now.history !== before.history || now.files !== before.files) void followBases();
    if (now.saved !== 'unsaved' || (now.history === before.history && now.files === before.files)) return;
    clearTimeout(timer);
    timer = setTimeout(() => {
      // What was only opened is kept where it is already.
      if (state().saved === 'unsaved') void save();
    }, pause);
  });
}
