// The workbench and the example pages: built for the tests and pictures, served built or from their sources.
import path from 'node:path';
import { build, createServer, preview } from 'vite';
import { root, say } from './run.mjs';

/** The workbench, and the folders of `examples/` that are pages. */
export const pages = ['workbench', 'jetty', 'market', 'lighthouse', 'lanterns'];

const folder = (page) => path.join(root, page === 'workbench' ? 'packages' : 'examples', page);

/** Builds pages, one after the other. */
export async function buildPages(names = pages) {
  for (const page of names) {
    say(`building the page ${page}`);
    await build({
      root: folder(page),
      logLevel: 'warn',
      // Three dimensions and a physics engine are larger than the bundler likes.
      build: { chunkSizeWarningLimit: 5000 },
    });
  }
}

/** Serves what was built. Gives the server and its address by page. */
export async function servePages(names = pages) {
  const served = {};
  for (const page of names) {
    const server = await preview({ root: folder(page), preview: { port: 0 }, logLevel: 'error' });
    served[page] = { server, address: `http://localhost:${server.httpServer.address().port}/` };
  }
  return served;
}

/** Serves the sources, brought up to date as they are edited. */
export async function developPages(names = pages) {
  const served = {};
  for (const page of names) {
    const server = await createServer({ root: folder(page), clearScreen: false });
    await server.listen();
    served[page] = server.resolvedUrls?.local[0];
  }
  return served;
}
