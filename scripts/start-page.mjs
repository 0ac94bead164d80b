// npm start: serves the Jetty page from its sources and says where.
import path from 'node:path';
import { createServer } from 'vite';
import { root } from './run.mjs';

const server = await createServer({ root: path.join(root, 'examples', 'jetty'), clearScreen: false });
await server.listen();
console.log(`Jetty is at ${server.resolvedUrls?.local[0] ?? 'the address above'}   (Ctrl+C ends it)`);
