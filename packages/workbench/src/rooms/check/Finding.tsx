import { pathText } from 'dot-hop';
import { acceptOf } from 'dot-hop/check';
import { acceptFinding, acceptNoMore, remedyOf } from 'dot-hop/edit';
import { useState } from 'react';
import { Button, Input, Label, TextField } from 'react-aria-components';
import type { FoundItem } from '../../character/findings.js';
import { act, follow, useWorkbench } from '../../character/store.js';
import { Remedy } from '../../parts/Remedy.js';
import { clipMeant } from './clip-of.js';
import { FindingPicture } from './FindingPicture.js';

const weights = {
  error: 'is always a mistake',
  warning: 'is nearly always a mistake',
  note: 'is worth knowing',
};

/** One thing that is found: what it is, a picture of it, and what can be done about it. */
export function Finding({ finding }: { readonly finding: FoundItem }) {
  const { code, title, text, severity, path, accepted } = finding;
  const definition = useWorkbench((state) => state.definition);
  const controller = useWorkbench((state) => state.controller);
  const remedy = remedyOf(definition, finding);
  const clip = clipMeant(controller, finding);
  return (
    <section aria-label={title} className="finding">
      <h3>{title}</h3>
      <p className={`weight ${severity}`}>
        This {weights[severity]}. <code>{code}</code>
      </p>
      <p>{text}</p>
      <FindingPicture finding={finding} />
      {accepted === undefined ? (
        <>
          <div className="row remedies">
            {remedy === undefined ? null : (
              <Button className="small lamp" onPress={() => act(remedy)}>
                {remedy.says[0]!.toUpperCase() + remedy.says.slice(1)}
              </Button>
            )}
            <Remedy clip={clip} code={code} frames={finding.frames} />
            <Button className="small" onPress={() => follow(path)}>
              Go to {pathText(path)}
            </Button>
          </div>
          {code === 'accept-unused' ? null : <Accepting finding={finding} />}
        </>
      ) : (
        <Accepted finding={finding} />
      )}
    </section>
  );
}

/** Accepts it: the reason is kept in the document. */
function Accepting({ finding }: { readonly finding: FoundItem }) {
  const [because, setBecause] = useState('');
  const accept = (): void => {
    if (because.trim() === '') return;
    const { definition } = useWorkbench.getState();
    act(acceptFinding(definition, finding.code, pathText(finding.path), because.trim()));
  };
  return (
    <div className="row accepting">
      <TextField className="number wide" value={because} onChange={setBecause}>
        <Label>It is meant to be so, because</Label>
        <Input onKeyDown={(event) => event.key === 'Enter' && accept()} />
      </TextField>
      <Button className="small" isDisabled={because.trim() === ''} onPress={accept}>
        Accept it
      </Button>
    </div>
  );
}

function Accepted({ finding: { code, path, accepted } }: { readonly finding: FoundItem }) {
  const place = pathText(path);
  const takeBack = (): void => {
    const { definition } = useWorkbench.getState();
    const at = acceptOf(definition.accept ?? [], code, path);
    if (at >= 0) act(acceptNoMore(definition, at));
  };
  return (
    <>
      <p>
        It is accepted, because: <b>{accepted}</b>
      </p>
      <div className="row remedies">
        <Button className="small" onPress={takeBack}>
          Stop accepting it
        </Button>
        <Button className="small" onPress={() => follow(path)}>
          Go to {place}
        </Button>
      </div>
    </>
  );
}
