import { pathText } from 'dot-hop';
import { useMemo, useState } from 'react';
import { GridList, GridListItem } from 'react-aria-components';
import { useFindings } from '../../character/findings.js';
import type { FoundItem } from '../../character/findings.js';
import { roomOf, roomTitles } from '../../character/rooms.js';
import { useWorkbench } from '../../character/store.js';
import { FoundList } from '../../parts/FoundList.js';
import { MissingImages } from '../../parts/MissingImages.js';
import { ViewSwitch } from '../../parts/ViewSwitch.js';
import { Check } from '../../parts/ui.js';
import { Finding } from './Finding.js';
import { WhatIf } from './WhatIf.js';
import { Winners } from './Winners.js';

/** Over what is found stands the room in which it is mended. */
function headingOf({ path }: FoundItem): string {
  const room = roomOf(path);
  if (room !== undefined) return roomTitles[room];
  return path[0] === 'accept' ? 'What is accepted' : 'In the text';
}
const headings: readonly string[] = [...Object.values(roomTitles), 'In the text', 'What is accepted'];

const keyOf = ({ code, path, text }: FoundItem): string => `${code} ${pathText(path)} ${text}`;

const views = { found: 'what is found', wins: 'who wins', whatIf: 'what if' };
type View = keyof typeof views;

/** All that is found, by room, with what can be done about it; and who takes over in which situation. */
export function CheckRoom() {
  const [view, setView] = useState<View>('found');
  const isSound = useWorkbench((state) => state.troubles.length === 0);
  return (
    <div className="check-room">
      <ViewSwitch label="what is looked at" views={views} current={view} onChange={setView} />
      {!isSound ? (
        <div className="middle">
          <p className="hint">The character cannot be checked yet. Mend this first:</p>
          <FoundList />
        </div>
      ) : view === 'found' ? (
        <Found />
      ) : view === 'wins' ? (
        <Winners />
      ) : (
        <WhatIf />
      )}
    </div>
  );
}

function Found() {
  const { seen, isLooking } = useFindings();
  const [picked, setPicked] = useState({ key: '', place: 0 });
  const [showsAccepted, setShowsAccepted] = useState(false);
  const accepted = seen.filter((one) => one.accepted !== undefined).length;
  const shown = useMemo(
    () =>
      seen
        .filter((one) => showsAccepted || one.accepted === undefined)
        .map((one) => ({ one, heading: headingOf(one) }))
        .sort((a, b) => headings.indexOf(a.heading) - headings.indexOf(b.heading)),
    [seen, showsAccepted],
  );
  // What is mended goes; the next one comes in its place.
  const at = shown.findIndex(({ one }) => keyOf(one) === picked.key);
  const current = shown[at < 0 ? Math.min(picked.place, shown.length - 1) : at]?.one;
  const weighty = shown.filter(({ one }) => one.severity !== 'note' && one.accepted === undefined).length;
  return (
    <div className="found-room">
      <div className="panel">
        <h2>
          {weighty === 0 ? 'Nothing wrong' : `${weighty} to look at`}
          <small> {isLooking ? 'looking …' : ''}</small>
        </h2>
        <MissingImages />
        <Check
          label={`those accepted too (${accepted})`}
          isOn={showsAccepted}
          isDisabled={accepted === 0}
          onChange={setShowsAccepted}
        />
        <GridList
          aria-label="what is found, by room"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={current === undefined ? [] : [keyOf(current)]}
          onSelectionChange={(keys) => {
            if (keys === 'all') return;
            for (const key of keys)
              setPicked({ key: String(key), place: shown.findIndex(({ one }) => keyOf(one) === key) });
          }}
          items={shown.map((entry, i) => ({
            ...entry,
            id: keyOf(entry.one),
            isFirst: entry.heading !== shown[i - 1]?.heading,
          }))}
          renderEmptyState={() => (
            <p className="hint">No state is out of reach, nothing flickers or jumps.</p>
          )}
        >
          {({ id, one, heading, isFirst }) => (
            <GridListItem
              id={id}
              textValue={`${one.title}: ${pathText(one.path)}`}
              className={`found-row ${one.severity}`}
            >
              <span className="what">
                {isFirst ? <em>{heading}</em> : null}
                <b>{one.title}</b>
                <small>
                  {one.accepted === undefined ? '' : 'accepted: '}
                  {pathText(one.path)}
                </small>
              </span>
            </GridListItem>
          )}
        </GridList>
      </div>
      <div className="middle">
        {current === undefined ? (
          <p className="hint empty">
            Every situation that the conditions can tell apart was gone through, and every drawing measured.
          </p>
        ) : (
          <Finding key={keyOf(current)} finding={current} />
        )}
      </div>
    </div>
  );
}
