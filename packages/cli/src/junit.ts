import type { RehearsalResult } from 'dot-hop/rehearsal';

/** A rehearsal that was run, by its file. */
export interface Rehearsed {
  readonly file: string;
  readonly result: RehearsalResult;
}

const escaped = (text: string): string =>
  text
    .replace(/[&<>"]/g, (sign) => `&#${sign.charCodeAt(0)};`)
    .replace(/[^\t\n\r -\ud7ff\ue000-\ufffd]/g, '?');

/** What came of rehearsals as JUnit XML: a suite for each rehearsal, a case for each expectation. */
export function junitOf(runs: readonly Rehearsed[]): string {
  const suites = runs.map(({ file, result: { outcomes } }) => {
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
