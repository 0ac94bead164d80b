import { stringify } from 'yaml';

/** The style in which values are written: JSON or YAML. */
export type TextStyle = 'json' | 'yaml';

/** The style of a document, by the name of its file. */
export const styleOf = (file: string | undefined): TextStyle =>
  file?.toLowerCase().endsWith('.json') === true ? 'json' : 'yaml';

/** Writes a value in one line, so that it fits inside braces and brackets. */
export function inlineText(value: unknown, style: TextStyle): string {
  if (style === 'json') return JSON.stringify(value);
  if (Array.isArray(value)) return `[${value.map((one) => inlineText(one, style)).join(', ')}]`;
  if (typeof value === 'object' && value !== null) {
    const list = fieldsOf(value).map(
      ([name, one]) => `${inlineText(name, style)}: ${inlineText(one, style)}`,
    );
    return list.length === 0 ? '{}' : `{ ${list.join(', ')} }`;
  }
  // A number as a key, and a text that would be read as something else, get what they need.
  if (typeof value === 'string' && /^[A-Za-z][\w-]*$/.test(value) && !plainWords.test(value)) return value;
  // Written inside brackets, so that a text with a comma or a brace gets its quotes.
  const text = stringify([value], {
    collectionStyle: 'flow',
    lineWidth: 0,
    flowCollectionPadding: false,
    singleQuote: true,
  });
  const written = text.trimEnd().slice(1, -1);
  // The reader takes a bracket that stays open for a text that was cut in two by a comma.
  const isOpen = written === value && written.split('(').length > written.split(')').length;
  return isOpen ? `'${written.replaceAll("'", "''")}'` : written;
}

/** Words that YAML reads as something other than a text. */
const plainWords = /^(?:true|false|null|yes|no|on|off|y|n)$/i;

const fieldsOf = (value: object): [string, unknown][] =>
  Object.entries(value).filter(([, one]) => one !== undefined);

/** The fields whose entries stand in lines of their own, in the way of the guides. */
const listed = new Set([
  'sheets',
  'clips',
  'cues',
  'flipbooks',
  'signals',
  'derived',
  'states',
  'groups',
  'variants',
  'tracks',
  'perCell',
  'perFrame',
  'images',
]);

/** Fields of one sheet stand in lines, too: there is more to say of a sheet than of a clip. */
const isInLines = (path: readonly (string | number)[], value: unknown): boolean => {
  if (typeof value !== 'object' || value === null || fieldsOf(value).length === 0) return false;
  const name = String(path[path.length - 1]);
  if (path.length === 2 && path[0] === 'sheets') return true;
  // A group, or a track: it holds states.
  if (['groups', 'tracks'].includes(String(path[path.length - 2]))) return true;
  // A few rectangles can be taken in at a glance in one line; a sheet full of them can not.
  if (name === 'cells') return Array.isArray(value) && value.length > 4 && Array.isArray(value[0]);
  // The lines of a rehearsal, what it expects, and what is accepted.
  if (path.length === 1 && (name === 'script' || name === 'expect' || name === 'accept')) return true;
  return listed.has(name);
};

/**
 * An entry as it stands in lines at a place of a document: in one line, or with its own entries in lines below it.
 *
 * @param path where its value will be
 * @param indent the space before its key
 */
export function entryText(
  path: readonly (string | number)[],
  value: unknown,
  indent: string,
  style: TextStyle,
): string {
  const key = `${keyText(path[path.length - 1]!, style)}:`;
  if (!isInLines(path, value)) return `${key} ${inlineText(value, style)}`;
  const inner = `${indent}  `;
  if (style === 'json') {
    const [open, close] = Array.isArray(value) ? ['[', ']'] : ['{', '}'];
    const parts = Array.isArray(value)
      ? value.map((one) => inlineText(one, style))
      : fieldsOf(value as object).map(([name, one]) => entryText([...path, name], one, inner, style));
    return `${key} ${open}\n${parts.map((part) => inner + part).join(',\n')}\n${indent}${close}`;
  }
  const lines = Array.isArray(value)
    ? value.map((one) => `- ${inlineText(one, style)}`)
    : fieldsOf(value as object).map(([name, one]) => entryText([...path, name], one, inner, style));
  return [key, ...lines.map((line) => `${inner}${line}`)].join('\n');
}

/** A key: a number stands as it is. */
export function keyText(name: string | number, style: TextStyle): string {
  if (style === 'json') return JSON.stringify(String(name));
  return /^\d+$/.test(String(name)) ? String(name) : inlineText(String(name), style);
}
