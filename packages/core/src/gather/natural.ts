const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });

/** Compares file names as people count: `walk2` comes before `walk10`. */
export function naturalOrder(names: readonly string[]): string[] {
  return [...names].sort((a, b) => collator.compare(a, b) || (a < b ? -1 : 1));
}

/** What files of a sequence share: `walk_03.png` and `walk_10.png` are both `walk`. */
export function stemOf(file: string): string {
  const bare = file.replace(/^.*[\\/]/, '').replace(/\.\w+$/, '');
  return bare.replace(/[\s._-]*\(?\d+\)?$/, '').replace(/[^\w-]+/g, '-') || 'frames';
}

/** Makes the name of a sheet or clip from the name of a file or folder: letters, digits, `_` and `-`. */
export const plainName = (name: string): string =>
  name
    .replace(/^.*[\\/]/, '')
    .replace(/\.\w+$/, '')
    .replace(/[^\w-]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'drawings';
