import { TestBrowser } from '../../common/browser.js';

/** Jetty in a browser. To be called once in a test file. */
export class JettyPage extends TestBrowser {
  constructor() {
    super(() => process.env.JETTY_ADDRESS!);
  }

  /** Opens the page and waits until Wick stands on it. */
  begin(): Promise<void> {
    return this.open('[data-testid=state-stand].showing');
  }

  /** Waits until a state is the lit one; only for states that last. */
  async shows(state: string): Promise<void> {
    await this.page.waitForSelector(`[data-testid=state-${state}].showing`);
  }

  /**
   * Waits until a state has shown, however shortly. A state of some hundred milliseconds can begin and end between two
   * pictures of a slow machine; the trail misses nothing.
   */
  async hasShown(state: string): Promise<void> {
    await this.page.waitForFunction(
      (name) => [...document.querySelectorAll('.trail li')].some((item) => item.textContent === name),
      state,
    );
  }

  /** The states that showed lately, each one whatever the speed of the machine. */
  trail(): Promise<string[]> {
    return this.page.locator('.trail li').allInnerTexts();
  }
}
