// Before the tests: serves the built page. Vite cannot run inside a test file, so it runs here.
import path from 'node:path';
import { preview } from 'vite';
import { root } from './run.mjs';

export default async function servePage() {
  const server = await preview({
    root: path.join(root, 'examples', 'jetty'),
    preview: { port: 0 },
    logLevel: 'error',
  });
  process.env['JETTY_ADDRESS'] = `http://localhost:${server.httpServer.address().port}/`;
  globalThis.dotHopPageServer = server;
}
