import path from 'node:path';
import { Misuse } from '../misuse.js';

/** What a file holds, as its first bytes and words tell. */
export type Content =
  | 'a PNG image'
  | 'a WebP image'
  | 'a GIF image'
  | 'a document'
  | 'a rehearsal'
  | 'a table of clips'
  | 'a state chart'
  | 'something else';

/** What a file with an ending must hold to be written over. */
const contents: Readonly<Record<string, Content>> = {
  '.png': 'a PNG image',
  '.apng': 'a PNG image',
  '.webp': 'a WebP image',
  '.gif': 'a GIF image',
  '.yaml': 'a document',
  '.yml': 'a document',
  '.json': 'a document',
  '.csv': 'a table of clips',
  '.scxml': 'a state chart',
};

/** What a file with this name holds when a command writes it; `undefined` for an ending that none writes. */
export const contentFor = (file: string): Content | undefined => contents[path.extname(file).toLowerCase()];

/** What the bytes of a file are. */
export function contentOf(bytes: Buffer): Content {
  const begins = (signature: string, at = 0): boolean =>
    bytes.toString('latin1', at, at + signature.length) === signature;
  if (begins('\x89PNG\r\n\x1a\n')) return 'a PNG image';
  if (begins('GIF8')) return 'a GIF image';
  if (begins('RIFF') && begins('WEBP', 8)) return 'a WebP image';
  const text = bytes.toString('utf8');
  if (/(^|[{,\s"'])dotHopRehearsal["']?\s*:/.test(text)) return 'a rehearsal';
  if (/(^|[{,\s"'])dotHop(?:Compiled)?["']?\s*:/.test(text)) return 'a document';
  if (/<scxml[\s>]/.test(text)) return 'a state chart';
  if (/^\ufeff?clip,/.test(text)) return 'a table of clips';
  return 'something else';
}

/**
 * The ending of a file that a command is to write, in lower case.
 *
 * @param option how the command names the file, such as `-o`
 * @param endings what this command writes
 * @param told the same in words
 * @throws {Misuse} for any other ending
 */
export function endingOf(option: string, file: string, endings: readonly string[], told: string): string {
  const ending = path.extname(file).toLowerCase();
  if (!endings.includes(ending)) throw new Misuse(`${option} ${file}: ${told}`);
  return ending;
}

/** The same for a command that draws one picture. */
export const needPng = (out: string, what: string): string =>
  endingOf('-o', out, ['.png'], `${what} is written as .png`);
