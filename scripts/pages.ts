// The workbench and the example pages: built for the tests and pictures, served built or from their sources.
import path from 'node:path';
import type { AddressInfo } from 'node:net';
import { build, createServer, preview } from 'vite';
import type { PreviewServer } from 'vite';
import { root, say } from './run.js';

/** The workbench, and the folders of `examples/` that are pages. */
export const pages = ['workbench', 'jetty', 'market', 'lighthouse', 'lanterns'] as const;

/** One of them. */
export type Page = (typeof pages)[number];

/** A page that is served, and where. */
export interface ServedPage {
  readonly server: PreviewServer;
  readonly address: string;
}

/** Whether there is a page of this name. */
export const isPage = (name: string): name is Page => pages.some((page) => page === name);

const folder = (page: Page): string => path.join(root, page === 'workbench' ? 'packages' : 'examples', page);

/** Builds pages, one after the other. */
export async function buildPages(names: readonly Page[] = pages): Promise<void> {
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
export async function servePages<P extends Page>(
  names: readonly P[] = pages as readonly Page[] as readonly P[],
): Promise<Record<P, ServedPage>> {
  const served: Partial<Record<P, ServedPage>> = {};
  for (const page of names) {
    const server = await preview({ root: folder(page), preview: { port: 0 }, logLevel: 'error' });
    const { port } = server.httpServer.address() as AddressInfo;
    served[page] = { server, address: `http://localhost:${port}/` };
  }
  return served as Record<P, ServedPage>;
}

/** Serves the sources, brought up to date as they are edited. */
export async function developPages(names: readonly Page[] = pages): Promise<Map<Page, string>> {
  const served = new Map<Page, string>();
  for (const page of names) {
    const server = await createServer({ root: folder(page), clearScreen: false });
    await server.listen();
    served.set(page, server.resolvedUrls?.local[0] ?? 'no address');
  }
  return served;
}
