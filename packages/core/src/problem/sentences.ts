import { nearestName } from './nearest.js';

export type Values = Readonly<Record<string, unknown>>;

/** The values that a sentence speaks of, by name. */
export type Has<K extends string> = Readonly<Record<K, unknown>>;

/** Sentences by code. */
export type SentenceTable = Readonly<Record<string, (values: never) => string>>;

/** A value as JSON; `undefined` for what JSON cannot hold: circles, functions, whole numbers of any size. */
function asJson(value: unknown): string | undefined {
  try {
    return JSON.stringify(value);
  } catch {
    return undefined;
  }
}

/** A received value as it would stand in a document; long ones are cut. */
export function shown(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (typeof value === 'number') return String(value);
  const text = asJson(value) ?? `a ${typeof value}`;
  return text.length > 60 ? `${text.slice(0, 57)}...` : text;
}

/** "did you mean" with the nearest name, else the names there are. */
export function hint(received: unknown, known: unknown): string {
  const names = Array.isArray(known) ? (known as string[]) : [];
  const near = typeof received === 'string' ? nearestName(received, names) : undefined;
  if (near !== undefined) return `; did you mean "${near}"?`;
  if (names.length === 0) return '; none is defined yet';
  return `; known: ${names.slice(0, 12).join(', ')}${names.length > 12 ? ', ...' : ''}`;
}

export const unknown = (what: string) => (v: Has<'known' | 'name'>) =>
  `there is no ${what} ${shown(v.name)}${hint(v.name, v.known)}`;

/** There is more of something than is possible. @param what it is, with `#` for how many */
const tooMany = (what: string, remedy: string) => (v: Has<'most' | 'received'>) =>
  `${what.replace('#', String(v.received))}, at most ${v.most} are possible; ${remedy}`;

/**
 * The wording of every problem, one entry a code. Codes are stable; sentences may be improved.
 * Each sentence says what is wrong, the value received, and the remedy.
 */
const sentences = {
  'field-missing': (v: Has<'expected' | 'field'>) => `"${v.field}" is missing; expected ${v.expected}`,
  'field-unknown': (v: Has<'field' | 'known'>) => `"${v.field}" is not known here${hint(v.field, v.known)}`,
  'name-reserved': (v: Has<'name'>) => `nothing can be named ${shown(v.name)}; choose another name`,
  'field-kind': (v: Has<'expected' | 'received'>) => `expected ${v.expected}, not ${shown(v.received)}`,

  'sheet-size': (v: Has<'image'>) =>
    `the size of ${shown(v.image)} is not known, so its cells cannot be counted; give the images' sizes, or "size: [width, height]" here`,
  'sheet-cell-size': (v: Has<'cell' | 'columns' | 'rows' | 'size'>) =>
    `a grid of cells of ${v.cell} pixels does not fit into an image of ${v.size}, where ${v.columns} columns and ${v.rows} rows fit; lengths are whole pixels`,
  'sheet-many': (v: Has<'most' | 'received'>) =>
    `this would cut ${v.received} cells; a sheet has at most ${v.most}. Is the size of a cell meant in pixels?`,
  'sheet-cut': () =>
    'a sheet is one "image" with a "grid" or with "cells", or a sequence of "images"; give one of these',
  'sheet-rectangle': (v: Has<'rect' | 'size'>) =>
    `the rectangle ${shown(v.rect)} does not lie within the image of ${v.size}; it is [x, y, width, height] in whole pixels`,
  'sheet-trim': (v: Has<'rect' | 'trim'>) =>
    `${shown(v.rect)} does not fit into its untrimmed frame ${shown(v.trim)}, which is [left, top, width, height]`,
  'sheet-none': () => 'a character needs a sheet; add one under "sheets" with an image and a grid',

  'part-sequence': () =>
    'parts are laid out like one image, which a sheet of several "images" or of composed cells is not; draw it on one',
  'part-size': (v: Has<'expected' | 'image' | 'received'>) =>
    `the image ${shown(v.image)} of this part is ${v.received}, that of the sheet ${v.expected}; parts are laid out like the sheet`,
  'part-unknown': unknown('part of a sheet'),
  'part-twice': (v: Has<'name' | 'track'>) =>
    `the part "${v.name}" is drawn by the track "${v.track}" already; each is drawn by one`,

  'clip-cells': (v: Has<'received'>) =>
    `cells are written 0-7, 7-0, 3, [0-3, 5] or { row: 2 }, not ${shown(v.received)}`,
  'clip-row': (v: Has<'received' | 'sheet'>) =>
    `${shown(v.received)} asks for a row or column of a grid, and sheet "${v.sheet}" has no grid of several rows; write the numbers of the cells, such as 4-7`,
  'clip-empty': () => 'a clip needs at least one cell',
  'cell-range': (v: Has<'cell' | 'count' | 'sheet'> & Partial<Has<'more'>>) =>
    `there is no cell ${v.cell}${Number(v.more) > 0 ? ` (nor ${v.more} more that are named here)` : ''}: sheet "${v.sheet}" has the cells 0 to ${Number(v.count) - 1}`,
  'clip-timing-none': () =>
    'say how fast the clip plays: "fps", "ms" for each frame, or "lasts" for all; a clip of one cell needs none',
  'clip-timing-both': () => 'give one of "fps", "ms" and "lasts"',
  'clip-ms-count': (v: Has<'frames' | 'received'>) =>
    `"ms" has ${v.received} durations for ${v.frames} frames; give one for each, or one number for all`,
  duration: (v: Has<'least' | 'most' | 'received'>) =>
    `a duration must be from ${v.least} to ${v.most} ms, not ${shown(v.received)}; to show a frame for good, end the clip on it with "loop: once"`,
  'hold-times': (v: Has<'received'>) =>
    `"hold" says how many times as long a frame shows; it must be over 0, not ${shown(v.received)}`,
  'loop-times': (v: Has<'most' | 'received'>) =>
    `a clip is played a whole number of times from 1 to ${v.most}, not ${shown(v.received)}; "forever" has no end`,
  'fps-range': (v: Has<'received'>) =>
    `"fps" must be more than 0 and at most 1000 frames a second, not ${shown(v.received)}`,
  'frame-range': (v: Has<'frames' | 'received'>) =>
    `there is no frame ${shown(v.received)}: the clip has the frames 0 to ${Number(v.frames) - 1}`,
  'span-range': (v: Has<'frames' | 'received'>) =>
    `a span is written first-last, such as 2-3, within 0-${Number(v.frames) - 1}, not ${shown(v.received)}`,

  'clip-unknown': unknown('clip or flipbook'),
  'gait-unknown': unknown('gait'),
  'sheet-unknown': unknown('sheet'),
  'state-unknown': unknown('state'),
  'signal-unknown': unknown('signal'),
  'span-unknown': unknown('span'),
  'cue-unknown': unknown('cue or instant'),
  'direction-unknown': unknown('direction'),
  'function-unknown': unknown('function'),

  'compass-few': (v: Has<'count'>) =>
    `a compass needs at least two directions, not ${v.count}; write "none" for a character that never turns`,
  'compass-same': (v: Has<'degrees' | 'one' | 'other'>) =>
    `"${v.one}" and "${v.other}" are both at ${v.degrees} degrees; no vector could tell them apart`,
  'compass-mirror': (v: Has<'direction' | 'from'>) =>
    `"${v.direction}" cannot be mirrored from "${v.from}", which is itself mirrored; mirror from a drawn direction`,
  'compass-mirror-none': (v: Has<'degrees' | 'direction'>) =>
    `"${v.direction}" has no opposite to be mirrored from: no direction lies at ${v.degrees} degrees; add it, or name pairs: { west: east }`,
  'compass-mirror-far': (v: Has<'degrees' | 'direction' | 'from'>) =>
    `the mirror image of "${v.from}" looks towards ${v.degrees} degrees, which is not where "${v.direction}" lies; a drawing is mirrored left to right`,
  'compass-stick': (v: Has<'most' | 'received'>) =>
    `"stick" must be from 0 to under ${v.most} degrees, not ${shown(v.received)}: by then the next direction itself is reached`,
  'compass-by': () => '"by" is the vector that turns the character: two expressions, such as [vx, 0]',
  'view-finite': (v: Has<'received'>) => `a view is computed from finite numbers, not ${shown(v.received)}`,
  'facing-none': () =>
    'the compass has no directions to face; add a "compass" with two or more, or leave "facing" out',
  'turns-act': () =>
    '"turns" restarts the clip of its state, which would keep an act from ending; it is for states with "while"',
  'turns-least': (v: Has<'received'>) => `"least" must be from 0 to 180 degrees, not ${shown(v.received)}`,
  'flipbook-empty': () => 'the flipbook has no clip for any direction of the compass; add one',
  'rows-none': () => '"rows" names the directions drawn one below the other, such as [south, east, north]',
  'rows-twice': (v: Has<'name' | 'what'>) =>
    `the rows make a ${v.what} "${v.name}", which the document has already; rename one of the two`,
  'rows-every': (v: Has<'received'>) =>
    `"every" is how many cells lie from one of the "rows" to the next, a whole number from 1, not ${shown(v.received)}`,

  'choice-few': (v: Has<'received'>) =>
    `a choice needs at least two different names, such as [ground, ladder], not ${shown(v.received)}`,
  'choice-unknown': (v: Has<'choice' | 'known' | 'name'>) =>
    `the choice "${v.choice}" has no option ${shown(v.name)}${hint(v.name, v.known)}`,
  'tag-signal': (v: Has<'name'>) => `"${v.name}" is both a tag and a signal; rename one`,
  'signal-twice': (v: Has<'name'>) => `"${v.name}" is both a signal and a derived signal; rename one`,
  'signal-name': (v: Has<'name'>) =>
    `${shown(v.name)} cannot be used in an expression; begin with a letter, go on with letters, digits or _; words such as not, true and max are taken`,
  'derived-cycle': (v: Has<'names'>) =>
    `these derived signals need one another: ${(v.names as string[]).join(' -> ')}; break the circle`,
  'band-order': (v: Has<'above' | 'below'>) =>
    `a band turns on above ${v.above} and off below ${v.below}; "below" must not be larger than "above"`,
  'too-many-flags': tooMany(
    'there are # flags',
    'turn flags of which one is on at a time into the options of a choice',
  ),
  'too-many-pulses': tooMany(
    'there are # pulses',
    'let one pulse stand for several and a choice say which is meant',
  ),
  'too-many-tags': tooMany(
    'conditions ask for # tags and states',
    'give states that are asked for together one tag',
  ),
  'too-many-terms': tooMany(
    'conditions have # different comparisons, bands and lasting flags',
    'put comparisons that are used in several places into "derived"',
  ),
  'too-many-states': tooMany('there are # states', 'make several characters of them'),
  'too-many-hops': tooMany(
    'the state has # hops',
    'let "when" of the states they lead to say when these show',
  ),
  'too-many-yields': tooMany('the state has # yields', 'name several states in one'),

  'shows-one': () =>
    'a state shows one clip or flipbook with "shows", or several with "gaits"; give one of the two',
  'gaits-count': (v: Has<'above' | 'shows'>) =>
    `gaits need two or more in "shows" and one number less in "above"; here are ${v.shows} and ${v.above}`,
  'variants-kind': (v: Has<'choice' | 'name'>) =>
    v.choice === undefined
      ? `"${v.name}" is not a choice, so its variants are one map: { walk: other-walk }`
      : `"${v.name}" is a choice, so its variants are a map for each option: { ${(v.choice as string[])[0]}: { walk: other-walk } }`,
  'variant-option': unknown('option'),
  'length-negative': (v: Has<'received'>) => `a length is 0 ms or more, not ${shown(v.received)}`,
  'lasts-posture': () =>
    'a state with "while" and no "when" shows as long as that is true; give it a "when", or take "lasts" out',
  'fit-alone': () => '"fit" stretches a clip over what a state lasts; give it "lasts"',
  'fit-with': (v: Has<'field'>) =>
    `"fit" stretches the clip over what the state lasts, so there is no place for "${v.field}"; take one of the two out`,
  'signal-bounds': (v: Has<'from' | 'to'>) => `"from" (${v.from}) lies above "to" (${v.to}); exchange them`,
  'signal-first': (v: Has<'bounds' | 'received'>) =>
    `it begins with ${v.received}, which is outside of what it can be (${v.bounds}); begin inside`,
  'seed-kind': (v: Has<'received'>) =>
    `a seed is a whole number from 0 to 4294967295, not ${shown(v.received)}`,
  'variety-count': (v: Has<'received'>) =>
    `"any" picks one of two or more; here ${v.received === 1 ? 'is' : 'are'} ${v.received}`,
  'variety-turn': (v: Has<'field'>) =>
    `"${v.field}" is for chance, and these take turns; write "pick: chance", or leave it out`,
  'variety-weights': (v: Has<'expected' | 'received'>) =>
    `"weights" has a number for each of the ${v.expected} in "any", not ${v.received}`,
  'cue-unplaced': (v: Has<'known' | 'name'>) =>
    `no frame has the cue ${shown(v.name)}${hint(v.name, v.known)}`,
  'variety-none': () => 'all weights are 0, so nothing could be picked; give one of them more',
  'gaits-order': (v: Has<'received'>) => `the numbers in "above" must rise; they are ${shown(v.received)}`,
  'rate-stride': (v: Has<'clip'>) =>
    `the rate follows what is travelled, but the clip "${v.clip}" has no stride; add "stride" (pixels of one pass) to it`,
  'rate-bounds': (v: Has<'fastest' | 'least' | 'most'>) =>
    `a rate lies between 0 and ${v.fastest}, "least" not above "most"; here ${v.least} and ${v.most}`,
  'rate-fast': (v: Has<'fastest' | 'received'>) =>
    `a rate lies between -${v.fastest} and ${v.fastest}, not at ${v.received}; 1 is as drawn, and below 0 the clip plays backwards`,
  'scrub-range': (v: Has<'from' | 'to'>) =>
    `"from" and "to" must be two different numbers, not ${shown(v.from)} and ${shown(v.to)}`,
  'scrub-act': () =>
    'an act ends with its clip, and a clip that follows a number never ends; make it a posture with "while"',
  'bridge-endless': (v: Has<'clip'>) =>
    `the clip "${v.clip}" loops forever, so this bridge would never end; use "loop: once"`,
  'leaves-bare': () =>
    '"leaves" says where a state gives way whose "while" has turned false; this one has none',
  'leaves-never': (v: Has<'clip' | 'name'>) =>
    `the clip "${v.clip}" has no ${shown(v.name)}, so in it the state would never be left; add it there`,
  'again-posture': () => '"again" speaks of a new press while an act plays; this state has no "when"',
  'phase-range': (v: Has<'received'>) =>
    `a phase is from 0 to under 1, not ${shown(v.received)}; the end of a pass is "end"`,

  'expression-syntax': (v: Has<'detail' | 'text'>) => `cannot read ${shown(v.text)}: ${v.detail}`,
  'expression-large': (v: Has<'most'>) =>
    `written out, with all it is derived from, it has more than ${v.most} parts; compare and derive less`,
  'expression-kind': (v: Has<'expected' | 'part' | 'received' | 'remedy'>) =>
    `${shown(v.part)} is a ${v.received} where a ${v.expected} is wanted${typeof v.remedy === 'string' && v.remedy !== '' ? `; ${v.remedy}` : ''}`,
  'function-count': (v: Has<'expected' | 'name' | 'received'>) =>
    `${v.name}() takes ${v.expected}, not ${v.received}`,

  'track-unknown': unknown('other track'),
  'track-name': (v: Has<'name'>) =>
    `${shown(v.name)} cannot name a track: conditions ask for its states, such as arms.swing; begin with a letter, go on with letters, digits or _`,
  'track-body': () => 'the track "body" is that of the document\'s own "states"; name this one otherwise',
  'track-signal': (v: Has<'name'>) => `"${v.name}" is both a track and a signal; rename one`,
  'tag-tracks': (v: Has<'tag' | 'track'>) =>
    `the tag "${v.tag}" is of states of the track "${v.track}" already; let each track have tags of its own`,
  'state-twice': (v: Has<'name' | 'other'>) =>
    `"${v.name}" is the name of ${v.other} already; all states and groups have names of their own`,
  'state-other-track': (v: Has<'known' | 'name' | 'track'>) =>
    `"${v.name}" is a state of the track "${v.track}"; a state leads to states of its own track${hint(undefined, v.known)}`,
  'group-rest': (v: Has<'field' | 'name'>) =>
    `"${v.name}" is the rest of its group: it shows while the group's "while" is true and no other of its states wants to; leave its "${v.field}" out`,
  'group-then': (v: Has<'name'>) =>
    `"${v.name}" is a group, and "then" names one state; leave it out: at the end whichever state wants in follows`,
  'rest-grouped': (v: Has<'known' | 'name'>) =>
    `"${v.name}" shows only while the "while" of a group is true; rest in a state outside of groups${hint(undefined, v.known)}`,
  'takes-itself': () => 'a state takes other tracks than its own; it shows in its own already',
  'takes-in-step': () =>
    'a state that is in step with another track has no time of its own, which another could be in step with; leave "takes" or "inStep" out',
  'in-step-itself': (v: Has<'known'>) =>
    `a state is in step with another track than its own${hint(undefined, v.known)}`,
  'in-step-circle': (v: Has<'inStep' | 'track'>) =>
    `the track "${v.track}" is in step with "${v.inStep}", and that one with it: nobody leads; let "takes" say when one shows the other's state`,
  'in-step-act': () =>
    'an act plays to its end, and what is in step has no time of its own; make it a posture with "while", or let the other track\'s state take this one',
  'in-step-time': (v: Has<'field'>) =>
    `what is in step has no time and no direction of its own: "${v.field}" cannot be here; leave it out`,
  'state-none': () => 'a character needs a state outside of groups to rest in; add one under "states"',
  'then-posture': () =>
    '"then" follows the end of an act; this state has a "while" and no "when", so it never ends by itself',
  'act-endless': (v: Has<'clip'>) =>
    `the clip "${v.clip}" loops forever, so this act would never end; use "loop: once", or make it a posture with "while"`,
  'yields-itself': () => 'a state cannot yield to itself',

  'cue-report': (v: Has<'count' | 'index'>) =>
    `${v.count} things happened in this step; read at most ${Number(v.count) - 1}, not ${v.index}`,
  'snapshot-version': (v: Has<'expected' | 'received'>) =>
    `the snapshot is of ${shown(v.received)}, this controller is ${shown(v.expected)}; "adopt" takes over what both have by name`,
  'snapshot-form': () => 'this is not a snapshot of a performer, as snapshot() gives it:',
  'reports-stale': () =>
    'this performer has stepped since, so these are not its latest reports; copy them first: [...performer.reports]',
  'controller-wanted': (v: Has<'received'>) =>
    `a performer plays a controller, not ${shown(v.received)}; make one of a definition with compileController(...), of a file with compileDocument(readDocument(...))`,
  'set-unknown': unknown('signal'),
  'signal-handle': (v: Has<'received'>) =>
    `${shown(v.received)} is not a signal of this performer's controller; name it, or take its handle with performer.controller.signal(name)`,
  'set-derived': (v: Has<'name'>) => `"${v.name}" is derived; set the signals it is computed from`,
  'set-kind': (v: Has<'expected' | 'kind' | 'name' | 'received'>) =>
    `"${v.name}" is a ${v.kind} and takes ${v.expected}, not ${shown(v.received)}`,
  'saved-other': () =>
    'what was saved is of another controller; load it where it was saved, or take a snapshot, which goes by names',
  'step-member': () =>
    'a member of a troupe is not stepped, slowed, saved or put elsewhere by itself; call step(), save() or load() of the troupe',
  'pace-range': (v: Has<'most' | 'received'>) =>
    `a pace is a number from 0 (it stands still) to ${v.most}, not ${shown(v.received)}`,
  'step-time': (v: Has<'most' | 'received'>) =>
    `step takes milliseconds from 0 to ${v.most} (an hour), not ${shown(v.received)}`,
  'switch-cycle': (v: Has<'states'>) =>
    `these states lead to one another without taking any time: ${(v.states as string[]).join(' -> ')}; let one of them last`,
} satisfies SentenceTable;

/** Parts that are entries of their own say their codes to the compiler here. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type -- empty until a part adds to it
export interface FurtherSentences {}

/** The stable code of a problem. */
export type ProblemCode = keyof AllSentences;

type AllSentences = typeof sentences & FurtherSentences;

/** The values that come with a code: its sentence speaks of each of them. */
export type ValuesOf<C extends ProblemCode> = C extends ProblemCode
  ? Parameters<AllSentences[C]> extends [infer V]
    ? V
    : Readonly<Record<string, never>>
  : never;

/** All tables that there are: what a game does not use does not weigh in its bundle. */
const tables: SentenceTable[] = [sentences];

/** Adds the wording of a part that is an entry of its own. */
export function addSentences(table: SentenceTable): void {
  tables.push(table);
}

/** The sentence of one code with its values filled in. */
export function sentence(code: ProblemCode, values: Values): string {
  const table = tables.find((one) => code in one);
  // Without the part that it is of, a problem can only come as data.
  return table === undefined ? code : table[code]!(values as never);
}
