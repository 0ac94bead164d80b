// Shared by the other scripts: runs a program with its output shown, and tells what is going on.
import { spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('..', import.meta.url));

/** What Node needs to run TypeScript, or a program that imports some of these scripts. */
export const typescript = ['--import', 'tsx/esm'];

/** Says which step begins. */
export function say(text: string): void {
  console.log(`\n> ${text}`);
}

/** Runs a program with Node; ends this one with its exit code when it fails. */
export function node(...args: string[]): void {
  const { status } = spawnSync(process.execPath, args, { cwd: root, stdio: 'inherit' });
  if (status !== 0) process.exit(status ?? 1);
}

/** The folders of `packages/` that the compiler compiles. */
export const compiled = ['core', 'browser', 'three', 'vite', 'cli'];

/** Compiles the packages. */
export function build(): void {
  say('compiling the packages');
  node('node_modules/typescript/bin/tsc', '-b', ...compiled.map((name) => `packages/${name}`));
}

/** Runs the dot-hop command as a person would. */
export function dotHop(...args: string[]): void {
  const words = args.map((arg) => (/[^\w./=,:-]/.test(arg) ? `'${arg}'` : arg));
  console.log(`\n$ dot-hop ${words.join(' ')}`);
  node('packages/cli/bin/dot-hop.js', ...args);
}
