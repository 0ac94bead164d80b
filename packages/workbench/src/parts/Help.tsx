import { glossary } from 'dot-hop/explain';
import type { Term } from 'dot-hop/explain';
import { CircleHelp } from 'lucide-react';
import { Button, Dialog, DialogTrigger, Popover } from 'react-aria-components';
import type { RoomName } from '../character/rooms.js';
import { visit } from '../visit/visit.js';
import { pictureOf } from './terms-pictures.js';

/** The words that each room speaks of. */
const spoken: Readonly<Record<RoomName, readonly Term[]>> = {
  cut: ['sheet', 'cell', 'pivot', 'box', 'point'],
  time: ['clip', 'frame', 'loop', 'cue', 'span', 'stride'],
  turn: ['compass', 'dead zone', 'flipbook'],
  signals: ['signal', 'press', 'derived signal', 'band'],
  rank: [
    ...(['state', 'rank', 'rest', 'as long as', 'starts when', 'bare state', 'hop', 'gives way'] as const),
    ...(['bridge', 'phase', 'carry', 'gait', 'variety', 'variant', 'group', 'track', 'tag'] as const),
  ],
  try: ['signal', 'state', 'rehearsal'],
  check: ['finding', 'rank', 'rest', 'clip'],
  ship: ['controller', 'performer', 'signal', 'press', 'report', 'cue', 'pose', 'box', 'point'],
};

/** What the words of a room mean, each with a picture. */
export function RoomHelp({ room }: { readonly room: RoomName }) {
  return (
    <DialogTrigger>
      <Button className="icon" aria-label="words of this room">
        <CircleHelp size={17} />
      </Button>
      <Popover className="list help">
        <Dialog aria-label="words of this room">
          {({ close }) => (
            <>
              <ul>
                {spoken[room].map((term) => (
                  <Word key={term} term={term} />
                ))}
              </ul>
              <Button
                className="small lamp"
                onPress={() => {
                  close();
                  visit(0);
                }}
              >
                Show me round, two minutes
              </Button>
            </>
          )}
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

/** What one word means. */
export function Help({ term }: { readonly term: Term }) {
  return (
    <DialogTrigger>
      <Button className="icon what-is" aria-label={`what is “${term}”?`}>
        <CircleHelp size={13} />
      </Button>
      <Popover className="list help">
        <Dialog aria-label={term}>
          <ul>
            <Word term={term} />
          </ul>
        </Dialog>
      </Popover>
    </DialogTrigger>
  );
}

function Word({ term }: { readonly term: Term }) {
  return (
    <li>
      <img src={pictureOf(term)} alt="" width={96} height={54} />
      <span>
        <b>{term}</b> {glossary[term]}
      </span>
    </li>
  );
}
