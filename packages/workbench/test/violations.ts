import type axe from 'axe-core';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Page } from 'playwright-core';

const script = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

/** What axe finds wrong with a page as it is. */
export async function violations(page: Page): Promise<string[]> {
  // Given as a script of the test and not of the page, whose policy would refuse it.
  await page.evaluate(script);
  return page.evaluate(async () => {
    const { run } = (window as unknown as { axe: typeof axe }).axe;
    const { violations: found } = await run();
    return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 120)).join(' | ')}`);
  });
}
