import type { Controller } from 'dot-hop';
import { gameCode, gameKinds, namesFile, namesFileOf } from 'dot-hop/pack';
import type { GameKind } from 'dot-hop/pack';
import { useState } from 'react';
import { Button } from 'react-aria-components';
import { download } from '../../character/files.js';
import { tell, useWorkbench } from '../../character/store.js';
import { Choice } from '../../parts/ui.js';

/** What must be there before the code runs. */
const wants: Readonly<Record<GameKind, string>> = {
  canvas: 'npm install dot-hop @dot-hop/browser; npm install --save-dev vite @dot-hop/cli',
  webgl: 'npm install dot-hop @dot-hop/browser; npm install --save-dev vite @dot-hop/cli',
  three:
    'npm install dot-hop @dot-hop/browser @dot-hop/three three; npm install --save-dev vite @dot-hop/cli @types/three',
  server: 'npm install dot-hop',
};

const config = `import { dotHop } from '@dot-hop/cli/vite';
export default { plugins: [dotHop({ names: true })] };
`;

async function copy(text: string, what: string): Promise<void> {
  const isCopied = await navigator.clipboard.writeText(text).then(
    () => true,
    () => false,
  );
  tell(
    isCopied ? `${what} is copied` : 'The browser does not let it be copied: select it by hand.',
    !isCopied,
  );
}

/** Code in TypeScript for this very character. */
export function InYourGame({ controller, name }: { readonly controller: Controller; readonly name: string }) {
  const [kind, setKind] = useState<GameKind>('canvas');
  const [plays, setPlays] = useState<'packed' | 'source'>('source');
  const file = useWorkbench((state) => state.file).replace(/^.*\//, '');
  const isServer = kind === 'server';
  const packed = `${name}-game.json`;
  const document = isServer || plays === 'packed' ? packed : file;
  const code = gameCode(controller, kind, document);
  const names = namesFileOf(file);
  return (
    <>
      <div className="fieldset">
        <Choice label="your game draws on" value={kind} options={gameKinds} onChange={setKind} />
        {isServer ? null : (
          <Choice
            label="and plays"
            value={plays}
            options={{ source: `${file}, as it is edited`, packed: `${packed}, as it is packed` }}
            onChange={setPlays}
          />
        )}
      </div>
      <p className="hint">
        {isServer
          ? `It plays ${document}, which “pack it” saves when it is compiled.`
          : `It stands beside ${document} and its images, in a page that Vite builds.`}
      </p>
      <Code title="install" text={wants[kind]} />
      {isServer ? null : <Code title="vite.config.js" text={config} />}
      <Code title="game.ts" text={code} />
      {isServer ? null : (
        <div className="row">
          <Button
            className="small"
            onPress={() => {
              download(names, new Blob([namesFile(file, controller)], { type: 'text/plain' }));
              tell(`${names} is saved`);
            }}
          >
            Save {names}
          </Button>
          <span className="hint">the names for the compiler: a misspelt signal is underlined</span>
        </div>
      )}
    </>
  );
}

function Code({ title, text }: { readonly title: string; readonly text: string }) {
  return (
    <section className="code" aria-label={title}>
      <div className="row spread">
        <h2>{title}</h2>
        <Button className="small" aria-label={`copy ${title}`} onPress={() => void copy(text, title)}>
          copy
        </Button>
      </div>
      <pre tabIndex={0}>
        <code>{text}</code>
      </pre>
    </section>
  );
}
