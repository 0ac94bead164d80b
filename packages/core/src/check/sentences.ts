import type { MeasureCode } from '../pixels/measure.js';
import type { PartCode } from '../pixels/parts.js';
import type { WardrobeCode } from '../pixels/wardrobe.js';

type Values = Readonly<Record<string, unknown>>;

/** How much a finding weighs: an error is always a mistake, a warning nearly always, a note is worth knowing. */
export type Severity = 'error' | 'warning' | 'note';

/** How a finding weighs and what is said of it. */
export interface FindingWording {
  readonly severity: Severity;
  /** What it is about, in a few words. */
  readonly title: string;
  /** What is wrong, with what was found, and the remedy. */
  readonly say: (values: Values) => string;
}

const list = (value: unknown): string => (value as readonly string[]).map((name) => `"${name}"`).join(', ');

/** What is measured in drawings; the sentence is made where it is measured. */
const drawingTitles = {
  'foot-line': 'a frame that stands higher or lower than its neighbours',
  'clip-foot-line': 'a clip that stands higher or lower than the others',
  'centre-jump': 'a frame drawn too far to one side',
  'width-jump': 'a frame much wider or narrower than its neighbours',
  'box-differs': 'a box that is of another size or in another place in one frame',
  'cell-empty': 'a frame without a drawing',
  'cells-equal': 'cells with the same drawing',
  'cell-cut': 'a drawing that touches the edge of its cell',
  'cell-size': 'images of different sizes in one clip',
} as const satisfies Record<MeasureCode, string>;

const drawings = Object.fromEntries(
  Object.entries(drawingTitles).map(([code, title]) => [
    code,
    { severity: 'warning', title, say: (v: Values) => String(v.text) },
  ]),
) as Record<MeasureCode, FindingWording>;

/** What is measured between the parts of drawings. */
const parts = {
  'parts-differ': {
    severity: 'warning',
    title: 'parts that are not the drawing they are cut from',
    say: (v: Values) => String(v.text),
  },
  'part-apart': {
    severity: 'warning',
    title: 'parts of two tracks that do not touch',
    say: (v: Values) => String(v.text),
  },
} as const satisfies Record<PartCode, FindingWording>;

/** What is measured between a body and its wardrobe. */
const wardrobe = {
  'piece-missing': {
    severity: 'warning',
    title: 'a piece without a drawing where the body has one',
    say: (v: Values) => String(v.text),
  },
  'piece-drift': {
    severity: 'warning',
    title: "a piece whose pivot is not the body's",
    say: (v: Values) => String(v.text),
  },
  'piece-parts': {
    severity: 'warning',
    title: 'a piece whose parts are not what it is as a whole',
    say: (v: Values) => String(v.text),
  },
  'palette-unseen': {
    severity: 'warning',
    title: 'a palette with colours that no drawing has',
    say: (v: Values) => String(v.text),
  },
  'colour-unnamed': {
    severity: 'note',
    title: 'a colour that no palette names',
    say: (v: Values) => String(v.text),
  },
} as const satisfies Record<WardrobeCode, FindingWording>;

const sentences = {
  'signal-unused': {
    severity: 'warning',
    title: 'a signal that nothing reads',
    say: (v) =>
      `the signal "${v.name}" is set by the game, but nothing reads it; use it in a condition, or take it out`,
  },
  'derived-unused': {
    severity: 'warning',
    title: 'a derived signal that nothing reads',
    say: (v) => `"${v.name}" is computed, but nothing reads it; use it, or take it out`,
  },
  'clip-unused': {
    severity: 'note',
    title: 'a clip that nothing shows',
    say: (v) =>
      `no state, gait, bridge or flipbook shows the clip "${v.name}"; show it somewhere, or take it out`,
  },
  'variant-unused': {
    severity: 'warning',
    title: 'a variant of what never shows',
    say: (v) =>
      `"${v.variant}" stands for "${v.name}", but no state shows "${v.name}"; take it out, or show "${v.name}"`,
  },
  'variant-differs': {
    severity: 'warning',
    title: 'a variant without a cue or span that a rule waits for',
    say: (v) =>
      `"${v.variant}" stands for "${v.base}" in "${v.state}", and a rule there waits for the ${v.kind} "${v.what}"; "${v.variant}" does not have it, so the rule never acts while "${v.variant}" shows; give it the ${v.kind}`,
  },
  'direction-stands-in': {
    severity: 'warning',
    title: 'a direction without a drawing',
    say: (v) =>
      `"${v.flipbook}" has no drawing for ${list(v.directions)}, and no mirror image, so the nearest drawing shows; draw it, or name the direction that it mirrors`,
  },
  'frame-short': {
    severity: 'note',
    title: 'a frame too short to be seen',
    say: (v) =>
      `frame ${v.frame} of "${v.clip}" lasts ${v.ms} ms; a display of 60 pictures a second shows one for 16.7 ms and may miss it; give it more time`,
  },
  'rate-below-zero': {
    severity: 'warning',
    title: 'a rate that falls below 0',
    say: (v) =>
      `the rate \`${v.text}\` of "${v.state}" falls below 0${(v.signed as string[]).length > 0 ? ` when ${(v.signed as string[]).join(' or ')} does` : ''}; the clip plays backwards then; write abs(${v.text}), or say "from: -1" at the number that is meant to`,
  },
  'state-unreachable': {
    severity: 'warning',
    title: 'a state that nothing leads to',
    say: (v) =>
      `"${v.state}" has neither "while" nor "when", and no hop or "then" leads to it, so it shows only if the game asks for it; give it a condition, or lead to it by a hop`,
  },
  'state-stuck': {
    severity: 'error',
    title: 'a state with no way out',
    say: (v) =>
      `once "${v.state}" shows, nothing ends it: its clip loops, it has no hop that can be taken, and no state that can outrank it; play its clip once, or give it a hop`,
  },
  'condition-never': {
    severity: 'error',
    title: 'a condition that can never be true',
    say: (v) => `\`${v.text}\` can never be true, because its parts exclude each other; change one of them`,
  },
  'condition-always': {
    severity: 'warning',
    title: 'a condition that is always true',
    say: (v) =>
      `\`${v.text}\` is always true, whatever the values of the signals; change one part of it, or take it out`,
  },
  'state-never': {
    severity: 'error',
    title: 'a state that can never show',
    say: (v) =>
      `whenever "${v.state}" wants in, ${list(v.by)} ${(v.by as string[]).length === 1 ? 'wants' : 'want'} in too and ${(v.by as string[]).length === 1 ? 'ranks' : 'rank'} above it, so it never shows; raise its priority above ${v.rank}, or narrow their conditions`,
  },
  'rest-while-moving': {
    severity: 'warning',
    title: 'something moves, but only the rest shows',
    say: (v) =>
      `with ${(v.situations as { when: string }[]).map(({ when }) => when).join(', or with ')} no state wants in, and "${v.rest}" shows although \`${v.term}\` says that something goes on; give a state a condition that covers it`,
  },
  'threshold-gap': {
    severity: 'warning',
    title: 'a value between two thresholds that nobody covers',
    say: (v) =>
      `just below ${v.value} "${v.below}" shows, just above "${v.above}", but at ${v.name} = ${v.value} exactly neither wants in and "${v.rest}" shows for that moment; write >= or <= in one of them`,
  },
  'threshold-overlap': {
    severity: 'note',
    title: 'a value on a threshold that two states of one rank cover',
    say: (v) =>
      `below ${v.value} "${v.below}" shows, above it "${v.above}", and at ${v.name} = ${v.value} exactly both want in: they rank the same, so "${v.first}" shows, which stands first; write < or > in one of them, or rank them`,
  },
  flicker: {
    severity: 'warning',
    title: 'two states that a trembling number switches back and forth',
    say: (v) =>
      `around ${v.name} = ${v.value} a number that trembles switches between "${v.below}" and "${v.above}" at every tick; use a band: { of: ${v.name}, above: ..., below: ... }, or "atLeast"`,
  },
  'feet-jump': {
    severity: 'note',
    title: 'a walk or run that starts over although the feet go on',
    say: (v) =>
      `"${v.state}" begins at its first frame when it follows ${list(v.from)}, and the feet jump: each tells "${v.cue}" equally often in a pass; write "carry: phase" in "${v.state}", or "carry: none" if that is meant`,
  },
  'one-sided': {
    severity: 'warning',
    title: 'a signed speed that is compared on one side only',
    say: (v) =>
      `\`${v.text}\` is true in one direction only: "${v.name}" turns the character and is negative the other way; compare abs(${v.name})`,
  },
  'hop-never': {
    severity: 'error',
    title: 'a hop that can never be taken',
    say: (v) =>
      `the hop to "${v.to}" can never be taken: its condition and the "while" of "${v.to}" exclude each other; change one of them`,
  },
  'then-never': {
    severity: 'error',
    title: 'a state that can never follow',
    say: (v) => `"then: ${v.to}" can never follow: the "while" of "${v.to}" cannot be true there; change it`,
  },
  'then-endless': {
    severity: 'error',
    title: 'a follow-up of a state that never ends',
    say: (v) =>
      `"then: ${v.to}" can never follow: ${v.scrubbed === true ? `the frame of "${v.state}" follows a number, so it` : `the clip "${v.clip}" loops, so "${v.state}"`} never ends; use "loop: once", or lead on with a hop "at: end"`,
  },
  'follow-up-overtaken': {
    severity: 'error',
    title: 'a follow-up that is overtaken before it shows',
    say: (v) =>
      `"${v.to}" follows "${v.from}", but then ${list(v.by)} always wants in and ranks above it, so it is cut off at once; rank "${v.to}" above ${v.rank}`,
  },
  'hop-cycle': {
    severity: 'error',
    title: 'states that lead to one another without taking time',
    say: (v) =>
      `${(v.states as string[]).join(' -> ')} lead to one another at once when ${v.when}; the game would stop with an error; give one of the hops "at: end"`,
  },
  'yield-needless': {
    severity: 'note',
    title: 'a yield to a state that outranks it anyway',
    say: (v) =>
      `"${v.to}" ranks above "${v.state}" and cuts it off without any yield; take it out of "yields"`,
  },
  'yield-never': {
    severity: 'error',
    title: 'a state that gives way to others which never want in then',
    say: (v) =>
      `"${v.state}" yields to ${(v.to as string[]).length > 0 ? list(v.to) : 'whoever wants in'}, but nothing that it names can want in while "${v.state}" shows; change a condition there`,
  },
  'press-lost': {
    severity: 'note',
    title: 'a press that is lost while something else plays',
    say: (v) =>
      `"${v.pulse}" counts at its instant only, and while ${list(v.by)} plays, "${v.state}" cannot start, so a press is lost; give it "keep", rank "${v.state}" higher, or let that yield to it`,
  },
  'take-undone': {
    severity: 'error',
    title: 'a state that loses its own ground by taking a track',
    say: (v) =>
      `when "${v.state}" takes the track "${v.track}", its condition can no longer be true, so it lets go at once and takes it again; ask for signals, not for what that track shows`,
  },
  'take-forever': {
    severity: 'error',
    title: 'a track that can never let go of another',
    say: (v) =>
      `once "${v.state}" has taken the track "${v.track}", nothing ends it: its condition cannot turn false, nothing ranks above it and it leads nowhere; give it an end, or say in "takes" while which condition it takes the track`,
  },
  'joint-missing': {
    severity: 'warning',
    title: 'a part whose joint a drawing does not have',
    say: (v) =>
      `the part "${v.part}" hangs by "${v.joint}", a point that ${list(v.clips)} ${(v.clips as string[]).length > 1 ? 'do' : 'does'} not have: it will lie pivot on pivot there; add the point`,
  },
  'accept-unused': {
    severity: 'warning',
    title: 'something accepted that was not found',
    say: (v) =>
      `nothing is found that this accepts (${v.finding}${v.at === undefined ? '' : ` at ${v.at as string}`}); take it out`,
  },
  ...drawings,
  ...parts,
  ...wardrobe,
} as const satisfies Record<string, FindingWording>;

/** The stable code of a finding. */
export type FindingCode = keyof typeof sentences;

/** All findings of the check, by code. Codes are stable; sentences may change. */
export const findings: Readonly<Record<FindingCode, FindingWording>> = sentences;
