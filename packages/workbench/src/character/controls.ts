import type { Binding } from '@dot-hop/browser';
import type { Controller } from 'dot-hop';
import { describeController } from 'dot-hop/explain';
import { buttonNames } from 'dot-hop/rehearsal';
import { useEffect, useState } from 'react';
import type { BodyKind } from '../stage/body.js';
import { putBeside, tell, useWorkbench } from './store.js';

/** What a key, a button of a gamepad or a finger does: it moves the body, presses a pulse, or holds a flag. */
export interface Target {
  readonly name: string;
  readonly kind: 'button' | 'pulse' | 'flag';
}

/** The file in which the controls of a document are kept, beside it. */
export const controlsFileOf = (document: string): string =>
  document.replace(/(?:\.dothop)?\.\w+$/, '').concat('.controls.json');

/** The buttons of each kind of body. */
const buttonsOf: Readonly<Record<BodyKind, readonly string[]>> = {
  platformer: ['left', 'right', 'jump'],
  walker: ['left', 'right', 'up', 'down'],
  none: [],
};

/** What controls can do to a character: the buttons of its body, and the pulses and flags that the body leaves alone. */
export function targetsOf(controller: Controller, kind: BodyKind): Target[] {
  const fed = new Set<string>(kind === 'none' ? [] : [...buttonNames, 'grounded', 'blocked']);
  const { derived = {} } = controller.definition;
  const signals = describeController(controller).signals.filter(
    ({ name }) => !fed.has(name) && !(name in derived),
  );
  const ofKind = (wanted: 'pulse' | 'flag'): Target[] =>
    signals.filter((one) => one.kind === wanted).map(({ name }) => ({ name, kind: wanted }));
  return [
    ...buttonsOf[kind].map((name): Target => ({ name, kind: 'button' })),
    ...ofKind('pulse'),
    ...ofKind('flag'),
  ];
}

/** What moves the body until somebody says otherwise. Numbers of buttons are those of the standard gamepad. */
const usualButtons: Readonly<Record<string, Binding>> = {
  left: { keys: ['ArrowLeft'], buttons: [14] },
  right: { keys: ['ArrowRight'], buttons: [15] },
  up: { keys: ['ArrowUp'], buttons: [12] },
  down: { keys: ['ArrowDown'], buttons: [13] },
  jump: { keys: ['Space'], buttons: [0] },
};
const usualKeys = { pulse: ['J', 'K', 'L', 'U', 'I', 'O'], flag: ['N', 'M', 'V', 'B'] };
const usualPad = { pulse: [2, 1, 3, 4, 5, 6, 7], flag: [10, 11] };

/** What sets what, until somebody says otherwise: letters and buttons in the order of the document. */
function usual(targets: readonly Target[]): Said {
  const found: Record<string, Binding> = {};
  const count = { pulse: 0, flag: 0 };
  for (const { name, kind } of targets) {
    const known = usualButtons[name];
    if (known !== undefined) found[name] = known;
    else if (kind !== 'button') {
      const i = count[kind]++;
      const [key, button] = [usualKeys[kind][i], usualPad[kind][i]];
      found[name] = {
        keys: key === undefined ? [] : [`Key${key}`],
        buttons: button === undefined ? [] : [button],
      };
    }
  }
  return found;
}

/** What somebody has said, as the file has it. */
type Said = Readonly<Record<string, Binding>>;

interface ControlsFile {
  readonly dotHopControls: 1;
  /** The same shape that `Controls` of `@dot-hop/browser` takes, so that a game can be led by it too. */
  readonly controls: Said;
}

const listOf = (value: unknown, type: 'string' | 'number'): boolean =>
  value === undefined || (Array.isArray(value) && value.every((one) => typeof one === type));

function isControls(data: unknown): data is ControlsFile {
  if (typeof data !== 'object' || data === null) return false;
  const { dotHopControls, controls } = data as Partial<Record<keyof ControlsFile, unknown>>;
  if (dotHopControls !== 1 || typeof controls !== 'object' || controls === null) return false;
  return Object.values(controls).every(
    (one: unknown) =>
      typeof one === 'object' &&
      one !== null &&
      listOf((one as Binding).keys, 'string') &&
      listOf((one as Binding).buttons, 'number'),
  );
}

/** Reads what was kept; `undefined` for a file that is none of controls. */
function readControls(text: string): Said | undefined {
  try {
    const data: unknown = JSON.parse(text);
    return isControls(data) ? data.controls : undefined;
  } catch {
    return undefined;
  }
}

/** What sets what while a character is tried, and whether the file beside the document can be read. */
export interface KnownControls {
  readonly said: Said;
  readonly isReadable: boolean;
  readonly file: string;
}

const nothing: Said = {};

/** The controls beside the document. */
export function useControls(): KnownControls {
  const file = useWorkbench((state) => controlsFileOf(state.file));
  const blob = useWorkbench((state) => state.files.get(controlsFileOf(state.file)));
  const [known, setKnown] = useState<{ of: Blob | undefined; said: Said | undefined }>({
    of: undefined,
    said: nothing,
  });
  useEffect(() => {
    let isWanted = true;
    if (blob === undefined) return undefined;
    void blob.text().then((text) => {
      if (isWanted) setKnown({ of: blob, said: readControls(text) });
    });
    return () => {
      isWanted = false;
    };
  }, [blob]);
  const said = blob === undefined ? nothing : known.of === blob ? known.said : nothing;
  return { said: said ?? nothing, isReadable: said !== undefined, file };
}

/** What sets each target: as somebody said, else as usual. A key that somebody has given away is taken from whom it was usual for. */
export function controlsFor(targets: readonly Target[], said: Said): Readonly<Record<string, Binding>> {
  const [keys, buttons] = [new Set<string>(), new Set<number>()];
  for (const one of Object.values(said)) {
    one.keys?.forEach((key) => keys.add(key));
    one.buttons?.forEach((button) => buttons.add(button));
  }
  const ordinary = usual(targets);
  return Object.fromEntries(
    targets.map(({ name }) => [
      name,
      said[name] ?? {
        keys: (ordinary[name]?.keys ?? []).filter((key) => !keys.has(key)),
        buttons: (ordinary[name]?.buttons ?? []).filter((button) => !buttons.has(button)),
      },
    ]),
  );
}

/** Says what sets a target from now on, and takes that from all others; `undefined` makes it as usual. */
export function setControl(
  { said, isReadable, file }: KnownControls,
  targets: readonly Target[],
  name: string,
  binding: Binding | undefined,
): void {
  if (!isReadable) {
    tell(`${file} cannot be read as controls. Mend or delete it first, so that nothing is lost.`, true);
    return;
  }
  const present = controlsFor(targets, said);
  const next: Record<string, Binding> = Object.fromEntries(
    Object.entries(said).filter(([other]) => other !== name),
  );
  if (binding !== undefined) {
    next[name] = binding;
    for (const [other, one] of Object.entries(present)) {
      if (other === name) continue;
      const keys = (one.keys ?? []).filter((key) => binding.keys?.includes(key) !== true);
      const buttons = (one.buttons ?? []).filter((button) => binding.buttons?.includes(button) !== true);
      if (keys.length < (one.keys?.length ?? 0) || buttons.length < (one.buttons?.length ?? 0))
        next[other] = { keys, buttons };
    }
  }
  const isUsual = Object.keys(next).length === 0;
  putBeside(
    binding === undefined ? `${name} has its default keys` : `${name} has the keys ${inWords(binding)}`,
    new Map([[file, isUsual ? undefined : new Blob([written(next)])]]),
  );
}

function written(controls: Said): string {
  const content: ControlsFile = { dotHopControls: 1, controls };
  return `${JSON.stringify(content, undefined, 2)}\n`;
}

/** The text of controls after a signal was renamed; the same where they do not name it, or cannot be read. */
export function renamedControls(text: string, from: string, to: string): string {
  const said = readControls(text);
  if (said === undefined || !(from in said)) return text;
  return written(
    Object.fromEntries(Object.entries(said).map(([name, one]) => [name === from ? to : name, one])),
  );
}

const keyNames: Readonly<Record<string, string>> = {
  ArrowLeft: '←',
  ArrowRight: '→',
  ArrowUp: '↑',
  ArrowDown: '↓',
  Space: 'space',
};

/** A key as it is printed on a keyboard. */
export const keyName = (code: string): string => keyNames[code] ?? code.replace(/^(?:Key|Digit)/, '');

/** What sets a target, in words. */
export const inWords = ({ keys = [], buttons = [] }: Binding): string =>
  [...keys.map(keyName), ...buttons.map((button) => `pad ${button}`)].join(', ') || 'nothing';
