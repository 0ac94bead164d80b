import type { Clip, Controller } from 'dot-hop';

/** The clip of a name; of one that is drawn in rows its first. */
export const clipOf = (controller: Controller | undefined, name: string | undefined): Clip | undefined =>
  name === undefined
    ? undefined
    : (controller?.clips.get(name) ?? [...(controller?.clips.values() ?? [])].find(({ of }) => of === name));
