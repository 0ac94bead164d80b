import type { Found } from './files.js';

/** The characters of the harbour town that come with the workbench. */
export const demoNames = ['wick', 'folk', 'hedda', 'tallow'] as const;
export type DemoName = (typeof demoNames)[number];

export const demoTitles: Readonly<Record<DemoName, string>> = {
  wick: 'Wick, the lamplighter',
  folk: 'the townsfolk of the quay',
  hedda: 'Hedda, the fishwife',
  tallow: 'Tallow, her cat',
};

const images = import.meta.glob<string>(['../../../../demo/**/*.png', '!**/faulty.png'], {
  query: '?url',
  import: 'default',
  eager: true,
});
const documents = import.meta.glob<string>('../../../../demo/**/*.dothop.yaml', {
  query: '?raw',
  import: 'default',
});

const rehearsals = import.meta.glob<string>('../../../../demo/**/*.rehearsal.yaml', {
  query: '?raw',
  import: 'default',
});

const places: Readonly<Record<DemoName, { readonly folder: string; readonly file: string }>> = {
  wick: { folder: '../../../../demo/', file: 'wick.dothop.yaml' },
  folk: { folder: '../../../../demo/townsfolk/', file: 'folk.dothop.yaml' },
  hedda: { folder: '../../../../demo/fishwife/', file: 'hedda.dothop.yaml' },
  tallow: { folder: '../../../../demo/fishwife/', file: 'tallow.dothop.yaml' },
};

/** Fetches a character that comes with the workbench. */
export async function demo(name: DemoName): Promise<Found> {
  const { folder, file } = places[name];
  const text = await documents[folder + file]!();
  const files = new Map<string, Blob>();
  const wanted = Object.entries(images).flatMap(([path, address]) => {
    const inside = path.startsWith(folder) ? path.slice(folder.length) : undefined;
    // Only what the document names: the other characters have images of their own.
    return inside !== undefined && text.includes(inside) ? [[inside, address] as const] : [];
  });
  // Its rehearsals lie beside it.
  const beside = Object.entries(rehearsals).flatMap(([path, read]) =>
    path.startsWith(folder) && !path.slice(folder.length).includes('/')
      ? [[path.slice(folder.length), read] as const]
      : [],
  );
  await Promise.all([
    ...wanted.map(async ([inside, address]) => {
      files.set(inside, await (await fetch(address)).blob());
    }),
    ...beside.map(async ([inside, read]) => {
      const rehearsal = await read();
      if (rehearsal.includes(`document: ${file}`)) files.set(inside, new Blob([rehearsal]));
    }),
  ]);
  return { file, text, files };
}
