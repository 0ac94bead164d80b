import type { Clip } from '../clip/clip.js';
import type { Compass } from '../compass/compass.js';
import type { DocumentPath, ProblemList } from '../problem/problem.js';
import type { PoseBook } from '../sheet/pose.js';
import { needsPulse } from '../signal/condition.js';
import type { Condition } from '../signal/condition.js';
import type { SignalCompiler } from '../signal/compiler.js';
import type { Hop, State, Yield } from './controller.js';
import type { AtDefinition, ControllerDefinition, HopDefinition, StateDefinition } from './definition.js';
import { buildTimeline } from './timeline.js';
import type { FrameRules, Timeline } from './timeline.js';

/** The most hops, and the most yields, of a state: each takes a bit of a word. */
const mostHops = 30;

interface StatesInput {
  readonly definition: ControllerDefinition;
  /** `undefined` for a clip that has problems of its own. */
  readonly clips: ReadonlyMap<string, Clip | undefined>;
  readonly compass: Compass;
  readonly signals: SignalCompiler;
  readonly problems: ProblemList;
  readonly poses: PoseBook;
}

interface StatesOutput {
  readonly list: State[];
  readonly rest: number;
  readonly conditions: Condition[];
  readonly conditionTexts: string[];
  readonly cueNames: string[];
}

/** The drawing of one direction: a clip, mirrored or not. */
interface Page {
  readonly clip: Clip;
  readonly mirrored: boolean;
}

/** Resolves the names of all states. What cannot be resolved is left out after its problem was added. */
export function compileStates(input: StatesInput): StatesOutput {
  const { definition, problems } = input;
  const states = definition.states ?? statesOfClips(definition);
  const names = Object.keys(states);
  if (names.length === 0) problems.add('state-none', ['states']);
  const compiler = new StatesCompiler(input, names);
  const list = names.map((name, index) => compiler.state(name, index, states[name]!));
  const rest = compiler.stateIndex(definition.rest ?? names[0] ?? '', ['rest']);
  return {
    list,
    rest,
    conditions: compiler.conditions,
    conditionTexts: compiler.conditionTexts,
    cueNames: compiler.cueNames,
  };
}

/** What a document without states can show: each clip as a bare state. */
function statesOfClips({ clips }: ControllerDefinition): Record<string, StateDefinition> {
  return Object.fromEntries(Object.keys(clips).map((name) => [name, { shows: name }]));
}

class StatesCompiler {
  readonly conditions: Condition[] = [];
  readonly conditionTexts: string[] = [];
  readonly cueNames: string[] = [];
  private readonly conditionIndices = new Map<string, number>();

  constructor(
    private readonly input: StatesInput,
    private readonly names: readonly string[],
  ) {
    for (const clip of input.clips.values())
      for (const cue of clip?.cues.flat() ?? []) if (!this.cueNames.includes(cue)) this.cueNames.push(cue);
  }

  stateIndex(name: string, path: DocumentPath): number {
    const index = this.names.indexOf(name);
    if (index < 0 && this.names.length > 0)
      this.input.problems.add('state-unknown', path, { name, known: this.names });
    return index;
  }

  state(name: string, index: number, definition: StateDefinition): State {
    const { problems } = this.input;
    const path = ['states', name];
    const { priority = 0 } = definition;
    if (!Number.isFinite(priority))
      problems.add('priority-number', [...path, 'priority'], { received: priority });
    const kind = definition.when !== undefined ? 'act' : definition.while !== undefined ? 'posture' : 'bare';
    const pages = this.pages(definition.shows, [...path, 'shows']);
    const clips = [...new Set(pages.map(({ clip }) => clip))];
    const endless = clips.find(({ loopFrom }) => loopFrom >= 0);
    if (kind === 'act' && endless !== undefined)
      problems.add('act-endless', [...path, 'shows'], { clip: endless.name });
    if (definition.then !== undefined && kind === 'posture') problems.add('then-posture', [...path, 'then']);
    const hops = definition.hops ?? [];
    if (hops.length > mostHops)
      problems.add('too-many-hops', [...path, 'hops'], { received: hops.length, most: mostHops });
    const yields = definition.yields ?? [];
    if (yields.length > mostHops)
      problems.add('too-many-yields', [...path, 'yields'], { received: yields.length, most: mostHops });
    yields.forEach((one, i) => this.checkSpan(one.during, clips, [...path, 'yields', i, 'during']));
    const when = this.condition(definition.when, [...path, 'when']);
    return {
      index,
      name,
      kind,
      priority,
      while: this.condition(definition.while, [...path, 'while']),
      when,
      startsOnChange: when >= 0 && !needsPulse(this.conditions[when]!),
      then: definition.then === undefined ? -1 : this.stateIndex(definition.then, [...path, 'then']),
      hops: hops.map((hop, i) => this.hop(hop, clips, [...path, 'hops', i])),
      yields: yields.map((one, i): Yield => ({
        to:
          one.to && new Set(one.to.map((to, j) => this.yieldTo(to, index, [...path, 'yields', i, 'to', j]))),
        if: this.condition(one.if, [...path, 'yields', i, 'if']),
      })),
      carry: definition.carry ?? 'none',
      held: definition.facing === 'held',
      final: definition.final ?? false,
      ends: kind === 'act' || (kind === 'bare' && endless === undefined),
      timelines: this.timelines(pages, definition),
    };
  }

  private yieldTo(name: string, from: number, path: DocumentPath): number {
    const to = this.stateIndex(name, path);
    if (to === from) this.input.problems.add('yields-itself', path);
    return to;
  }

  private condition(text: string | undefined, path: DocumentPath): number {
    if (text === undefined) return -1;
    const known = this.conditionIndices.get(text);
    if (known !== undefined) return known;
    const condition = this.input.signals.condition(text, path);
    if (condition === undefined) return -1;
    this.conditionIndices.set(text, this.conditions.length);
    this.conditionTexts.push(text);
    return this.conditions.push(condition) - 1;
  }

  private hop(hop: HopDefinition, clips: readonly Clip[], path: DocumentPath): Hop {
    this.checkSpan(hop.during, clips, [...path, 'during']);
    if (hop.at !== undefined) this.checkInstant(hop.at, clips, [...path, 'at']);
    const at = hop.at ?? 'now';
    return {
      to: this.stateIndex(hop.to, [...path, 'to']),
      if: this.condition(hop.if, [...path, 'if']),
      remembers: hop.during !== undefined && at !== 'now',
      at: at === 'now' || at === 'end' ? at : 'marked',
    };
  }

  private checkSpan(span: string | undefined, clips: readonly Clip[], path: DocumentPath): void {
    const known = [...new Set(clips.flatMap((clip) => [...clip.spans.keys()]))];
    if (span === undefined || clips.length === 0 || known.includes(span)) return;
    this.input.problems.add('span-unknown', path, { name: span, known });
  }

  private checkInstant(at: AtDefinition, clips: readonly Clip[], path: DocumentPath): void {
    if (typeof at !== 'string') {
      this.checkSpan(at.start, clips, [...path, 'start']);
      return;
    }
    const known = ['now', 'end', ...clips.flatMap((clip) => clip.cues.flat())];
    if (clips.length > 0 && !known.includes(at))
      this.input.problems.add('cue-unknown', path, { name: at, known });
  }

  /** What a state shows in each direction; empty after a problem. */
  private pages(shows: string, path: DocumentPath): Page[] {
    const { clips, compass, problems, definition } = this.input;
    const { flipbooks = {} } = definition;
    const flipbook = Object.hasOwn(flipbooks, shows) ? flipbooks[shows]! : undefined;
    if (flipbook === undefined) {
      if (!clips.has(shows))
        problems.add('clip-unknown', path, {
          name: shows,
          known: [...clips.keys(), ...Object.keys(flipbooks)],
        });
      const clip = clips.get(shows);
      return clip === undefined
        ? []
        : compass.names.map((_, i) => ({ clip, mirrored: compass.mirrorOf[i]! >= 0 }));
    }
    const at = ['flipbooks', shows];
    for (const direction of Object.keys(flipbook))
      if (!compass.names.includes(direction))
        problems.add('direction-unknown', [...at, direction], { name: direction, known: compass.names });
    return compass.names.flatMap((direction, i) => {
      const drawn = flipbook[direction];
      const name = drawn ?? flipbook[compass.names[compass.mirrorOf[i]!] ?? ''];
      if (name === undefined) problems.add('flipbook-gap', at, { direction });
      else if (!clips.has(name))
        problems.add('clip-unknown', [...at, direction], { name, known: [...clips.keys()] });
      const clip = name === undefined ? undefined : clips.get(name);
      return clip === undefined ? [] : [{ clip, mirrored: drawn === undefined }];
    });
  }

  private timelines(pages: readonly Page[], definition: StateDefinition): Timeline[] {
    const rules: FrameRules = {
      hops: (definition.hops ?? []).map(({ during, at }) => ({
        during,
        cue: typeof at === 'string' && at !== 'now' && at !== 'end' ? at : undefined,
        start: typeof at === 'object' ? at.start : undefined,
      })),
      yields: (definition.yields ?? []).map(({ during }) => ({ during })),
    };
    const cueIndex = (name: string): number => this.cueNames.indexOf(name);
    return pages.map(({ clip, mirrored }) =>
      buildTimeline(clip, mirrored, rules, cueIndex, this.input.poses),
    );
  }
}
