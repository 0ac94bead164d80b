import { readdir } from 'node:fs/promises';
import path from 'node:path';
import { nearestFile } from 'dot-hop/document';

/** Why the system refused a file, in words. */
export function fileTrouble(error: unknown): string {
  const code = (error as NodeJS.ErrnoException).code;
  const words: Record<string, string> = {
    ENOENT: 'there is no such file',
    EACCES: 'this user may not',
    EPERM: 'this user may not',
    EISDIR: 'it is a folder',
    ENOTDIR: 'its folder is a file',
    EEXIST: 'its folder is a file',
    ENOSPC: 'the disk is full',
    EDQUOT: 'the disk space of this user is used up',
    EFBIG: 'the file would be larger than this user may write',
    EROFS: 'the disk cannot be written',
    ENAMETOOLONG: 'the name is too long',
    ELOOP: 'its symbolic links lead round in a circle',
    EMFILE: 'too many files are open',
  };
  return words[code ?? ''] ?? (error instanceof Error ? error.message : String(error));
}

/** The same of a file that something names, with the name that was probably meant where there is no such file. */
export async function namedFileTrouble(error: unknown, file: string): Promise<string> {
  const trouble = fileTrouble(error);
  if ((error as NodeJS.ErrnoException).code !== 'ENOENT') return trouble;
  const beside = await readdir(path.dirname(file)).catch(() => []);
  const near = nearestFile(path.basename(file), beside);
  return near === undefined ? trouble : `${trouble}; did you mean "${near}"?`;
}
