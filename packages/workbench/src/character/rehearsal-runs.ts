import { DotHopError } from 'dot-hop';
import type { Controller } from 'dot-hop';
import { changedText } from 'dot-hop/edit';
import { isRehearsalFile, readRehearsal, runRehearsal } from 'dot-hop/rehearsal';
import type { Expectation, RehearsalScript } from 'dot-hop/rehearsal';
import { resolved } from './files.js';

/** What came of a rehearsal that lies beside the document. */
export interface RehearsalOutcome {
  readonly name: string;
  readonly kind: 'met' | 'unmet' | 'broken' | 'empty';
  readonly says: string;
}

/** Runs all rehearsals of a document that lie beside it. Those of others are left out. */
export async function runRehearsals(
  controller: Controller,
  file: string,
  files: ReadonlyMap<string, Blob>,
): Promise<RehearsalOutcome[]> {
  const lights: RehearsalOutcome[] = [];
  for (const [name, blob] of files) {
    if (!isRehearsalFile(name)) continue;
    try {
      const { definition } = readRehearsal(await blob.text(), name);
      if (resolved(name, definition.document) !== file) continue;
      const { outcomes } = runRehearsal(controller, definition);
      const unmet = outcomes.filter(({ met }) => !met);
      const [first] = unmet;
      lights.push({
        name,
        kind: first !== undefined ? 'unmet' : outcomes.length === 0 ? 'empty' : 'met',
        says:
          first === undefined
            ? outcomes.length === 0
              ? 'expects nothing'
              : `${outcomes.length} met`
            : `${unmet.length} of ${outcomes.length} not met: ${first.expected}, instead ${first.instead}`,
      });
    } catch (error) {
      if (!(error instanceof DotHopError)) throw error;
      lights.push({ name, kind: 'broken', says: error.message.split('\n')[0]! });
    }
  }
  return lights;
}

/** A rehearsal's file, as a person would have written it. */
export function rehearsalText(document: string, rehearsal: RehearsalScript, expect: Expectation): string {
  const { lasts, body, steps, script } = rehearsal;
  return changedText(`# Tried in the workbench.\ndotHopRehearsal: 1\ndocument: ${document}\n`, [
    { op: 'set', path: ['lasts'], value: lasts },
    ...(body === undefined ? [] : [{ op: 'set', path: ['body'], value: body } as const]),
    { op: 'set', path: ['steps'], value: steps },
    { op: 'set', path: ['script'], value: script },
    { op: 'set', path: ['expect'], value: [expect] },
  ]);
}

/** A name for it that no file has yet. */
export function unusedFileName(document: string, files: ReadonlyMap<string, Blob>): string {
  const base = document.replace(/\.dothop\.(ya?ml|json)$/, '');
  for (let i = 1; ; i++)
    if (!files.has(`${base}-tried-${i}.rehearsal.yaml`)) return `${base}-tried-${i}.rehearsal.yaml`;
}
