import type { Colors } from 'picocolors/types.js';

/** Where a command writes to. */
export interface Output {
  /** Writes a line to standard output. */
  line(text?: string): void;
  /** Writes a line of progress or advice to standard error. */
  note(text: string): void;
  /** Paints only on a terminal. */
  readonly paint: Colors;
  /** How many letters a line has on a terminal; elsewhere lines are not broken. */
  readonly width: number | undefined;
}

/** Exit codes: everything went well, something was found or failed, the call could not be carried out. */
export const exit = { well: 0, failed: 1, misuse: 2 } as const;

/** A text in lines as wide as the terminal, each after an indent. */
export function indented(text: string, indent: string, { width }: Output): string {
  const room = Math.max(40, (width ?? Infinity) - indent.length);
  const lines: string[] = [''];
  for (const word of text.split(' ')) {
    const line = lines[lines.length - 1]!;
    if (line !== '' && line.length + 1 + word.length > room) lines.push(word);
    else lines[lines.length - 1] = line === '' ? word : `${line} ${word}`;
  }
  return lines.map((line) => indent + line).join('\n');
}

/** Prints plain data as JSON. */
export function printJson(output: Output, value: unknown): void {
  output.line(JSON.stringify(value, null, 2));
}
