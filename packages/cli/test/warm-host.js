// Runs the command again and again in one process, as `warm-command.ts` asks: to begin a process for each call takes most of its time. It is
// plain JavaScript, because it is run by Node alone.
import { main } from '../dist/index.js';

let said = { out: '', err: '' };
const hear = (stream, kind) => {
  stream.write = (text) => {
    said[kind] += text;
    return true;
  };
};
hear(process.stdout, 'out');
hear(process.stderr, 'err');
process.on('warning', ({ name, message }) => (said.err += `${name}: ${message}\n`));
process.on('disconnect', () => process.exit());

process.on('message', async ({ folder, args }) => {
  said = { out: '', err: '' };
  let code;
  try {
    process.chdir(folder);
    code = await main(args);
  } catch (error) {
    said.err += error.stack;
    code = 1;
  }
  // Each call listens for a reader that closes its end.
  process.stdout.removeAllListeners('error');
  process.send({ code, ...said });
});
