import { Suspense, lazy, useEffect, useState } from 'react';
import { Button, Dialog, Modal } from 'react-aria-components';
import { droppedFiles } from './character/files.js';
import { saveZip, settle, take } from './character/place.js';
import { roomNames } from './character/rooms.js';
import type { RoomName } from './character/rooms.js';
import { goTo, redo, showText, undo, useWorkbench } from './character/store.js';
import { Head } from './Head.js';
import { FoundList } from './parts/FoundList.js';
import { showShelf, useShelf } from './shelf/shown.js';
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
        goTo(roomNames[Number(event.key) - 1]!);
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
