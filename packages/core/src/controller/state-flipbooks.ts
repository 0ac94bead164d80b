import type { DocumentPath } from '../problem/problem.js';
import type { State, Variety } from './state.js';
import type { StateDefinition } from './definition.js';
import { showsOf } from './flipbook-slots.js';
import type { FlipbookSlots } from './flipbook-slots.js';
import type { StateNames } from './state-names.js';
import type { StatesInput } from './state-input.js';
import type { StateFlipbook } from './timelines.js';
import { varietyOf } from './variety.js';

/** Finds what states show: their flipbooks, those that are played in between, and what picks one of several. */
export class StateFlipbooks {
  private varieties = 0;

  constructor(
    private readonly input: StatesInput,
    private readonly names: StateNames,
  ) {}

  /** How one of several flipbooks is picked. */
  variety({ shows }: StateDefinition, path: DocumentPath): Variety | undefined {
    if (shows === undefined || typeof shows === 'string') return undefined;
    return varietyOf(shows, this.varieties++, [...path, 'shows'], this.input.problems);
  }

  /** The flipbooks that show: the gaits from the slowest, those to pick from, or the only one. */
  shown({ shows, gaits, inStep }: StateDefinition, path: DocumentPath): StateFlipbook[] {
    if (inStep !== undefined && shows === undefined) return [this.following()];
    if ((shows === undefined) === (gaits === undefined)) this.input.problems.add('shows-one', path);
    const at =
      shows === undefined ? ['gaits', 'shows'] : typeof shows === 'string' ? ['shows'] : ['shows', 'any'];
    return showsOf({ shows, gaits }).map((name, i) => ({
      name,
      drawings: this.input.flipbooks.drawingsOf(name, [
        ...path,
        ...at,
        ...(typeof shows === 'string' ? [] : [i]),
      ]),
      bridge: false,
    }));
  }

  /** What a state has for drawings that shows its part of what another track shows: it is asked for none of them. */
  private following(): StateFlipbook {
    const { clips, compass } = this.input;
    const some = [...clips.values()].find((clip) => clip !== undefined);
    if (some === undefined) return { name: '', drawings: [], bridge: false };
    const [cell] = some.cells;
    const clip = { ...some, name: '', frames: [cell!], order: [0], cells: [cell!], ends: [1e6] };
    const still = { ...clip, cues: [[]], spans: new Map<never, never>(), loopFrom: 0, stride: undefined };
    const page = { clip: still, mirrored: false, standsIn: false };
    return { name: '', drawings: compass.names.map((_, i) => ({ ...page, drawnFor: i })), bridge: false };
  }

  /** A flipbook that variants put in place of another: that it is there was looked at before. */
  variantFlipbook(name: string, bridge: boolean): StateFlipbook {
    const { flipbooks } = this.input;
    return { name, drawings: flipbooks.has(name) ? flipbooks.drawingsOf(name, []) : [], bridge };
  }

  /** What is played first, by the state and the gait that are left: the slots of its flipbooks. */
  bridges(
    track: number,
    { bridges = {} }: StateDefinition,
    flipbookSlots: FlipbookSlots,
    path: DocumentPath,
  ): (number | undefined)[][] {
    const from: (number | undefined)[][] = [];
    const { placed, problems } = this.input;
    for (const [name, bridge] of this.names.fromWidest(bridges)) {
      const at = [...path, 'bridges', name];
      const indices = this.names.all(track, name, at, true);
      const known = new Set(
        indices.flatMap((index) => {
          const left = showsOf(placed.states[index]!.definition);
          return left.length > 1 ? left : [];
        }),
      );
      const slots = new Map<string, number>();
      if (typeof bridge === 'string') slots.set('', this.between(bridge, flipbookSlots, at));
      else
        for (const [gait, shows] of Object.entries(bridge)) {
          slots.set(gait, this.between(shows, flipbookSlots, [...at, gait]));
          if (!known.has(gait))
            problems.add('gait-unknown', [...at, gait], { name: gait, known: [...known] });
        }
      for (const index of indices) {
        const left = showsOf(placed.states[index]!.definition);
        from[index] = (left.length === 0 ? [''] : left).map((gait) => slots.get('') ?? slots.get(gait));
      }
    }
    return from;
  }

  /** Adds a flipbook that is played in between. @returns its slot */
  private between(shows: string, flipbookSlots: FlipbookSlots, at: DocumentPath): number {
    const drawings = this.input.flipbooks.drawingsOf(shows, at);
    const flipbooks = flipbookSlots.add([{ name: shows, drawings, bridge: true }], (name) =>
      this.variantFlipbook(name, true),
    );
    const endless = flipbooks.flatMap((flipbook) => flipbook.drawings).find(({ clip }) => clip.loopFrom >= 0);
    if (endless !== undefined) this.input.problems.add('bridge-endless', at, { clip: endless.clip.name });
    return flipbookSlots.slots.length - 1;
  }

  /** What shows first after a turn; undefined for nothing. */
  turns(
    { turns }: StateDefinition,
    kind: State['kind'],
    flipbookSlots: FlipbookSlots,
    path: DocumentPath,
  ): State['turns'] {
    if (turns === undefined) return undefined;
    const { shows, least = 90 } = turns;
    const { problems, compass } = this.input;
    if (kind === 'act') problems.add('turns-act', path);
    if (compass.names.length < 2) problems.add('facing-none', path);
    if (!(least >= 0 && least <= 180)) problems.add('turns-least', [...path, 'least'], { received: least });
    return { slot: this.between(shows, flipbookSlots, [...path, 'shows']), least };
  }
}
