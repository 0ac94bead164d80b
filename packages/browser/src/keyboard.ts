/** Which keys are down, by physical key (`KeyboardEvent.code`), and which were pressed since last asked. */
export class Keyboard {
  private readonly down = new Set<string>();
  private presses: string[] = [];
  private readonly stop = new AbortController();

  /**
   * @param target what is listened to; usually `window`
   * @param codes the keys that are meant: their default action (scrolling) is prevented, others are left alone
   */
  constructor(
    target: EventTarget,
    private readonly codes: ReadonlySet<string>,
  ) {
    const { signal } = this.stop;
    target.addEventListener('keydown', (event) => this.keyDown(event as KeyboardEvent), { signal });
    target.addEventListener('keyup', (event) => this.down.delete((event as KeyboardEvent).code), { signal });
    // A key that is let go while another window has the focus is never reported: all are taken as let go.
    target.addEventListener('blur', () => this.down.clear(), { signal });
  }

  /** Whether any of these keys is down. */
  isDown(...codes: string[]): boolean {
    return codes.some((code) => this.down.has(code));
  }

  /** The keys pressed since the last call, in order; a key held down counts once. */
  takePresses(): string[] {
    const taken = this.presses;
    this.presses = [];
    return taken;
  }

  /** Stops listening. */
  destroy(): void {
    this.stop.abort();
    this.down.clear();
  }

  private keyDown(event: KeyboardEvent): void {
    if (!this.codes.has(event.code) || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    if (event.repeat) return;
    this.down.add(event.code);
    this.presses.push(event.code);
  }
}
