import type { Controller, ControllerDefinition, DocumentPath } from 'dot-hop';
import {
  beginHistory,
  beside,
  changedData,
  changesOver,
  edited,
  redone,
  styleOf,
  undone,
  withText,
} from 'dot-hop/edit';
import type { Edit, History } from 'dot-hop/edit';
import type { Bases, Layers } from 'dot-hop/document';
import { create } from 'zustand';
import { letGo } from './pictures.js';
import type { Drawn } from './pictures.js';
import { readData, readText } from './reading.js';
import type { Sizes, Trouble } from './reading.js';
import { roomOf } from './rooms.js';
import type { RoomName } from './rooms.js';

/** What one is looking at; the stage plays it, and the text pane shows its lines. */
export interface Selection {
  readonly sheet: string | undefined;
  /** Cells of the sheet, the latest last. */
  readonly cells: readonly number[];
  readonly clip: string | undefined;
  /** Frames of the clip, the latest last. */
  readonly frames: readonly number[];
  readonly signal: string | undefined;
  readonly state: string | undefined;
  /** A group or a track, whose states are looked at together. */
  readonly holder: Holder | undefined;
}

/** What holds states. */
export interface Holder {
  readonly kind: 'group' | 'track';
  readonly name: string;
}

/** A character that is open: its text, what the text comes to, its files, and what one is looking at. */
export interface Workbench {
  /** The document's file, as it is called in its folder. */
  readonly file: string;
  readonly history: History;
  /** What the rooms show: the last text that could be read, with edits that are not in the text yet. */
  readonly definition: ControllerDefinition;
  /** The documents that it builds on, by their address from it. */
  readonly bases: Bases;
  /** What it says itself, and what it takes over, where it builds on others. */
  readonly layers: Layers | undefined;
  /** What plays: the last that could be compiled. */
  readonly controller: Controller | undefined;
  /** Whether what plays is what the rooms show. */
  readonly isCurrent: boolean;
  readonly troubles: readonly Trouble[];
  /** What was done and is not in the text yet, in words. */
  readonly waits: string | undefined;
  /** Every file of the character but the document, by its name in the folder. */
  readonly files: ReadonlyMap<string, Blob>;
  readonly drawn: ReadonlyMap<string, Drawn>;
  readonly room: RoomName;
  readonly selection: Selection;
  /** What was just done or went wrong, to be read out. */
  readonly notice: { readonly text: string; readonly isBad: boolean } | undefined;
  readonly isTextOpen: boolean;
  /** A line of the text that is to be looked at. */
  readonly line: { readonly number: number } | undefined;
  /** Whether the rooms show the text as it is; else what was readable last. */
  readonly isReadable: boolean;
  /** What another program has written, while there were changes here: one has to choose. */
  readonly clash: string | undefined;
  /** Whether everything is kept where it came from. */
  readonly saved: 'saved' | 'saving' | 'unsaved' | 'refused';
}

export const emptyDefinition: ControllerDefinition = { dotHop: 1, sheets: {}, clips: {} };
export const emptyText = (name: string): string => `dotHop: 1\nname: ${name}\nsheets: {}\nclips: {}\n`;
const nothing: Selection = {
  ...{
    sheet: undefined,
    cells: [],
    clip: undefined,
    frames: [],
    signal: undefined,
    state: undefined,
    holder: undefined,
  },
};

export const useWorkbench = create<Workbench>(() => ({
  file: 'character.dothop.yaml',
  history: beginHistory(emptyText('character')),
  definition: { ...emptyDefinition, name: 'character' },
  bases: new Map(),
  layers: undefined,
  controller: undefined,
  isCurrent: false,
  troubles: [],
  waits: undefined,
  files: new Map(),
  drawn: new Map(),
  room: 'cut',
  selection: nothing,
  notice: undefined,
  isTextOpen: false,
  line: undefined,
  isReadable: true,
  clash: undefined,
  saved: 'saved',
}));

const { getState: state, setState: put } = useWorkbench;

export const sizesOf = (drawn: ReadonlyMap<string, Drawn>): Sizes =>
  Object.fromEntries([...drawn].map(([file, { picture }]) => [file, picture]));

/** Files as they become; one that is `undefined` goes. */
type FilesToBe = ReadonlyMap<string, Blob | undefined>;

/** What a step does to other files than the document: the rehearsals in which something is renamed too. */
export interface FileChange {
  readonly before: FilesToBe;
  readonly after: FilesToBe;
}

type Step = History['past'][number];
const fileChanges = new WeakMap<Step, FileChange>();
const latest = (steps: readonly Step[]): Step | undefined => steps[steps.length - 1];
const withFiles = (some: FilesToBe | undefined): { files?: Workbench['files'] } => {
  if (some === undefined || some.size === 0) return {};
  const all = [...new Map([...state().files, ...some])];
  return { files: new Map(all.flatMap(([name, file]) => (file === undefined ? [] : [[name, file]]))) };
};

/** Edits that show already and are not in the text yet: to write them takes longer than a picture. */
let waiting: {
  readonly edit: Edit;
  /** What it is done to. */
  readonly whole: ControllerDefinition;
  readonly joins: string | undefined;
  readonly files: FileChange | undefined;
}[] = [];
let timer: ReturnType<typeof setTimeout> | undefined;

/**
 * Does something to the document. It shows in the next picture; its text follows right after.
 *
 * @param joins edits with the same one that follow each other are undone together: those of one drag
 * @param files what it does to other files than the document
 */
export function act(edit: Edit, joins?: string, files?: FileChange): void {
  if (edit.changes.length === 0) return;
  const { definition, drawn, controller, selection } = state();
  const next = changedData(definition, edit.changes);
  const read = readData(next, sizesOf(drawn));
  waiting.push({ edit, whole: definition, joins, files });
  put({
    ...withFiles(files?.after),
    definition: next,
    controller: read.controller ?? controller,
    isCurrent: read.controller !== undefined,
    troubles: read.troubles,
    selection: fitting(selection, next),
    notice: { text: edit.says, isBad: false },
    waits: edit.says,
    saved: 'unsaved',
  });
  clearTimeout(timer);
  timer = setTimeout(writeDown, 60);
}

/** Writes files beside the document, no pictures among them: a step that is undone like any other. */
export function putBeside(says: string, after: FilesToBe): void {
  writeDown();
  const { files, history } = state();
  const next = beside(history, says);
  const before = new Map([...after.keys()].map((name) => [name, files.get(name)]));
  fileChanges.set(latest(next.past)!, { before, after });
  put({ ...withFiles(after), history: next, notice: { text: says, isBad: false }, saved: 'unsaved' });
}

/** Brings the text up to what shows. */
export function writeDown(): void {
  clearTimeout(timer);
  if (waiting.length === 0) return;
  const edits = waiting;
  waiting = [];
  let { history, layers } = state();
  for (const { edit, whole, joins, files } of edits) {
    // What it takes over is changed here and not where it stands: others may build on that too.
    const changes = layers === undefined ? edit.changes : changesOver(layers, whole, edit.changes);
    if (layers !== undefined) layers = { ...layers, own: changedData(layers.own, changes) };
    history = edited(history, { ...edit, changes }, joins);
    const step = latest(history.past);
    if (files !== undefined && step !== undefined) fileChanges.set(step, files);
  }
  take(history);
}

/** Reads a history's text and shows what it comes to. */
function take(history: History, notice?: string): void {
  const { file, drawn, definition, controller, selection, bases } = state();
  const read = readText(history.text, file, sizesOf(drawn), bases);
  // What shows already stays the very same, so that nothing is drawn again for it.
  const isSame =
    read.definition !== undefined &&
    read.troubles.length === 0 &&
    controller !== undefined &&
    JSON.stringify(read.definition) === JSON.stringify(definition) &&
    state().isCurrent;
  const now = isSame ? definition : (read.definition ?? definition);
  const isEmpty = read.definition !== undefined && Object.keys(now.clips).length === 0;
  put({
    history,
    waits: undefined,
    isReadable: read.definition !== undefined,
    definition: now,
    layers: read.layers,
    controller: isSame ? controller : (read.controller ?? (isEmpty ? undefined : controller)),
    isCurrent: isSame || read.controller !== undefined,
    troubles: read.troubles,
    // Half written, a thing may be gone for a moment: it is looked at again when it is there again.
    selection: read.troubles.length > 0 && selection.clip !== undefined ? selection : fitting(selection, now),
    saved: 'unsaved',
    ...(notice === undefined ? {} : { notice: { text: notice, isBad: false } }),
  });
}

/** What is still there of what one was looking at; else the first of its kind. */
function fitting(selection: Selection, { sheets, clips }: ControllerDefinition): Selection {
  const sheet =
    selection.sheet !== undefined && selection.sheet in sheets ? selection.sheet : Object.keys(sheets)[0];
  const clip =
    selection.clip !== undefined && selection.clip in clips ? selection.clip : Object.keys(clips)[0];
  if (sheet === selection.sheet && clip === selection.clip) return selection;
  return {
    ...selection,
    sheet,
    clip,
    cells: sheet === selection.sheet ? selection.cells : [],
    frames: clip === selection.clip ? selection.frames : [],
  };
}

export function undo(): void {
  writeDown();
  const { history } = state();
  const last = latest(history.past);
  if (last === undefined) return;
  put(withFiles(fileChanges.get(last)?.before));
  take(undone(history), `undone: ${last.says}`);
}

export function redo(): void {
  writeDown();
  const { history } = state();
  const next = latest(history.future);
  if (next === undefined) return;
  const again = redone(history);
  const files = fileChanges.get(next);
  if (files !== undefined) fileChanges.set(latest(again.past)!, files);
  put(withFiles(files?.after));
  take(again, `redone: ${next.says}`);
}

/** The text as somebody writes it by hand. */
export function type(text: string): void {
  writeDown();
  take(withText(state().history, text, 'typing', 'typing'));
}

/** A document that was read from somewhere, with its files. */
export interface Opened {
  readonly file: string;
  readonly text: string;
  readonly files: ReadonlyMap<string, Blob>;
  readonly drawn: ReadonlyMap<string, Drawn>;
  /** The documents that it builds on; none by default. */
  readonly bases?: Bases;
  /** Where one was when it was left. */
  readonly room?: RoomName;
}

export function open({ file, text, files, drawn, bases = new Map(), room }: Opened): void {
  waiting = [];
  letGo(state().drawn.values());
  put({
    file,
    files,
    drawn,
    bases,
    selection: nothing,
    definition: emptyDefinition,
    controller: undefined,
    isCurrent: false,
    ...(room && { room }),
  });
  take(beginHistory(text, styleOf(file)));
  put({ saved: 'saved', notice: undefined });
}

/** Takes over files as another program has written them. */
export function exchangeFiles(
  files: ReadonlyMap<string, Blob>,
  drawn: ReadonlyMap<string, Drawn>,
  bases: Bases,
): void {
  letGo(state().drawn.values());
  put({ files, drawn, bases, isCurrent: false });
  writeDown();
  take(state().history);
}

/** Takes over what another program has written; it can be undone like anything else. */
export const takeOver = (text: string): void => {
  writeDown();
  take(
    withText(state().history, text, 'the change from outside'),
    'another program has changed the document',
  );
};

/** Takes over the documents that the open one builds on. */
export function exchangeBases(bases: Bases): void {
  put({ bases, isCurrent: false });
  writeDown();
  const { saved } = state();
  take(state().history);
  put({ saved });
}

/** Adds files to the character; their images can be named from now on. */
export function addFiles(files: ReadonlyMap<string, Blob>, drawn: ReadonlyMap<string, Drawn>): void {
  const before = state();
  if (drawn.size === 0) {
    // No image that could be named: the character stays the very same.
    put({ files: new Map([...before.files, ...files]), saved: 'unsaved' });
    return;
  }
  put({
    isCurrent: false,
    files: new Map([...before.files, ...files]),
    drawn: new Map([...before.drawn, ...drawn]),
    saved: 'unsaved',
  });
  writeDown();
  take(state().history);
}

export const select = (selection: Partial<Selection>): void =>
  put({
    selection: {
      ...state().selection,
      // A state and what holds states are not looked at together.
      ...('state' in selection && { holder: undefined }),
      ...('holder' in selection && { state: undefined }),
      ...selection,
    },
  });
export const goTo = (room: RoomName): void => put({ room });
export const tell = (text: string, isBad = false): void => put({ notice: { text, isBad } });
export const setSaved = (saved: Workbench['saved']): void => put({ saved });
export const showText = (isTextOpen: boolean): void => put({ isTextOpen });

/**
 * Goes where something is: to the room and the thing that a path of the document names, or to its line in the text.
 *
 * @param line of a fault, which is mended in the text; from 1
 */
export function follow(path: DocumentPath, line?: number): void {
  const { sheets, clips } = state().definition;
  const [part, first, field, number] = path;
  const name = String(first);
  const isGone = (part === 'sheets' && !(name in sheets)) || (part === 'clips' && !(name in clips));
  const room = isGone ? undefined : roomOf(path);
  if (room === undefined) showText(true);
  else goTo(room);
  if (room === 'cut') {
    const cell = field === 'perCell' || field === 'cells' ? Number(number) : NaN;
    select({ sheet: name, ...(Number.isInteger(cell) ? { cells: [cell] } : {}) });
  } else if (room === 'time' && part === 'clips') select({ clip: name, frames: [] });
  else if (room === 'signals') select({ signal: name });
  else if (room === 'rank') {
    // The innermost that is named.
    const at = Math.max(...['states', 'groups', 'tracks'].map((one) => path.lastIndexOf(one)));
    const inner = at < 0 || path[at + 1] === undefined ? undefined : String(path[at + 1]);
    if (inner !== undefined && path[at] === 'states') select({ state: inner });
    else if (inner !== undefined)
      select({ holder: { kind: path[at] === 'groups' ? 'group' : 'track', name: inner } });
  }
  if (line !== undefined) put({ isTextOpen: true, line: { number: line } });
}
