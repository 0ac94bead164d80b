// Set up before every test file: once a law is broken, its example is made smaller for half a minute and no longer. Of large
// characters and long stories there is no end of smaller ones, and a test that never ends says nothing.
import fc from 'fast-check';

// Of a mutant it only counts that it was noticed.
const longest = process.env.MUTANT === undefined ? 30_000 : 0;

fc.installGlobalPlugin(() => {
  let until = Infinity;
  return {
    decorateRun: (run) => (value) => {
      if (Date.now() > until) return new fc.PreconditionFailure(true);
      const result = run(value);
      if (result !== null && 'error' in result) until = Math.min(until, Date.now() + longest);
      return result;
    },
  };
});
