import type { Controller } from 'dot-hop';
import { useEffect, useState } from 'react';
import { Button } from 'react-aria-components';
import { download, zipOf } from '../../character/files.js';
import { packed } from '../../character/shipping.js';
import type { Shipped } from '../../character/shipping.js';
import { tell, useWorkbench } from '../../character/store.js';
import { Check, NumberBox } from '../../parts/ui.js';

const kilobytes = (bytes: number): string => `${(bytes / 1000).toFixed(1)} kB`;
const listed = (numbers: readonly number[]): string =>
  numbers.length > 12
    ? `${numbers.slice(0, 12).join(', ')} and ${numbers.length - 12} more`
    : numbers.join(', ');

/** What packing does, seen before anything is written. */
export function PackIt({ controller, name }: { readonly controller: Controller; readonly name: string }) {
  const [padding, setPadding] = useState(2);
  const [powerOfTwo, setPowerOfTwo] = useState(false);
  const [compiled, setCompiled] = useState(false);
  const [result, setResult] = useState<Shipped | string | undefined>();
  const drawn = useWorkbench((state) => state.drawn);
  const files = useWorkbench((state) => state.files);
  useEffect(() => {
    let isWanted = true;
    setResult(undefined);
    void packed({ name: `${name}-game`, padding, powerOfTwo, compiled }).then((found) => {
      if (isWanted) setResult(found);
    });
    return () => {
      isWanted = false;
    };
  }, [controller, drawn, name, padding, powerOfTwo, compiled]);
  const before = [...new Set([...controller.sheets.values()].flatMap((sheet) => sheet.images))].map(
    (file) => files.get(file)?.size ?? 0,
  );
  return (
    <>
      <div className="fieldset">
        <NumberBox label="between drawings" unit="px" most={64} value={padding} onChange={setPadding} />
        <Check label="width and height are powers of two" isOn={powerOfTwo} onChange={setPowerOfTwo} />
        <Check label="compiled: plays without a compiler" isOn={compiled} onChange={setCompiled} />
      </div>
      {result === undefined ? (
        <p className="hint" role="status">
          Packing …
        </p>
      ) : typeof result === 'string' ? (
        <p className="weight error" role="alert">
          {result}
        </p>
      ) : (
        <Outcome
          result={result}
          before={before.reduce((sum, one) => sum + one, 0)}
          images={before.length}
          name={name}
        />
      )}
    </>
  );
}

function Outcome({
  result,
  before,
  images,
  name,
}: {
  readonly result: Shipped;
  /** Bytes of the images, and how many they are. */
  readonly before: number;
  readonly images: number;
  readonly name: string;
}) {
  const { files, width, height, pixels, cells, leftOut, isBare } = result;
  const [first] = files;
  const address = usePicture(first?.content);
  const pngs = files.slice(0, -1);
  const after = pngs.reduce((sum, { content }) => sum + content.byteLength, 0);
  const document = files[files.length - 1]!;
  const save = async (): Promise<void> => {
    const blobs = new Map(pngs.map(({ name: file, content }) => [file, new Blob([content])]));
    const text = new TextDecoder().decode(document.content);
    download(`${name}-game.zip`, await zipOf(document.name, text, blobs));
    tell(`${name}-game.zip is saved`);
  };
  return (
    <>
      <table>
        <thead>
          <tr>
            <th scope="col">what</th>
            <th scope="col">before</th>
            <th scope="col">packed</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">images</th>
            <td>{images}</td>
            <td>
              {pngs.length}, the first {width} × {height}
            </td>
          </tr>
          <tr>
            <th scope="row">pixels</th>
            <td>{pixels[0].toLocaleString('en')}</td>
            <td>
              {pixels[1].toLocaleString('en')} <small>{Math.round((pixels[1] / pixels[0]) * 100)}%</small>
            </td>
          </tr>
          <tr>
            <th scope="row">bytes of the images</th>
            <td>{kilobytes(before)}</td>
            <td>
              {kilobytes(after)} <small>{Math.round((after / before) * 100)}%</small>
            </td>
          </tr>
          <tr>
            <th scope="row">cells of the body</th>
            <td>{cells.all}</td>
            <td>
              {cells.used}, as {cells.drawings} drawings
            </td>
          </tr>
          <tr>
            <th scope="row">the document</th>
            <td />
            <td>
              {document.name}, {kilobytes(document.content.byteLength)}
            </td>
          </tr>
        </tbody>
      </table>
      <div className="row">
        <Button className="small lamp" onPress={() => void save()}>
          Save {name}-game.zip
        </Button>
      </div>
      <section aria-label="what is left out">
        <h2>left out</h2>
        <ul>
          {leftOut.clips.length > 0 ? <li>clips that nothing shows: {leftOut.clips.join(', ')}</li> : null}
          {leftOut.cells.map(({ sheet, cells: gone }) => (
            <li key={sheet}>
              cells of {sheet} that no clip shows: {listed(gone)}
            </li>
          ))}
          {isBare ? <li>the wardrobe: a compiled document has none</li> : null}
          {cells.used > cells.drawings ? (
            <li>{cells.used - cells.drawings} drawings that are there twice</li>
          ) : null}
          <li>what is accepted, and the comments: nobody plays them</li>
        </ul>
      </section>
      {address === undefined ? null : (
        <img className="crisp packed" src={address} alt="the packed image" width={width} height={height} />
      )}
    </>
  );
}

/** The address of a picture while it is looked at. */
function usePicture(content: ArrayBuffer | undefined): string | undefined {
  const [address, setAddress] = useState<string | undefined>();
  useEffect(() => {
    if (content === undefined) return undefined;
    const made = URL.createObjectURL(new Blob([content], { type: 'image/png' }));
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [content]);
  return address;
}
