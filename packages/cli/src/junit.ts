import { create } from 'xmlbuilder2';
import type { RehearsalResult } from 'dot-hop/rehearsal';

/** A rehearsal by its file: what came of it, or why it could not be run. */
export type Rehearsed =
  | { readonly file: string; readonly result: RehearsalResult }
  | { readonly file: string; readonly error: Error };

/** Signs that XML cannot hold. */
const unfit = /[^\t\n\r -\ud7ff\ue000-\ufffd]/g;
const fit = (text: string): string => text.replace(unfit, '?');

/**
 * What came of rehearsals as JUnit XML: a suite for each rehearsal, a case for each expectation; one that could not be run has a
 * single case with an error.
 */
export function junitOf(runs: readonly Rehearsed[]): string {
  const document = create({ version: '1.0', encoding: 'UTF-8' });
  const suites = document.ele('testsuites');
  for (const run of runs) {
    const classname = fit(run.file);
    if ('error' in run) {
      const message = fit(run.error.message);
      suites
        .ele('testsuite', { name: classname, tests: '1', errors: '1' })
        .ele('testcase', { name: 'it can be run', classname })
        .ele('error', { message: message.split('\n')[0]! })
        .txt(message);
      continue;
    }
    const { outcomes } = run.result;
    const failures = String(outcomes.filter(({ met }) => !met).length);
    const suite = suites.ele('testsuite', { name: classname, tests: String(outcomes.length), failures });
    for (const { met, expected, instead, why, index } of outcomes) {
      const one = suite.ele('testcase', { name: fit(`${index + 1}. ${expected}`), classname });
      if (!met) one.ele('failure', { message: fit(`instead: ${instead}`) }).txt(fit(why ?? instead));
    }
  }
  return document.end({ prettyPrint: true });
}
