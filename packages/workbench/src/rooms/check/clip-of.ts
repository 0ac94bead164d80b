import type { Clip, Controller } from 'dot-hop';
import { clipOf } from '../../character/clip.js';
import type { FoundItem } from '../../character/findings.js';

/** A value of a finding that is a name. */
export const nameIn = (value: unknown): string | undefined => (typeof value === 'string' ? value : undefined);

/** The clip that a finding is about: of a row of a sheet the one in its direction. */
export const clipMeant = (
  controller: Controller | undefined,
  { path, values }: FoundItem,
): Clip | undefined =>
  path[0] === 'clips' ? clipOf(controller, nameIn(values.subject) ?? String(path[1])) : undefined;
