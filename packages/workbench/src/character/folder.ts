import { isBeside } from './files.js';
import type { NamedFiles } from './files.js';

/** Thrown when another program has changed a file since it was read. */
export class ChangedMeanwhile extends Error {}

/** What the command tells of a folder. */
interface Listing {
  readonly document: string;
  readonly files: readonly { readonly name: string; readonly version: string }[];
}

/**
 * The folder that `dot-hop open` serves: read and written through it, and followed. The token in the page's address is sent
 * with every call; without it the command answers nothing.
 */
export class Folder {
  private versions = new Map<string, string>();
  /** What each file held when it was read or written last. */
  private held = new Map<string, Blob>();
  /** The files that the page has had: only of these one that is gone was taken away there. What others add is not the page's to delete. */
  private had: ReadonlySet<string> = new Set();
  private force = false;
  /** What this page is writing: the command may tell of it before it answers. */
  private readonly sent = new Map<string, Blob>();
  /** Which of the folder's characters is open, by its path; `undefined` for the one that the command opened. */
  private character: string | undefined;
  private events: EventSource | undefined;

  private constructor(private readonly token: string) {}

  /** The folder of the command that served this page; `undefined` where no command did. */
  static async here(): Promise<Folder | undefined> {
    const token = new URLSearchParams(location.hash.slice(1)).get('token');
    if (token === null) return undefined;
    const folder = new Folder(token);
    await folder.list();
    return folder;
  }

  private async call(
    path: string,
    { headers = {}, ...options }: Omit<RequestInit, 'headers'> & { headers?: Record<string, string> } = {},
  ): Promise<Response> {
    const answer = await fetch(`api/${path}${this.query('?')}`, {
      ...options,
      headers: { ...headers, authorization: `Bearer ${this.token}` },
    });
    if (answer.status === 412) throw new ChangedMeanwhile(await answer.text());
    if (!answer.ok) throw new Error((await answer.text()) || `the command answers ${answer.status}`);
    return answer;
  }

  private query(first: '?' | '&'): string {
    return this.character === undefined ? '' : `${first}character=${encodeURIComponent(this.character)}`;
  }

  /** The characters of the folder, by the paths of their documents. */
  async characters(): Promise<string[]> {
    return (await (await this.call('characters')).json()) as string[];
  }

  /** The folder with another of its characters. Nothing that was read or written here counts for it. */
  at(character: string): Folder {
    const other = new Folder(this.token);
    other.character = character;
    return other;
  }

  private async list(): Promise<Listing> {
    return (await (await this.call('folder')).json()) as Listing;
  }

  async read(): Promise<{ file: string; text: string; files: Map<string, Blob> }> {
    const { document, files: listed } = await this.list();
    const files = new Map<string, Blob>();
    await Promise.all(
      listed.map(async ({ name, version }) => {
        // What has not changed is here already, and stays the same.
        const held = this.versions.get(name) === version ? this.held.get(name) : undefined;
        files.set(name, held ?? (await (await this.call(`file/${encodeURIComponent(name)}`)).blob()));
      }),
    );
    this.versions = new Map(listed.map(({ name, version }) => [name, version]));
    this.held = new Map(files);
    const text = (await files.get(document)?.text()) ?? '';
    files.delete(document);
    return { file: document, text, files };
  }

  /** Writes the document, and files that are new or changed; rehearsals and controls that are gone go. @throws when the disk refuses, or another program was faster */
  async write(file: string, text: string, files: NamedFiles): Promise<void> {
    for (const [name, blob] of files) if (this.held.get(name) !== blob) await this.put(name, blob);
    for (const name of this.had) if (isBeside(name) && !files.has(name)) await this.takeAway(name);
    await this.put(file, new Blob([text]));
    this.shows(files);
    this.force = false;
  }

  /** Called with the files that the page has now. */
  shows(files: NamedFiles): void {
    this.had = new Set(files.keys());
  }

  /** The next writing is over whatever is there. */
  forceNext(): void {
    this.force = true;
  }

  /** Takes away what was written beside the document and was undone. */
  private async takeAway(name: string): Promise<void> {
    const version = this.versions.get(name) ?? '';
    await this.call(`file/${encodeURIComponent(name)}`, {
      method: 'DELETE',
      headers: this.force ? {} : { 'if-match': version },
    });
    this.versions.delete(name);
    this.held.delete(name);
  }

  /** Follows no longer. */
  leave(): void {
    this.events?.close();
  }

  private async put(name: string, body: Blob): Promise<void> {
    const version = this.versions.get(name);
    this.sent.set(name, body);
    try {
      const answer = await this.call(`file/${encodeURIComponent(name)}`, {
        method: 'PUT',
        body,
        headers: this.force ? {} : { 'if-match': version ?? '' },
      });
      this.versions.set(name, await answer.text());
    } finally {
      this.sent.delete(name);
    }
    this.held.set(name, body);
  }

  /** Tells of changes that others make. */
  follow(told: { readonly changed: () => void; readonly gone: () => void }): void {
    const events = new EventSource(`api/changes?token=${this.token}${this.query('&')}`);
    this.events = events;
    events.addEventListener('changed', (event) => {
      const { name, version } = JSON.parse((event as MessageEvent<string>).data) as {
        name: string;
        version: string;
      };
      if ((this.versions.get(name) ?? '') === version) return;
      void this.isOwn(name).then(
        (isOwn) => {
          if (!isOwn) told.changed();
        },
        // The command has ended, which is told below.
        () => undefined,
      );
    });
    events.addEventListener('error', () => {
      if (events.readyState === EventSource.CLOSED) told.gone();
    });
  }

  /** Whether a file is as this page read it, wrote it, or is writing it. */
  private async isOwn(name: string): Promise<boolean> {
    const { files } = await this.list();
    const now = files.find((one) => one.name === name)?.version ?? '';
    if ((this.versions.get(name) ?? '') === now) return true;
    const sent = this.sent.get(name);
    if (sent === undefined) return false;
    const there = await (await this.call(`file/${encodeURIComponent(name)}`)).blob();
    return (await there.text()) === (await sent.text());
  }
}
