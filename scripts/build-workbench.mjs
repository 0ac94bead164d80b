// npm run workbench: builds the page that `dot-hop open` serves.
import { buildPages } from './pages.mjs';
import { build } from './run.mjs';

build();
await buildPages(['workbench']);
