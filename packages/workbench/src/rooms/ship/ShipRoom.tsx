import type { Controller } from 'dot-hop';
import { useState } from 'react';
import { useWorkbench } from '../../character/store.js';
import { FoundList } from '../../parts/FoundList.js';
import { ViewSwitch } from '../../parts/ViewSwitch.js';
import { InYourGame } from './InYourGame.js';
import { PackIt } from './PackIt.js';
import { Report } from './Report.js';

const views = { pack: 'pack it', code: 'in your game', report: 'for the programmer' };
type View = keyof typeof views;

/** What shows in each view. */
const pages: Readonly<
  Record<View, React.ComponentType<{ readonly controller: Controller; readonly name: string }>>
> = {
  pack: PackIt,
  code: InYourGame,
  report: Report,
};

/** The character leaves for its game: packed, with code that plays it, and with all that a programmer must know. */
export function ShipRoom() {
  const [view, setView] = useState<View>('pack');
  const controller = useWorkbench((state) => state.controller);
  const isCurrent = useWorkbench((state) => state.isCurrent);
  const file = useWorkbench((state) => state.file);
  const name = file.replace(/^.*\//, '').replace(/(?:\.dothop)?\.\w+$/, '');
  const Page = pages[view];
  return (
    <div className="ship-room">
      <ViewSwitch label="what is shipped" views={views} current={view} onChange={setView} />
      <div className="middle">
        {controller === undefined || !isCurrent ? (
          <>
            <p className="hint">The character cannot be shipped yet. Mend this first:</p>
            <FoundList />
          </>
        ) : (
          <Page controller={controller} name={name} />
        )}
      </div>
    </div>
  );
}
