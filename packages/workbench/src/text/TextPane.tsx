import { autocompletion, completionKeymap } from '@codemirror/autocomplete';
import { defaultKeymap, indentWithTab } from '@codemirror/commands';
import { yaml } from '@codemirror/lang-yaml';
import { HighlightStyle, indentUnit, syntaxHighlighting } from '@codemirror/language';
import { lintGutter, setDiagnostics } from '@codemirror/lint';
import type { Diagnostic } from '@codemirror/lint';
import { Annotation, EditorState } from '@codemirror/state';
import { EditorView, drawSelection, highlightActiveLine, keymap, lineNumbers } from '@codemirror/view';
import { tags } from '@lezer/highlight';
import { useEffect, useRef } from 'react';
import { redo, select, type, undo, useWorkbench } from '../character/store.js';
import { completeAt } from './complete.js';
import { pathAt, rangeOf } from './places.js';

/** Marks what comes from the rooms, so that it is not taken for typing. */
const fromOutside = Annotation.define<boolean>();

const look = HighlightStyle.define([
  { tag: tags.propertyName, color: '#8fc7e0' },
  { tag: tags.definition(tags.propertyName), color: '#8fc7e0' },
  { tag: tags.string, color: '#f0c98a' },
  { tag: tags.content, color: '#f0e6da' },
  { tag: tags.number, color: '#f0c98a' },
  { tag: tags.comment, color: '#9a90b0', fontStyle: 'italic' },
  { tag: tags.punctuation, color: '#a99fbd' },
]);
const theme = EditorView.theme(
  {
    '&': { height: '100%', fontSize: '13px', backgroundColor: '#1a162b' },
    '.cm-gutters': { backgroundColor: '#1a162b', color: '#8f86a6', border: 'none' },
    '.cm-activeLine': { backgroundColor: '#241f3a' },
    '.cm-activeLineGutter': { backgroundColor: '#241f3a' },
    '.cm-cursor': { borderLeftColor: '#ffc95c' },
    '&.cm-focused': { outline: 'none' },
    '.cm-selectionBackground, &.cm-focused .cm-selectionBackground': {
      backgroundColor: '#4a3f6b !important',
    },
    '.cm-tooltip': { backgroundColor: '#2a2542', border: '1px solid #4a4266' },
  },
  { dark: true },
);

/** The document's text: the same history as the rooms, the same problems, and what is selected in one is in the other. */
export function TextPane() {
  const box = useRef<HTMLDivElement>(null);
  const view = useRef<EditorView | undefined>(undefined);
  const text = useWorkbench((state) => state.history.text);
  const troubles = useWorkbench((state) => state.troubles);
  const room = useWorkbench((state) => state.room);
  const { sheet, clip } = useWorkbench((state) => state.selection);
  useEffect(() => {
    const made = new EditorView({
      parent: box.current!,
      state: EditorState.create({
        doc: useWorkbench.getState().history.text,
        extensions: [
          lineNumbers(),
          lintGutter(),
          drawSelection(),
          highlightActiveLine(),
          indentUnit.of('  '),
          yaml(),
          syntaxHighlighting(look),
          theme,
          EditorView.contentAttributes.of({ 'aria-label': 'text of the document' }),
          autocompletion({ override: [completeAt] }),
          keymap.of([
            { key: 'Mod-z', run: () => (undo(), true), preventDefault: true },
            { key: 'Mod-y', run: () => (redo(), true), preventDefault: true },
            { key: 'Mod-Shift-z', run: () => (redo(), true), preventDefault: true },
            ...completionKeymap,
            ...defaultKeymap,
            indentWithTab,
          ]),
          EditorView.updateListener.of((update) => {
            const own = update.transactions.every((one) => one.annotation(fromOutside) !== true);
            if (update.docChanged && own) type(update.state.doc.toString());
            else if (update.selectionSet && own && update.view.hasFocus) choose(update.state);
          }),
        ],
      }),
    });
    // What is longer than the pane is scrolled by keys, too.
    made.scrollDOM.tabIndex = 0;
    view.current = made;
    return () => made.destroy();
  }, []);
  useEffect(() => {
    const now = view.current;
    if (now === undefined || now.state.doc.toString() === text) return;
    now.dispatch({
      changes: { from: 0, to: now.state.doc.length, insert: text },
      selection: { anchor: Math.min(now.state.selection.main.anchor, text.length) },
      annotations: fromOutside.of(true),
    });
  }, [text]);
  useEffect(() => {
    const now = view.current;
    if (now === undefined) return;
    const found = troubles.flatMap((trouble): Diagnostic[] => {
      const { text: message, place, file } = trouble;
      // What is wrong in a document that this one builds on is shown where that one is named.
      const from = /^from\b/m.exec(now.state.doc.toString());
      const line =
        file === undefined || from === null ? trouble.line : now.state.doc.lineAt(from.index).number;
      const column = file === undefined ? trouble.column : 1;
      if (line === undefined || line > now.state.doc.lines) return [];
      const start = Math.min(now.state.doc.line(line).from + (column ?? 1) - 1, now.state.doc.length);
      const end = now.state.doc.line(line).to;
      return [
        {
          from: start,
          to: Math.max(start, end),
          severity: 'error',
          message: [...(file === undefined ? [] : [file]), ...(place === '' ? [] : [place]), message].join(
            ': ',
          ),
        },
      ];
    });
    now.dispatch(setDiagnostics(now.state, found));
  }, [troubles, text]);
  useEffect(() => {
    const now = view.current;
    if (now === undefined || now.hasFocus) return;
    const path = room === 'cut' ? ['sheets', sheet ?? ''] : ['clips', clip ?? ''];
    const range = rangeOf(now.state.doc.toString(), path);
    if (range === undefined) return;
    now.dispatch({
      selection: { anchor: range.from, head: range.to },
      effects: EditorView.scrollIntoView(range.from, { y: 'center' }),
      annotations: fromOutside.of(true),
    });
  }, [room, sheet, clip, text]);
  const line = useWorkbench((state) => state.line);
  useEffect(() => {
    const now = view.current;
    if (now === undefined || line === undefined || line.number > now.state.doc.lines) return;
    const { from, to } = now.state.doc.line(line.number);
    now.dispatch({
      selection: { anchor: from, head: to },
      effects: EditorView.scrollIntoView(from, { y: 'center' }),
      annotations: fromOutside.of(true),
    });
    now.focus();
  }, [line]);
  return <div className="text-box" ref={box} data-testid="text" />;
}

/** What the cursor stands in is selected in the rooms. */
function choose(state: EditorState): void {
  const [part, name] = pathAt(state.doc.toString(), state.selection.main.head);
  if (name === undefined) return;
  const { definition, selection } = useWorkbench.getState();
  if (part === 'sheets' && name in definition.sheets && selection.sheet !== name)
    select({ sheet: name, cells: [] });
  if (part === 'clips' && name in definition.clips && selection.clip !== name)
    select({ clip: name, frames: [] });
}
