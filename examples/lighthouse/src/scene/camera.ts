import { PerspectiveCamera, Vector3 } from 'three';

/** How the camera may stand: radians above the ground, and units from the middle. */
const limits = { low: 0.1, high: 1.1, near: 11, far: 30 };

/** Radians for each pixel that a pointer is dragged. */
const perPixel = 0.008;

/** Radians a second by the keys. */
const keySpeed = 1.3;

/** A camera that goes round the quay, led by mouse, touch, wheel or keys. */
export class OrbitingCamera {
  readonly camera = new PerspectiveCamera(34, 1, 0.1, 180);
  /** Radians; 0 looks north, which is along -z. */
  yaw = 0.6;
  private pitch = 0.4;
  private far = 24;
  private readonly middle = new Vector3(0, 2.9, 0);
  private dragged: { id: number; x: number; y: number } | undefined;

  /** Listens on a canvas. */
  listen(canvas: HTMLCanvasElement): void {
    canvas.style.touchAction = 'none';
    canvas.addEventListener('pointerdown', (event) => {
      if (this.dragged !== undefined) return;
      this.dragged = { id: event.pointerId, x: event.clientX, y: event.clientY };
      canvas.setPointerCapture(event.pointerId);
    });
    canvas.addEventListener('pointermove', (event) => {
      const from = this.dragged;
      if (from?.id !== event.pointerId) return;
      this.orbit((from.x - event.clientX) * perPixel, (event.clientY - from.y) * perPixel);
      this.dragged = { id: from.id, x: event.clientX, y: event.clientY };
    });
    const release = (): void => (this.dragged = undefined);
    canvas.addEventListener('pointerup', release);
    canvas.addEventListener('lostpointercapture', release);
    canvas.addEventListener(
      'wheel',
      (event) => {
        event.preventDefault();
        this.far = Math.max(limits.near, Math.min(limits.far, this.far * Math.exp(event.deltaY * 0.001)));
      },
      { passive: false },
    );
  }

  /** @param across of the keys: -1 to 1 to the right @param up likewise */
  step(ms: number, across: number, up: number): void {
    const seconds = ms / 1000;
    this.orbit(across * keySpeed * seconds, up * keySpeed * 0.6 * seconds);
  }

  resize(width: number, height: number): void {
    this.camera.aspect = width / height;
    this.camera.updateProjectionMatrix();
  }

  private orbit(across: number, up: number): void {
    this.yaw += across;
    this.pitch = Math.max(limits.low, Math.min(limits.high, this.pitch + up));
    const { camera, middle, yaw, pitch, far } = this;
    camera.position.set(
      middle.x + Math.sin(yaw) * Math.cos(pitch) * far,
      middle.y + Math.sin(pitch) * far,
      middle.z + Math.cos(yaw) * Math.cos(pitch) * far,
    );
    camera.lookAt(middle);
  }
}
