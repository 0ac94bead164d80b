import { redoSays, undoSays } from 'dot-hop/edit';
import { ChevronDown, FileText, Redo2, Undo2 } from 'lucide-react';
import { Suspense, lazy, memo, useDeferredValue, useEffect, useState } from 'react';
import {
  Button,
  Dialog,
  Menu,
  MenuItem,
  MenuTrigger,
  Modal,
  Popover,
  Separator,
} from 'react-aria-components';
import { chosenFiles, droppedFiles } from './character/files.js';
import { demoNames, demoTitles } from './character/demo.js';
import {
  beginNew,
  nameCharacter,
  openDemo,
  reopen,
  saveDocument,
  saveZip,
  settle,
  take,
} from './character/place.js';
import { keptCharacters } from './character/kept.js';
import type { Kept } from './character/kept.js';
import { goTo, redo, showText, undo, useWorkbench } from './character/store.js';
import { roomTitles } from './character/rooms.js';
import type { RoomName } from './character/rooms.js';
import { FoundList } from './parts/FoundList.js';
import { RoomHelp } from './parts/Help.js';
import { IconButton } from './parts/ui.js';
import { showShelf, useShelf } from './shelf/shelf.js';
import { Stage } from './stage/Stage.js';
import { Tour } from './visit/Tour.js';
import { decline, useVisit, visit } from './visit/visit.js';

const rooms: Readonly<Record<RoomName, React.ComponentType>> = {
  cut: lazy(async () => ({ default: (await import('./rooms/cut/CutRoom.js')).CutRoom })),
  time: lazy(async () => ({ default: (await import('./rooms/time/TimeRoom.js')).TimeRoom })),
  turn: lazy(async () => ({ default: (await import('./rooms/turn/TurnRoom.js')).TurnRoom })),
  signals: lazy(async () => ({ default: (await import('./rooms/signals/SignalsRoom.js')).SignalsRoom })),
  rank: lazy(async () => ({ default: (await import('./rooms/rank/RankRoom.js')).RankRoom })),
  try: lazy(async () => ({ default: (await import('./rooms/try/TryRoom.js')).TryRoom })),
  check: lazy(async () => ({ default: (await import('./rooms/check/CheckRoom.js')).CheckRoom })),
  ship: lazy(async () => ({ default: (await import('./rooms/ship/ShipRoom.js')).ShipRoom })),
};
const Shelf = lazy(async () => ({ default: (await import('./shelf/Shelf.js')).Shelf }));
const TextPane = lazy(async () => ({ default: (await import('./text/TextPane.js')).TextPane }));

const isMac = navigator.platform.startsWith('Mac');
const withKey = (key: string): string => (isMac ? `⌘${key}` : `Ctrl+${key}`);

/** What stood in a field when it was entered, or was taken over last. */
const standing = new WeakMap<HTMLInputElement, string>();

/**
 * Whether Ctrl+Z is for what is being written. In a field it is only as long as what is written there was not taken over:
 * after that it undoes the edit, as everywhere else.
 */
function isWriting(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return target.value !== (standing.get(target) ?? target.value);
  return target instanceof HTMLElement && (target.isContentEditable || target.tagName === 'TEXTAREA');
}

/** Remembers what stands in fields. */
function useStanding(): void {
  useEffect(() => {
    const note = ({ target }: Event): void => {
      if (target instanceof HTMLInputElement) standing.set(target, target.value);
    };
    const enter = (event: KeyboardEvent): void => {
      // The field says what was made of it a moment later.
      if (event.key === 'Enter') setTimeout(() => note(event));
    };
    window.addEventListener('focusin', note);
    window.addEventListener('keydown', enter);
    return () => {
      window.removeEventListener('focusin', note);
      window.removeEventListener('keydown', enter);
    };
  }, []);
}

/** Keys that act everywhere. */
function useKeys(): void {
  useEffect(() => {
    const press = (event: KeyboardEvent): void => {
      const held = event.ctrlKey || event.metaKey;
      const key = event.key.toLowerCase();
      if (held && key === 'z' && !isWriting(event.target)) {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
      } else if (held && key === 'y' && !isWriting(event.target)) {
        event.preventDefault();
        redo();
      } else if (held && key === 's') {
        event.preventDefault();
        void saveZip();
      } else if (event.altKey && /^[1-8]$/.test(event.key)) {
        event.preventDefault();
        goTo((Object.keys(rooms) as RoomName[])[Number(event.key) - 1]!);
      } else if (event.altKey && key === '0') {
        event.preventDefault();
        showShelf(!useShelf.getState().isOpen);
      } else if (event.altKey && key === 't') {
        event.preventDefault();
        showText(!useWorkbench.getState().isTextOpen);
      }
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, []);
}

/** The workbench: rooms in the order of the work, the stage beside them, the text under them. */
export function App() {
  useKeys();
  useStanding();
  const room = useWorkbench((state) => state.room);
  const isTextOpen = useWorkbench((state) => state.isTextOpen);
  const Room = rooms[room];
  const isOnShelf = useShelf((state) => state.isOpen);
  if (isOnShelf)
    return (
      <div className="workbench">
        <Drop />
        <Head />
        <Suspense fallback={<p className="hint">Looking through the characters ...</p>}>
          <Shelf />
        </Suspense>
        <Notice />
        <Clash />
      </div>
    );
  return (
    <div className="workbench">
      <Drop />
      <Head />
      <main className={`${isTextOpen ? 'with-text' : ''} ${room === 'try' ? 'wide' : ''}`}>
        <div className="room" data-testid={`room-${room}`}>
          <Suspense fallback={<p className="hint">Opening the room ...</p>}>
            <Room />
          </Suspense>
        </div>
        {room === 'try' ? null : (
          <aside>
            <Stage />
            {room === 'check' || room === 'ship' ? null : <FoundList />}
          </aside>
        )}
        {isTextOpen ? (
          <section className="text" aria-label="text of the document">
            <Suspense fallback={<p className="hint">Opening the text ...</p>}>
              <TextPane />
            </Suspense>
          </section>
        ) : null}
      </main>
      <Notice />
      <Clash />
      <Tour />
    </div>
  );
}

/** Files and folders that are dropped anywhere on the page. */
function Drop() {
  const [isOver, setIsOver] = useState(false);
  useEffect(() => {
    const hasFiles = (event: DragEvent): boolean => event.dataTransfer?.types.includes('Files') === true;
    const over = (event: DragEvent): void => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setIsOver(true);
    };
    const leave = (event: DragEvent): void => {
      if (event.relatedTarget === null) setIsOver(false);
    };
    const drop = (event: DragEvent): void => {
      if (!hasFiles(event)) return;
      event.preventDefault();
      setIsOver(false);
      void droppedFiles(event.dataTransfer!.items).then(take);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('dragleave', leave);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('dragleave', leave);
      window.removeEventListener('drop', drop);
    };
  }, []);
  return isOver ? <div className="drop-here">Drop drawings, a folder of them, or a character</div> : null;
}

function Head() {
  const name = useWorkbench((state) => state.definition.name ?? state.file);
  const room = useWorkbench((state) => state.room);
  const isOnShelf = useShelf((state) => state.isOpen);
  useEffect(() => {
    document.title = `${name}: Dot Hop workbench`;
  }, [name]);
  return (
    <header>
      <h1>
        <svg width="18" height="22" viewBox="0 0 9 11" aria-hidden="true" className="crisp">
          <path d="M3 0h3v1h-3zM2 1h5v1h-5z" fill="#8a6a1f" />
          <path d="M2 2h5v6h-5z" fill="#ffc95c" />
          <path d="M4 4h1v3h-1z" fill="#fff2c9" />
          <path d="M1 8h7v1h-7zM2 9h5v2h-5z" fill="#8a6a1f" />
        </svg>
        <CharacterName name={name} />
      </h1>
      <Files />
      <nav className="rooms" aria-label="rooms, in the order of the work">
        {(Object.keys(rooms) as RoomName[]).map((key, i) => (
          <button
            key={key}
            type="button"
            aria-current={room === key && !isOnShelf ? 'page' : undefined}
            aria-keyshortcuts={`Alt+${i + 1}`}
            onClick={() => {
              showShelf(false);
              goTo(key);
            }}
          >
            <b>{i + 1}</b> {roomTitles[key]}
          </button>
        ))}
      </nav>
      <div className="tools">
        <Saved />
        <Tools />
        <RoomHelp room={room} />
      </div>
    </header>
  );
}

/** What the character is called; pressed, it can be written anew. */
function CharacterName({ name }: { readonly name: string }) {
  const [written, setWritten] = useState<string | undefined>();
  if (written === undefined)
    return (
      <button type="button" className="name" title="give it another name" onClick={() => setWritten(name)}>
        {name}
      </button>
    );
  const finish = (): void => {
    nameCharacter(written.trim());
    setWritten(undefined);
  };
  return (
    <input
      className="name"
      aria-label="name of the character"
      value={written}
      autoFocus
      spellCheck={false}
      onFocus={(event) => event.target.select()}
      onChange={(event) => setWritten(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        if (event.key === 'Enter') finish();
        else if (event.key === 'Escape') setWritten(undefined);
      }}
    />
  );
}

/** Whether everything is kept where it came from. */
function Saved() {
  const saved = useWorkbench((state) => state.saved);
  return (
    <span className={`saved ${saved}`} data-testid="saved">
      {{ saved: 'kept', saving: 'keeping …', unsaved: 'changed', refused: 'not kept' }[saved]}
    </span>
  );
}

/** Undo, do again, and the text; they follow an edit right after the picture has. */
function Tools() {
  const back = useWorkbench(({ waits, history }) => waits ?? undoSays(history));
  const on = useWorkbench(({ waits, history }) => (waits === undefined ? redoSays(history) : undefined));
  const isTextOpen = useWorkbench((state) => state.isTextOpen);
  return <ToolButtons back={useDeferredValue(back)} on={useDeferredValue(on)} isTextOpen={isTextOpen} />;
}

const ToolButtons = memo(function ToolButtons({
  back,
  on,
  isTextOpen,
}: {
  readonly back: string | undefined;
  readonly on: string | undefined;
  readonly isTextOpen: boolean;
}) {
  return (
    <>
      <IconButton
        label={back === undefined ? 'nothing to undo' : `Undo: ${back}`}
        keys={withKey('Z')}
        isDisabled={back === undefined}
        onPress={undo}
      >
        <Undo2 size={17} />
      </IconButton>
      <IconButton
        label={on === undefined ? 'nothing to do again' : `Do again: ${on}`}
        keys={withKey('Y')}
        isDisabled={on === undefined}
        onPress={redo}
      >
        <Redo2 size={17} />
      </IconButton>
      <IconButton
        label="text of the document"
        keys="Alt+T"
        isOn={isTextOpen}
        onPress={() => showText(!isTextOpen)}
      >
        <FileText size={17} />
      </IconButton>
    </>
  );
});

/** Opening and saving. */
const Files = memo(function Files() {
  const [kept, setKept] = useState<readonly Kept[]>([]);
  const choose = (isFolder: boolean): void => {
    const input = document.createElement('input');
    input.type = 'file';
    input.multiple = true;
    input.webkitdirectory = isFolder;
    input.addEventListener('change', () => void take(chosenFiles(input.files ?? [])));
    input.click();
  };
  const act = (key: React.Key): void => {
    const [, what, which = ''] = /^(\w+):?(.*)$/.exec(String(key))!;
    if (what === 'shelf') showShelf(true);
    else if (what === 'new') void beginNew();
    else if (what === 'files') choose(false);
    else if (what === 'folder') choose(true);
    else if (what === 'zip') void saveZip();
    else if (what === 'document') saveDocument();
    else if (what === 'demo') void openDemo(which as (typeof demoNames)[number]);
    else {
      const one = kept.find(({ id }) => id === which);
      if (one !== undefined) void reopen(one);
    }
  };
  return (
    <MenuTrigger onOpenChange={(isOpen) => isOpen && void keptCharacters().then(setKept, () => setKept([]))}>
      <Button className="files">
        Character <ChevronDown size={14} />
      </Button>
      <Popover className="list">
        <Menu onAction={act}>
          <MenuItem id="shelf">All characters, on the shelf (Alt+0)</MenuItem>
          <MenuItem id="new">New, with nothing</MenuItem>
          <MenuItem id="files">Open files …</MenuItem>
          <MenuItem id="folder">Open a folder …</MenuItem>
          <Separator />
          <MenuItem id="zip">Save everything as a zip ({withKey('S')})</MenuItem>
          <MenuItem id="document">Save the document alone</MenuItem>
          <Separator />
          {demoNames.map((name) => (
            <MenuItem key={name} id={`demo:${name}`}>
              {demoTitles[name]}
            </MenuItem>
          ))}
          {kept.length > 0 ? <Separator /> : null}
          {kept.slice(0, 6).map((one) => (
            <MenuItem key={one.id} id={`kept:${one.id}`}>
              {one.file}, kept {new Date(one.when).toLocaleString()}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
});

/** What was just done, read out to who does not see it. */
function Notice() {
  const notice = useWorkbench((state) => state.notice);
  const isOffered = useVisit((state) => state.isOffered);
  return (
    <footer className={notice?.isBad === true ? 'foot bad' : 'foot'}>
      <span role="status" data-testid="notice">
        {notice?.text ?? 'Drop drawings or a folder of them anywhere on this page.'}
      </span>
      {isOffered ? (
        <span className="offer">
          First time here?
          <Button className="small lamp" onPress={() => visit(0)}>
            Show me round
          </Button>
          <Button className="small" onPress={decline}>
            Not now
          </Button>
        </span>
      ) : null}
    </footer>
  );
}

/** Two texts of one document, of which one has to be chosen. */
function Clash() {
  const theirs = useWorkbench((state) => state.clash);
  const own = useWorkbench((state) => state.history.text);
  if (theirs === undefined) return null;
  return (
    <Modal isOpen className="modal" isDismissable={false}>
      <Dialog aria-label="two versions of the document" role="alertdialog">
        <h2>Another program has changed the document, and so have you</h2>
        <div className="both">
          <figure>
            <figcaption>yours</figcaption>
            <pre tabIndex={0}>{own}</pre>
          </figure>
          <figure>
            <figcaption>on the disk</figcaption>
            <pre tabIndex={0}>{theirs}</pre>
          </figure>
        </div>
        <p className="row">
          <Button onPress={() => settle(true)}>Keep mine</Button>
          <Button onPress={() => settle(false)}>Take the one on the disk (can be undone)</Button>
        </p>
      </Dialog>
    </Modal>
  );
}
