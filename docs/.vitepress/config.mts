import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitepress';
import { livePages } from './live-pages';

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** The pages by the steps of the work; each has its name and its file. */
const pages = {
  Begin: [
    ['A character from its drawings', 'guide-from-nothing'],
    ['The workbench', 'workbench'],
  ],
  'The document': [
    ['Sheets and clips', 'guide-sheets-and-clips'],
    ['Directions', 'guide-directions'],
    ['Signals and states', 'guide-signals-and-states'],
    ['Tracks: arms and legs', 'guide-tracks'],
    ['A wardrobe', 'guide-wardrobe'],
    ['Building on another document', 'guide-building-on'],
    ['Recipes', 'guide-recipes'],
  ],
  'Try and check': [
    ['Rehearsals', 'guide-rehearsals'],
    ['What the check finds', 'findings'],
  ],
  'In a game': [
    ['Your movement, your input, your renderer', 'guide-in-a-game'],
    ['Compiled documents', 'compiled'],
  ],
  Reference: [
    ['Words', 'glossary'],
    ['The exact rules', 'model'],
    ['Fields', 'fields'],
    ['Limits', 'limits'],
    ['Performance', 'performance'],
    ['How it is built', 'architecture'],
    ['Names of the library', 'api/'],
  ],
} as const;

export default defineConfig({
  title: 'Dot Hop',
  description: 'Frame-based animation controllers for sprite-sheet characters',
  // Under which path it is served: DOCS_BASE=/handbook/ npm run docs
  base: process.env.DOCS_BASE ?? '/',
  outDir: at('../../out/docs'),
  cacheDir: at('../../node_modules/.vitepress'),
  cleanUrls: false,
  appearance: 'dark',
  lastUpdated: false,
  // What lies in the repository beside the pages is no page of the site.
  ignoreDeadLinks: [/\/(packages|demo|examples|scripts|bench)\//, /README/],
  head: [['link', { rel: 'icon', href: 'data:,' }]],
  markdown: { config: livePages, theme: 'github-dark-dimmed' },
  themeConfig: {
    nav: [
      { text: 'Guide', link: '/guide-from-nothing' },
      { text: 'Recipes', link: '/guide-recipes' },
      { text: 'Findings', link: '/findings' },
      { text: 'Library', link: '/api/' },
    ],
    sidebar: Object.entries(pages).map(([text, items]) => ({
      text,
      items: items.map(([name, file]) => ({ text: name, link: `/${file}` })),
    })),
    outline: [2, 3],
    search: {
      provider: 'local',
      options: {
        miniSearch: {
          searchOptions: {
            // A name that only begins so, or is spelt nearly so, comes after the name itself, however rare it is.
            weights: { prefix: 0.03, fuzzy: 0.01 },
            // Who looks for `Cell` wants the page of that name before every property that is called `cell`.
            boostDocument: (_id: unknown, term: string, fields?: Record<string, unknown>) => {
              const [kind, name = ''] = String(fields?.title).split(': ');
              const isName = /^(Interface|Class|Function|Variable|Type Alias)$/.test(kind!);
              return isName && name.replace(/\W.*/, '').toLowerCase() === term ? 20 : 1;
            },
          },
        },
      },
    },
    docFooter: { prev: 'Before', next: 'Next' },
  },
  vite: {
    // The documents that play on the pages need what the packages build to.
    build: { chunkSizeWarningLimit: 2000, assetsInlineLimit: 0 },
    server: { fs: { allow: [at('../..')] } },
  },
});
