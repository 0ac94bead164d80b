// Finds a Chrome or Chromium for the pages' tests and pictures, and installs Debian's where it may.
import { spawnSync } from 'node:child_process';
import { accessSync, constants } from 'node:fs';
import path from 'node:path';
import type { Browser, Page } from 'playwright-core';

/** The shell without a window comes first: it takes about two thirds of the processor time for the same pages. */
const names = [
  'chromium-headless-shell',
  'chromium',
  'chromium-browser',
  'google-chrome',
  'google-chrome-stable',
  'chrome',
];

/** Debian's packages with such a program; older ones have the second alone. */
const debianPackages = ['chromium-headless-shell', 'chromium'];

/**
 * The flags with which it draws without a graphics card and asks nothing of any network. Pages are put together by the processor
 * alone; only WebGL has a graphics card emulated for it. Emulated for the whole page, one would take four times as long a picture.
 */
export const flags = [
  '--disable-gpu',
  '--use-angle=swiftshader',
  '--enable-unsafe-swiftshader',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** The program's file, or undefined. The environment variable CHROMIUM names another. */
export function findChromium(): string | undefined {
  const folders = (process.env.PATH ?? '').split(path.delimiter);
  const files = [
    process.env.CHROMIUM,
    ...names.flatMap((name) => folders.map((folder) => path.join(folder, name))),
  ];
  return files.find((file) => {
    if (!file) return false;
    try {
      accessSync(file, constants.X_OK);
      return true;
    } catch {
      return false;
    }
  });
}

/** The program's file; installs Debian's chromium when there is none and this user may. */
export function needChromium(): string {
  const found = findChromium();
  if (found !== undefined) return found;
  const may = process.getuid?.() === 0 && ['/usr/bin/apt-get', '/bin/apt-get'].some(isFile);
  if (may) {
    console.log("No Chrome or Chromium found: installing Debian's (about a minute) ...");
    const run = (...args: string[]): boolean =>
      spawnSync('apt-get', args, { stdio: ['ignore', 'inherit', 'inherit'] }).status === 0;
    run('update', '-q');
    debianPackages.some((name) => run('install', '-y', '-q', '--no-install-recommends', name));
    const installed = findChromium();
    if (installed !== undefined) return installed;
  }
  throw new Error(
    'The pages are tested in a real browser, and no Chrome or Chromium was found.\n' +
      'Install one (on Debian, as root: apt-get install chromium-headless-shell) or set CHROMIUM to its program, then run this again.',
  );
}

/** Opens a page of 1280 x 800 on which functions of these scripts can be run. */
export async function newPage(browser: Browser): Promise<Page> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  // By this name `tsx` has functions keep theirs; a page does not know it.
  const helper = 'globalThis.__name ??= (one) => one';
  await page.addInitScript(helper);
  await page.evaluate(helper);
  return page;
}

function isFile(file: string): boolean {
  try {
    accessSync(file);
    return true;
  } catch {
    return false;
  }
}
