// npm start: serves the pages from their sources and says where. `npm start market` serves only that one.
import { developPages, isPage, pages } from './pages.js';
import { build } from './run.js';

const asked = process.argv.slice(2);
const unknown = asked.find((name) => !isPage(name));
if (unknown !== undefined) {
  console.error(`there is no page "${unknown}"; there are ${pages.join(', ')}`);
  process.exit(2);
}
// The plugin that imports documents is part of the command.
build();
const served = await developPages(asked.length > 0 ? asked.filter(isPage) : pages);
for (const [page, address] of served) console.log(`${page.padEnd(10)} is at ${address}`);
console.log('Ctrl+C ends them.');
