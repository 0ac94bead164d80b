// npm run workbench: builds the page that `dot-hop open` serves.
import { buildPages } from './pages.js';
import { build } from './run.js';

build();
await buildPages(['workbench']);
