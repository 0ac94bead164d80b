import { randomBytes, timingSafeEqual } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createServer } from 'node:http';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import path from 'node:path';
import { watch } from 'chokidar';
import { Refused } from './folder.js';
import type { ServedFolder } from './folder.js';

/** The largest file that the page may write. */
const mostBytes = 64 * 1024 * 1024;

const kinds: Readonly<Record<string, string>> = {
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.png': 'image/png',
  '.svg': 'image/svg+xml',
};

/** Nothing from elsewhere, and nothing to elsewhere. Styles in lines are what the text pane colours words with. */
const policy = [
  "default-src 'self'",
  "img-src 'self' blob: data:",
  "style-src 'self' 'unsafe-inline'",
  "worker-src 'self' blob:",
  "connect-src 'self'",
  "frame-ancestors 'none'",
  "base-uri 'none'",
].join('; ');

/** A workbench that is being served. */
export interface Serving {
  /** The address with its token. Anyone who has the token may read and write the folder. */
  readonly address: string;
  close(): Promise<void>;
}

/**
 * Serves the workbench's page and one folder, on the loopback address only.
 *
 * A page of another origin can reach a loopback address too. So every call for files needs the token, which stands behind
 * the `#` of the address and is never sent by itself; and a call under another host's name is refused.
 *
 * @param page the folder of the built page
 * @param port 0 for any that is free
 */
export async function serveWorkbench(page: string, folder: ServedFolder, port: number): Promise<Serving> {
  const token = randomBytes(24).toString('base64url');
  const listeners = new Map<ServerResponse, ServedFolder>();
  const server = createServer((request, response) => {
    answer(request, response, { page, folder, token, listeners, server }).catch((error: unknown) => {
      const [status, words] =
        error instanceof Refused
          ? [error.status, error.message]
          : [500, error instanceof Error ? error.message : String(error)];
      if (!response.headersSent) response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8' });
      response.end(words);
    });
  });
  await new Promise<void>((done, fail) => {
    server.once('error', fail);
    server.listen(port, '127.0.0.1', done);
  });
  const watcher = watch(folder.root, {
    ignoreInitial: true,
    // A link to a folder around it would be followed for ever.
    followSymlinks: false,
    ignored: (name) => /(?:^|[\\/])(?:\.[^\\/]|node_modules)/.test(path.relative(folder.root, name)),
    awaitWriteFinish: { stabilityThreshold: 80, pollInterval: 20 },
  });
  watcher.on('all', (_, file) => {
    void folder.versionNow(folder.nameOf(file)).then((version) => {
      for (const [one, seen] of listeners)
        one.write(
          `event: changed\ndata: ${JSON.stringify({ name: seen.nameOf(file), version: version ?? '' })}\n\n`,
        );
    });
  });
  // A folder that goes away while it is looked at ends nothing.
  watcher.on('error', () => undefined);
  await new Promise<void>((done) => watcher.once('ready', () => done()));
  return {
    address: `http://127.0.0.1:${(server.address() as AddressInfo).port}/#token=${token}`,
    close: async () => {
      await watcher.close();
      for (const one of listeners.keys()) one.end();
      server.closeAllConnections();
      await new Promise<void>((done) => server.close(() => done()));
    },
  };
}

interface Served {
  readonly page: string;
  readonly folder: ServedFolder;
  readonly token: string;
  /** The open connections that are told of changes, each with the folder as it sees it. */
  readonly listeners: Map<ServerResponse, ServedFolder>;
  readonly server: Server;
}

async function answer(request: IncomingMessage, response: ServerResponse, served: Served): Promise<void> {
  const { listeners, server, page } = served;
  const { port } = server.address() as AddressInfo;
  // A name that somebody has pointed at this machine is not this machine's own.
  const host = request.headers.host ?? '';
  if (host !== `127.0.0.1:${port}` && host !== `localhost:${port}`)
    throw new Refused(403, 'this address is not served');
  response.setHeader('content-security-policy', policy);
  response.setHeader('x-content-type-options', 'nosniff');
  response.setHeader('referrer-policy', 'no-referrer');
  response.setHeader('cache-control', 'no-store');
  const url = new URL(request.url ?? '/', `http://${host}`);
  if (!url.pathname.startsWith('/api/')) {
    await answerPage(url.pathname, request, response, page);
    return;
  }
  mustKnow(request, url, served.token);
  const method = request.method ?? 'GET';
  const character = url.searchParams.get('character');
  const folder = character === null ? served.folder : await served.folder.withCharacter(character);
  if (url.pathname === '/api/folder' && method === 'GET') {
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify(await folder.list()));
  } else if (url.pathname === '/api/characters' && method === 'GET') {
    response.setHeader('content-type', 'application/json');
    response.end(JSON.stringify(await folder.characters()));
  } else if (url.pathname === '/api/changes' && method === 'GET') {
    response.writeHead(200, { 'content-type': 'text/event-stream' });
    response.write(': following\n\n');
    listeners.set(response, folder);
    request.on('close', () => listeners.delete(response));
  } else if (url.pathname.startsWith('/api/file/')) {
    const name = nameIn(url.pathname.slice('/api/file/'.length));
    if (method === 'GET') {
      const { content, version } = await folder.read(name);
      response.setHeader('content-type', 'application/octet-stream');
      response.setHeader('etag', version);
      response.end(content);
    } else if (method === 'PUT') {
      const expected = request.headers['if-match'];
      response.end(await folder.write(name, await bodyOf(request), expected));
    } else if (method === 'DELETE') {
      await folder.takeAway(name, request.headers['if-match']);
      response.end();
    } else throw new Refused(405, `${method} is not answered here`);
  } else throw new Refused(404, 'there is nothing here');
}

function nameIn(part: string): string {
  try {
    return decodeURIComponent(part);
  } catch {
    throw new Refused(400, 'the name of the file cannot be read');
  }
}

/** Refuses a call without the token. A stream of events can send none in its head and has it in its address. */
function mustKnow(request: IncomingMessage, url: URL, token: string): void {
  const given = request.headers.authorization?.replace(/^Bearer /, '') ?? url.searchParams.get('token') ?? '';
  const [one, other] = [Buffer.from(given), Buffer.from(token)];
  if (one.length !== other.length || !timingSafeEqual(one, other))
    throw new Refused(401, 'the token is missing or wrong: open the address that the command printed');
}

async function bodyOf(request: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    size += part.length;
    if (size > mostBytes) throw new Refused(413, `a file may have ${mostBytes} bytes`);
    parts.push(part);
  }
  return Buffer.concat(parts);
}

async function answerPage(
  pathname: string,
  request: IncomingMessage,
  response: ServerResponse,
  page: string,
): Promise<void> {
  if (request.method !== 'GET' && request.method !== 'HEAD') throw new Refused(405, 'the page is only read');
  const file = path.join(page, nameIn(pathname === '/' ? '/index.html' : pathname));
  const kind = kinds[path.extname(file)];
  if (!file.startsWith(page + path.sep) || kind === undefined)
    throw new Refused(404, 'there is nothing here');
  const content = await readFile(file).catch(() => {
    throw new Refused(404, 'there is nothing here');
  });
  response.setHeader('content-type', kind);
  response.end(content);
}
