import { readFileSync } from 'node:fs';
import { TestBrowser } from '../../../examples/common/browser.js';

/** A file that is no file on the disk. */
export interface FilePayload {
  readonly name: string;
  readonly mimeType: string;
  readonly buffer: Buffer;
}

/** A text or the bytes of a picture as a file. */
export const fileOf = (name: string, content: string | Buffer): FilePayload => ({
  name,
  mimeType: name.endsWith('.png') ? 'image/png' : 'text/plain',
  buffer: Buffer.from(content),
});

/** The workbench in a browser, used as a person uses it. To be called once in a test file. */
export class WorkbenchPage extends TestBrowser {
  constructor(address: () => string = () => process.env.WORKBENCH_ADDRESS!) {
    super(address);
  }

  /** Opens the page and waits until Wick is on it. */
  begin(): Promise<void> {
    return this.open('[data-testid=sheet]');
  }

  /** Picks an entry of the menu at the top. */
  async menu(entry: RegExp | string): Promise<void> {
    await this.page.getByRole('button', { name: 'Character', exact: true }).click();
    await this.page.getByRole('menuitem', { name: entry }).click();
  }

  /** Begins with nothing. */
  async beginNew(): Promise<void> {
    await this.begin();
    await this.menu('New, with nothing');
    await this.page.getByText('Bring the drawings').waitFor();
  }

  /** Brings files in, or a folder. */
  async bring(files: string | readonly string[] | readonly FilePayload[]): Promise<void> {
    const chooser = this.page.waitForEvent('filechooser');
    await this.menu(typeof files === 'string' ? 'Open a folder …' : 'Open files …');
    await (
      await chooser
    ).setFiles(typeof files === 'string' ? files : ([...files] as string[] | FilePayload[]));
  }

  /** The document's text, as it is saved. */
  async document(): Promise<string> {
    const download = this.page.waitForEvent('download');
    await this.menu('Save the document alone');
    return readFileSync(await (await download).path(), 'utf8');
  }

  /** Waits until the line at the foot of the page says something. */
  async told(words: string | RegExp): Promise<void> {
    await this.page.getByTestId('notice').filter({ hasText: words }).waitFor();
  }

  /** Waits until what was done is kept. */
  async kept(): Promise<void> {
    await this.page
      .getByTestId('saved')
      .filter({ hasText: /^saved$/ })
      .waitFor();
  }

  async room(name: 'Cut' | 'Time' | 'Turn' | 'Signals' | 'Rank' | 'Try' | 'Check' | 'Ship'): Promise<void> {
    await this.page.getByRole('navigation').getByRole('button', { name }).click();
    await this.page.getByTestId(`room-${name.toLowerCase()}`).waitFor();
  }

  async clip(name: string): Promise<void> {
    await this.page.getByRole('row', { name, exact: true }).click();
    await this.page.getByRole('listbox', { name: `frames of ${name}`, exact: true }).waitFor();
  }

  /** A frame of the strip, counted from 1. */
  frame(number: number) {
    return this.page.getByRole('option', { name: new RegExp(`^frame ${number},`) });
  }

  /** Writes a number into a field. */
  async put(label: string, value: string): Promise<void> {
    const field = this.page.getByRole('textbox', { name: label, exact: true });
    await field.fill(value);
    await field.press('Enter');
  }

  /** Picks one of a choice. */
  async choose(label: string, option: string | RegExp): Promise<void> {
    await this.page.getByRole('button', { name: new RegExp(`${label}$`) }).click();
    await this.page.getByRole('option', { name: option, exact: true }).click();
  }

  /** A new signal of a kind, under a name. */
  async newSignal(kind: string, name: string): Promise<void> {
    await this.page.getByRole('button', { name: 'new signal' }).click();
    await this.page.getByRole('menuitem', { name: new RegExp(`^${kind} `) }).click();
    await this.put('name', name);
    await this.page.getByRole('row', { name, exact: true }).waitFor();
  }

  /** A new state that shows a clip, under a name. */
  async newState(clip: string, name: string): Promise<void> {
    await this.page.getByRole('button', { name: 'new state' }).click();
    await this.choose('which one', clip);
    await this.put('name', name);
    await this.page.getByRole('row', { name, exact: true }).waitFor();
  }

  /** Puts a term behind the others of a condition. */
  async addTerm(condition: string, term: string): Promise<void> {
    await this.page.getByRole('button', { name: `add a term to ${condition}` }).click();
    await this.page.getByRole('menuitem', { name: term, exact: true }).click();
  }

  /** Waits until the character that is tried shows a state; of several tracks they are told together. */
  async shows(state: string | RegExp): Promise<void> {
    await this.page
      .locator('[data-overlay] [data-shows]')
      .filter({ hasText: typeof state === 'string' ? new RegExp(`^${state}$`) : state })
      .waitFor();
  }
}
