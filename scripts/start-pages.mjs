// npm start: serves the pages from their sources and says where. `npm start market` serves only that one.
import { developPages, pages } from './pages.mjs';
import { build } from './run.mjs';

const asked = process.argv.slice(2);
const unknown = asked.find((name) => !pages.includes(name));
if (unknown !== undefined) {
  console.error(`there is no page "${unknown}"; there are ${pages.join(', ')}`);
  process.exit(2);
}
// The plugin that imports documents is part of the command.
build();
const served = await developPages(asked.length > 0 ? asked : pages);
for (const [page, address] of Object.entries(served)) console.log(`${page.padEnd(10)} is at ${address}`);
console.log('Ctrl+C ends them.');
