import { jest } from '@jest/globals';
import { chromium } from 'playwright-core';
import type { Browser, Page } from 'playwright-core';
import { flags } from '../../scripts/chromium.js';

/**
 * Gives a page a slow display, which shows one picture for so many of the browser's: without a graphics card pictures are most of what the tests
 * of pages cost. It runs in the page.
 */
function showSlowly(each: number): void {
  const next = window.requestAnimationFrame.bind(window);
  const cancel = window.cancelAnimationFrame.bind(window);
  /** The requests that are under way, by the number that the page knows. */
  const waiting = new Map<number, number>();
  window.requestAnimationFrame = (draw) => {
    let left = each;
    const wait = (now: number): void => {
      if (--left > 0) waiting.set(id, next(wait));
      else {
        waiting.delete(id);
        draw(now);
      }
    };
    const id = next(wait);
    waiting.set(id, id);
    return id;
  };
  window.cancelAnimationFrame = (id) => {
    cancel(waiting.get(id) ?? id);
    waiting.delete(id);
  };
}

/** A page in a real browser for the tests of one file. Whatever it complains of on its console fails the test. */
export class TestBrowser {
  page!: Page;
  private browser!: Browser;
  private readonly complaints: string[] = [];
  private forgiven: RegExp | undefined;

  /** To be called once in a test file. @param address where the page is served */
  constructor(private readonly address: () => string) {
    // Pages live in real time, and a machine that is shared may stop for a while: what fails is tried once more, and told.
    jest.retryTimes(1, { logErrorsBeforeRetry: true });
    beforeAll(async () => {
      this.browser = await chromium.launch({
        executablePath: process.env.CHROMIUM!,
        args: flags,
        chromiumSandbox: false,
      });
    });
    afterAll(() => this.browser.close());
    beforeEach(async () => {
      this.complaints.length = 0;
      this.forgiven = undefined;
      this.page = await this.browser.newPage({ viewport: { width: 1280, height: 800 } });
      // Less than a test may take, so that what was waited for is told.
      this.page.setDefaultTimeout(Number(process.env.WAIT_MS ?? 120_000));
      await this.page.addInitScript(showSlowly, 3);
      this.page.on('console', (message) => {
        const isNoise = message.text().includes('GPU stall due to ReadPixels');
        if ((message.type() === 'error' || message.type() === 'warning') && !isNoise)
          this.complaints.push(message.text());
      });
      this.page.on('pageerror', (error) => this.complaints.push(error.message));
    });
    afterEach(async () => {
      await this.page.close();
      expect(this.complaints.filter((one) => this.forgiven?.test(one) !== true)).toEqual([]);
    });
  }

  /** What the page may complain of in this test, because the test brings it about. */
  forgive(complaints: RegExp): void {
    this.forgiven = complaints;
  }

  /** Opens the page and waits until something is there. */
  async open(selector: string): Promise<void> {
    await this.page.goto(this.address());
    await this.page.waitForSelector(selector);
  }

  /** What a part of the page says. */
  text(id: string): Promise<string> {
    return this.page.getByTestId(id).innerText();
  }

  /** Waits until a part of the page says something. */
  async says(id: string, words: string): Promise<void> {
    await this.page.waitForFunction(
      ([name, expected]) => document.querySelector(`[data-testid=${name}]`)?.textContent.trim() === expected,
      [id, words] as const,
    );
  }
}
