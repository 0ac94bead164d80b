import type { Clip } from '../clip/clip.js';
import { documentStateOf } from '../controller/document-state.js';
import type { Controller } from '../controller/controller.js';
import type { StateDefinition } from '../controller/definition.js';
import type { DocumentPath } from '../problem/problem.js';
import type { FindingList } from './finding.js';

/** Finds variants that never show, and variants without something that a rule names. */
export function checkVariants(controller: Controller, found: FindingList): void {
  const { definition, states } = controller;
  const { variants = {} } = definition;
  const shown = new Set(states.flatMap(({ flipbookNames }) => flipbookNames));
  const visit = (map: object, path: DocumentPath): void => {
    for (const [from, to] of Object.entries(map) as [string, string | object][])
      if (typeof to !== 'string') visit(to, [...path, from]);
      else if (!shown.has(from)) found.add('variant-unused', [...path, from], { name: from, variant: to });
  };
  visit(variants, ['variants']);
  const told = new Set<string>();
  for (const state of states) {
    const { name, flipbooks, slots, slotOf, gaitCount, path } = state;
    const own = documentStateOf(controller, state)?.definition;
    if (own === undefined || slots[0]!.axes.length === 0) continue;
    const rules = namedInClip(own);
    for (let flipbook = gaitCount; slotOf[flipbook] === 0; flipbook++)
      flipbooks[flipbook]!.forEach(({ clip }, direction) => {
        const base = flipbooks[flipbook % gaitCount]![direction]!.clip;
        for (const { kind, name: what } of rules) {
          const has = (one: Clip): boolean =>
            kind === 'span' ? one.spans.has(what) : one.cues.some((cues) => cues.includes(what));
          const key = `${name} ${clip.of} ${kind} ${what}`;
          if (!has(base) || has(clip) || told.has(key)) continue;
          told.add(key);
          const at = Object.hasOwn(definition.clips, clip.of) ? ['clips', clip.of] : path;
          found.add('variant-differs', at, { state: name, kind, what, variant: clip.of, base: base.of });
        }
      });
  }
}

/** The cues and spans that the rules of a state speak of. */
function namedInClip({
  hops = [],
  yields = [],
  leaves,
}: StateDefinition): { kind: 'cue' | 'span'; name: string }[] {
  const spans = [...hops, ...yields].flatMap(({ during }) => during ?? []);
  const cues: string[] = [];
  for (const at of [...hops.map((hop) => hop.at), leaves])
    if (typeof at === 'string' && at !== 'now' && at !== 'end') cues.push(at);
    else if (typeof at === 'object' && 'start' in at) spans.push(at.start);
    else if (typeof at === 'object' && 'end' in at) spans.push(at.end);
  return [
    ...[...new Set(cues)].map((name) => ({ kind: 'cue' as const, name })),
    ...[...new Set(spans)].map((name) => ({ kind: 'span' as const, name })),
  ];
}
