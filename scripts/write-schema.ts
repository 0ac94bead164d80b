// npm run schema: writes the published JSON Schemas anew, each from its one source.
import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { build, root } from './run.js';

build();
const { documentJsonSchema } = await import('dot-hop/document');
const { rehearsalJsonSchema } = await import('dot-hop/rehearsal');
const schemas = {
  'dot-hop.schema.json': documentJsonSchema(),
  'dot-hop-rehearsal.schema.json': rehearsalJsonSchema(),
};
for (const [name, schema] of Object.entries(schemas)) {
  const file = path.join('packages', 'core', 'schema', name);
  writeFileSync(path.join(root, file), `${JSON.stringify(schema, null, 2)}\n`);
  console.log(`written: ${file}`);
}
