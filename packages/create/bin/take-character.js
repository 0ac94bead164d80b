// Before packing: the game begins with the same character as "dot-hop new", which has its place with the command.
import { cpSync, rmSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const character = fileURLToPath(new URL('../template/character', import.meta.url));
rmSync(character, { recursive: true, force: true });
cpSync(fileURLToPath(new URL('../../cli/starter', import.meta.url)), character, { recursive: true });
