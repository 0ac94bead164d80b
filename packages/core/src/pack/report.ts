import type { Controller } from '../controller/controller.js';
import { describeController } from '../explain/describe.js';
import { documentStateOf } from '../controller/document-state.js';
import { listText, signalText } from './signal-text.js';

/** A page of the report: what stands over it, the heads of its columns, and its rows. */
export interface ReportTable {
  readonly title: string;
  readonly head: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

/** The sizes of files by their names, in bytes. */
export type FileSizes = ReadonlyMap<string, number>;

/**
 * Everything that a programmer must know to put a character into a game: the signals to set, the cues to listen to, the boxes and points,
 * the states and clips.
 *
 * @param sizes the sizes of the files that belong to it, which get a table of their own
 */
export function reportTables(controller: Controller, sizes: FileSizes = new Map()): ReportTable[] {
  const { signals } = describeController(controller);
  const clips = [...controller.clips.values()];
  const cues = controller.cueNames.map((cue, i) => {
    const variety = controller.cueVarieties[i];
    const told =
      variety === undefined ? '' : listText(variety.names.map((name) => controller.cueNames[name]!));
    return [
      cue,
      listText(clips.filter((clip) => clip.cues.flat().includes(cue)).map(({ name }) => name)),
      told,
    ];
  });
  const cells = clips.flatMap((clip) => clip.frames);
  const marks = (kind: 'boxes' | 'points'): string[][] =>
    [...new Set(cells.flatMap((cell) => Object.keys(cell[kind])))].map((name) => [
      name,
      kind === 'boxes' ? 'box' : 'point',
      listText(
        clips
          .filter((clip) => clip.frames.some((cell) => Object.hasOwn(cell[kind], name)))
          .map(({ name: clip }) => clip),
      ),
    ]);
  const states = controller.order
    .map((index) => controller.states[index]!)
    .filter(({ takenBy }) => takenBy < 0)
    .map((state) => {
      const said = documentStateOf(controller, state)?.definition;
      return [
        state.name,
        controller.tracks[state.track]!.name,
        listText(state.flipbookNames.slice(0, state.gaitCount)),
        said?.when ?? said?.while ?? '',
      ];
    });
  const tables: ReportTable[] = [
    {
      title: 'Signals to set',
      head: ['signal', 'what it is', 'at first'],
      rows: signals.map((signal) => [
        signal.name,
        signalText(signal),
        signal.kind === 'pulse'
          ? ''
          : signal.kind === 'vector'
            ? listText((signal.first as readonly number[]).map(String))
            : String(signal.first),
      ]),
    },
    {
      title: 'Cues to hear',
      head: ['cue', 'in the clips', 'told as one of'],
      rows: cues.filter(([, where]) => where !== ''),
    },
    {
      title: 'Boxes and points',
      head: ['name', 'kind', 'in the clips'],
      rows: [...marks('boxes'), ...marks('points')],
    },
    { title: 'States', head: ['state', 'track', 'shows', 'when'], rows: states },
    {
      title: 'Clips',
      head: ['clip', 'frames', 'lasts', 'stride'],
      rows: clips.map(({ name, frames, ends, loopFrom, stride }) => [
        name,
        String(frames.length),
        `${Math.round(ends[ends.length - 1]! / 1000)} ms, ${loopFrom < 0 ? 'once' : 'for ever'}`,
        stride === undefined ? '' : `${stride} px`,
      ]),
    },
    {
      title: 'Files',
      head: ['file', 'size'],
      rows: [...sizes].map(([file, bytes]) => [file, `${(bytes / 1000).toFixed(1)} kB`]),
    },
  ];
  return tables.filter(({ rows }) => rows.length > 0).map(withoutEmpty);
}

/** A table without the columns in which nothing stands. */
function withoutEmpty({ title, head, rows }: ReportTable): ReportTable {
  const kept = head.map((_, i) => rows.some((row) => row[i] !== ''));
  const cut = (row: readonly string[]): string[] => row.filter((_, i) => kept[i]);
  return { title, head: cut(head), rows: rows.map(cut) };
}

/** What a line of Markdown cannot hold as it is. */
const escaped = (text: string): string =>
  text.replaceAll('\\', '\\\\').replaceAll('|', '\\|').replaceAll('\n', ' ');

/** The report as Markdown. */
export function reportMarkdown(controller: Controller, sizes?: FileSizes): string {
  const { names: directions } = controller.compass;
  const tables = reportTables(controller, sizes).map(
    ({ title, head, rows }) =>
      `## ${title}\n\n${[head, head.map(() => '---'), ...rows].map((row) => `| ${row.map(escaped).join(' | ')} |`).join('\n')}\n`,
  );
  return [`# ${controller.name}\n\nFaces ${listText(directions)}.\n`, ...tables].join('\n');
}

/** A text as HTML writes it. */
const htmlText = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');

/** The report as one page that needs no other file. */
export function reportHtml(controller: Controller, sizes?: FileSizes): string {
  const row = (cells: readonly string[], tag: 'th' | 'td'): string =>
    `<tr>${cells.map((one) => `<${tag}>${htmlText(one)}</${tag}>`).join('')}</tr>`;
  const tables = reportTables(controller, sizes).map(
    ({ title, head, rows }) =>
      `<h2>${htmlText(title)}</h2>\n<table>\n<thead>${row(head, 'th')}</thead>\n<tbody>\n${rows.map((one) => row(one, 'td')).join('\n')}\n</tbody>\n</table>`,
  );
  const name = htmlText(controller.name);
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width">
<title>${name}</title>
<style>
body { max-width: 60rem; margin: 2rem auto; padding: 0 1rem; background: #1c1628; color: #f3e9d8; font: 15px/1.5 system-ui, sans-serif; }
h1, h2 { color: #ffc95c; }
table { width: 100%; border-collapse: collapse; }
th, td { padding: 0.3rem 0.6rem; border-bottom: 1px solid #463c60; text-align: left; vertical-align: top; }
th { color: #b9aecb; font-weight: 500; }
</style>
</head>
<body>
<h1>${name}</h1>
<p>Faces ${htmlText(listText(controller.compass.names))}.</p>
${tables.join('\n')}
</body>
</html>
`;
}
