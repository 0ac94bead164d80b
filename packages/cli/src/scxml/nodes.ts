import { create } from 'xmlbuilder2';

/** An element of a chart. */
export interface Node {
  readonly tag: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly inside: readonly Node[];
}

export const node = (tag: string, attributes: Node['attributes'], ...inside: readonly Node[]): Node => ({
  tag,
  attributes,
  inside,
});

export const assign = (location: string, expr: string): Node => node('assign', { location, expr });
export const when = (cond: string, ...inside: readonly Node[]): Node => node('if', { cond }, ...inside);

/** Conditions that all have to hold. */
export const both = (...parts: readonly string[]): string => {
  const kept = parts.filter((part) => part !== 'true');
  return kept.length === 0
    ? 'true'
    : kept.length === 1
      ? kept[0]!
      : kept.map((part) => `(${part})`).join(' && ');
};

/** A chart as the text of a file. @param comment stands before it */
export function xmlOf(root: Node, comment: string): string {
  const document = create({ version: '1.0', encoding: 'UTF-8' });
  // Two hyphens would end a comment of XML.
  document.com(comment.replace(/-(?=-)/g, '- ').replace(/[^\t\n\r -\ud7ff\ue000-\ufffd]/g, '?'));
  put(document, root);
  return `${document.end({ prettyPrint: true })}\n`;
}

function put(parent: ReturnType<typeof create>, { tag, attributes, inside }: Node): void {
  const element = parent.ele(tag, attributes);
  for (const one of inside) put(element, one);
}
