// Before the tests: serves the built pages. Vite cannot run inside a test file, so it runs here.
import { servePages } from './pages.js';

export default async function servePagesForTests() {
  const served = await servePages();
  for (const [page, { address }] of Object.entries(served))
    process.env[`${page.toUpperCase()}_ADDRESS`] = address;
  globalThis.dotHopPages = served;
}
