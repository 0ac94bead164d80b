import { clips, keeper } from './keeper.js';
import { WorkbenchPage } from './workbench-page.js';

const bench = new WorkbenchPage();

/** What has the focus is called, as a screen reader would say it, near enough. */
const focused = (): Promise<string> =>
  bench.page.evaluate(() => {
    const one = document.activeElement as HTMLInputElement | null;
    if (one === null || one === document.body) return '';
    const by = one.getAttribute('aria-labelledby')?.split(' ') ?? [];
    const named = by.map((id) => document.getElementById(id)?.textContent ?? '').join(' ');
    const labels = [...((one.labels ?? []) as Iterable<HTMLElement>)].map(({ textContent }) => textContent);
    return (one.getAttribute('aria-label') ?? (named.trim() || labels.join(' ') || one.textContent)).trim();
  });

/** Goes on with Tab until something is reached. */
async function reach(name: string | RegExp): Promise<void> {
  const passed: string[] = [];
  for (let i = 0; i < 90; i++) {
    await bench.page.keyboard.press('Tab');
    const now = await focused();
    if (typeof name === 'string' ? now === name : name.test(now)) return;
    passed.push(now);
  }
  throw new Error(`${String(name)} was not reached; passed: ${passed.join(' | ')}`);
}

const press = async (...keys: string[]): Promise<void> => {
  for (const key of keys) await bench.page.keyboard.press(key);
};

/** Opens a list or menu that has the focus, and picks an entry by typing how it begins. */
async function pick(entry: string): Promise<void> {
  const { page } = bench;
  await press('Enter');
  await page.getByRole('option').or(page.getByRole('menuitem')).first().waitFor();
  for (let i = 0; i < 60; i++) {
    const now = (await focused()).replace(/\s+/g, ' ');
    if (now === entry || now.startsWith(`${entry} `)) break;
    await press('ArrowDown');
  }
  await press('Enter');
}

async function write(label: string | RegExp, text: string): Promise<void> {
  await reach(label);
  await press('Control+a');
  await bench.page.keyboard.type(text);
  await press('Enter');
}

test('a character is brought in, timed, made to leap, ranked, tried and undone without a pointer', async () => {
  const { page } = bench;
  await bench.begin();
  // The menu, files, and every room by its number.
  await reach('Character');
  const chooser = page.waitForEvent('filechooser');
  await pick('Open files …');
  await (await chooser).setFiles(keeper(clips));
  await bench.told(/keeper.dothop.yaml is open/);
  await press('Alt+2');
  await page.getByRole('option', { name: /^frame 2,/ }).waitFor();
  await reach(/^frame 1, cell 0/);
  await press('ArrowRight', '+', '+');
  await bench.told('time frame 2 of stand');
  await press('d');
  await bench.told('duplicate frame 2 of stand');
  await press('Control+z', 'Control+z');
  await bench.told(/^undone/);
  await press('Alt+4');
  await page.getByRole('button', { name: 'new signal' }).waitFor();
  await reach('new signal');
  await pick('pulse');
  await write('name', 'jump');
  await page.getByRole('row', { name: 'jump', exact: true }).waitFor();
  await press('Alt+5');
  await page.getByRole('button', { name: 'new state' }).waitFor();
  for (const [clip, name] of [
    ['stand', 'wait'],
    ['crouch', 'hop'],
  ] as const) {
    await reach('new state');
    await press('Enter');
    await reach(/which one$/);
    await pick(clip);
    await write('name', name);
    await page.getByRole('row', { name, exact: true }).waitFor();
  }
  await reach('add a term to starts when');
  await pick('jump');
  await bench.told('“when” of hop');
  // Up and down the ladder.
  await reach('delete this state');
  await press('Tab', 'ArrowUp', 'Alt+ArrowDown');
  await bench.told(/rank hop/);
  await press('Control+z');
  await bench.told(/undone: rank hop/);
  const text = await page.evaluate(() => document.body.textContent);
  expect(text).not.toContain('there is no');
  await press('Alt+6');
  await page.getByTestId('room-try').waitFor();
  await bench.shows('wait');
  await reach(/arrow keys move the character/);
  await press('Space');
  await bench.shows('hop');
  await bench.shows('wait');
  // Ship it: what is packed, by keyboard.
  await press('Alt+8');
  await page.getByTestId('room-ship').waitFor();
  await page.getByText('left out').first().waitFor();
}, 240_000);
