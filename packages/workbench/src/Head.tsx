import { redoSays, undoSays } from 'dot-hop/edit';
import { ChevronDown, FileText, Redo2, Undo2 } from 'lucide-react';
import { memo, useDeferredValue, useEffect, useState } from 'react';
import { Button, Menu, MenuItem, MenuTrigger, Popover, Separator } from 'react-aria-components';
import { demoNames, demoTitles } from './character/demo.js';
import { chosenFiles } from './character/files.js';
import { savedCharacters } from './character/saved.js';
import type { SavedCharacter } from './character/saved.js';
import { beginNew, nameCharacter, openDemo, reopen, saveDocument, saveZip, take } from './character/place.js';
import { roomNames, roomTitles } from './character/rooms.js';
import { goTo, redo, showText, undo, useWorkbench } from './character/store.js';
import { RoomHelp } from './parts/Help.js';
import { IconButton } from './parts/ui.js';
import { showShelf, useShelf } from './shelf/shown.js';

const isMac = navigator.platform.startsWith('Mac');
const withKey = (key: string): string => (isMac ? `⌘${key}` : `Ctrl+${key}`);

/** The bar at the top: the character, its files, the rooms, and what is done everywhere. */
export function Head() {
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
        {roomNames.map((key, i) => (
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

/** What the character is called; pressed, it can be written again. */
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
      {{ saved: 'saved', saving: 'saving …', unsaved: 'changed', refused: 'not saved' }[saved]}
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
        label={on === undefined ? 'nothing to redo' : `Redo: ${on}`}
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
  const [kept, setKept] = useState<readonly SavedCharacter[]>([]);
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
    <MenuTrigger onOpenChange={(isOpen) => isOpen && void savedCharacters().then(setKept, () => setKept([]))}>
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
              {one.file}, saved {new Date(one.when).toLocaleString()}
            </MenuItem>
          ))}
        </Menu>
      </Popover>
    </MenuTrigger>
  );
});
