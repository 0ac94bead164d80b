/** Where the mouse, a finger or a pen is held down on a canvas. */
export class Pointer {
  private readonly stop = new AbortController();
  private readonly held: [number, number] = [0, 0];
  private id: number | undefined;

  /**
   * @param canvas listens for the first finger only; the page does not scroll under it
   * @param width of the picture in its own pixels, in which places are told
   */
  constructor(
    private readonly canvas: HTMLCanvasElement,
    private readonly width: number,
    private readonly height: number,
  ) {
    const { signal } = this.stop;
    canvas.style.touchAction = 'none';
    canvas.addEventListener('pointerdown', (event) => this.press(event), { signal });
    canvas.addEventListener('pointermove', (event) => this.move(event), { signal });
    for (const kind of ['pointerup', 'pointercancel', 'lostpointercapture'] as const)
      canvas.addEventListener(kind, (event) => this.release(event), { signal });
    window.addEventListener('blur', () => (this.id = undefined), { signal });
  }

  /** Where it is held down, in pixels of the picture; `undefined` if it is not held. */
  get at(): readonly [number, number] | undefined {
    return this.id === undefined ? undefined : this.held;
  }

  /** Stops listening. */
  destroy(): void {
    this.stop.abort();
    this.id = undefined;
  }

  private press(event: PointerEvent): void {
    if (this.id !== undefined || event.button !== 0) return;
    this.id = event.pointerId;
    this.canvas.setPointerCapture(event.pointerId);
    this.move(event);
  }

  private move(event: PointerEvent): void {
    if (event.pointerId !== this.id) return;
    const { left, top, width, height } = this.canvas.getBoundingClientRect();
    this.held[0] = ((event.clientX - left) / width) * this.width;
    this.held[1] = ((event.clientY - top) / height) * this.height;
  }

  private release(event: PointerEvent): void {
    if (event.pointerId === this.id) this.id = undefined;
  }
}
