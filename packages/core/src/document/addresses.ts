import { isMap } from '../shape/check.js';

type Data = Readonly<Record<string, unknown>>;

/** The folder that an address lies in, with a slash at its end; empty for that of the document. */
export const folderOf = (address: string): string => address.slice(0, address.lastIndexOf('/') + 1);

/** Whether an address leads to one place wherever it stands: from the root of a disk or a server. */
export const isAbsolute = (address: string): boolean => /^([\\/]|[\w+.-]+:)/.test(address);

/** An address that stands in a document of another folder, as it is from the outermost document. */
export function joined(folder: string, address: string): string {
  if (isAbsolute(address)) return address;
  const steps: string[] = [];
  for (const step of `${folder}${address}`.split('/'))
    if (step === '..' && steps.length > 0 && steps.at(-1) !== '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  return steps.join('/');
}

/**
 * Moves the data of a document to another folder: its images and bases are named from there.
 *
 * @param folder the way from that folder to the document's own, with a slash at its end; empty for the same one
 */
export function namedFrom(folder: string, data: Data): Data {
  if (folder === '') return data;
  const from = (address: unknown): unknown =>
    typeof address === 'string'
      ? joined(folder, address)
      : Array.isArray(address)
        ? address.map(from)
        : address;
  const fromIn = (one: unknown): unknown =>
    isMap(one) && Object.hasOwn(one, 'image') ? { ...one, image: from(one.image) } : from(one);
  const sheetFrom = (sheet: unknown): unknown => {
    if (!isMap(sheet)) return sheet;
    const { images, parts } = sheet;
    return {
      ...(fromIn(sheet) as Data),
      ...(images !== undefined && { images: from(images) }),
      ...(isMap(parts) && { parts: mapped(parts, fromIn) }),
    };
  };
  return {
    ...data,
    ...(data.from !== undefined && { from: from(data.from) }),
    ...(isMap(data.sheets) && { sheets: mapped(data.sheets, sheetFrom) }),
  };
}

const mapped = (data: Data, change: (value: unknown) => unknown): Data =>
  Object.fromEntries(Object.entries(data).map(([name, value]) => [name, change(value)]));
