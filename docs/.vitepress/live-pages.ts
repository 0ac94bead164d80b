import type { MarkdownRenderer } from 'vitepress';

/** Which documents of a page play, and on which lines they build. */
interface LivePage {
  /** Whether its documents build on the first one. */
  readonly buildsOnFirst: boolean;
  /** What stands before each of its documents. */
  readonly head: string;
  /** Whether what the check finds is told below. The first document under a heading has a fault, the second one is mended. */
  readonly checks: boolean;
}

const pages: Readonly<Record<string, LivePage>> = {
  'guide-recipes.md': { buildsOnFirst: true, head: '', checks: false },
  'findings.md': {
    buildsOnFirst: false,
    head: 'dotHop: 1\nsheets: { s: { image: s.png, size: [64, 64], grid: { cell: [8, 8] } } }\n',
    checks: true,
  },
};

const isRehearsal = (text: string): boolean => text.startsWith('dotHopRehearsal');

/** Puts a stage and an editor in the place of each document of a page whose documents play. */
export function livePages(markdown: MarkdownRenderer): void {
  const { fence } = markdown.renderer.rules;
  markdown.renderer.rules.fence = (tokens, index, options, env: { relativePath?: string }, self) => {
    const plain = (): string => fence!(tokens, index, options, env, self);
    const page = pages[env.relativePath ?? ''];
    const { info, content } = tokens[index]!;
    if (page === undefined || info !== 'yaml' || isRehearsal(content)) return plain();
    const documents = tokens.filter(
      (one) => one.type === 'fence' && one.info === 'yaml' && !isRehearsal(one.content),
    );
    const [first] = documents;
    // The first of a page on which the others build is shown as it is.
    if (page.buildsOnFirst && tokens[index] === first) return plain();
    const heading = tokens.findLastIndex(({ type }, i) => i < index && type === 'heading_open');
    const isMended = tokens
      .slice(heading, index)
      .some(({ type, info: kind }) => type === 'fence' && kind === 'yaml');
    const next = tokens.slice(index + 1).find((one) => one.type === 'fence' && one.info === 'yaml');
    const attributes = {
      document: content,
      title: page.checks ? (isMended ? 'mended' : 'with the fault') : '',
      head: page.head,
      drawings: page.buildsOnFirst ? first!.content : '',
      rehearsal: next !== undefined && isRehearsal(next.content) ? next.content : '',
    };
    const written = Object.entries(attributes).map(([name, text]) => `${name}="${encodeURIComponent(text)}"`);
    return `<LiveDocument ${written.join(' ')} :checks="${page.checks}" />`;
  };
}
