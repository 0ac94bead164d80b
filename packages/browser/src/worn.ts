import type { ControllerDefinition, ImageSize } from 'dot-hop';

/**
 * The sizes of the images from which only clothes are cut. A character can do without these images.
 *
 * @param sizes the known sizes by file; if one is missing, the sheet's own `size` is used
 */
export function sizesWorn(
  { sheets, wardrobe }: ControllerDefinition,
  sizes: Readonly<Record<string, ImageSize>> = {},
): Record<string, ImageSize> {
  const worn = new Set(
    Object.values(wardrobe?.layers ?? {}).flatMap(({ pieces }) =>
      Object.values(pieces).flatMap(({ sheet }) =>
        typeof sheet === 'string' ? [sheet] : Object.values(sheet),
      ),
    ),
  );
  const found: Record<string, ImageSize> = {};
  for (const name of worn) {
    const { image, size, parts = {} } = sheets[name] ?? {};
    const files = [
      image,
      ...Object.values(parts).map((part) => (typeof part === 'string' ? part : part.image)),
    ];
    for (const file of files) {
      const known =
        file === undefined ? undefined : (sizes[file] ?? (size && { width: size[0], height: size[1] }));
      if (file !== undefined && known !== undefined) found[file] = known;
    }
  }
  return found;
}
