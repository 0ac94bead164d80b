import type { Controller } from 'dot-hop';
import { reportHtml, reportMarkdown, reportTables } from 'dot-hop/pack';
import { useMemo } from 'react';
import { Button } from 'react-aria-components';
import { download, isBeside } from '../../character/files.js';
import { tell, useWorkbench } from '../../character/store.js';

/** All that a programmer must know of the character, on one page. */
export function Report({ controller, name }: { readonly controller: Controller; readonly name: string }) {
  const { file, files, history } = useWorkbench();
  const sizes = useMemo(
    () =>
      new Map([
        [file, new Blob([history.text]).size],
        // What belongs to the character, and not what it is tried with.
        ...[...files].flatMap(([one, { size }]): [string, number][] => (isBeside(one) ? [] : [[one, size]])),
      ]),
    [file, files, history],
  );
  const tables = useMemo(() => reportTables(controller, sizes), [controller, sizes]);
  const save = (ending: 'html' | 'md', text: string): void => {
    download(
      `${name}.${ending}`,
      new Blob([text], { type: ending === 'html' ? 'text/html' : 'text/markdown' }),
    );
    tell(`${name}.${ending} is saved`);
  };
  return (
    <>
      <div className="row">
        <Button className="small" onPress={() => save('html', reportHtml(controller, sizes))}>
          Save {name}.html
        </Button>
        <Button className="small" onPress={() => save('md', reportMarkdown(controller, sizes))}>
          Save {name}.md
        </Button>
      </div>
      {tables.map(({ title, head, rows }) => (
        <section key={title} aria-label={title}>
          <h2>{title}</h2>
          <table>
            <thead>
              <tr>
                {head.map((one) => (
                  <th key={one} scope="col">
                    {one}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {rows.map((row, i) => (
                <tr key={i}>
                  {row.map((cell, j) => (
                    <td key={j}>{cell}</td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </section>
      ))}
    </>
  );
}
