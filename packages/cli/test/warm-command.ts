import path from 'node:path';
import { MessageChannel, Worker, receiveMessageOnPort } from 'node:worker_threads';
import type { MessagePort } from 'node:worker_threads';

/** What a call of the command led to. */
export interface Ran {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

/** How long a call may take, in milliseconds. */
const longest = 180_000;

/** Hands calls on to the process that runs them, while the test's own thread waits. */
const between = `
const { workerData } = require('node:worker_threads');
const { fork } = require('node:child_process');
const { host, port, signal } = workerData;
const answer = (ran) => {
  port.postMessage(ran);
  Atomics.store(signal, 0, 1);
  Atomics.notify(signal, 0);
};
const child = fork(host, [], { env: { ...process.env, CI: 'true' }, execArgv: [], stdio: ['ignore', 'pipe', 'pipe', 'ipc'] });
let last = '';
child.stderr.on('data', (part) => (last += part));
child.on('message', answer);
child.on('exit', (code) => answer({ code, out: '', err: 'the process ended: ' + last }));
port.on('message', (call) => child.send(call));
`;

let warm: { readonly worker: Worker; readonly port: MessagePort; readonly signal: Int32Array } | undefined;

/**
 * Runs the command in a folder, in a process that has run others before: of the same code, in a fifth of the time. That it tells the same
 * as a process of its own is what `warm-command.test.ts` holds.
 *
 * @throws when it has not ended after three minutes
 */
export function runWarm(folder: string, args: readonly string[]): Ran {
  warm ??= begin();
  const { port, signal } = warm;
  Atomics.store(signal, 0, 0);
  port.postMessage({ folder, args });
  if (Atomics.wait(signal, 0, 0, longest) === 'timed-out')
    throw new Error(`dot-hop ${args.join(' ')} has not ended after ${longest / 1000} s`);
  return receiveMessageOnPort(port)!.message as Ran;
}

function begin(): NonNullable<typeof warm> {
  const { port1, port2 } = new MessageChannel();
  const signal = new Int32Array(new SharedArrayBuffer(4));
  const host = path.join(import.meta.dirname, 'warm-host.js');
  const worker = new Worker(between, {
    eval: true,
    workerData: { host, port: port2, signal },
    transferList: [port2],
  });
  worker.unref();
  port1.unref();
  return { worker, port: port1, signal };
}

/** Ends the process, if there is one. */
export async function endWarm(): Promise<void> {
  await warm?.worker.terminate();
  warm = undefined;
}
