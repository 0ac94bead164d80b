import address from '@dimforge/rapier2d-compat?url';
import type { Progress } from '@dot-hop/browser';
import type { Engine } from './physics.js';

/** About how many bytes it has. The server says less of a file that it sends compressed, or nothing. */
const size = 3.41e6;

/**
 * Fetches the physics engine, the largest part of the page by far, and tells how many of its bytes are there.
 *
 * @throws {Error} when it does not come
 */
export async function physicsFrom(progress: Progress): Promise<Engine> {
  const answer = await fetch(address);
  if (!answer.ok)
    throw new Error(`the physics engine cannot be fetched: the server answers ${answer.status}`);
  let done = 0;
  const reader = answer.body!.getReader();
  for (let read = await reader.read(); !read.done; read = await reader.read()) {
    done += read.value.length;
    progress(Math.min(done, size), size);
  }
  // It is in the browser's cache now.
  return (await import(/* @vite-ignore */ address)) as Engine;
}
