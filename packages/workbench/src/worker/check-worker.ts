import { checkController, findings as titles, whoWins } from 'dot-hop/check';
import type { Severity, Winner } from 'dot-hop/check';
import { measureClips } from 'dot-hop/pixels';
import type { Picture } from 'dot-hop/pixels';
import { compileWorn } from 'dot-hop/wardrobe';
import { DotHopError } from 'dot-hop';
import type { ControllerDefinition, DocumentPath } from 'dot-hop';
import { expose } from 'comlink';

/** Something found in a document that plays all the same. */
export interface FoundItem {
  readonly code: string;
  readonly severity: Severity;
  readonly path: DocumentPath;
  readonly text: string;
  /** What it is about, in a few words. */
  readonly title: string;
  /** What was found, by name: see `dot-hop/check`. */
  readonly values: Readonly<Record<string, unknown>>;
  /** Frames of the clip that are meant. */
  readonly frames: readonly number[];
  readonly cells: readonly number[];
  /** The reason why the document accepts it; `undefined` if it does not. */
  readonly accepted: string | undefined;
}

const pictures = new Map<string, Picture>();

/** Checks and measures, beside the page, so that nothing stops while it does. */
const looking = {
  /** Takes a picture once; it is measured by its name from then on. */
  put(name: string, picture: Picture): void {
    pictures.set(name, picture);
  },

  /** What is found in a document; nothing while it is unsound. */
  look(definition: ControllerDefinition): FoundItem[] {
    try {
      const controller = compileWorn(definition, { images: Object.fromEntries(pictures) });
      const clips = [...controller.clips.values()].filter(({ frames }) =>
        frames.every((cell) => pictures.has(cell.image)),
      );
      const { findings: drawings } = measureClips(clips, (image) => pictures.get(image)!);
      const { findings } = checkController(controller, { drawings });
      return findings.map(({ code, severity, path, values, message, accepted }) => ({
        code,
        severity,
        path,
        text: message,
        title: titles[code].title,
        values,
        frames: (values.frames as readonly number[] | undefined) ?? [],
        cells: (values.cells as readonly number[] | undefined) ?? [],
        accepted,
      }));
    } catch (error) {
      if (error instanceof DotHopError) return [];
      throw error;
    }
  },

  /**
   * Who takes over in which situation, from the highest rank down.
   *
   * @param known what is known of the situation, as a condition; nothing where it is empty
   */
  winners(definition: ControllerDefinition, track: string, known: string): Row[] | undefined {
    try {
      const controller = compileWorn(definition, {
        images: Object.fromEntries(pictures),
        ...(known !== '' && { questions: [known] }),
      });
      const { index = 0 } = controller.tracks.find(({ name }) => name === track) ?? {};
      return whoWins(controller, controller.questions[0], index);
    } catch (error) {
      if (error instanceof DotHopError) return undefined;
      throw error;
    }
  },
};

/** A row of the table of who wins: see `whoWins` of `dot-hop/check`. */
export type Row = Winner;

export type CheckWorker = typeof looking;
expose(looking);
