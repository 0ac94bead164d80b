// After the tests: the ten that took longest, so that one sees where the time goes.
const shown = 10;

/** A reporter of Jest beside its own. */
export default class SlowestTests {
  onRunComplete(_contexts, { testResults }) {
    const all = testResults.flatMap(({ testFilePath, testResults: tests }) =>
      tests.map(({ fullName, duration }) => ({ file: testFilePath, name: fullName, ms: duration ?? 0 })),
    );
    if (all.length <= shown) return;
    const slowest = all.toSorted((a, b) => b.ms - a.ms).slice(0, shown);
    const seconds = (ms) => `${(ms / 1000).toFixed(1)} s`.padStart(8);
    const lines = slowest.map(
      ({ file, name, ms }) => `${seconds(ms)}  ${file.replace(`${process.cwd()}/`, '')}  ${name}`,
    );
    console.log(`\nthe slowest ${shown} of ${all.length} tests:\n${lines.join('\n')}`);
  }
}
