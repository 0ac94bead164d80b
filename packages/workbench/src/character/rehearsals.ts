import { DotHopError } from 'dot-hop';
import type { ControllerDefinition } from 'dot-hop';
import { EditError, changedText, rename, renameInRehearsal, styleOf } from 'dot-hop/edit';
import type { Renaming } from 'dot-hop/edit';
import { isRehearsalFile, readRehearsal } from 'dot-hop/rehearsal';
import { controlsFileOf, renamedControls } from './controls.js';
import { isBeside, resolved } from './files.js';
import { act, tell, useWorkbench } from './store.js';

/**
 * Renames something in the document, in the rehearsals and in the controls beside it, as one step that is undone as one. A rehearsal that cannot be
 * read stays as it is, and is told.
 */
export async function renameEverywhere(renaming: Renaming): Promise<void> {
  const texts = new Map<string, string>();
  for (const [name, blob] of useWorkbench.getState().files)
    if (isBeside(name)) texts.set(name, await blob.text());
  // From here on nothing is waited for: what is renamed is what there is now.
  const { definition, file, files } = useWorkbench.getState();
  const renamed = new Map<string, Blob>();
  const unread: string[] = [];
  for (const [name, text] of texts) {
    if (!isRehearsalFile(name)) continue;
    const now = renamedText({ text, name, file, definition }, renaming);
    if (now === undefined) unread.push(name);
    else if (now !== text) renamed.set(name, new Blob([now], { type: 'text/yaml' }));
  }
  const controls = texts.get(controlsFileOf(file));
  if (controls !== undefined && renaming.kind === 'signal') {
    const now = renamedControls(controls, renaming.from, renaming.to);
    if (now !== controls) renamed.set(controlsFileOf(file), new Blob([now]));
  }
  const before = new Map([...renamed.keys()].map((name) => [name, files.get(name)!]));
  act(rename(definition, renaming), undefined, { before, after: renamed });
  const { kind, from, to } = renaming;
  const what = `${kind} ${from} is ${to} now`;
  if (unread.length > 0) tell(`${what}. ${unread.join(', ')} cannot be read, and still say ${from}.`, true);
  else if (renamed.size > 0) tell(`${what}, in ${[...renamed.keys()].join(', ')} too`);
}

/** The text of a rehearsal after a renaming; `undefined` for one that cannot be read. */
function renamedText(
  {
    text,
    name,
    file,
    definition,
  }: {
    readonly text: string;
    readonly name: string;
    readonly file: string;
    readonly definition: ControllerDefinition;
  },
  renaming: Renaming,
): string | undefined {
  try {
    const { definition: rehearsal } = readRehearsal(text, name);
    if (resolved(name, rehearsal.document) !== file) return text;
    return changedText(text, renameInRehearsal(rehearsal, definition, renaming), styleOf(name));
  } catch (error) {
    if (error instanceof DotHopError || error instanceof EditError) return undefined;
    throw error;
  }
}
