import type { DocumentPath } from 'dot-hop';
import { imagesOf } from 'dot-hop/document';
import { useMemo } from 'react';
import { follow, useWorkbench } from '../character/store.js';

/** The images that the document names and that are not among the files, each with its place. */
export function useMissingImages(): readonly (readonly [file: string, path: DocumentPath])[] {
  const sheets = useWorkbench((state) => state.definition.sheets);
  const drawn = useWorkbench((state) => state.drawn);
  return useMemo(() => [...imagesOf(sheets)].filter(([file]) => !drawn.has(file)), [sheets, drawn]);
}

/** Says which images are missing; each leads to its sheet. */
export function MissingImages() {
  const missing = useMissingImages();
  if (missing.length === 0) return null;
  return (
    <ul className="found-files" aria-label="images that are missing">
      {missing.map(([file, path]) => (
        <li key={file}>
          <button type="button" className="small" onClick={() => follow(path)}>
            {file} is not among the files. Drop it on this page.
          </button>
        </li>
      ))}
    </ul>
  );
}
