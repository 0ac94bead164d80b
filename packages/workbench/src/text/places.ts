/* Where things are in a document's text while it is written, when it need not be whole: by indentation and braces. */

const keyPattern = /^(\s*(?:- )?)(["']?)([\w$ .-]+?)\2\s*:(?=\s|$)/;

/** The names under which a place of the text stands, outermost first. */
export function pathAt(text: string, at: number): string[] {
  const before = text.slice(0, at).split('\n');
  const line = before.pop()!;
  const path: string[] = [];
  // Inside braces of this line: the last key before each that is still open.
  const open: (string | undefined)[] = [];
  let key: string | undefined;
  for (const [, word, sign] of line.replace(keyPattern, '').matchAll(/([\w-]+)\s*:|([{}[\],])/g)) {
    if (word !== undefined) key = word;
    else if (sign === '{' || sign === '[') {
      open.push(key);
      key = undefined;
    } else if (sign === '}' || sign === ']') key = open.pop();
    else key = undefined;
  }
  path.push(...open.filter((one) => one !== undefined), ...(key === undefined ? [] : [key]));
  const own = keyPattern.exec(line);
  let indent = own === null ? /^\s*/.exec(line)![0].length : own[1]!.length;
  if (own !== null) path.unshift(own[3]!);
  else if (line.trim() === '') indent = line.length;
  for (const above of before.reverse()) {
    if (indent === 0) break;
    const found = keyPattern.exec(above);
    if (found === null || found[1]!.length >= indent) continue;
    indent = found[1]!.length;
    path.unshift(found[3]!);
  }
  return path;
}

/** Where the lines of a path of two names are; `undefined` where they are not found. */
export function rangeOf(text: string, path: readonly string[]): { from: number; to: number } | undefined {
  const lines = text.split('\n');
  let from = 0;
  let depth = 0;
  for (const line of lines) {
    const found = keyPattern.exec(line);
    if (found !== null && found[3] === path[depth] && (depth === 0 ? found[1] === '' : found[1] !== '')) {
      depth++;
      if (depth === path.length) return { from, to: from + line.length };
    } else if (depth > 0 && found?.[1] === '') return undefined;
    from += line.length + 1;
  }
  return undefined;
}
