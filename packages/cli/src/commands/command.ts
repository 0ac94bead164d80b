import type { Colors } from 'picocolors/types.js';

/** Where a command writes to. */
export interface Output {
  /** Writes a line to standard output. */
  line(text?: string): void;
  /** Writes a line of progress or advice to standard error. */
  note(text: string): void;
  /** Paints only on a terminal. */
  readonly paint: Colors;
}

/** Exit codes: everything went well, something was found or failed, the call could not be carried out. */
export const exit = { well: 0, failed: 1, misuse: 2 } as const;

/** Prints plain data as JSON. */
export function printJson(output: Output, value: unknown): void {
  output.line(JSON.stringify(value, null, 2));
}
