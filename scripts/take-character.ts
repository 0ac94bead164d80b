// Before `create-dot-hop` is packed: the game begins with the same character as "dot-hop new", which has its place with the command.
// With --away, after it was packed: the copy goes again.
import { cpSync, rmSync } from 'node:fs';
import path from 'node:path';
import { root } from './run.js';

const character = path.join(root, 'packages/create/template/character');
rmSync(character, { recursive: true, force: true });
if (!process.argv.includes('--away'))
  cpSync(path.join(root, 'packages/cli/starter'), character, { recursive: true });
