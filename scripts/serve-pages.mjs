// Before the tests: serves the built pages. Vite cannot run inside a test file, so it runs here.
import { isPage, servePages } from './pages.js';

export default async function servePagesForTests() {
  // run-tests.ts names the pages that it has built; Jest run by itself serves all of them.
  const { PAGES } = process.env;
  const served = await servePages(PAGES === undefined ? undefined : PAGES.split(' ').filter(isPage));
  for (const [page, { address }] of Object.entries(served))
    process.env[`${page.toUpperCase()}_ADDRESS`] = address;
  globalThis.dotHopPages = served;
}
