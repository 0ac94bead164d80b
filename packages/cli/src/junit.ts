import type { RehearsalResult } from 'dot-hop/rehearsal';

/** A rehearsal by its file: what came of it, or why it could not be run. */
export type Rehearsed =
  | { readonly file: string; readonly result: RehearsalResult }
  | { readonly file: string; readonly error: Error };

const escaped = (text: string): string =>
  text
    .replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)
    .replace(/[^\t\n\r -\ud7ff\ue000-\ufffd]/g, '?');

/**
 * What came of rehearsals as JUnit XML: a suite for each rehearsal, a case for each expectation; one that could not be run has a
 * single case with an error.
 */
export function junitOf(runs: readonly Rehearsed[]): string {
  const suites = runs.map((run) => {
    const { file } = run;
    if ('error' in run) {
      const error = `<error message="${escaped(run.error.message.split('\n')[0]!)}">${escaped(run.error.message)}</error>`;
      const one = `    <testcase name="it can be run" classname="${escaped(file)}">\n      ${error}\n    </testcase>`;
      return [`  <testsuite name="${escaped(file)}" tests="1" errors="1">`, one, '  </testsuite>'].join('\n');
    }
    const { outcomes } = run.result;
    const failures = outcomes.filter(({ met }) => !met).length;
    const cases = outcomes.map(({ met, expected, instead, why, index }) => {
      const name = `name="${escaped(`${index + 1}. ${expected}`)}" classname="${escaped(file)}"`;
      if (met) return `    <testcase ${name}/>`;
      return `    <testcase ${name}>\n      <failure message="${escaped(`instead: ${instead}`)}">${escaped(why ?? instead)}</failure>\n    </testcase>`;
    });
    const counts = `tests="${outcomes.length}" failures="${failures}"`;
    return [`  <testsuite name="${escaped(file)}" ${counts}>`, ...cases, '  </testsuite>'].join('\n');
  });
  return ['<?xml version="1.0" encoding="UTF-8"?>', '<testsuites>', ...suites, '</testsuites>'].join('\n');
}
