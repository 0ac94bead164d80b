// npm run schema: writes the published JSON Schema of a character's document anew from its one source.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { build, root } from './run.mjs';

build();
const { documentJsonSchema } = await import('dot-hop/document');
const file = path.join('packages', 'core', 'schema', 'dot-hop.schema.json');
writeFileSync(path.join(root, file), `${JSON.stringify(documentJsonSchema(), null, 2)}\n`);
console.log(`written: ${file}`);
