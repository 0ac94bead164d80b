import { realpath } from 'node:fs/promises';
import path from 'node:path';

/** Whether a file lies below one of some folders, also where links lead somewhere else. A file that is not there counts by its name. */
export async function isWithin(file: string, folders: readonly string[]): Promise<boolean> {
  const real = await realpath(file).catch(() => path.resolve(file));
  for (const folder of folders) {
    const root = await realpath(folder).catch(() => path.resolve(folder));
    if (real === root || real.startsWith(root.endsWith(path.sep) ? root : root + path.sep)) return true;
  }
  return false;
}
